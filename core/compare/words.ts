import { projection } from '../curve/energySample';
import type { Milestone } from '../curve/milestone';
import type { Gain } from '../curve/valueAt';
import type { Passage } from '../curve/milestones';
import { writeMilestone, writePassage } from '../curve/timeWords';
import { writeGain } from '../curve/words';
import { shownMargin } from '../margin/bounds';
import { writeRank, type Pooled } from '../margin/told';
import { spell } from '../quantity/duration';
import { fixed, percentWithMargin, withMargin } from '../quantity/figures';
import type { Compared, Row, Standing } from './compare';
import type { Goal, WithMargin } from './speedUp';

/** A figure of a setup as a table has it. */
export interface WrittenCell {
  /** Absent where there is none. */
  value?: string | undefined;
  /** What it lies between, or the one margin it has. */
  range: string;
  /** `1`, `2=`; absent without one. */
  rank?: string | undefined;
  /** Whether none is surely better. */
  isBest: boolean;
}

const places = <Found>({ rank }: Compared<Found>) => ({ rank: rank && writeRank(rank), isBest: rank?.place === 1 });

/** A time and its margin, no finer than that: `53 min ± 3 min`. */
function timeWithMargin({ value, margin }: WithMargin): { value: string; margin: string } {
  const step = margin < 60 ? 1 : 60;
  return { value: spell(value, margin), margin: spell(Math.ceil(margin / step - 1e-9) * step, margin) };
}

/** The time of a setup to a level: of one run with its bounds, of repeats their mean. */
export function writeTimeTo(cell: Compared<Milestone>): WrittenCell {
  const [only, ...others] = cell.each;
  if (!only) return { range: '', isBest: false };
  if (others.length === 0) {
    const { value, range } = writeMilestone(only);
    return { value, range, ...places(cell) };
  }
  const shown = cell.each.filter(({ state }) => state === 'reached').length;
  if (!cell.mean || cell.mean.isLeast)
    return { value: shown > 0 ? `${shown} of ${cell.each.length}` : writeMilestone(only).value, range: 'of its runs', isBest: false };
  const { value, margin } = timeWithMargin({ value: cell.mean.value, margin: shownMargin(cell.mean.uncertainty) });
  return { value, range: `± ${margin}, mean of ${cell.mean.runs}`, ...places(cell) };
}

/** When something came to pass of a setup; of repeats their mean. */
export function writeWhen(cell: Compared<Passage> | undefined): WrittenCell {
  const [only, ...others] = cell?.each ?? [];
  if (!cell || !only) return { range: '', isBest: false };
  if (others.length === 0 || !cell.mean) return { ...writePassage(only), ...places(cell) };
  const { value, margin } = timeWithMargin({ value: cell.mean.value, margin: shownMargin(cell.mean.uncertainty) });
  return { value, range: `± ${margin}, mean of ${cell.mean.runs}`, ...places(cell) };
}

/** What a setup gained by a mark: of one run with its margin, of repeats their mean; in Wh too where batteries differ. */
export function writeGained(cell: Compared<Gain>, inWattHours: boolean): WrittenCell {
  const [only, ...others] = cell.each;
  if (!only) return { range: '', isBest: false };
  const wattHours = inWattHours && cell.mean ? ` · ${inUnit(cell.mean, 'Wh')}` : '';
  if (others.length === 0) {
    const { value, detail } = writeGain(only);
    return { value, range: `${detail}${wattHours}`, ...places(cell) };
  }
  if (!cell.mean) return { range: writeGain(cell.each.find(({ state }) => state !== 'known') ?? only).detail, isBest: false };
  if (inWattHours) return { value: inUnit(cell.mean, 'Wh'), range: `mean of ${cell.mean.runs}`, ...places(cell) };
  const { value, margin } = percentWithMargin(cell.mean.value, shownMargin(cell.mean.uncertainty));
  return { value: `${value} %`, range: `± ${margin} %, mean of ${cell.mean.runs}`, ...places(cell) };
}

const inUnit = ({ value }: Pooled, unit: string) => `${fixed(value, 1)} ${unit}`;

/** What came to pass where no level is shown, as a comparison goes by it. */
const BY: Readonly<Record<Exclude<Goal, number>, string>> = {
  boot: 'by the boot',
  'light out': 'by the light',
  'power gone': 'by the power',
};

/** What times are taken to, in words: `to 80 %`, `by the light`. */
export const goalSays = (goal: Goal): string => (typeof goal === 'number' ? `to ${goal} %` : BY[goal]);

/** Where a setup was not seen to come. */
const there = (goal: Goal) => (typeof goal === 'number' ? `at ${goal} %` : `done ${BY[goal]}`);

/** How a setup stands to the baseline: what it comes to, and what is to be known of it. */
export function writeStanding({ standing }: Row, baseline: string): { first: string; rest: string[] } {
  switch (standing.state) {
    case 'baseline':
      return { first: 'baseline', rest: [] };
    case 'no time':
      return { first: '—', rest: [`no times ${goalSays(standing.level)} to compare`] };
    case 'tie':
      return { first: 'a tie', rest: [...(standing.saved ? [`differs by ${between(standing.saved)}`] : []), goalSays(standing.level)] };
    case 'only this one':
      return { first: `over ${floored(standing.atLeast)} sooner`, rest: [`${baseline} was not seen ${there(standing.level)}`] };
    case 'only the baseline':
      return { first: `over ${floored(standing.atLeast)} later`, rest: [`not seen ${there(standing.level)}`] };
    case 'told apart':
      return toldApart(standing);
  }
}

function toldApart({ saved, share, rate, level }: Extract<Standing, { state: 'told apart' }>): { first: string; rest: string[] } {
  const { value, margin } = timeWithMargin({ value: Math.abs(saved.value), margin: saved.margin });
  const shares = [
    { name: 'time', of: share },
    { name: 'rate', of: rate },
  ].flatMap(({ name, of }) => (of ? [`${name} ${inShare(of)} ${goalSays(level)}`] : []));
  return { first: `${value} ${saved.value > 0 ? 'saved' : 'lost'}`, rest: [`± ${margin}`, ...shares] };
}

/** `−22 ± 3 %`. */
function inShare(of: WithMargin): string {
  const { value, margin } = withMargin(of.value * 100, of.margin * 100, 0);
  return `${of.value > 0 && value !== '0' ? '+' : ''}${value} ± ${margin} %`;
}

/** `−2 ± 6 min`, whichever way. */
function between(of: WithMargin): string {
  const { value, margin } = timeWithMargin({ ...of, value: Math.abs(of.value) });
  return `${value} ± ${margin}`;
}

/** "At least" rounds down. */
const floored = (seconds: number) => spell(Math.floor(seconds / 60) * 60);

/** Mean power of a setup by energy samples, and the time to a level that it projects. */
export function writeSampled({ sampled }: Row, level: number): WrittenCell & { projected?: string | undefined } {
  const [first] = sampled?.each ?? [];
  if (!sampled?.mean || !first) return { range: '', isBest: false };
  const { value, margin } = withMargin(sampled.mean.value, shownMargin(sampled.mean.uncertainty), 2);
  const found = projection({ ...first, watts: sampled.mean.value, uncertainty: sampled.mean.uncertainty }, level);
  const of = sampled.mean.runs > 1 ? `, mean of ${sampled.mean.runs}` : '';
  const projected = found && `about ${spell(found.seconds, shownMargin(found.uncertainty))} to ${level} %`;
  return { value: `${value} W`, range: `± ${margin} W${of}`, projected, ...places(sampled) };
}

/** The peak of a setup, how it was taken, and its margin. */
export function writePeak({ peak }: Row): { value: string; range: string } | undefined {
  if (!peak) return undefined;
  const { value, margin } = withMargin(peak.watts, shownMargin(peak.uncertainty), 1);
  return { value: `${value} W`, range: `± ${margin} W · ${peak.kind}` };
}
