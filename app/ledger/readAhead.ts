import type { Entry } from '@core/ink';
import { idIn, keyOf, keysOf, LOGBOOK, SETTLED } from './keys';
import type { Kind } from './kinds';
import { OLD_COPY } from './oldNames';
import type { Settled } from './order';
import { isCopied } from './copied';
import { inkBySnapshots } from './snapshots';
import { databaseNames, reading, rowsWithin, type StoredRow } from './transactions';

/** How the logbook is read as it is opened. */
export interface RowsReader {
  /** All that there is of a kind, by id, in the order of the keys. @throws {StorageTrouble} */
  rows: <Value>(kind: Kind) => Promise<StoredRow<Value>[]>;
  /** The ink of a live run. @throws {StorageTrouble} */
  ink: (runId: string) => Promise<Entry[]>;
}

const byId = <Value>(rows: StoredRow<Value>[]): StoredRow<Value>[] => rows.map(([key, value]) => [idIn(key), value]);

/** As it is stored now. */
export const readNow: RowsReader = {
  rows: async <Value>(kind: Kind) => byId(await reading(LOGBOOK, (store) => rowsWithin<Value>(store, keysOf(kind)))),
  ink: (runId) => reading(LOGBOOK, (store) => inkBySnapshots(store, runId)),
};

/** What is stored under a name among what is remembered. @throws {StorageTrouble} */
export const remembered = <Value>(name: string): Promise<Value | undefined> =>
  reading(LOGBOOK, (store) => store.get(keyOf('setting', name)) as Promise<Value | undefined>);

/** What every start reads, while the program is still being fetched. */
export interface ReadAhead extends RowsReader {
  /** Nothing where the logbook is new, or was thrown away. @throws {StorageTrouble} */
  settled: Promise<Settled | undefined>;
  /** The databases that there are. */
  names: Promise<string[]>;
  /** Whether there is a second copy, and one of an older program. */
  copies: Promise<[now: boolean, old: boolean]>;
}

const AHEAD: readonly Kind[] = ['live', 'device', 'charger', 'cable', 'meter', 'setting', 'listed'];

/**
 * Asks for what every start reads, in one transaction. What comes of it is handed from the entry file to whoever opens the logbook, and is good for
 * that once, before anything is written.
 */
export function readAhead(): ReadAhead {
  // Whatever fails here is told where it is wanted.
  const quietly = <Value>(asked: Promise<Value>) => {
    asked.catch(() => undefined);
    return asked;
  };
  const asked = quietly(
    reading(LOGBOOK, async (store) => {
      const settled = quietly(store.get(SETTLED) as Promise<Settled | undefined>);
      const rows = new Map(AHEAD.map((kind) => [kind, quietly(rowsWithin(store, keysOf(kind)).then(byId))]));
      const live = (await rows.get('live')) ?? [];
      const ink = new Map(live.map(([id]) => [id, quietly(inkBySnapshots(store, id))]));
      // As values, so that the first is there before the last was read.
      return { settled, rows, ink };
    }),
  );
  return {
    rows: async <Value>(kind: Kind) =>
      ((await (await asked).rows.get(kind)) as StoredRow<Value>[] | undefined) ?? readNow.rows<Value>(kind),
    ink: async (runId) => (await asked).ink.get(runId) ?? readNow.ink(runId),
    settled: quietly(asked.then(({ settled }) => settled)),
    names: quietly(databaseNames()),
    copies: Promise.all([isCopied(), isCopied(OLD_COPY)]),
  };
}
