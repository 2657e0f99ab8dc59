import { Archive, packageSink, parquetSink, sheetSink, writeTables, type TableSink } from '@core/tables';
import type { FileMaker } from '../fileMaker';
import type { ExportSource } from '../source';

const write = async (source: ExportSource, sink: TableSink): Promise<void> =>
  writeTables(source.runs(), source.rest, sink, await source.compared());

/** A data package, zipped. */
export const writePackage = (source: ExportSource, file: FileMaker): Promise<void> =>
  write(
    source,
    packageSink(
      (bytes) => {
        file.add(bytes);
      },
      source.target.name,
      Date.now(),
    ),
  );

/** Parquet files, zipped; they are packed already. */
export function writeParquet(source: ExportSource, file: FileMaker): Promise<void> {
  const archive = new Archive((bytes) => {
    file.add(bytes);
  });
  return write(
    source,
    parquetSink(
      (path) => archive.begin(path, true),
      () => {
        archive.end();
      },
    ),
  );
}

/** A workbook: a sheet a table. */
export const writeWorkbook = (source: ExportSource, file: FileMaker): Promise<void> =>
  write(
    source,
    sheetSink(
      (book) => {
        file.addFile(book);
      },
      (says) => source.leftOut.push(says),
    ),
  );
