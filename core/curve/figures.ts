import { batteryOf } from '../bench/gear';
import type { RunRecord } from '../ink/fold';
import { sighting, type Sighting, type Track } from '../ink/track';
import { clock, spell } from '../quantity/duration';
import { decimalsFor, fixed } from '../quantity/figures';
import { energy, type Span } from './energy';
import { milestone, type Milestone } from './milestone';
import { peak } from './peak';
import { gainAt, type Gain } from './valueAt';
import { plain, type Working } from './working';

/** Levels whose times are worth quoting, in %. */
export const LEVELS = [50, 80, 100] as const;
/** Nominal times at which gains are quoted, in seconds from plug-in. */
export const GAIN_TIMES = [900, 1800, 3600] as const;

/** One figure of a run in words: what it is, how much, how sure, how it was worked out and where on the strip it lies. */
export interface Figure {
  id: string;
  group: 'When it reached' | 'What it gained' | 'Power and energy';
  label: string;
  /** The figure with its unit; absent when it cannot be given, and then `detail` says why. */
  value?: string | undefined;
  detail: string;
  working?: Working | undefined;
  span?: Span | undefined;
}

/** Every figure of a run, in the order they are read. */
export function figuresOf(run: RunRecord): Figure[] {
  const { percent } = run.tracks;
  return [
    ...LEVELS.map((level) => milestoneFigure(milestone(percent, level))),
    ...GAIN_TIMES.map((seconds) => gainFigure(gainAt(percent, seconds), run)),
    ...powerFigures(run),
  ];
}

/** A milestone's time as it is quoted: 100 % as first seen, others as estimated; `undefined` when there is none. */
export function milestoneTime(found: Milestone): number | undefined {
  if (found.state !== 'reached') return undefined;
  return found.level === 100 ? found.bounds.high : found.estimate;
}

/** Width of the bounds, which is how finely a time read between two checks is known. */
const widthOf = ({ low, high }: { low: number; high: number }) => high - low;

/** The time and bounds of a milestone in words: `53 min`, `between 48 and 53 min`. */
export function writeMilestone(found: Milestone): { value?: string; detail: string } {
  switch (found.state) {
    case 'no levels':
      return { detail: 'no level was read' };
    case 'started above':
      return { detail: 'already there at the first reading' };
    case 'not reached':
      return { value: 'not reached', detail: `not by ${spell(found.bounds.low)}` };
    case 'reached': {
      const resolution = widthOf(found.bounds);
      const [low, high] = [spell(found.bounds.low, resolution), spell(found.bounds.high, resolution)];
      const between = resolution < 1 ? `at ${high}` : `between ${bothIn(low, high)}`;
      const value = spell(milestoneTime(found) ?? 0, resolution);
      return { value, detail: found.level === 100 ? `first seen; ${between}` : between };
    }
  }
}

/** `48 min` and `53 min` share their unit: `48 and 53 min`. */
const bothIn = (low: string, high: string) =>
  /^\d+ min$/.test(low) && /^\d+ min$/.test(high) ? `${low.replace(' min', '')} and ${high}` : `${low} and ${high}`;

function milestoneFigure(found: Milestone): Figure {
  const { level } = found;
  const figure = { id: `level-${level}`, group: 'When it reached', label: level === 100 ? '100 % shown' : `${level} %` } as const;
  const working = 'working' in found ? found.working : undefined;
  const span = found.state === 'reached' ? { from: found.bounds.low, to: found.bounds.high } : undefined;
  return { ...figure, ...writeMilestone(found), working, span };
}

/** A gain in words, rounded to what its margin supports: `29 %`, `± 1 %`. */
export function writeGain(gain: Gain): { value?: string; detail: string } {
  if (gain.state !== 'known') {
    return {
      detail: gain.state === 'start unknown' ? 'the level at plug-in is not known' : `no reading at or after ${spell(gain.seconds)}`,
    };
  }
  const decimals = decimalsFor(gain.margin, 1);
  const value = `${fixed(gain.value, decimals)} %`;
  const { low, high } = gain.bounds;
  const between = low === high ? 'seen at that minute' : `between ${plain(low)} and ${plain(high)} %`;
  return { value, detail: `± ${fixed(Math.max(gain.margin, 0.1), 1)} % · ${between}` };
}

function gainFigure(gain: Gain, run: RunRecord): Figure {
  const figure = { id: `gain-${gain.seconds}`, group: 'What it gained', label: `Gained in ${spell(gain.seconds)}` } as const;
  if (gain.state !== 'known') return { ...figure, ...writeGain(gain) };
  const written = writeGain(gain);
  const battery = batteryOf(run.header.device);
  const stored = battery === undefined ? '' : ` · ${fixed((battery * gain.value) / 100, 1)} Wh of the battery`;
  const [first, last] = [gain.working.uses.at(-2) ?? gain.working.uses[0], gain.working.uses.at(-1)];
  const span = { from: Math.min(first?.seconds ?? gain.seconds, gain.seconds), to: Math.max(last?.seconds ?? gain.seconds, gain.seconds) };
  return {
    ...figure,
    ...written,
    detail: written.detail + stored,
    working: gain.working,
    span: gain.bounds.low === gain.bounds.high ? { from: gain.seconds, to: gain.seconds } : span,
  };
}

function powerFigures(run: RunRecord): Figure[] {
  const { watts, wattHours, celsius } = run.tracks;
  const group = 'Power and energy' as const;
  const figures: Figure[] = [];
  const top = peak(watts, run.sampled.has('watts'));
  const none = 'no watts were read';
  if (top) {
    const held = top.kind === '60-second mean';
    figures.push({
      id: 'peak',
      group,
      label: held ? 'Peak, highest 60-second mean' : 'Peak, highest single reading',
      value: `${fixed(top.watts, 1)} W`,
      detail: `${held ? 'from' : 'at'} ${spell(top.seconds, 1)}`,
      working: {
        formula: held ? 'area under the minute ÷ 60 s' : `the highest of ${watts.values.length} readings of watts`,
        uses: top.uses,
      },
      span: { from: top.seconds, to: top.seconds + (held ? 60 : 0) },
    });
  } else figures.push({ id: 'peak', group, label: 'Peak', detail: watts.values.length > 0 ? 'less than a minute was sampled' : none });

  const sum = energy(watts, run.end);
  const coverage = run.end > 0 ? sum.covered / run.end : 0;
  const covers = coverage < 0.98 ? `covers ${fixed(coverage * 100)} % of the time` : 'covers the whole run';
  const ends = [sighting(watts, 0), sighting(watts, watts.seconds.length - 1)].filter((each) => each !== undefined);
  if (sum.averageWatts === undefined) {
    const why = watts.values.length === 1 ? 'one reading of watts is not enough' : none;
    figures.push({ id: 'average', group, label: 'Average', detail: why }, { id: 'energy', group, label: 'Energy in', detail: why });
  } else {
    const length = `${plain(sum.wattHours)} Wh ÷ ${spell(sum.covered, 1)}`;
    figures.push(
      {
        id: 'average',
        group,
        label: 'Average',
        value: `${fixed(sum.averageWatts, 1)} W`,
        detail: covers,
        working: { formula: length, uses: ends },
      },
      {
        id: 'energy',
        group,
        label: 'Energy in',
        value: `${fixed(sum.wattHours, 1)} Wh`,
        detail: covers,
        working: {
          formula: `${energyFormula(watts)}${sum.unseen.length > 0 ? `, less ${sum.unseen.length} unseen` : ''}`,
          uses: everyUse(watts),
        },
      },
    );
  }
  return [...figures, ...counterFigure(wattHours), ...heatFigure(celsius)];
}

const energyFormula = (watts: Track) => `Σ ½ (W₁ + W₂) × (t₂ − t₁) over ${watts.values.length - 1} steps`;

/** Readings a sum used, while they are few enough to be worth listing. */
function everyUse(track: Track): Sighting[] {
  if (!track.entries) return [];
  return Array.from(track.seconds, (_, index) => sighting(track, index)).filter((each) => each?.entry !== undefined) as Sighting[];
}

/** What the meter's own watt-hour counter says passed between its first and last reading. */
function counterFigure(counter: Track): Figure[] {
  const [first, last] = [sighting(counter, 0), sighting(counter, counter.seconds.length - 1)];
  if (!first || !last || first.seconds === last.seconds) return [];
  const figure = { id: 'counter', group: 'Power and energy', label: 'By the meter’s counter' } as const;
  const fell = Array.from(counter.values).some((value, index) => index > 0 && value < (counter.values[index - 1] ?? 0));
  if (fell) return [{ ...figure, detail: 'the counter fell during the run: it was reset' }];
  const working = { formula: `${plain(last.value)} − ${plain(first.value)}`, uses: [first, last] };
  const detail = `from ${spell(first.seconds)} to ${spell(last.seconds)}`;
  return [
    { ...figure, value: `${fixed(last.value - first.value, 1)} Wh`, detail, working, span: { from: first.seconds, to: last.seconds } },
  ];
}

function heatFigure(celsius: Track): Figure[] {
  const first = sighting(celsius, 0);
  if (!first) return [];
  let top = first;
  for (let index = 1; index < celsius.seconds.length; index += 1) {
    const next = sighting(celsius, index);
    if (next && next.value > top.value) top = next;
  }
  const rise = top === first ? '' : ` · ${fixed(top.value - first.value, 1)} °C above ${clock(first.seconds)}`;
  const figure = { id: 'hottest', group: 'Power and energy', label: 'Hottest' } as const;
  const working = { formula: `the highest of ${celsius.values.length} readings`, uses: [top] };
  return [
    {
      ...figure,
      value: `${fixed(top.value, 1)} °C`,
      detail: `at ${spell(top.seconds)}${rise}`,
      working,
      span: { from: top.seconds, to: top.seconds },
    },
  ];
}
