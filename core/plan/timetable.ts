import type { Stretch } from './calendar';
import { MINUTE, toMinute, type Job, type Placed, type Problem } from './jobs';

/** What a place in the timetable comes to: it fits, or nothing does before `next`. */
type Fit = { placed: Placed } | { next: number };

/** Nothing is left on a charger for longer after it should be done, in seconds: a night, not a week-end. */
const LONGEST_ALONE = 24 * 3600;

/** Jobs laid into the hours: who and what is busy when. */
export class Timetable {
  readonly placed: Placed[] = [];
  private readonly busy = new Map<string, Stretch[]>();
  /** The person’s visits, by window. */
  private readonly visits = new Map<number, Stretch[]>();

  constructor(private readonly problem: Problem) {}

  /** When the last job is packed up; the earliest time there is while nothing is placed. */
  get finish(): number {
    return this.placed.reduce((latest, { end }) => Math.max(latest, end), this.problem.earliest);
  }

  /** The first places from a moment on in which a job fits, at most `count`, none later than `within` after the first. */
  fits(job: Job, from = this.problem.earliest, count = 1, within = 0): Placed[] {
    const found: Placed[] = [];
    const ready = Math.max(from, this.problem.earliest - Math.min(0, ...job.spans.map((span) => span.from)));
    const first = job.visits[0]?.to ?? 0;
    for (const [window, { from: opens, to: closes }] of this.problem.windows.entries()) {
      if (closes <= ready) continue;
      const last = closes - (job.overnight ? first : job.length);
      let at = toMinute(Math.max(opens, ready));
      while (at <= last && found.length < count && !(found[0] && at > found[0].at + within)) {
        const fit = this.fit(job, at, window);
        if ('placed' in fit) found.push(fit.placed);
        at = 'placed' in fit ? at + MINUTE : Math.max(at + MINUTE, toMinute(fit.next));
      }
      if (found.length >= count || (found[0] && closes > found[0].at + within)) break;
    }
    return found;
  }

  /** What keeps a job from a moment: `undefined` where it fits, else the resource that is taken, or the hours. */
  obstacle(job: Job, at: number): string | undefined {
    const window = this.problem.windows.findIndex(({ from, to }) => from <= at && at < to);
    const closes = this.problem.windows[window]?.to;
    if (closes === undefined || at + (job.overnight ? (job.visits[0]?.to ?? 0) : job.length) > closes) return 'hours';
    const taken = job.spans.find((span, index) => this.clash(job.spans, index, at, span.to) !== undefined);
    if (taken) return taken.resource;
    return 'placed' in this.fit(job, at, window) ? undefined : 'person';
  }

  place(placed: Placed): void {
    this.placed.push(placed);
    for (const { resource, from, to } of occupied(placed)) {
      const all = this.busy.get(resource) ?? [];
      insert(all, { from, to });
      this.busy.set(resource, all);
    }
    for (const visit of placed.visits) {
      const window = this.windowAt(visit.from);
      const all = this.visits.get(window) ?? [];
      insert(all, visit);
      this.visits.set(window, all);
    }
  }

  /** Takes the last placed job out again. */
  takeBack(): void {
    const last = this.placed.pop();
    if (!last) return;
    for (const span of occupied(last)) remove(this.busy.get(span.resource), span);
    for (const visit of last.visits) remove(this.visits.get(this.windowAt(visit.from)), visit);
  }

  private windowAt(moment: number): number {
    const { windows } = this.problem;
    const index = placeOf(windows, moment);
    return windows[index]?.from === moment ? index : index - 1;
  }

  private fit(job: Job, at: number, window: number): Fit {
    if (job.overnight) return this.fitOvernight(job, at);
    for (const [index, span] of job.spans.entries()) {
      const next = this.clash(job.spans, index, at, span.to);
      if (next !== undefined) return { next };
    }
    const busy = this.visits.get(window) ?? [];
    const visits: Stretch[] = [];
    for (const { from, to } of job.visits) {
      const met = meets(busy, at + from, at + to);
      if (met) return { next: met.to - from };
      visits.push({ from: at + from, to: at + to });
    }
    return { placed: { job, at, end: at + job.length, visits, unread: 0 } };
  }

  /** Plugged in while the person is there, read while they are, packed up when they first come back after it has ended. */
  private fitOvernight(job: Job, at: number): Fit {
    const [plugIn, ...later] = job.visits;
    const packing = later.pop();
    if (!plugIn || !packing) return { next: at + MINUTE };
    const visits: Stretch[] = [];
    for (const { from, to } of [plugIn, ...later]) {
      const window = this.windowAt(at + from);
      const stretch = this.problem.windows[window];
      if (!stretch || at + to > stretch.to) continue;
      const met = meets(this.visits.get(window) ?? [], at + from, at + to);
      if (met) return { next: met.to - from };
      visits.push({ from: at + from, to: at + to });
    }
    const back = this.free(at + packing.from, packing.to - packing.from);
    if (back === undefined) return { next: Infinity };
    if (back.from - (at + packing.from) > LONGEST_ALONE) return { next: back.from - LONGEST_ALONE - packing.from };
    const end = toMinute(back.to);
    for (const index of job.spans.keys()) {
      const next = this.clash(job.spans, index, at, end - at);
      if (next !== undefined) return { next };
    }
    return { placed: { job, at, end, visits: [...visits, back], unread: later.length + 1 - visits.length } };
  }

  /** The first stretch of a person’s time from a moment on in which they are there and free. */
  private free(from: number, length: number): Stretch | undefined {
    for (const [window, { from: opens, to: closes }] of this.problem.windows.entries()) {
      let at = Math.max(opens, from);
      while (at + length <= closes) {
        const met = meets(this.visits.get(window) ?? [], at, at + length);
        if (!met) return { from: at, to: at + length };
        at = met.to;
      }
    }
    return undefined;
  }

  /**
   * The soonest start at which a span could be free, when it is not at `at`; `Infinity` where the job alone wants more of the resource than there is.
   * Spans of one job that want the same resource are counted together: a race of three wants three sockets.
   *
   * @param to until when it would be held, from `at`
   */
  private clash(spans: Job['spans'], index: number, at: number, to: number): number | undefined {
    const { resource, from } = spans[index] ?? { resource: '', from: 0 };
    const most = this.problem.capacity[resource] ?? 1;
    const mine = spans.slice(0, index).filter((each) => each.resource === resource);
    if (mine.length >= most) return Infinity;
    const all = this.busy.get(resource);
    if (!all) return undefined;
    const met = all.filter((each) => each.from < at + to && each.to > at + from);
    if (met.length + mine.length < most) return undefined;
    // The number in use is highest where one of them begins, or where the span does.
    const held = [...met, ...mine.map((each) => ({ from: at + each.from, to: at + Math.max(each.to, to) }))];
    const moments = [at + from, ...held.map((each) => each.from).filter((moment) => moment > at + from)];
    const isFull = moments.some((moment) => held.filter((each) => each.from <= moment && each.to > moment).length >= most);
    return isFull ? Math.min(...met.map((each) => each.to)) - from : undefined;
  }
}

/** What a placed job occupies, and when. What goes on overnight is held until it is packed up. */
export function occupied({ job, at, end }: Placed): Job['spans'] {
  return job.spans.map(({ resource, from, to }) => ({ resource, from: at + from, to: job.overnight ? end : at + to }));
}

/** Where in an ascending list a stretch that begins at a moment belongs. */
function placeOf(all: readonly Stretch[], from: number): number {
  let [low, high] = [0, all.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((all[middle]?.from ?? 0) < from) low = middle + 1;
    else high = middle;
  }
  return low;
}

function insert(all: Stretch[], stretch: Stretch): void {
  all.splice(placeOf(all, stretch.from), 0, stretch);
}

function remove(all: Stretch[] = [], { from, to }: Stretch): void {
  const index = all.findIndex((each) => each.from === from && each.to === to);
  if (index >= 0) all.splice(index, 1);
}

/** The first of stretches that lie apart, ascending, that overlaps `from`–`to`. */
function meets(all: readonly Stretch[], from: number, to: number): Stretch | undefined {
  const index = placeOf(all, from);
  const before = all[index - 1];
  if (before && before.to > from) return before;
  const next = all[index];
  return next && next.from < to ? next : undefined;
}
