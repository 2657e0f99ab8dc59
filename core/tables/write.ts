import type { Rest, StoredRun } from '../exchange/logbook';
import type { Samples } from '../samples/column';
import { RowMaker } from './rows';
import type { AnyRow } from './table';
import type { TableName } from './tables';

/** What takes the rows of all tables, and makes a file of them. */
export interface TableSink {
  row: (table: TableName, row: AnyRow) => void;
  /** What meters streamed of a run, once its rows have come. */
  samples: (run: string, columns: Samples) => void;
  end: () => void | Promise<void>;
}

/**
 * Hands runs, one after another, and what else there is to a sink as rows.
 *
 * @param rest asked for last, when all runs have gone by
 */
export async function writeTables(
  runs: AsyncIterable<StoredRun> | Iterable<StoredRun>,
  rest: () => Promise<Rest> | Rest,
  sink: TableSink,
  compared: ReadonlySet<string> = new Set(),
): Promise<void> {
  const rows = new RowMaker((table, row) => {
    sink.row(table, row);
  }, compared);
  for await (const run of runs) sink.samples(run.header.id, rows.run(run));
  rows.end(await rest());
  await sink.end();
}
