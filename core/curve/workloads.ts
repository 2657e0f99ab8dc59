import { sourceSays } from '../ink/entrySays';
import type { Score } from '../ink/entry';
import { sourceAt, type RunRecord } from '../ink/fold';
import { fedBy } from '../ink/sequence';
import { sighting, type Track } from '../ink/track';
import { firstAfter, rowsBetween } from '../samples/column';
import { fixed } from '../quantity/figures';
import { energy } from './energy';
import { levelEnd } from './levelEnd';
import { displayedLevels, type RunLevels } from './milestones';

/** A stretch of work on the device while it was plugged in, and where its power came from. Watts are means over the stretch. */
export interface Workload {
  name: string;
  /** Which part of a workload whose source was swapped, from 1. */
  part?: { place: number; of: number } | undefined;
  source: string;
  from: number;
  to: number;
  /** At the cable. */
  inputWatts?: number | undefined;
  /** Into the battery; below zero it helps out. */
  batteryWatts?: number | undefined;
  /** Input less what goes into the battery: what the device itself used. */
  usedWatts?: number | undefined;
  inputWattHours?: number | undefined;
  /** Level change over the stretch, in %, where its level is known at both ends; at 100 % a level says nothing of what goes in. */
  gain?: number | undefined;
  scores: readonly Score[];
  /** Whether the input is what was consumed: `helped` when the battery made up the rest, `charged` when some of it went into the battery. */
  input: 'consumption' | 'helped' | 'charged' | 'unknown';
  isOver: boolean;
}

/** Battery watts this small are none, in W; displays round levels. */
export const IDLE = 0.5;

/**
 * The workloads of a run, from each start to its end, or to the last thing seen.
 *
 * Input W = into the battery + used by the device (common practice, no source). Where the battery helped, input is not consumption.
 */
export function workloads(run: RunRecord): Workload[] {
  const levels = displayedLevels(run);
  const all: Workload[] = [];
  let begun: { name: string; from: number } | undefined;
  const close = (to: number, isOver: boolean, scores: readonly Score[] = [], name = begun?.name) => {
    if (begun) all.push(...partsOf(run, levels, { ...begun, name: name ?? '', to }, scores, isOver));
    begun = undefined;
  };
  for (const each of run.events) {
    const { seconds, remark } = each;
    if (each.event === 'work started') {
      close(seconds, true);
      begun = { name: remark ?? '', from: seconds };
    } else if (each.event === 'work ended') close(seconds, true, each.scores, remark);
  }
  close(Math.max(run.end, begun?.from ?? 0), Boolean(run.stop));
  return all;
}

/**
 * A workload, in two where its source was swapped meanwhile: what is read on one source says nothing of the other. Scores are of the whole of it, and stand
 * with its last part.
 */
function partsOf(
  run: RunRecord,
  levels: RunLevels,
  { name, from, to }: { name: string; from: number; to: number },
  scores: readonly Score[],
  isOver: boolean,
) {
  const swaps = fedBy(run)
    .map((fed) => fed.from)
    .filter((at) => at > from && at < to);
  const edges = [from, ...swaps, to];
  return edges.slice(1).map((end, index) => {
    const isLast = index === swaps.length;
    const part = workload(run, levels, { name, from: edges[index] ?? from, to: end }, isLast ? scores : [], isOver || !isLast);
    return swaps.length === 0 ? part : { ...part, part: { place: index + 1, of: edges.length - 1 } };
  });
}

function workload(
  run: RunRecord,
  levels: RunLevels,
  { name, from, to }: { name: string; from: number; to: number },
  scores: readonly Score[],
  isOver: boolean,
): Workload {
  const { watts, batteryWatts, wattHours } = run.tracks;
  const [input, battery] = [meanIn(watts, from, to), meanIn(batteryWatts, from, to)];
  const gain = gainOver(levels, from, to);
  const counted = [near(wattHours, from), near(wattHours, to)] as const;
  const inputWattHours =
    counted[0] === undefined || counted[1] === undefined || counted[1] < counted[0] ? undefined : counted[1] - counted[0];
  return {
    name,
    source: sourceSays(sourceAt(run, from)),
    from,
    to,
    inputWatts: input,
    batteryWatts: battery,
    usedWatts: input === undefined || battery === undefined ? undefined : input - battery,
    inputWattHours: inputWattHours ?? energyIn(watts, from, to),
    gain,
    scores,
    input: inputIs(battery, gain),
    isOver,
  };
}

function inputIs(battery: number | undefined, gain: number | undefined): Workload['input'] {
  const into = battery ?? gain;
  if (into === undefined) return 'unknown';
  const idle = battery === undefined ? 0 : IDLE;
  if (into < -idle) return 'helped';
  return into > idle ? 'charged' : 'consumption';
}

/** Mean over time of what was read in a stretch; of one moment, what was read last. */
function meanIn(track: Track, from: number, to: number): number | undefined {
  const part = rowsBetween(track, from, to);
  const length = (part.seconds[part.seconds.length - 1] ?? 0) - (part.seconds[0] ?? 0);
  if (length === 0) return sighting(part, part.seconds.length - 1)?.value;
  let area = 0;
  for (let index = 1; index < part.seconds.length; index += 1)
    area +=
      (((part.values[index - 1] ?? 0) + (part.values[index] ?? 0)) / 2) * ((part.seconds[index] ?? 0) - (part.seconds[index - 1] ?? 0));
  return area / length;
}

function energyIn(watts: Track, from: number, to: number): number | undefined {
  const part = rowsBetween(watts, from, to);
  return part.seconds.length < 2 ? undefined : energy(part, to - from).wattHours;
}

/**
 * What the level did over a stretch. A change is told where it is more than what the two ends leave open, none where both were read alike: on the line
 * between readings that lie far off a level can have done anything.
 */
function gainOver(levels: RunLevels, from: number, to: number): number | undefined {
  const [one, other] = [levelEnd(levels, from, to - from), levelEnd(levels, to, to - from)];
  if (!one || !other || (one.percent >= 100 && other.percent >= 100)) return undefined;
  const gain = other.percent - one.percent;
  const isDistinguishable = Math.abs(gain) > 2 * Math.hypot(one.uncertainty, other.uncertainty);
  return isDistinguishable || (one.isRead && other.isRead) ? gain : undefined;
}

/** A counter as read within a minute of a moment. */
function near(track: Track, at: number): number | undefined {
  const after = firstAfter(track, at);
  const around = [sighting(track, after - 1), sighting(track, after)].filter(
    (each) => each !== undefined && Math.abs(each.seconds - at) <= 60,
  );
  return around.sort((one, other) => Math.abs((one?.seconds ?? 0) - at) - Math.abs((other?.seconds ?? 0) - at))[0]?.value;
}

/** Where the power of a workload comes from and goes to, in words: `rendering: 55.0 W in, 29.0 W of it into the battery, 26.0 W used`. */
export function splitInWords({ name, inputWatts, batteryWatts, usedWatts, input }: Workload): string {
  if (inputWatts === undefined) return `${name}: no watts read yet`;
  const into =
    batteryWatts === undefined
      ? ''
      : `, ${fixed(Math.abs(batteryWatts), 1)} W ${batteryWatts < 0 ? 'more out of' : 'of it into'} the battery`;
  const used = usedWatts === undefined ? '' : `, ${fixed(usedWatts, 1)} W used`;
  return `${name}: ${fixed(inputWatts, 1)} W in${into}${used}${input === 'helped' ? '. The battery helps: what comes in is not what it uses' : ''}`;
}
