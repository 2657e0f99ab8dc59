import { batteryOf } from '../bench/battery';
import type { RunInk, RunRecord } from '../ink/fold';
import { sighting, sightings, type Sighting, type Track } from '../ink/track';
import { TEMPERATURES, type Quantity } from '../quantity/quantity';
import { accuracyOf, energy, unseenSpans, type Accuracy, type Energy } from './energy';
import { energySamples, projection, type EnergySample, type Projection } from './energySample';
import type { Milestone } from './milestone';
import { bootOf, levelsOf, lightOut, milestoneOf, powerGone, type Passage } from './milestones';
import { peak, type Peak } from './peak';
import { gainAt, type Gain } from './valueAt';

/** Levels whose times are worth quoting, in %. */
export const LEVELS = [50, 80, 100] as const;
/** Nominal times at which gains are quoted, in seconds from plug-in. */
export const GAIN_TIMES = [900, 1800, 3600] as const;

/** What of a run is asked for. */
export interface Asked {
  /** In %. */
  levels: readonly number[];
  /** Nominal times, in seconds from plug-in. */
  marks: readonly number[];
}

/** All that is worked out of one run, as values with their margins and workings. `words.ts` says them. */
export interface Figures {
  /** In the order of the levels asked for. */
  milestones: Milestone[];
  /** In the order of the marks asked for. */
  gains: Gain[];
  /** What came to pass beside levels: the boot after a dead start, the light out, power gone. */
  passages: Passage[];
  /** The level at plug-in, in %, if it was seen. */
  startLevel?: number | undefined;
  /** What the battery holds, in Wh. */
  battery?: number | undefined;
  peak?: Peak | undefined;
  energy: Energy;
  /** How far off the watts can be. */
  accuracy: Accuracy;
  /** How many values of watts there are. */
  wattsRead: number;
  /** The readings of watts a sum used, while they are few enough to be worth listing, and those at its ends. */
  wattsUsed: { all: Sighting[]; ends: Sighting[] };
  counter?: Counter | undefined;
  projected?: Projected | undefined;
  heat: Heat[];
}

/** A run and its figures: values, without the columns they were worked out from. */
export interface ReadRun {
  run: RunInk;
  figures: Figures;
}

/** What a meter's own watt-hour counter counted. */
export interface Counter {
  first: Sighting;
  last: Sighting;
  /** In Wh; a least where the counter began anew. */
  total: number;
  /** Where it began anew. */
  resets: Sighting[];
}

/** The time to a level that energy samples project, and what it was worked out from. */
export interface Projected extends Projection {
  /** What the battery holds, in Wh. */
  battery: number;
  /** The first level, in %. */
  start: number;
  samples: EnergySample[];
  uses: Sighting[];
}

/** How hot one surface, or the battery, became. */
export interface Heat {
  /** A temperature. */
  of: Quantity;
  first: Sighting;
  top: Sighting;
  /** How many times it was read. */
  read: number;
}

/**
 * Every figure of a run.
 *
 * @example figuresOf(run, { levels: [80], marks: [1800] }).milestones[0] // when its display first showed 80 %
 */
export function figuresOf(run: RunRecord, { levels, marks }: Asked = { levels: LEVELS, marks: GAIN_TIMES }): Figures {
  const { percent, watts, wattHours } = run.tracks;
  const known = levelsOf(run);
  const accuracy = accuracyOf(run.header.meter, watts);
  const start = sighting(percent, 0);
  return {
    milestones: levels.map((level) => milestoneOf(known, level)),
    gains: marks.map((seconds) => gainAt(percent, seconds, known, run.isDead)),
    passages: [bootOf(run), lightOut(run), percent.seconds.length === 0 ? powerGone(run) : undefined].filter((each) => each !== undefined),
    startLevel: start?.seconds === 0 ? start.value : undefined,
    battery: batteryOf(run.header.device),
    peak: peak(watts, run.sampled.has('watts')),
    energy: energy(watts, run.end, unseenSpans(run), accuracy),
    accuracy,
    wattsRead: watts.values.length,
    wattsUsed: { all: written(watts), ends: endsOf(watts) },
    counter: counterOf(wattHours),
    projected: projectedOf(run),
    heat: TEMPERATURES.flatMap((of) => heatOf(run.tracks[of], of)),
  };
}

/** A run, read: its ink and its figures. */
export function readRun(record: RunRecord, asked?: Asked): ReadRun {
  const run: RunInk & Partial<RunRecord> = { ...record };
  delete run.tracks;
  return { run, figures: figuresOf(record, asked) };
}

/** Rows that stand in the ink: each can be gone to. A meter's samples are too many. */
const written = (track: Track): Sighting[] => (track.entries ? sightings(track).filter(({ entry }) => entry !== undefined) : []);

const endsOf = (track: Track): Sighting[] =>
  [sighting(track, 0), sighting(track, track.seconds.length - 1)].filter((each) => each !== undefined);

/** A counter that began anew began at nothing: what it showed then counts, and what ran before it was read is missing. */
function counterOf(track: Track): Counter | undefined {
  const [first, last] = endsOf(track);
  if (!first || !last || first.seconds === last.seconds) return undefined;
  const all = sightings(track);
  const before = (index: number) => all[index - 1]?.value ?? 0;
  const resets = all.filter(({ value }, index) => index > 0 && value < before(index));
  if (resets.length === 0) return { first, last, total: last.value - first.value, resets };
  const total = all.slice(1).reduce((sum, { value }, index) => sum + (value >= before(index + 1) ? value - before(index + 1) : value), 0);
  return { first, last, total, resets };
}

function projectedOf(run: RunRecord): Projected | undefined {
  const found = projection(run);
  const battery = batteryOf(run.header.device);
  if (!found || battery === undefined) return undefined;
  const start = run.tracks.percent.values[0] ?? 0;
  return { ...found, battery, start, samples: energySamples(run), uses: sightings(run.tracks.wattHours) };
}

function heatOf(track: Track, of: Heat['of']): Heat[] {
  const first = sighting(track, 0);
  if (!first) return [];
  let top = 0;
  for (let row = 1; row < track.values.length; row += 1) if ((track.values[row] ?? 0) > (track.values[top] ?? 0)) top = row;
  return [{ of, first, top: top === 0 ? first : (sighting(track, top) ?? first), read: track.values.length }];
}
