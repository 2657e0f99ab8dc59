export { Archive } from './archive';
export { packageSink, parquetSink } from './dataPackage';
export { sheetSink } from './sheet';
export { writeTables, type TableSink } from './write';
