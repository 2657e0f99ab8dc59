import { ImportError, short } from './importError';

/** How files begin that hold something packed: none is ever unpacked here, so that what is in it can do no harm. */
const PACKED: readonly [begins: readonly number[], says: string][] = [
  [[0x50, 0x4b, 0x03, 0x04], 'a zip archive or a workbook'],
  [[0x50, 0x4b, 0x05, 0x06], 'an empty zip archive'],
  [[0x50, 0x41, 0x52, 0x31], 'a Parquet file'],
  [[0x1f, 0x8b], 'packed by gzip'],
  [[0x37, 0x7a, 0xbc, 0xaf], 'a 7z archive'],
  [[0x28, 0xb5, 0x2f, 0xfd], 'packed by zstd'],
];

/** Refuses a file that is packed. @param head its first bytes @throws {ImportError} saying what it is, and what can be imported */
export function requireUnpacked(head: Uint8Array, file: string): void {
  const found = PACKED.find(([begins]) => begins.every((byte, index) => head[index] === byte));
  if (found)
    throw new ImportError(
      `${short(file)} is ${found[1]}. A logbook (JSON), a run or a meter’s log (CSV) can be imported: unpack it, or export the logbook where it was made.`,
    );
}
