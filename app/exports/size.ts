import { QUANTITIES } from '@core/quantity';
import { CHUNK, sampleKeysOf } from '../ledger/samples';
import type { ExportRow } from './exports';

/** What the list of runs knows of one. */
interface Listed {
  id: string;
  /** How many entries of ink it has, before a stroke. */
  ink?: string | undefined;
  /** Its length, in seconds. */
  end: number;
}

/** How much there is to write. */
export interface Amount {
  runs: number;
  entries: number;
  values: number;
}

/** About how many entries and values runs hold: a last chunk of a meter’s column is taken for a value a second. */
export async function amountOf(runs: readonly Listed[]): Promise<Amount> {
  const keys = await sampleKeysOf(runs.map(({ id }) => id));
  let [entries, values] = [0, 0];
  runs.forEach(({ ink = '', end }, index) => {
    entries += Number.parseInt(ink, 10) || 20;
    const columns = (keys[index] ?? []).filter((key) => QUANTITIES.some((quantity) => key.includes(`/${quantity}/`)));
    const last = columns.filter((key) => key.endsWith('/000000')).length;
    values += (columns.length - last) * CHUNK + last * Math.min(CHUNK, end);
  });
  return { runs: runs.length, entries, values };
}

/** A size as a person reads it. */
export function writeSize(bytes: number): string {
  if (bytes < 1e6) return `${Math.max(1, Math.round(bytes / 1e3))} kB`;
  return bytes < 1e7 ? `${(bytes / 1e6).toFixed(1)} MB` : `${Math.round(bytes / 1e6)} MB`;
}

/** About how large a file will be, in words; nothing where it says little. */
export const sizeSays = ({ size }: ExportRow, { runs, entries, values }: Amount): string =>
  !size || runs === 0 ? '' : `about ${writeSize(1_000 + size.run * runs + size.entry * entries + size.value * values)}`;
