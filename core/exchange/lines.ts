/** An act as a line of the second copy. */
export interface Line {
  /** Which act it was, of all tabs: from 1. */
  n: number;
  put: readonly (readonly [key: string, value: unknown])[];
  /** Keys that were taken away. */
  gone: readonly string[];
}

/** A line as it is written: with its place among those of its page; or that the line of a place is void, for its act was not done. */
type Written = (Partial<Line> & { i: number }) | { void: number };

export const lineText = (i: number, { n, put, gone }: Line): string =>
  `${JSON.stringify({ n, i, ...(put.length > 0 && { put }), ...(gone.length > 0 && { gone }) })}\n`;
export const voidText = (i: number): string => `${JSON.stringify({ void: i })}\n`;

/** The lines of one page that stand, of a text that begins with a whole line; one that was cut off at its end says nothing. */
export function linesIn(text: string): Line[] {
  const lines = new Map<number, Line>();
  for (const each of text.split('\n').slice(0, -1)) {
    const written = parsed(each);
    if (!written) continue;
    if ('void' in written) lines.delete(written.void);
    else if (written.n !== undefined) lines.set(written.i, { n: written.n, put: written.put ?? [], gone: written.gone ?? [] });
  }
  return [...lines.values()];
}

function parsed(text: string): Written | undefined {
  try {
    const found: unknown = JSON.parse(text);
    return typeof found === 'object' && found !== null && ('i' in found || 'void' in found) ? (found as Written) : undefined;
  } catch {
    return undefined;
  }
}

/** What the last line that speaks of a key says of it; without a value it was taken away. */
export interface SaidLine {
  n: number;
  page: string;
  value?: unknown;
}

/** What the lines of all pages come to, by key. */
export function replayLines(pages: ReadonlyMap<string, readonly Line[]>): Map<string, SaidLine> {
  const last = new Map<string, SaidLine>();
  const say = (key: string, said: SaidLine) => {
    // A page that writes down what others had not says it of the act that it last knew of: the later line counts.
    if (said.n >= (last.get(key)?.n ?? 0)) last.set(key, said);
  };
  for (const [page, lines] of pages)
    for (const { n, put, gone } of lines) {
      for (const [key, value] of put) say(key, { n, page, value });
      for (const key of gone) say(key, { n, page });
    }
  return last;
}
