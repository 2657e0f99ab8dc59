import { parquetWriteBuffer } from 'hyparquet-writer';
import { foldStored, streamedOf, writeCsv, type StoredRun } from '../core/exchange';
import { exampleHeader } from '../core/ink/example';
import { quantityOf, type Quantity } from '../core/quantity';
import { parquetSink } from '../core/tables';
import { atMost, median, type Figure } from './harness';

/** A million samples of a run to Parquet beside its writer alone on the same columns, and to CSV beside one loop that joins them. */

const ROWS = 500_000;
const ROUNDS = 5;

function streamed(): StoredRun {
  const header = exampleHeader();
  const seconds = Float64Array.from({ length: ROWS }, (_, row) => row);
  return {
    header,
    entries: [],
    samples: {
      watts: { seconds, values: seconds.map((row) => Math.round((18 + (row % 977) / 100) * 100) / 100) },
      volts: { seconds, values: seconds.map((row) => Math.round((9 + (row % 31) / 100) * 100) / 100) },
    },
  };
}

const timed = (work: () => void): number => {
  const begin = performance.now();
  work();
  return performance.now() - begin;
};

/** The writer alone, on columns that are there already. */
function writerAlone(samples: NonNullable<StoredRun['samples']>): number {
  const columns = (Object.entries(samples) as [Quantity, { seconds: Float64Array; values: Float64Array }][]).map(([quantity, column]) => ({
    quantity: new Array<string>(ROWS).fill(quantity),
    unit: new Array<string>(ROWS).fill(quantityOf(quantity).unit),
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
function joinLoop({ watts, volts }: NonNullable<StoredRun['samples']>, plugInAt: number): number {
  return timed(() => {
    let text = 'elapsed (s),clock time,kind,entry,volts,watts\r\n';
    for (let row = 0; row < ROWS; row += 1) {
      const seconds = watts?.seconds[row] ?? 0;
      text += `${seconds},${new Date(plugInAt + seconds * 1000).toISOString()},sample,,${volts?.values[row] ?? ''},${watts?.values[row] ?? ''}\r\n`;
    }
    return text.length;
  });
}

export function exportFigures(): Promise<Figure[]> {
  const run = streamed();
  const record = foldStored(run);
  const samples = run.samples ?? {};
  const rounds = Array.from({ length: ROUNDS }, () => {
    let most = 0;
    const sink = parquetSink(
      () => ({ bytes: (bytes) => (most = Math.max(most, bytes.length)), end: () => undefined }),
      () => undefined,
    );
    const parquet = timed(() => {
      sink.samples('run', streamedOf(run));
    });
    return {
      parquet: parquet / writerAlone(samples),
      csv: timed(() => writeCsv(record, samples)) / joinLoop(samples, run.header.plugInAt),
      most,
    };
  });
  const held = Math.max(...rounds.map(({ most }) => most));
  return Promise.resolve([
    atMost(1.5, {
      name: 'export Parquet',
      value: median(rounds.map(({ parquet }) => parquet)),
      unit: 'ratio',
      worst: `a million samples beside the writer alone, medians of ${ROUNDS}; ${(held / 1e6).toFixed(1)} MB held at once`,
    }),
    atMost(1.5, {
      name: 'export CSV',
      value: median(rounds.map(({ csv }) => csv)),
      unit: 'ratio',
      worst: `a million samples beside a loop that joins them, medians of ${ROUNDS}`,
    }),
  ]);
}
