/** A file that cannot be taken in. The message is one sentence or two: what, where, and the way out. Nothing has been stored. */
export class ImportError extends Error {
  override name = 'ImportError';
}

/** The largest file that is read, in bytes; larger ones are refused before reading. */
export const LARGEST_FILE = 50 * 1024 * 1024;

/** @throws {ImportError} for a file over the limit, or with nothing in it. Looks at its size only. */
export function requireReadable(file: { name: string; size: number }): void {
  if (file.size > LARGEST_FILE) {
    const megabytes = Math.round(file.size / 1024 / 1024);
    throw new ImportError(
      `${file.name} is ${megabytes} MB; up to ${LARGEST_FILE / 1024 / 1024} MB is read. Split it, or log fewer samples a second.`,
    );
  }
  if (file.size === 0) throw new ImportError(`${file.name} is empty. Choose the file again, or export it again from where it was made.`);
}
