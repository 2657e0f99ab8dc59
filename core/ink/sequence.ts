import { spell } from '../quantity/duration';
import { rowsBetween } from '../samples/column';
import type { Source } from './entry';
import { sourceSays, whatChanged } from './entrySays';
import type { RunInk, RunRecord } from './fold';
import { sourceKey } from './sourceKey';
import type { Track } from './track';

/** One of the sources that fed a run one after another. */
export interface Fed {
  /** From when on, in seconds from plug-in. */
  from: number;
  /** `undefined` where a swap did not say to what. */
  source: Source | undefined;
}

/** What fed a run, one after another; a swap to what was there already is none. More than one, and the run is a *sequence* (docs/numbers.md). */
export function fedBy({ sources, events }: Pick<RunInk, 'sources' | 'events'>): Fed[] {
  const fed: Fed[] = sources.slice(0, 1).map((source) => ({ from: 0, source }));
  for (const each of events) {
    if (each.event !== 'swapped') continue;
    const before = fed.at(-1)?.source;
    if (before && each.source && sourceKey(before) === sourceKey(each.source)) continue;
    fed.push({ from: Math.max(0, each.seconds), source: each.source });
  }
  return fed;
}

/** Whether more than one source fed a run, so that none of them can be told by the whole of it. */
export const isSequence = (run: Pick<RunInk, 'sources' | 'events'>): boolean => fedBy(run).length > 1;

/** A source by its name; where only its cable, port or feeder changed, with that. */
function nameOf({ source }: Fed, before?: Fed): string {
  if (!source) return 'another source';
  const was = before?.source;
  return was?.charger.id === source.charger.id ? `${source.charger.name} (${whatChanged(was, source).join(', ')})` : sourceSays(source);
}

/** So many sources are named, each with when it came. */
const MOST_NAMED = 4;

/** What charged a run, in words: `Quern 65`; of a sequence `Drumlin, then Quern 65 from 1 min`. */
export function chargedBy(run: Pick<RunInk, 'sources' | 'events'>): string {
  const fed = fedBy(run);
  const [first, ...then] = fed;
  if (!first) return '';
  const swaps = then
    .slice(0, MOST_NAMED - 1)
    .map((each, index) => `then ${nameOf(each, fed[index])} from ${spell(each.from, each.from < 60 ? 1 : 60)}`);
  const more = then.length - swaps.length;
  return [nameOf(first), ...swaps, ...(more > 0 ? [`then ${more} more`] : [])].join(', ');
}

/** The sources of a sequence by name, each from when on; none where one fed it all along. */
export function feedsOf(run: Pick<RunInk, 'sources' | 'events'>): { from: number; name: string }[] {
  const fed = fedBy(run);
  return fed.length > 1 ? fed.map((each, index) => ({ from: each.from, name: nameOf(each, fed[index - 1]) })) : [];
}

/** Tells sequences apart by their sources, in their order, and when each came; of a run that one source fed it is the key of that. */
export const chargedKey = (run: Pick<RunInk, 'sources' | 'events'>): string =>
  fedBy(run)
    .map(({ from, source }) => `${from > 0 ? `${from} ` : ''}${source ? sourceKey(source) : '?'}`)
    .join(' > ');

/** When the first swap came, in seconds from plug-in; `Infinity` where none did. */
const firstSwap = (run: Pick<RunInk, 'sources' | 'events'>): number => fedBy(run)[1]?.from ?? Infinity;

/** A sequence up to its first swap, as a run that one source fed. */
export function beforeSwap(run: RunRecord): RunRecord {
  const until = firstSwap(run);
  const isBefore = ({ seconds }: { seconds: number }) => seconds <= until;
  const cut = (track: Track): Track => {
    const rows = rowsBetween(track, -Infinity, until);
    return { ...rows, entries: track.entries?.slice(0, rows.seconds.length) };
  };
  return {
    ...run,
    ...untilSwap(run),
    readings: run.readings.filter(isBefore),
    unplugged: run.unplugged.filter(({ from }) => from < until),
    unwatched: run.unwatched.filter(({ from }) => from < until),
    falls: run.falls.filter(isBefore),
    stop: undefined,
    end: Math.min(run.end, until),
    tracks: Object.fromEntries(Object.entries(run.tracks).map(([quantity, track]) => [quantity, cut(track)])) as RunRecord['tracks'],
  };
}

/** What of a sequence says what fed it, up to its first swap. */
export function untilSwap(run: Pick<RunInk, 'sources' | 'events'>): Pick<RunInk, 'sources' | 'events'> {
  const until = firstSwap(run);
  return {
    sources: run.sources.slice(0, 1),
    events: run.events.filter(({ event, seconds }) => seconds <= until && event !== 'swapped'),
  };
}
