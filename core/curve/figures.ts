import { batteryOf, chargeOf, hoursOf } from '../bench/battery';
import { FELT, type EventId } from '../ink/events';
import { marksOf } from '../method/cadence';
import { withoutTracks, type RunInk, type RunRecord } from '../ink/fold';
import { beforeSwap, feedsOf } from '../ink/sequence';
import { sighting, sightings, type Sighting, type Track } from '../ink/track';
import { askedNow } from '../quantity/asked';
import { accuracyOf, countedEnergy, energy, unseenSpans, type Accuracy, type Energy } from './energy';
import { sampledOf, type Sampled } from './energySample';
import type { Milestone } from './milestone';
import { bootOf, displayedLevels, lightOut, milestoneOf, powerGone, type Passage } from './milestones';
import { cyclesOf, type Cycle } from './cycles';
import { highestValue } from './faults';
import { heatOf, type Heat } from './heat';
import { levelTime } from './levelTime';
import { AVERAGED, COMPARED, GAIN_TIMES, LEVELS } from './quoted';
import { peak, type Peak } from './peak';
import { averagesTo, chargeIn, idleDraw, timeAbove, type MeanPower } from './power';
import { stagesOf, type Stage } from './stages';
import { voltSteps, type Volts } from './voltSteps';
import { gainAt, type Gain } from './valueAt';

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
  /** Levels and marks that a person asked for beside those. */
  more: { milestones: Milestone[]; gains: Gain[] };
  /** Levels and marks that are quoted of several setups beside each other, those of its own method among them. */
  beside: { milestones: Milestone[]; gains: Gain[] };
  /** When power was gone for good, of a charge whose levels were read too: later than the display says full. */
  trueFull?: Passage | undefined;
  /** What came to pass beside levels: the boot after a dead start, the light out, power gone. */
  passages: Passage[];
  /** The level at plug-in, in %, if it was seen. */
  startLevel?: number | undefined;
  /** What the battery holds, in Wh. */
  battery?: number | undefined;
  /** The charge that the battery holds, in mAh. */
  milliampHours?: number | undefined;
  /** For how many hours a full battery lasts in real use, and where that comes from. */
  hours?: { hours: number; says: string } | undefined;
  peak?: Peak | undefined;
  energy: Energy;
  /** How far off the watts can be. */
  accuracy: Accuracy;
  /** How many values of watts there are. */
  wattsRead: number;
  /** The readings of watts a sum used, while they are few enough to be worth listing, and those at its ends. */
  wattsUsed: { all: Sighting[]; ends: Sighting[] };
  counter?: Counter | undefined;
  /** Mean power by energy samples. */
  sampled?: Sampled | undefined;
  heat: Heat[];
  /** The highest level that was displayed, in %. */
  topLevel?: number | undefined;
  stages: Stage[];
  volts: Volts;
  cycles: Cycle[];
  /** Mean power up to the levels that reviewers quote. */
  averages: (MeanPower & { level: number })[];
  /** For how long power lay above half of its peak: the limit in W, and seconds. */
  aboveHalf?: { limit: number; seconds: number } | undefined;
  /** The same of a power that a person asked for. */
  aboveAsked?: { limit: number; seconds: number } | undefined;
  /** Of a meter's stream, the highest of its samples, which a mean over a minute levels out. */
  topSample?: Sighting | undefined;
  /** What flows once it is full. */
  idle?: MeanPower | undefined;
  /** What came in of charge. */
  charge?: { milliampHours: number; isCounted: boolean } | undefined;
  /** How warm it felt by hand: told, never ranked. */
  felt: { event: EventId; seconds: number }[];
  /** Of a run that several sources fed: each, from when on. What is read of a stretch belongs to the one that fed it then. */
  feeds: { from: number; name: string }[];
  /** Of such a run, the times and gains that came wholly before its first swap: those of its first source. */
  first?: Figures | undefined;
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

/**
 * Every figure of a run.
 *
 * @example figuresOf(run, { levels: [80], marks: [1800] }).milestones[0] // when its display first showed 80 %
 */
export function figuresOf(run: RunRecord, asked: Asked = { levels: LEVELS, marks: GAIN_TIMES }): Figures {
  const { levels, marks } = asked;
  const { percent, watts, wattHours } = run.tracks;
  const known = displayedLevels(run);
  const accuracy = accuracyOf(run.header.meter, watts);
  const start = sighting(percent, 0);
  const counter = counterOf(wattHours);
  const top = peak(watts, run.sampled.has('watts'));
  const own = askedNow();
  const feeds = feedsOf(run);
  const gained = (seconds: number) => gainAt(percent, seconds, known, run.isDead);
  return {
    milestones: levels.map((level) => milestoneOf(known, level)),
    gains: marks.map(gained),
    more: {
      milestones: own.levels.filter((level) => !levels.includes(level)).map((level) => milestoneOf(known, level)),
      gains: own.marks.filter((seconds) => !marks.includes(seconds)).map(gained),
    },
    beside: {
      milestones: COMPARED.levels.map((level) => milestoneOf(known, level)),
      gains: [...new Set([...COMPARED.marks, ...marksOf(run.header.cadence)])].map(gained),
    },
    trueFull: percent.seconds.length > 0 && run.sampled.has('watts') ? powerGone(run) : undefined,
    passages: [bootOf(run), lightOut(run), percent.seconds.length === 0 ? powerGone(run) : undefined].filter((each) => each !== undefined),
    startLevel: start?.seconds === 0 ? start.value : undefined,
    battery: batteryOf(run.header.device),
    milliampHours: chargeOf(run.header.device),
    hours: hoursOf(run.header.device),
    peak: top,
    energy:
      watts.values.length === 0 && counter?.resets.length === 0
        ? counted(counter, run.end, accuracy)
        : energy(watts, run.end, unseenSpans(run), accuracy),
    accuracy,
    wattsRead: watts.values.length,
    wattsUsed: { all: written(watts), ends: endsOf(watts) },
    counter,
    sampled: sampledOf(run),
    heat: heatOf(run),
    topLevel: percent.values.length > 0 ? highestValue(percent) : undefined,
    stages: stagesOf(run, known),
    volts: voltSteps(run),
    cycles: cyclesOf(run),
    averages: averagesTo(run, AVERAGED, accuracy),
    aboveHalf: above(run, (top?.watts ?? 0) / 2),
    aboveAsked: own.watts === undefined ? undefined : above(run, own.watts),
    topSample: run.sampled.has('watts') ? peak(watts, false)?.uses[0] : undefined,
    idle: idleDraw(run, accuracy, levelTime(percent, 100)?.at),
    charge: chargeIn(run),
    felt: run.events.flatMap(({ event, seconds }) => (FELT.includes(event) ? [{ event, seconds }] : [])),
    feeds,
    first: feeds[1] && ofFirst(figuresOf(beforeSwap(run), asked), feeds[1].from),
  };
}

/**
 * What of the figures up to the first swap is told of the first source: times that were seen, and gains. What a whole run comes to, power, energy and heat,
 * a stretch of it does not tell.
 *
 * @param until the first swap, in seconds from plug-in
 * @returns `undefined` where nothing was seen
 */
function ofFirst(figures: Figures, until: number): Figures | undefined {
  const seen = (all: readonly Milestone[]) =>
    all.map((found): Milestone => (found.state === 'reached' ? found : { state: 'no levels', level: found.level }));
  const isKnown = ({ state, seconds }: Gain) => state === 'known' && seconds <= until;
  const known = (all: readonly Gain[]) => all.filter(isKnown);
  const asOf = ({ milestones, gains }: { milestones: readonly Milestone[]; gains: readonly Gain[] }) => ({
    milestones: seen(milestones),
    gains: known(gains),
  });
  const first: Figures = {
    ...figures,
    milestones: seen(figures.milestones),
    gains: figures.gains.map((gain) => (isKnown(gain) ? gain : { state: 'not covered', seconds: gain.seconds })),
    more: asOf(figures.more),
    beside: asOf(figures.beside),
    passages: figures.passages.filter(({ what }) => what === 'boot'),
    trueFull: undefined,
    peak: undefined,
    topSample: undefined,
    energy: { ...figures.energy, covered: 0, averageWatts: undefined },
    counter: undefined,
    sampled: undefined,
    charge: undefined,
    idle: undefined,
    stages: [],
    averages: [],
    heat: [],
    felt: [],
  };
  const all = [...first.milestones, ...first.more.milestones, ...first.beside.milestones];
  const hasGains = [...first.gains, ...first.more.gains, ...first.beside.gains].some(isKnown);
  return hasGains || first.passages.length > 0 || all.some(({ state }) => state === 'reached') ? first : undefined;
}

/** A run, read: its ink and its figures. */
export function readRun(record: RunRecord, asked?: Asked): ReadRun {
  return { run: withoutTracks(record), figures: figuresOf(record, asked) };
}

/** Rows that stand in the ink: each can be gone to. A meter's samples are too many. */
const written = (track: Track): Sighting[] => (track.entries ?? []).flatMap((entry, row) => (entry ? (sighting(track, row) ?? []) : []));

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

/** The last digit of counters, in Wh. */
const COUNTER_DIGIT = 0.01;

const counted = ({ first, last, total }: Counter, end: number, { share }: Accuracy) =>
  countedEnergy(total, last.seconds - first.seconds, end, share, COUNTER_DIGIT);

function above({ tracks: { watts } }: RunRecord, limit: number): Figures['aboveHalf'] {
  const seconds = limit > 0 ? timeAbove(watts, limit) : undefined;
  return seconds === undefined ? undefined : { limit, seconds };
}
