import { closeSync, mkdirSync, openSync, writeSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { parquetSink, writeTables } from '../core/tables';
import { restOfReviewer, reviewerName, runsOfReviewer } from './reviewers';

/** Writes the logbook of a reviewer as Parquet, by the same calls as the export of the program, under `reviewer=<name>`. */
export async function writeReviewer(folder: string, reviewer: number, runs: number): Promise<void> {
  const own = join(folder, `reviewer=${reviewerName(reviewer)}`);
  const begin = (path: string) => {
    const file = join(own, path);
    mkdirSync(dirname(file), { recursive: true });
    const open = openSync(file, 'w');
    return {
      bytes: (bytes: Uint8Array) => {
        writeSync(open, bytes);
      },
      end: () => {
        closeSync(open);
      },
    };
  };
  await writeTables(
    runsOfReviewer(reviewer, runs),
    () => restOfReviewer(reviewer),
    parquetSink(begin, () => undefined),
  );
}
