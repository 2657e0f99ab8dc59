import Papa from 'papaparse';
import { readTime, tooMuch, type PaperGrid } from './paper';

/** Changes to a grid: each gives another one, of which all that did not change is the same as before. */

const filledTo = (cells: readonly string[], length: number): string[] => Array.from({ length }, (_, index) => cells[index] ?? '');

/** How many columns it has. */
export const columnsIn = ({ facts, cells }: PaperGrid): number =>
  cells.reduce((max, row) => Math.max(max, row.length), Math.max(0, ...Object.values(facts).map(({ length }) => length)));

/** Whether nothing was read or said yet; times alone are nothing. */
export const isBlank = ({ facts, cells }: PaperGrid): boolean =>
  cells.every((row) => row.every((cell) => cell === '')) && Object.values(facts).every((row) => row.every((cell) => cell === ''));

/** A grid with nothing in it. */
export function blankGrid(columns = 2): PaperGrid {
  const empty = () => filledTo([], columns);
  const times = ['0', '5', '10', '15', '20', '30'];
  return { facts: { device: empty(), charger: empty(), 'plugged in': empty() }, times, cells: times.map(empty) };
}

/** A time, where the column is −1, or a cell written anew. */
export function withCell(grid: PaperGrid, row: number, column: number, text: string): PaperGrid {
  if (column < 0) return { ...grid, times: grid.times.with(row, text) };
  const cells = filledTo(grid.cells[row] ?? [], Math.max(column + 1, grid.cells[row]?.length ?? 0)).with(column, text);
  return { ...grid, cells: grid.cells.with(row, cells) };
}

/** What is said of one column. */
export function withFact(grid: PaperGrid, fact: string, column: number, text: string): PaperGrid {
  const row = filledTo(grid.facts[fact] ?? [], columnsIn(grid)).with(column, text);
  return { ...grid, facts: { ...grid.facts, [fact]: row } };
}

/** What is said of the first column said of all of which nothing is said. */
export const restLikeFirst = (grid: PaperGrid, fact: string): PaperGrid => {
  const row = filledTo(grid.facts[fact] ?? [], columnsIn(grid));
  return { ...grid, facts: { ...grid.facts, [fact]: row.map((cell) => cell || (row[0] ?? '')) } };
};

/** What stands as devices taken for chargers, and the other way round. */
export const withGearSwapped = (grid: PaperGrid): PaperGrid => ({
  ...grid,
  facts: { ...grid.facts, device: grid.facts.charger ?? [], charger: grid.facts.device ?? [] },
});

/** One more row, as far on as the last two lie apart. */
export function withRow(grid: PaperGrid): PaperGrid {
  const [before = 0, last = 0] = grid.times.slice(-2).map((text) => readTime(text) ?? 0);
  const step = Math.max(60, last - before);
  return {
    ...grid,
    times: [...grid.times, String(Math.round((last + step) / 60))],
    cells: [...grid.cells, filledTo([], columnsIn(grid))],
  };
}

/** A row left out. */
export const withoutRow = (grid: PaperGrid, row: number): PaperGrid => ({
  ...grid,
  times: grid.times.toSpliced(row, 1),
  cells: grid.cells.toSpliced(row, 1),
});

/** A row that is not of a time taken for what it says of each setup: a condition, by what stands at its left. */
export const withRowAsFact = (grid: PaperGrid, row: number): PaperGrid => {
  const fact = (grid.times[row] ?? '').trim().replace(/:$/, '');
  return { ...withoutRow(grid, row), facts: { ...grid.facts, [fact]: filledTo(grid.cells[row] ?? [], columnsIn(grid)) } };
};

/** One more setup at the right. */
export const withColumn = (grid: PaperGrid): PaperGrid => wide(grid, columnsIn(grid) + 1);

/** A setup taken out. */
export function withoutColumn(grid: PaperGrid, column: number): PaperGrid {
  const columns = columnsIn(grid);
  const out = (cells: readonly string[]) => filledTo(cells, columns).toSpliced(column, 1);
  return { ...mapFacts(grid, out), cells: grid.cells.map(out) };
}

const mapFacts = (grid: PaperGrid, change: (row: readonly string[]) => string[]): PaperGrid => ({
  ...grid,
  facts: Object.fromEntries(Object.entries(grid.facts).map(([name, row]) => [name, change(row)])),
});

/** At least so many columns. */
function wide(grid: PaperGrid, columns: number): PaperGrid {
  const across = (row: readonly string[]) => filledTo(row, Math.max(columns, row.length));
  return { ...mapFacts(grid, across), cells: grid.cells.map(across) };
}

/** Where something is pasted: at a cell, at a time (column −1), or in a row that says something of each column. */
export type PasteAt = { row: number; column: number } | { fact: string; column: number };

/**
 * Writes a block off the clipboard over the cells from one on, to the right and down, as a spreadsheet does; rows and setups are added as it needs.
 *
 * @returns why it is not taken, where it is too large
 */
export function pastedAt(grid: PaperGrid, at: PasteAt, text: string): PaperGrid | { refused: string } {
  const block = Papa.parse<string[]>(text.replace(/\r?\n$/, ''), { delimiter: '\t' }).data.map((row) => row.map((cell) => cell.trim()));
  const columns = Math.max(columnsIn(grid), at.column + Math.max(0, ...block.map(({ length }) => length)));
  const rows = 'fact' in at ? grid.times.length : Math.max(grid.times.length, at.row + block.length);
  const refused = tooMuch(rows, columns);
  if (refused) return { refused };
  const grown = wide(
    { ...grid, times: filledTo(grid.times, rows), cells: Array.from({ length: rows }, (_, row) => grid.cells[row] ?? []) },
    columns,
  );
  if ('fact' in at) {
    const row = filledTo(grown.facts[at.fact] ?? [], columns);
    for (const [offset, cell] of (block[0] ?? []).entries()) row[at.column + offset] = cell;
    return { ...grown, facts: { ...grown.facts, [at.fact]: row } };
  }
  const times = [...grown.times];
  const cells = grown.cells.map((row) => [...row]);
  for (const [down, line] of block.entries())
    for (const [right, cell] of line.entries()) {
      const [row, column] = [at.row + down, at.column + right];
      if (column < 0) times[row] = cell;
      else (cells[row] ?? [])[column] = cell;
    }
  return { ...grown, times, cells };
}
