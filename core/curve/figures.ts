import { batteryOf } from '../bench/battery';
import type { RunRecord } from '../ink/fold';
import { sighting, sightings, type Sighting, type Track } from '../ink/track';
import { nominal, spell } from '../quantity/duration';
import { decimalsFor, fixed } from '../quantity/figures';
import { listed } from '../quantity/listed';
import { energy, type Span } from './energy';
import { energySamples, projection } from './energySample';
import { milestoneOf } from './faults';
import type { Milestone } from './milestone';
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
    ...LEVELS.map((level) => milestoneFigure(milestoneOf(run, level))),
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

/** A milestone as it is written. */
export interface WrittenMilestone {
  /** The time, no finer than it is known. */
  value?: string;
  /** What it lies between, as a sentence says it, or why there is none. */
  detail: string;
  /** What it lies between, as a table says it. */
  range: string;
}

/** The time and bounds of a milestone in words: `53 min`, `between 48 and 53 min`, `48–53 min`. */
export function writeMilestone(found: Milestone): WrittenMilestone {
  const none = (why: string) => ({ detail: why, range: why });
  switch (found.state) {
    case 'no levels':
      return none('no level was read');
    case 'void':
      return { value: 'void', ...none(found.why) };
    case 'started above':
      return none('already there at the first reading');
    case 'not reached':
      return { value: 'not reached', ...none(`not by ${spell(found.bounds.low)}`) };
    case 'reached': {
      const resolution = widthOf(found.bounds);
      const [low, high] = [spell(found.bounds.low, resolution), spell(found.bounds.high, resolution)];
      const shared = /^\d+ min$/.test(low) && /^\d+ min$/.test(high) ? low.replace(' min', '') : low;
      const between = resolution < 1 ? `at ${high}` : `between ${shared} and ${high}`;
      return {
        value: spell(milestoneTime(found) ?? 0, resolution),
        detail: found.level === 100 ? `first seen; ${between}` : between,
        range: `${shared}–${high}`,
      };
    }
  }
}

function milestoneFigure(found: Milestone): Figure {
  const { level } = found;
  const figure = { id: `level-${level}`, group: 'When it reached', label: level === 100 ? '100 % shown' : `${level} %` } as const;
  const working = 'working' in found ? found.working : undefined;
  const span = found.state === 'reached' ? { from: found.bounds.low, to: found.bounds.high } : undefined;
  const { value, detail } = writeMilestone(found);
  return { ...figure, value, detail, working, span };
}

/** A gain in words, rounded to what its margin supports: `29 %`, `± 1 %`. */
export function writeGain(gain: Gain): { value?: string; detail: string } {
  if (gain.state !== 'known') {
    return {
      detail: gain.state === 'start unknown' ? 'the level at plug-in is not known' : `no reading at or after ${nominal(gain.seconds)}`,
    };
  }
  const decimals = decimalsFor(gain.margin, 1);
  const value = `${fixed(gain.value, decimals)} %`;
  const { low, high } = gain.bounds;
  const between = low === high ? 'seen at that minute' : `between ${plain(low)} and ${plain(high)} %`;
  return { value, detail: `± ${fixed(Math.max(gain.margin, 0.1), 1)} % · ${between}` };
}

function gainFigure(gain: Gain, run: RunRecord): Figure {
  const figure = { id: `gain-${gain.seconds}`, group: 'What it gained', label: `Gained in ${nominal(gain.seconds)}` } as const;
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
  const { wattHours } = run.tracks;
  return [
    peakFigure(run),
    ...energyFigures(run),
    ...counterFigure(wattHours),
    ...sampleFigure(run),
    ...HEAT.flatMap((each) => heatFigure(run.tracks[each.of], each.id, each.label)),
  ];
}

const POWER = 'Power and energy' as const;
const NO_WATTS = 'no watts were read';

function peakFigure({ tracks: { watts }, sampled }: RunRecord): Figure {
  const top = peak(watts, sampled.has('watts'));
  if (!top)
    return { id: 'peak', group: POWER, label: 'Peak', detail: watts.values.length > 0 ? 'less than a minute was sampled' : NO_WATTS };
  const held = top.kind === '60-second mean';
  const formula = held ? 'area under the minute ÷ 60 s' : `the highest of ${watts.values.length} readings of watts`;
  return {
    id: 'peak',
    group: POWER,
    label: `Peak, highest ${top.kind}`,
    value: `${fixed(top.watts, 1)} W`,
    detail: `${held ? 'from' : 'at'} ${spell(top.seconds, 1)}`,
    working: { formula, unit: 'W', uses: top.uses },
    span: { from: top.seconds, to: top.seconds + (held ? 60 : 0) },
  };
}

function energyFigures({ tracks: { watts }, end }: RunRecord): Figure[] {
  const sum = energy(watts, end);
  const [average, total] = [
    { id: 'average', group: POWER, label: 'Average' },
    { id: 'energy', group: POWER, label: 'Energy in' },
  ];
  if (sum.averageWatts === undefined) {
    const detail = watts.values.length === 1 ? 'one reading of watts is not enough' : NO_WATTS;
    return [
      { ...average, detail },
      { ...total, detail },
    ];
  }
  const coverage = end > 0 ? sum.covered / end : 0;
  const detail = coverage < 0.98 ? `covers ${fixed(coverage * 100)} % of the time` : 'covers the whole run';
  const ends = [sighting(watts, 0), sighting(watts, watts.seconds.length - 1)].filter((each) => each !== undefined);
  const unseen = sum.unseen.length > 0 ? `, less ${sum.unseen.length} unseen` : '';
  const formula = `Σ ½ (W₁ + W₂) × (t₂ − t₁) over ${watts.values.length - 1} steps${unseen}`;
  const drained = sum.wattHoursOut > 0;
  const out: Figure = {
    id: 'energy-out',
    group: POWER,
    label: 'Energy out',
    value: `${fixed(sum.wattHoursOut, 1)} Wh`,
    detail: 'watts below zero',
  };
  return [
    {
      ...average,
      value: `${fixed(sum.averageWatts, 1)} W`,
      detail,
      working: {
        formula: drained
          ? `(${plain(sum.wattHours)} Wh in − ${plain(sum.wattHoursOut)} Wh out) ÷ ${spell(sum.covered, 1)}`
          : `${plain(sum.wattHours)} Wh ÷ ${spell(sum.covered, 1)}`,
        unit: 'W',
        uses: ends,
      },
    },
    {
      ...total,
      value: `${fixed(sum.wattHours, 1)} Wh`,
      detail,
      working: { formula: drained ? `${formula}, above zero` : formula, unit: 'W', uses: everyUse(watts) },
    },
    ...(drained ? [{ ...out, working: { formula: `${formula}, below zero`, unit: 'W', uses: everyUse(watts) } }] : []),
  ];
}

/** Readings a sum used, while they are few enough to be worth listing. */
function everyUse(track: Track): Sighting[] {
  if (!track.entries) return [];
  return Array.from(track.seconds, (_, index) => sighting(track, index)).filter((each) => each?.entry !== undefined) as Sighting[];
}

/** What the meter's own watt-hour counter says passed between its first and last reading. */
function counterFigure(counter: Track): Figure[] {
  const [first, last] = [sighting(counter, 0), sighting(counter, counter.seconds.length - 1)];
  if (!first || !last || first.seconds === last.seconds) return [];
  const figure = { id: 'counter', group: POWER, label: 'By the meter’s counter' };
  const uses = sightings(counter).filter(({ value }, index, all) => index > 0 && value < (all[index - 1]?.value ?? 0));
  if (uses.length > 0) {
    // A counter that began anew began at nothing: what it showed then was added, and what ran before it was read is missing.
    const all = sightings(counter);
    const total = all.reduce(
      (sum, { value }, index) =>
        sum + (index === 0 ? 0 : value >= (all[index - 1]?.value ?? 0) ? value - (all[index - 1]?.value ?? 0) : value),
      0,
    );
    const detail = `it began anew at ${listed(uses.map(({ seconds }) => spell(seconds)))}: what ran in between is missing`;
    const working = { formula: 'the sum of its rises, from nothing where it began anew', unit: 'Wh', uses };
    return [{ ...figure, value: `at least ${fixed(total, 1)} Wh`, detail, working, span: { from: first.seconds, to: last.seconds } }];
  }
  const working = { formula: `${plain(last.value)} − ${plain(first.value)}`, unit: 'Wh', uses: [first, last] };
  const detail = `from ${spell(first.seconds)} to ${spell(last.seconds)}`;
  return [
    { ...figure, value: `${fixed(last.value - first.value, 1)} Wh`, detail, working, span: { from: first.seconds, to: last.seconds } },
  ];
}

/** The time to a level that energy samples project, with what that takes for granted. */
function sampleFigure(run: RunRecord): Figure[] {
  const found = projection(run);
  const battery = batteryOf(run.header.device);
  if (!found || battery === undefined) return [];
  const samples = energySamples(run);
  const [first, last] = [samples[0], samples.at(-1)];
  const total = samples.reduce((sum, { wattHours }) => sum + wattHours, 0);
  const margin = found.margin === undefined ? 'one sample' : `± ${spell(found.margin)} over ${samples.length} samples`;
  const start = run.tracks.percent.values[0] ?? 0;
  return [
    {
      id: 'projected',
      group: POWER,
      label: `To ${found.level} % by energy sample`,
      value: `about ${spell(found.seconds)}`,
      detail: `${margin}; steady power, no loss and no taper taken for granted: a least`,
      working: {
        formula: `${plain(battery)} Wh × ${found.level - start} % ÷ (${plain(total)} Wh ÷ ${spell(
          samples.reduce((sum, { from, to }) => sum + to - from, 0),
          1,
        )})`,
        unit: 'Wh',
        uses: sightings(run.tracks.wattHours),
      },
      span: first && last && { from: first.from, to: last.to },
    },
  ];
}

/** Surfaces and the battery are kept apart. */
const HEAT = [
  { of: 'celsius', id: 'hottest', label: 'Hottest' },
  { of: 'frontCelsius', id: 'hottest-front', label: 'Hottest, front' },
  { of: 'backCelsius', id: 'hottest-back', label: 'Hottest, back' },
  { of: 'batteryCelsius', id: 'hottest-battery', label: 'Hottest, battery' },
] as const;

function heatFigure(celsius: Track, id: string, label: string): Figure[] {
  const first = sighting(celsius, 0);
  if (!first) return [];
  let top = first;
  for (let index = 1; index < celsius.seconds.length; index += 1) {
    const next = sighting(celsius, index);
    if (next && next.value > top.value) top = next;
  }
  const rise = top === first ? '' : ` · ${fixed(top.value - first.value, 1)} °C more than at first`;
  const figure = { id, group: POWER, label };
  const working = { formula: `the highest of ${celsius.values.length} readings`, unit: '°C', uses: [top] };
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
