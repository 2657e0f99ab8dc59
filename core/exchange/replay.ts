/** A line of the second copy: what was stored, taken away or dropped, in which database, and when. */
export interface ReplayLine {
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
  const last = new Map<string, Map<string, Placed>>();
  const dropped = new Map<string, Placed>();
  for (const [order, text] of lines.entries()) {
    const line = lineOf(text);
    if (!line) continue;
    const { at, book, key, value } = line;
    const rows = last.get(book) ?? new Map<string, Placed>();
    last.set(book, rows);
    const places = key === undefined ? dropped : rows;
    const before = places.get(key ?? book);
    // Only what stands is held: most lines are overwritten by later ones.
    if (!before || isAfter({ at, order }, before)) places.set(key ?? book, { at, order, value });
  }
  return new Map(Array.from(last, ([book, rows]) => [book, standing(rows, dropped.get(book))]));
}

/** Where a line stands: by its place, and of those of one place by the order in which they were found. */
interface Placed {
  at: number;
  order: number;
  value?: unknown;
}

const isAfter = (one: Placed, other: Placed) => one.at > other.at || (one.at === other.at && one.order > other.order);

/** Entries of a database that were written after it was last dropped and not removed since. */
function standing(rows: ReadonlyMap<string, Placed>, drop: Placed | undefined): Map<string, unknown> {
  const all = new Map<string, unknown>();
  for (const [key, row] of rows) if (row.value !== undefined && (!drop || isAfter(row, drop))) all.set(key, row.value);
  return all;
}

function lineOf(text: string): ReplayLine | undefined {
  try {
    const found: unknown = JSON.parse(text);
    return typeof found === 'object' && found !== null && 'at' in found && 'book' in found ? (found as ReplayLine) : undefined;
  } catch {
    return undefined;
  }
}
