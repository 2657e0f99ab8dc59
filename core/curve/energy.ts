import type { Meter } from '../bench/meter';
import type { RunRecord } from '../ink/fold';
import type { Track } from '../ink/track';
import { intervalAt } from '../method/cadence';
import { averagePower } from '../quantity/electric';
import { bridgeOf, gapsOf, type Span } from '../samples/gaps';
import { finerFrom } from './finer';

export type { Span } from '../samples/gaps';

/** Energy under a track of watts, over the time that values cover. */
export interface Energy {
  /** Into the device. */
  wattHours: number;
  /** Out of it, which a meter tells as power below zero: counted apart. */
  wattHoursOut: number;
  /** Standard uncertainty of what went in: the meter, and what the readings leave open between them. In Wh. */
  uncertainty: number;
  /** Standard uncertainty of the average, in W. */
  averageUncertainty: number;
  /** What went in less what came out ÷ covered time, in W; `undefined` when no time is covered. */
  averageWatts?: number | undefined;
  covered: number;
  whole: number;
  /** It was counted by the meter: no watts were read. */
  isCounted?: true;
  /** Spans without values, left out of the sum: with any, the figure is a least. */
  unseen: readonly Span[];
}

/** How far off a meter can be: a share of what it shows, and so many watts. */
export interface Accuracy {
  share: number;
  watts: number;
}

/** Taken of a meter that says nothing of its accuracy: ± (1 % + 2 digits). */
const UNSTATED = { share: 0.01, digits: 2 };
/** Values looked at to see how finely watts were written. */
const LOOKED_AT = 500;

/**
 * How far off watts can be: by what the meter states of volts and of amps, at worst both the same way; else ± (1 % + 2 digits), its digits being those
 * that were written, of whole watts tenths. What was written in whole watts was rounded besides.
 */
export function accuracyOf(meter: Meter | undefined, watts: Track): Accuracy {
  const [digit, rounded] = [lastDigit(watts), decimalsIn(watts) === 0 ? 0.5 : 0];
  const digits = meter?.accuracyPercent === undefined ? UNSTATED.digits : (meter.accuracyDigits ?? 0);
  return { share: shareOff(meter), watts: digits * digit + rounded };
}

/** The last digit that values were written with, of whole ones a tenth. */
export const lastDigit = (track: Track): number => 10 ** -Math.max(1, decimalsIn(track));

/** The share of what it shows that a meter can be off by. */
export const shareOff = (meter: Meter | undefined): number =>
  meter?.accuracyPercent === undefined ? UNSTATED.share : (2 * meter.accuracyPercent) / 100;

/** Standard uncertainty of a power that a meter showed: its limits are as likely anywhere within (JCGM 100:2008, GUM 4.3.7). In W. */
export const uncertaintyOf = (watts: number, { share, watts: off }: Accuracy): number => (share * Math.abs(watts) + off) / Math.sqrt(3);

/** The most decimals that values were written with, up to two. */
export function decimalsIn({ values }: Pick<Track, 'values'>): number {
  let decimals = 0;
  for (let row = 0; row < Math.min(values.length, LOOKED_AT) && decimals < 2; row += 1) {
    const value = values[row] ?? 0;
    while (decimals < 2 && Math.abs(value * 10 ** decimals - Math.round(value * 10 ** decimals)) > 1e-6) decimals += 1;
  }
  return decimals;
}

/**
 * Spans of a run in which no watts were seen for too long: longer than three times the interval of its plan there; of a meter's stream, and without
 * a plan, three times the longer interval beside.
 */
export function unseenSpans(run: RunRecord): Span[] {
  const { watts } = run.tracks;
  const { cadence } = run.header;
  if (!cadence || cadence.kind === 'sampled' || cadence.kind === 'spot' || run.sampled.has('watts')) return gapsOf(watts);
  const finer = finerFrom(run);
  return gapsOf(watts, (from, to) => bridgeOf(Math.max(intervalAt(cadence, from, finer), intervalAt(cadence, to, finer))));
}

/** Area above zero under the line from one value to the next, over one unit of time. */
function areaAbove(before: number, after: number): number {
  if (before >= 0 && after >= 0) return (before + after) / 2;
  const highest = Math.max(before, after);
  return highest <= 0 ? 0 : (highest * highest) / (2 * Math.abs(after - before));
}

/**
 * Energy by the trapezoid rule over the times at which watts were seen; gaps are left out and named.
 *
 * @param watts    power, in W
 * @param whole    length of the run, in seconds, against which coverage is counted
 * @param unseen   spans from a row to the next that are left out
 * @param accuracy how far off the meter can be
 * @see docs/numbers.md, *Energy*; JCGM 100:2008 (GUM) 4.3.7 for both parts of its uncertainty.
 */
export function energy(
  watts: Track,
  whole: number,
  unseen: readonly Span[] = gapsOf(watts),
  accuracy = accuracyOf(undefined, watts),
): Energy {
  const { seconds, values } = watts;
  let [joules, joulesOut, covered, between, gap] = [0, 0, 0, 0, 0];
  for (let index = 1; index < seconds.length; index += 1) {
    const to = seconds[index] ?? 0;
    if (unseen[gap]?.to === to) {
      gap += 1;
      continue;
    }
    const step = to - (seconds[index - 1] ?? 0);
    const before = values[index - 1] ?? 0;
    const after = values[index] ?? 0;
    if (before >= 0 && after >= 0) joules += (step * (before + after)) / 2;
    else {
      joules += step * areaAbove(before, after);
      joulesOut += step * areaAbove(-before, -after);
    }
    between += step * Math.abs(Math.max(before, 0) - Math.max(after, 0));
    covered += step;
  }
  const [wattHours, wattHoursOut] = [joules / 3600, joulesOut / 3600];
  const averageWatts = averagePower(wattHours - wattHoursOut, covered);
  const off = accuracy.share * wattHours + (accuracy.watts * covered) / 3600;
  const offAverage = accuracy.share * Math.abs(averageWatts ?? 0) + accuracy.watts;
  const spreadAverage = covered > 0 ? between / covered / 2 : 0;
  return {
    wattHours,
    wattHoursOut,
    uncertainty: Math.hypot(off, between / 3600 / 2) / Math.sqrt(3),
    averageWatts,
    averageUncertainty: Math.hypot(offAverage, spreadAverage) / Math.sqrt(3),
    covered,
    whole,
    unseen,
  };
}

/** Energy as the counter of a meter counted it, where no watts were read. @param digit its last digit, in Wh */
export function countedEnergy(wattHours: number, covered: number, whole: number, share: number, digit: number): Energy {
  const uncertainty = Math.hypot(share * wattHours, digit * Math.SQRT2) / Math.sqrt(3);
  return {
    wattHours,
    wattHoursOut: 0,
    uncertainty,
    averageWatts: averagePower(wattHours, covered),
    averageUncertainty: covered > 0 ? (uncertainty * 3600) / covered : 0,
    covered,
    whole,
    isCounted: true,
    unseen: [],
  };
}
