import type { RunInk } from '../ink/fold';
import { chargedBy } from '../ink/sequence';
import { namesOf } from './names';

/** Rows that stand together under their device, each by its place among all rows, and how it is called there. */
export interface RowsOfDevice {
  /** Its name; empty where all rows stand together. */
  of: string;
  rows: readonly number[];
  names: readonly string[];
}

/** What each row was charged by, where several devices were charged by the same sources; else `undefined`. */
export function sharedSources(rows: readonly { run: RunInk }[]): string[] | undefined {
  const sources = rows.map(({ run }) => chargedBy(run));
  const devices = new Set(rows.map(({ run }) => run.header.device.id));
  return devices.size > 1 && new Set(sources).size < sources.length ? sources : undefined;
}

/** Rows by device, where several devices share sources: a row is called by its source there. Else all of them together. */
export function byDevice(rows: readonly { run: RunInk }[]): RowsOfDevice[] {
  if (!sharedSources(rows)) return [{ of: '', rows: rows.map((_, index) => index), names: namesOf(rows) }];
  const devices = new Map(rows.map(({ run }) => [run.header.device.id, run.header.device.name]));
  return [...devices].map(([id, of]) => {
    const own = rows.flatMap((row, index) => (row.run.header.device.id === id ? [{ row, index }] : []));
    return { of, rows: own.map(({ index }) => index), names: namesOf(own.map(({ row }) => row)) };
  });
}
