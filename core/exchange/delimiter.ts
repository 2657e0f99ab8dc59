import Papa from 'papaparse';

/** Marks that stand between columns, the rarer in text first: a comma may as well stand before decimals. */
const MARKS = ['\t', ';', '|', ','] as const;
/** Rows by which it is told. */
const TELLING = 60;

const isFigure = (cell: string) => /^\s*[-+]?\d+([.,]\d+)?\s*$/.test(cell);

/**
 * Which mark stands between the columns of a log: the one that cuts most of its first rows into as many cells, most of them figures. What stands above
 * a log, and decimal commas, do not mislead it.
 */
export function delimiterOf(text: string): string {
  let best: { mark: string; score: number } = { mark: ',', score: 0 };
  for (const mark of MARKS) {
    const { data } = Papa.parse<string[]>(text, { delimiter: mark, preview: TELLING, skipEmptyLines: 'greedy' });
    const counts = new Map<number, string[][]>();
    for (const row of data) counts.set(row.length, [...(counts.get(row.length) ?? []), row]);
    const [, alike = []] = [...counts].filter(([width]) => width > 1).sort(([, one], [, other]) => other.length - one.length)[0] ?? [];
    const cells = alike.flat();
    // A row that is cut at all tells something, though no figure stands in it.
    const score = alike.length * (0.1 + cells.filter(isFigure).length / Math.max(cells.length, 1));
    if (score > best.score * 1.0001) best = { mark, score };
  }
  return best.mark;
}
