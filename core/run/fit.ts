import { mean } from 'd3-array';
import type { Device } from '../bench/device';
import { holds, highestValue } from '../curve/faults';
import type { RunRecord } from '../ink/fold';
import { sighting } from '../ink/track';
import { feedOf } from '../power/feed';
import { negotiate, type Negotiated } from '../power/negotiate';
import { rangeOf } from '../samples/range';
import { followCharge } from '../simulate/expected';
import { nelderMead } from './nelderMead';

/** What a run tells of its device: its levels and watts, few enough to be gone over many times. */
export interface FitCase {
  /** Its pairing, without what was fitted before. */
  negotiated: Negotiated;
  /** The level it began with, in %. */
  from: number;
  /** Seconds since then, and % or W. */
  levels: [seconds: number, percent: number][];
  watts: [seconds: number, watts: number][];
}

/** How a device differs from what is usual of its kind: factors, 1 where it does not. */
export type Fitted = Omit<NonNullable<Device['fitted']>, 'runs'>;

/** A fit, and how much better the pencil is with it: how far levels lie from what was read, root mean square, in %. */
export interface Fit {
  fitted: Fitted;
  runs: number;
  /** With nothing fitted. */
  before: number;
  /** With this fit, on the runs it was made of. */
  after: number;
  /** Each run by a fit of the others: what a run to come can expect. `undefined` of a single run. */
  heldOut?: number | undefined;
}

const NONE: Fitted = { capacity: 1, limit: 1, taper: 1, ohms: 1 };
/** How far each is usually off, as a share (common practice, no source): it holds back what readings do not tell. */
const USUALLY = [0.15, 0.3, 0.7, 0.6];
/** No factor is further off than this. */
const MOST_FACTOR = 2.5;
const ROWS = 60;
const STEP = 60;
/** Watts are as far off by this share of the highest as levels are by 1 %, and have this part of their weight. */
const WATTS = { share: 0.05, weight: 0.25 };
const HELD_BACK = 0.02;

/**
 * What a run tells of its device; `undefined` of one that something else than charging decided: a swap, an unplugging, a hold, a workload, another
 * unit than the first, or one whose battery is unknown.
 */
export function fitCase(run: RunRecord): FitCase | undefined {
  const { header, tracks, events, unplugged, sources, unwatched } = run;
  const first = sighting(tracks.percent, 0);
  const isDisturbed =
    unplugged.length > 0 || sources.length > 1 || events.some(({ event }) => event === 'work started' || event === 'moved');
  if (!first || isDisturbed || unwatched.length > 1 || holds(run).length > 0 || tracks.percent.values.length < 4) return undefined;
  const device = { ...header.device, fitted: undefined };
  const fed = header.feed && feedOf(header.charger, header.feed);
  const negotiated = negotiate({ device, charger: header.charger, port: header.port, cable: header.cable, fed });
  if (!followCharge(negotiated, first.value, STEP, STEP)) return undefined;
  const rows = (track: typeof tracks.percent) =>
    rangeOf(track, { from: first.seconds, max: ROWS }).flatMap(([seconds, value]): [number, number][] =>
      value === undefined ? [] : [[seconds - first.seconds, value]],
    );
  return { negotiated, from: first.value, levels: rows(tracks.percent), watts: rows(tracks.watts) };
}

const fittedOf = (logs: readonly number[]): Fitted => {
  const [capacity = 1, limit = 1, taper = 1, ohms = 1] = logs.map((each) =>
    Math.exp(Math.min(Math.max(each, -Math.log(MOST_FACTOR)), Math.log(MOST_FACTOR))),
  );
  return { capacity, limit, taper, ohms };
};

/** How far a run lies from its pencil: mean squares of levels in % and of watts as shares of the highest. */
function misfit({ negotiated, from, levels, watts }: FitCase, fitted: Fitted): { level: number; power: number } {
  const device: Device = { ...negotiated.device, fitted: { ...fitted, runs: 1 } };
  const end = Math.max(levels.at(-1)?.[0] ?? 0, watts.at(-1)?.[0] ?? 0);
  const pencil = followCharge({ ...negotiated, device }, from, end + 2 * STEP, STEP);
  if (!pencil) return { level: 1e4, power: 1 };
  const at = (column: Float64Array, seconds: number) => {
    const place = Math.min(seconds / STEP, column.length - 1);
    const row = Math.floor(place);
    const [one, other] = [column[row] ?? 0, column[row + 1] ?? column[row] ?? 0];
    return one + (other - one) * (place - row);
  };
  const off = levels.map(([seconds, percent]) => {
    const expected = at(pencil.percent, seconds);
    // A display that says 100 says no more than that it is full.
    return percent >= 100 ? Math.min(0, expected - 100) : expected - (percent + 0.5);
  });
  const top = highestValue({ seconds: [], values: watts.map(([, value]) => value) });
  const powers = watts.map(([seconds, value]) => (at(pencil.watts, seconds) - value) / (WATTS.share * top || 1));
  return { level: mean(off, (each) => each * each) ?? 0, power: mean(powers, (each) => each * each) ?? 0 };
}

const rms = (cases: readonly FitCase[], fitted: Fitted): number => Math.sqrt(mean(cases, (each) => misfit(each, fitted).level) ?? 0);

function bestOf(cases: readonly FitCase[]): Fitted {
  const cost = (logs: readonly number[]) => {
    const fitted = fittedOf(logs);
    const found = cases.map((each) => misfit(each, fitted));
    const held = logs.reduce((sum, each, index) => sum + (each / (USUALLY[index] ?? 1)) ** 2, 0);
    return (mean(found, ({ level, power }) => level + WATTS.weight * power) ?? 0) + HELD_BACK * held;
  };
  return fittedOf(nelderMead(cost, [0, 0, 0, 0], [0.1, 0.15, 0.25, 0.3], 220));
}

/**
 * Fits battery and controller of a device to its own runs, by least squares of levels and watts; what they do not tell stays as is usual of its kind.
 *
 * @param progress how far it is, as a share
 * @returns `undefined` where no run tells anything
 */
export function fitDevice(cases: readonly FitCase[], progress: (share: number) => void = () => undefined): Fit | undefined {
  if (cases.length === 0) return undefined;
  const steps = 1 + (cases.length > 1 ? cases.length : 0);
  const fitted = bestOf(cases);
  progress(1 / steps);
  const left = cases.map((one, index) => {
    if (cases.length === 1) return 0;
    const found = misfit(one, bestOf(cases.filter((_, other) => other !== index))).level;
    progress((index + 2) / steps);
    return found;
  });
  return {
    fitted,
    runs: cases.length,
    before: rms(cases, NONE),
    after: rms(cases, fitted),
    heldOut: cases.length > 1 ? Math.sqrt(mean(left) ?? 0) : undefined,
  };
}
