import type { Stretch } from './calendar';
import { MINUTE, type Job, type Problem } from './jobs';

/** No plan can end sooner than `at`, epoch seconds; and which resource says so. */
export interface Bound {
  at: number;
  resource: string;
  /** How many attended stretches are used at least. */
  windows: number;
}

/** The person, among the resources. */
export const PERSON = 'person';

/**
 * The soonest at which the jobs can possibly be done, proven by packing each resource alone.
 *
 * A resource’s spans lie one after another, each in one attended stretch (getting gear ready before the first of them may reach out of it). So no
 * stretch holds more than the best filling that some of the spans come to (subset sums), and no more spans of at least d than d goes into it, for
 * every d. What the first k stretches cannot hold ends in a later one. What may go on overnight is only counted by its time.
 *
 * @returns `undefined` where the stretches cannot hold it all
 */
export function lowerBound(problem: Problem): Bound | undefined {
  const bounds = [...spansByResource(problem.jobs)].map(([resource, spans]) => {
    const most = problem.capacity[resource] ?? 1;
    return boundOf(resource, spans, most, problem);
  });
  bounds.push(personBound(problem));
  const known = bounds.filter((bound) => bound !== undefined);
  if (known.length < bounds.length) return undefined;
  const worst = known.reduce((latest, bound) => (bound.at > latest.at ? bound : latest));
  const pinned = problem.jobs.map((job) => (problem.pins.get(job.key) ?? 0) + job.length);
  return { ...worst, at: Math.max(worst.at, ...pinned), windows: Math.max(...known.map(({ windows }) => windows)) };
}

/** A span of a job, and whether it may reach out of the hours. */
interface Item {
  from: number;
  to: number;
  overnight: boolean;
}

function spansByResource(jobs: readonly Job[]): Map<string, Item[]> {
  const all = new Map<string, Item[]>();
  for (const { spans, overnight } of jobs)
    for (const { resource, from, to } of spans) all.set(resource, [...(all.get(resource) ?? []), { from, to, overnight }]);
  return all;
}

function boundOf(resource: string, spans: readonly Item[], max: number, { windows, earliest }: Problem): Bound | undefined {
  const before = Math.max(0, ...spans.map(({ from }) => -from));
  const first = windows[0]?.from ?? earliest;
  // By time alone, day and night.
  const total = sum(spans.map(({ from, to }) => to - from));
  const shortest = Math.min(...spans.map(({ to }) => to));
  const byTime = Math.max(first + shortest, first - before + total / max);

  const inHours = spans.filter(({ overnight }) => !overnight).map(({ from, to }) => to - from);
  if (inHours.length === 0) return { at: byTime, resource, windows: 1 };
  const packed = pack(inHours, max, before, windows);
  if (!packed) return undefined;
  const { index, rest } = packed;
  const opens = windows[index]?.from ?? first;
  const least = Math.min(...spans.filter(({ overnight }) => !overnight).map(({ to }) => to));
  return { at: Math.max(byTime, opens + Math.max(least, rest / max - before)), resource, windows: index + 1 };
}

/** Which stretch is the last that is needed, from 0, and how much is left for it at least. */
function pack(
  items: readonly number[],
  max: number,
  before: number,
  windows: readonly Stretch[],
): { index: number; rest: number } | undefined {
  const total = sum(items);
  const sizes = [...new Set(items)];
  const fillings = new Map<number, number>();
  const room = new Map(sizes.map((size) => [size, 0]));
  let filled = 0;
  for (const [index, { from, to }] of windows.entries()) {
    const size = to - from + before;
    const rest = total - filled;
    const fill = fillings.get(size) ?? bestFilling(items, size);
    fillings.set(size, fill);
    filled += max * fill;
    for (const each of sizes) room.set(each, (room.get(each) ?? 0) + max * Math.floor(size / each));
    const fits = sizes.every((each) => (room.get(each) ?? 0) >= items.filter((item) => item >= each).length);
    if (filled >= total && fits) return { index, rest: Math.max(0, rest) };
  }
  return undefined;
}

/** The most that some of the items come to without going over a size. Whole minutes, in seconds. */
export function bestFilling(items: readonly number[], size: number): number {
  const minutes = Math.floor(size / MINUTE);
  const reached = new Uint8Array(minutes + 1);
  reached[0] = 1;
  for (const item of items) {
    const step = item / MINUTE;
    for (let at = minutes; at >= step; at -= 1) if (reached[at - step]) reached[at] = 1;
  }
  return reached.lastIndexOf(1) * MINUTE;
}

/** By the person’s time alone: it can be cut anywhere. */
function personBound({ jobs, windows, earliest }: Problem): Bound | undefined {
  let left = sum(jobs.filter(({ overnight }) => !overnight).flatMap(({ visits }) => visits.map(({ from, to }) => to - from)));
  for (const [index, { from, to }] of windows.entries()) {
    if (left <= to - from) return { at: from + left, resource: PERSON, windows: index + 1 };
    left -= to - from;
  }
  return jobs.length === 0 ? { at: earliest, resource: PERSON, windows: 0 } : undefined;
}

const sum = (values: readonly number[]) => values.reduce((total, each) => total + each, 0);
