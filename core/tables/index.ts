export { Archive } from './archive';
export { packageSink } from './dataPackage';
export { parquetSink } from './parquet';
export { sheetSink } from './sheet';
export { writeTables, type TableSink } from './write';
