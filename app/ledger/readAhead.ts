import type { Entry } from '@core/ink';
import { catalogueBook, liveBook, rowsOf, runsWithInk, shelfBook } from './databases';
import { inkBySnapshots } from './ink';
import { isCopied } from './secondCopy';
import type { Row } from './transactions';

/** How the logbook is read as it is opened. */
export interface Reading {
  /** All that a database holds, in the order of its keys. @throws {StorageTrouble} */
  rows: <Value>(book: LocalForage) => Promise<Row<Value>[]>;
  /** The ink of a live run. @throws {StorageTrouble} */
  ink: (runId: string) => Promise<Entry[]>;
}

/** As it is stored now. */
export const readNow: Reading = { rows: rowsOf, ink: inkBySnapshots };

/**
 * Asks for what every start reads, while the program is still being fetched. What comes of it is handed from the entry file to whoever opens the
 * logbook, and is good for that once, before anything is written.
 */
export function readAhead(): Reading {
  // Whatever fails here is told where it is wanted.
  const quietly = <Value>(asked: Promise<Value>) => {
    asked.catch(() => undefined);
    return asked;
  };
  const rows = new Map([liveBook, shelfBook, catalogueBook].map((book) => [book, quietly(rowsOf(book))]));
  const ink = quietly(runsWithInk().then((ids) => new Map(ids.map((id) => [id, quietly(inkBySnapshots(id))]))));
  void quietly(isCopied());
  return {
    rows: <Value>(book: LocalForage) => (rows.get(book) as Promise<Row<Value>[]> | undefined) ?? rowsOf<Value>(book),
    ink: async (runId) => (await ink).get(runId) ?? inkBySnapshots(runId),
  };
}
