import { migrate } from '@core/exchange';
import type { Entry, Header } from '@core/ink';
import { idIn, keyOf, keysOf, LOGBOOK, runOfInk } from './keys';
import { readNow, type RowsReader } from './readAhead';
import { inkIn } from './snapshots';
import { whyOf } from './storageTrouble';
import { reading, rowsWithin } from './transactions';

/** Live runs as they are stored: a header each, and every entry under a key of its own. */

/** A run that cannot be read or filed: named, and kept apart from the rest, which it never stops. */
export interface SetAside {
  id: string;
  name: string;
  why: string;
}

/** A run that could not be read, by whatever of its header can be. */
export function asideOf(id: string, value: unknown, error: unknown): SetAside {
  const { device, charger } = (typeof value === 'object' && value !== null ? value : {}) as Partial<
    Record<'device' | 'charger', { name?: unknown }>
  >;
  const names = [device?.name, charger?.name].filter((name) => typeof name === 'string' && name !== '');
  return { id, name: names.join(' on ') || `Run ${id}`, why: whyOf(error) };
}

const headerFrom = (stored: object): Header => migrate(stored, 'A live run') as unknown as Header;

/** What is live: the header of every run that can be read, and those that cannot. */
export async function liveHeaders({ rows }: Pick<RowsReader, 'rows'> = readNow): Promise<{ headers: Header[]; aside: SetAside[] }> {
  const aside: SetAside[] = [];
  const headers = (await rows<object>('live')).flatMap(([id, value]): Header[] => {
    try {
      return [headerFrom(value)];
    } catch (error) {
      aside.push(asideOf(id, value, error));
      return [];
    }
  });
  return { headers, aside };
}

/** A live run, entry by entry; `undefined` where there is none of an id. @throws {ImportError} when its header cannot be read */
export async function liveRun(runId: string): Promise<{ header: Header; entries: Entry[] } | undefined> {
  const [stored, entries] = await reading(LOGBOOK, (store) =>
    Promise.all([store.get(keyOf('live', runId)) as Promise<object | undefined>, inkIn(store, runId)]),
  );
  return stored && { header: headerFrom(stored), entries };
}

/** Every live run that can be read, with the ink it has so far. */
export async function liveRuns(): Promise<{ header: Header; entries: Entry[] }[]> {
  const found = await Promise.allSettled((await liveHeaders()).headers.map(({ id }) => liveRun(id)));
  return found.flatMap((each) => (each.status === 'fulfilled' && each.value ? [each.value] : []));
}

/** Ink whose run is not live: its header was lost. */
export async function inkWithoutRun(): Promise<SetAside[]> {
  const [ink, live] = await reading(LOGBOOK, (store) =>
    Promise.all([store.getAllKeys(keysOf('ink')) as Promise<string[]>, rowsWithin(store, keysOf('live'))]),
  );
  const known = new Set(live.map(([key]) => idIn(key)));
  const runs = new Set(ink.map(runOfInk));
  return [...runs].filter((id) => !known.has(id)).map((id) => ({ id, name: `Run ${id}`, why: 'Its header was lost; its ink is here.' }));
}
