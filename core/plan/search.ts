import { seeded } from '../simulate/seeded';
import { lowerBound, type Bound } from './bound';
import { MINUTE, type Job, type Placed, type Problem } from './jobs';
import { Timetable } from './timetable';

/** The best plan so far. */
export interface Found {
  /** In the order of their starts; empty while none was found. */
  placed: Placed[];
  /** When the last is packed up, epoch seconds. */
  finish: number;
  bound: Bound | undefined;
  /** Plans tried, of as many as will be at most. */
  tried: number;
  of: number;
}

const NONE: ReadonlyMap<string, number> = new Map();

/** Most plans that are tried, beside those of the exhaustive search of small problems. */
const TRIES = 3000;
/** Problems up to this many jobs are searched exhaustively. */
const FEW_JOBS = 8;
/** Places that the exhaustive search looks into at most. */
const MOST_PLACES = 60_000;
/** How much later than its first fit a job is tried where only the person’s time stands in the way, in seconds. */
const LATER = 15 * MINUTE;
/** Plans tried without finding a better one, once the finish is proven to be the soonest. */
const PATIENCE = 400;
/** Plans tried between two reports. */
const REPORT = 20;

/**
 * Looks for the plan that ends soonest; of those, the one that leaves most jobs where they were before; of those, the one nearest to the order that
 * is asked for. Jobs are laid one by one, each as early as it fits, in orders that are varied; few jobs are laid in every order. It ends when the
 * proven bound is met and little is left to wish for, or after a set number of tries.
 *
 * @param order  keys of jobs in the order in which they are wanted, as far as the finish allows
 * @param before their times in an earlier plan, epoch seconds
 * @yields the best so far, now and then
 */
export function* search(problem: Problem, order: readonly string[], before: ReadonlyMap<string, number> = NONE): Generator<Found, Found> {
  const bound = lowerBound(problem);
  const wanted = new Map(order.map((key, index) => [key, index]));
  const rankOf = (job: Job) => wanted.get(job.key) ?? order.length;
  const free = problem.jobs.filter(({ key }) => !problem.pins.has(key)).sort((one, other) => rankOf(one) - rankOf(other));
  const found: Found = { placed: [], finish: Infinity, bound, tried: 0, of: TRIES };
  let least = Infinity;
  /** What is left to wish for: jobs that were moved, and pairs that start the other way round than is wanted. */
  const disruption = (placed: readonly Placed[]) =>
    placed.filter(({ job, at }) => before.has(job.key) && before.get(job.key) !== at).length +
    inversions(placed, rankOf) / (placed.length ** 2 + 1);

  /** Keeps a plan that is better. */
  const keepIfBetter = (table: Timetable): void => {
    const wish = disruption(table.placed);
    if (table.finish > found.finish || (table.finish === found.finish && wish >= least)) return;
    [found.finish, least, improved] = [table.finish, wish, found.tried];
    found.placed = [...table.placed].sort((one, other) => one.at - other.at || rankOf(one.job) - rankOf(other.job));
  };
  const isShortest = (finish = found.finish) => bound !== undefined && finish <= bound.at;
  let improved = 0;
  const isBest = () => isShortest() && (least === 0 || found.tried - improved > PATIENCE);

  for (const each of [free, longestFirst(free), scarcestFirst(free)]) {
    for (const times of before.size > 0 ? [before, NONE] : [NONE]) {
      const table = scheduled(problem, each, times);
      if (table) keepIfBetter(table);
    }
  }
  yield { ...found };
  if (free.length <= FEW_JOBS && !isShortest()) exhaust(problem, free, found.finish, keepIfBetter, isShortest);
  yield { ...found };

  const noise = seeded(free.length + 1);
  let current = found.placed.filter(({ job }) => !problem.pins.has(job.key)).map(({ job }) => job);
  let [finish, wish] = [found.finish, least];
  while (found.tried < TRIES && free.length > 1 && !isBest() && Number.isFinite(found.finish)) {
    found.tried += 1;
    const next = varied(current, noise);
    const table = scheduled(problem, next, found.tried % 2 === 0 ? before : NONE);
    if (table) {
      const wished = disruption(table.placed);
      if (table.finish < finish || (table.finish === finish && wished <= wish) || noise() < 0.01)
        [current, finish, wish] = [next, table.finish, wished];
      keepIfBetter(table);
    }
    if (found.tried % REPORT === 0) yield { ...found };
  }
  return { ...found, of: found.tried };
}

/**
 * Lays jobs around those that are pinned: first those that still fit where they were before, then each of the rest as early as it fits.
 *
 * @returns `undefined` when one fits nowhere
 */
export function scheduled(problem: Problem, order: readonly Job[], before: ReadonlyMap<string, number> = NONE): Timetable | undefined {
  const table = pinned(problem);
  const rest = order.filter((job) => {
    const at = before.get(job.key);
    const [fit] = at === undefined ? [] : table.fits(job, at);
    if (fit?.at !== at || !fit) return true;
    table.place(fit);
    return false;
  });
  for (const job of rest) {
    const [first] = table.fits(job);
    if (!first) return undefined;
    table.place(first);
  }
  return table;
}

/**
 * The jobs at times that they were given before; what is got ready for them may have begun.
 *
 * @param times epoch seconds, by key
 * @returns `undefined` when they no longer all fit there
 */
export function restored(given: Problem, times: ReadonlyMap<string, number>): Placed[] | undefined {
  const problem = { ...given, earliest: 0 };
  const placed = scheduled(
    problem,
    problem.jobs.filter(({ key }) => !problem.pins.has(key)),
    times,
  )?.placed;
  return placed?.every(({ job, at }) => times.get(job.key) === at) ? placed : undefined;
}

/** A timetable with only the pinned jobs in it. */
function pinned(problem: Problem): Timetable {
  const table = new Timetable(problem);
  for (const job of problem.jobs) {
    const at = problem.pins.get(job.key);
    const [fit] = at === undefined ? [] : table.fits(job, at);
    if (fit) table.place(fit);
  }
  return table;
}

/**
 * Lays jobs in every order of their starts: each as early as it fits, and also somewhat later, for the person’s time may stand in another’s way.
 * What cannot end sooner than the best is not followed; nor is a start before which another job could be over and done with.
 */
function exhaust(
  problem: Problem,
  jobs: readonly Job[],
  best: number,
  keep: (table: Timetable) => void,
  isEnough: (finish: number) => boolean,
): void {
  const table = pinned(problem);
  let finish = best;
  let looked = 0;
  const step = (left: readonly Job[], since: number): void => {
    if (left.length === 0) {
      finish = table.finish;
      keep(table);
      return;
    }
    const fits = left.map((job) => table.fits(job, since, left.length > 1 ? LATER / MINUTE : 1, LATER));
    const ends = fits.map(([first]) => first?.end ?? Infinity);
    if (Math.max(...ends) >= finish) return;
    const soonest = Math.min(...ends);
    for (const fit of fits.flat().sort((one, other) => one.at - other.at)) {
      looked += 1;
      if (isEnough(finish) || looked > MOST_PLACES) return;
      if (fit.end >= finish || fit.at >= soonest) continue;
      table.place(fit);
      step(
        left.filter((job) => job !== fit.job),
        fit.at,
      );
      table.takeBack();
    }
  };
  step(jobs, problem.earliest);
}

/** Pairs of jobs that start the other way round than is wanted. */
function inversions(placed: readonly Placed[], rankOf: (job: Job) => number): number {
  const ranks = [...placed].sort((one, other) => one.at - other.at || rankOf(one.job) - rankOf(other.job)).map(({ job }) => rankOf(job));
  let count = 0;
  for (const [index, rank] of ranks.entries())
    for (let later = index + 1; later < ranks.length; later += 1) if ((ranks[later] ?? 0) < rank) count += 1;
  return count;
}

const longestFirst = (jobs: readonly Job[]) => [...jobs].sort((one, other) => other.length - one.length);

/** Jobs that need what is asked for most come first. */
function scarcestFirst(jobs: readonly Job[]): Job[] {
  const load = new Map<string, number>();
  for (const { spans } of jobs) for (const { resource, from, to } of spans) load.set(resource, (load.get(resource) ?? 0) + to - from);
  const need = ({ spans, length }: Job) => Math.max(length, ...spans.map(({ resource }) => load.get(resource) ?? 0));
  return [...jobs].sort((one, other) => need(other) - need(one) || other.length - one.length);
}

/** An order with one job moved, or two exchanged. */
function varied(order: readonly Job[], noise: () => number): Job[] {
  const next = [...order];
  const pick = () => Math.floor(noise() * next.length);
  const [one, other] = [pick(), pick()];
  if (noise() < 0.5) next.splice(other, 0, ...next.splice(one, 1));
  else [next[one], next[other]] = [next[other] as Job, next[one] as Job];
  return next;
}
