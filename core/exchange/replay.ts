/** A line of the second copy: what was stored, taken away or dropped, in which database, and when. */
export interface Line {
  /** Epoch milliseconds. */
  at: number;
  book: string;
  /** Without a key the whole database was dropped. */
  key?: string | undefined;
  /** Without a value the key was taken away. */
  value?: unknown;
}

/**
 * What stood in the databases after every line, whatever the order in which they were found. Lines that cannot be read are left out: one that
 * was being written when the machine went down says nothing.
 *
 * @returns by database, the values by their keys
 */
export function replay(lines: readonly string[]): Map<string, Map<string, unknown>> {
  const read = lines.flatMap((line): Line[] => {
    try {
      const found: unknown = JSON.parse(line);
      return typeof found === 'object' && found !== null && 'at' in found && 'book' in found ? [found as Line] : [];
    } catch {
      return [];
    }
  });
  const books = new Map<string, Map<string, unknown>>();
  for (const { book, key, value } of read.sort((one, other) => one.at - other.at)) {
    const rows = books.get(book) ?? new Map<string, unknown>();
    books.set(book, rows);
    if (key === undefined) rows.clear();
    else if (value === undefined) rows.delete(key);
    else rows.set(key, value);
  }
  return books;
}
