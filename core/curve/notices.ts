import { checks, type Check } from '../method/cadence';
import { HOT } from '../method/rule';
import { eventInWords } from '../ink/entrySays';
import { POWER_COMES, POWER_GOES } from '../ink/events';
import type { RunRecord } from '../ink/fold';
import { sighting } from '../ink/track';
import { TEMPERATURES } from '../quantity/quantity';
import { nominal, spell } from '../quantity/duration';
import { temperature } from '../quantity/figures';
import { unseenSpans, type Span } from './energy';
import { finerFrom, type WithLevels } from './finer';
import { cycling, holds, losses } from './faults';
import { stalls } from './stall';
import { stretchesOf } from './stretches';

/** Something about a run that a reader should know before trusting its figures, and where on the strip it is. */
export interface Notice extends Span {
  kind:
    | 'late'
    | 'missed'
    | 'unseen'
    | 'unwatched'
    | 'fell'
    | 'stall'
    | 'hot'
    | 'struck'
    | 'event'
    | 'unplugged'
    | 'hold'
    | 'lost'
    | 'cycling'
    | 'stale'
    | 'jump'
    | 'offset'
    | 'counter'
    | 'reset'
    | 'changed';
  text: string;
}

/** The checks of a run and what became of them; a run without a cadence has none. */
export function checksOf(run: WithLevels<'header' | 'events' | 'readings' | 'end'>, until = run.end): Check[] {
  const { cadence } = run.header;
  if (!cadence) return [];
  const finer = finerFrom(run);
  return stretchesOf(run).flatMap(({ from, to }) => {
    const seen = run.readings.flatMap(({ seconds }) => (seconds >= from && seconds <= to ? [seconds - from] : []));
    const isOver = until > to;
    return checks(cadence, seen, Math.min(until, to) - from, finer).map((check) => {
      // What is not answered by the end of a workload never will be.
      const found: Check = isOver && check.state === 'waiting' ? { ...check, state: 'missed' } : check;
      return from === 0 ? found : later(found, from);
    });
  });
}

/** A check whose times count from a later moment. */
const later = ({ seen, ...check }: Check, by: number): Check => ({
  ...check,
  due: check.due + by,
  last: check.last + by,
  from: check.from + by,
  to: check.to + by,
  ...(seen !== undefined && { seen: seen + by }),
});

const missedInWords = (due: number, last: number, count: number) =>
  count === 1 ? `Check at ${nominal(due)} was missed` : `${count} checks from ${nominal(due)} to ${nominal(last)} were missed`;

/** All that is worth a look in a run, in order of time. */
export function notices(run: RunRecord): Notice[] {
  const all = checksOf(run);
  const late = all.flatMap(({ due, state, seen = due }): Notice[] =>
    state === 'late' ? [{ kind: 'late', from: due, to: seen, text: `Check at ${nominal(due)} came ${spell(seen - due, 1)} late` }] : [],
  );
  const unseen = unseenSpans(run).map(({ from, to }): Notice => ({
    kind: 'unseen',
    from,
    to,
    text: `No watts seen from ${spell(from)} to ${spell(to)}: left out of the energy`,
  }));
  const falls = run.falls.map(({ seconds, value }): Notice => ({
    kind: 'fell',
    from: seconds,
    to: seconds,
    text: `The level fell to ${value} % at ${spell(seconds)}; only the first time each level was reached counts`,
  }));
  const held = holds(run);
  const isHeld = (span: Span) => held.some(({ from, to }) => from < span.to && to > span.from);
  const power = [
    ...held.map((span): Notice => ({
      kind: 'hold',
      ...span,
      text: `Held by an adaptive setting from ${spell(span.from)} to ${spell(span.to)}: later times are void`,
    })),
    ...losses(run).map((span): Notice => ({ kind: 'lost', ...span, text: `Power was gone at ${spell(span.to)}: look at plug and socket` })),
    ...cycling(run).map((span): Notice => ({
      kind: 'cycling',
      ...span,
      text: `Power went on and off from ${spell(span.from)} to ${spell(span.to)}: heat, a loose plug, or a source that is too weak`,
    })),
  ];
  const stuck = stalls(run.tracks.percent, run.header.rule?.stall)
    .filter((span) => !isHeld(span))
    .map(({ from, to }): Notice => ({
      kind: 'stall',
      from,
      to,
      text: `No gain for ${spell(to - from)} from ${spell(from)} on`,
    }));
  const struck = run.crossed.map(({ seconds, strike }): Notice => ({
    kind: 'struck',
    from: seconds,
    to: seconds,
    text: `Struck at ${spell(seconds)}: ${strike.reason}`,
  }));
  return [...late, ...missedOf(all), ...power, ...happened(run), ...unseen, ...falls, ...stuck, ...heat(run), ...struck].sort(
    (one, other) => one.from - other.from,
  );
}

/** Stretches of missed checks that are named each; more of them are said once, as a count. */
const MOST_STRETCHES = 3;

function missedOf(all: readonly Check[]): Notice[] {
  const missed = all.filter(({ state }) => state === 'missed');
  const [first, last] = [missed[0], missed.at(-1)];
  if (!first || !last) return [];
  if (missed.length <= MOST_STRETCHES)
    return missed.map(({ due, last: until, count }) => ({ kind: 'missed', from: due, to: until, text: missedInWords(due, until, count) }));
  const count = missed.reduce((sum, each) => sum + each.count, 0);
  const text = `${count} checks were missed, the first at ${nominal(first.due)}, the last at ${nominal(last.last)}`;
  return [{ kind: 'missed', from: first.due, to: last.last, text }];
}

/** What happened, and the time without power. */
function happened(run: RunRecord): Notice[] {
  const events = run.events
    .filter(({ event }) => !POWER_GOES.includes(event) && !POWER_COMES.includes(event) && event !== 'away')
    .map((each): Notice => {
      const { seconds } = each;
      const text = `${spell(seconds)}: ${eventInWords(each)}`;
      return { kind: 'event', from: seconds, to: seconds, text };
    });
  const unwatched = run.unwatched.map(({ from, to }): Notice => ({
    kind: 'unwatched',
    from,
    to,
    text: `Not watched from ${spell(from)} to ${spell(to)}: nobody knows what happened then`,
  }));
  const unplugged = run.unplugged.map(({ from, to }): Notice => {
    const until = Math.min(to, Math.max(run.end, from));
    return {
      kind: 'unplugged',
      from,
      to: until,
      text: `Without power from ${spell(from)} to ${spell(until)}: charging time leaves it out`,
    };
  });
  return [...events, ...unwatched, ...unplugged];
}

/** Above which temperature a run is called hot, °C. */
const limitOf = ({ header: { rule } }: RunRecord) => rule?.hot ?? HOT;

function heat(run: RunRecord): Notice[] {
  const limit = limitOf(run);
  let [from, to, top] = [Infinity, -Infinity, limit];
  for (const quantity of TEMPERATURES) {
    const { seconds, values } = run.tracks[quantity];
    for (let row = 0; row < values.length; row += 1) {
      const value = values[row] ?? 0;
      if (value <= limit) continue;
      const at = seconds[row] ?? 0;
      [from, to, top] = [Math.min(from, at), Math.max(to, at), Math.max(top, value)];
    }
  }
  if (to < from) return [];
  const when = from === to ? `at ${spell(from)}` : `between ${spell(from)} and ${spell(to)}`;
  return [{ kind: 'hot', from, to, text: `Above ${temperature(limit, 0)} ${when}, up to ${temperature(top)}` }];
}

const lastSeen = ({ readings }: RunRecord) => readings.at(-1)?.seconds ?? 0;

/** Whether a live run was hot at its last reading. Asked of every lane at every entry, so it looks at nothing else. */
export function isHot(run: RunRecord): boolean {
  return TEMPERATURES.some((quantity) => {
    const track = run.tracks[quantity];
    const last = sighting(track, track.seconds.length - 1);
    return last !== undefined && last.seconds >= lastSeen(run) && last.value > limitOf(run);
  });
}

/** What of a live run needs a look now: what is still so at its last reading. */
export function watchNotices(run: RunRecord): Notice[] {
  const last = lastSeen(run);
  const now: readonly Notice['kind'][] = ['hold', 'lost', 'cycling', 'stall', 'fell', 'hot'];
  return notices(run).filter(({ kind, to }) => now.includes(kind) && to >= last);
}
