import { parquetWriteBuffer } from 'hyparquet-writer';
import { foldStored, MOST_VALUES, streamedOf, writeCsv, type StoredRun } from '@core/exchange';
import { exampleHeader } from '../../../core/ink/example';
import { quantityOf, type Quantity } from '@core/quantity';
import { parquetSink } from '@core/tables';

/** A run out as Parquet and as CSV by the program’s own writers, each beside the least that could be done. Times are in milliseconds. */

type Samples = NonNullable<StoredRun['samples']>;

/** A run of two streams with so many values over both. */
function streamed(values: number): StoredRun & { samples: Samples } {
  const seconds = Float64Array.from({ length: values / 2 }, (_, row) => row / 10);
  return {
    header: exampleHeader(),
    entries: [],
    samples: {
      watts: { seconds, values: seconds.map((_, row) => Math.round((18 + (row % 977) / 100) * 100) / 100) },
      volts: { seconds, values: seconds.map((_, row) => Math.round((9 + (row % 31) / 100) * 100) / 100) },
    },
  };
}

const timed = (work: () => void): number => {
  const begin = performance.now();
  work();
  return performance.now() - begin;
};

/** The writer alone, on columns that are there already. */
function writerAlone(samples: Samples): number {
  const columns = (Object.entries(samples) as [Quantity, { seconds: Float64Array; values: Float64Array }][]).map(([quantity, column]) => ({
    quantity: new Array<string>(column.values.length).fill(quantity),
    unit: new Array<string>(column.values.length).fill(quantityOf(quantity).unit),
    ...column,
  }));
  return timed(() => {
    for (const { quantity, unit, seconds, values } of columns)
      parquetWriteBuffer({
        columnData: [
          { name: 'quantity', data: quantity, type: 'STRING', nullable: false },
          { name: 'unit', data: unit, type: 'STRING', nullable: false },
          { name: 'seconds', data: seconds, type: 'DOUBLE', nullable: false },
          { name: 'value', data: values, type: 'DOUBLE', nullable: false },
        ],
        rowGroupSize: 100_000,
      });
  });
}

/** One loop that joins what a CSV holds. */
function joinLoop({ watts, volts }: Samples, plugInAt: number): number {
  return timed(() => {
    let text = 'elapsed (s),clock time,kind,entry,volts,watts\r\n';
    for (const [row, seconds] of watts?.seconds.entries() ?? [])
      text += `${seconds},${new Date(plugInAt + seconds * 1000).toISOString()},sample,,${volts?.values[row] ?? ''},${watts?.values[row] ?? ''}\r\n`;
    if (new Blob([text]).size < 1000) throw new Error('Nothing was joined.');
  });
}

/** Samples to Parquet. @returns how long it took, and the most bytes that were held at once */
function toParquet(run: StoredRun): { took: number; held: number } {
  let held = 0;
  const sink = parquetSink(
    () => ({ bytes: (bytes) => (held = Math.max(held, bytes.length)), end: () => undefined }),
    () => undefined,
  );
  return {
    took: timed(() => {
      sink.samples('run', streamedOf(run));
    }),
    held,
  };
}

/** A million values, by each way. */
export function exportsBeside(): Record<'parquet' | 'writer' | 'csv' | 'join' | 'held', number> {
  const run = streamed(1_000_000);
  const record = foldStored(run);
  const { took, held } = toParquet(run);
  return {
    ...{ parquet: took, held, writer: writerAlone(run.samples) },
    csv: timed(() => new Blob([writeCsv(record, run.samples)])),
    join: joinLoop(run.samples, run.header.plugInAt),
  };
}

/** What is held at once of the longest run there may be, in bytes. */
export const heldOfMost = (): number => toParquet(streamed(MOST_VALUES)).held;
