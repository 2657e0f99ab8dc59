import { max } from 'd3-array';
import type { PlainTable } from '@core/quantity';
import { PALETTES } from '../kit/theme';
import { fitted, say, type WordBox } from './layers/drawing';
import type { WordLook } from './layers/surface';
import type { PictureBody } from './picture';

/** Letters of a table, in pixels: as large as there is room for, never smaller than can be read. */
const [LARGE, SMALL] = [13, 7.5];
/** Lines of a cell that are drawn, and the room beside and between them. */
const MOST_LINES = 3;
const BESIDE = 12;
const LEADING = 1.35;

/** A table as what a picture is of: each cell line after line, as large as all of it has room; of more rows than that, how many there are. */
export const tableBody =
  ({ heads, rows }: PlainTable): PictureBody =>
  (to, theme, at) => {
    const palette = PALETTES[theme];
    const boxes: WordBox[] = [];
    const linesOf = (cell: string | number | undefined) =>
      String(cell ?? '')
        .split('; ')
        .slice(0, MOST_LINES);
    const grid = [heads, ...rows].map((row) => heads.map((_, column) => linesOf(row[column])));
    const look = (size: number, row: number): WordLook => ({
      colour: row === 0 ? palette.soft : palette.ink,
      size,
      family: 'words',
    });
    const widths = (size: number) =>
      heads.map(
        (_, column) => (max(grid, (row, index) => max(row[column] ?? [], (line) => to.widthOf(line, look(size, index)))) ?? 0) + BESIDE,
      );
    const heights = (size: number) => grid.map((row) => ((max(row, ({ length }) => length) ?? 1) * LEADING + 0.7) * size);
    const [wide, high] = [at.right - at.left, at.bottom - at.top - 10];
    const sum = (all: readonly number[]) => all.reduce((total, each) => total + each, 0);
    let size = LARGE;
    while (size > SMALL && (sum(widths(size)) > wide || sum(heights(size)) > high)) size -= 0.5;
    const natural = widths(size);
    const share = Math.min(1, wide / sum(natural));
    let y = at.top + 10;
    for (const [index, row] of grid.entries()) {
      const tall = heights(size)[index] ?? 0;
      const isLast = index === grid.length - 1;
      if (y + tall + (isLast ? 0 : size * 2) > at.bottom && index > 0) {
        say({ to, boxes }, 'table', `and ${grid.length - index} more`, at.left + 4, Math.min(at.bottom - 2, y + size), look(size, 0));
        break;
      }
      let x = at.left;
      for (const [column, lines] of row.entries()) {
        const room = (natural[column] ?? 0) * share;
        const isFirst = column === 0;
        for (const [down, line] of lines.entries()) {
          const text: WordLook = { ...look(size, index), align: isFirst ? 'start' : 'end', ...(down > 0 && { colour: palette.soft }) };
          const words = fitted(to, line, room - BESIDE / 2, text);
          say({ to, boxes }, 'table', words, isFirst ? x + 4 : x + room - 4, y + size * (1.1 + down * LEADING), text);
        }
        x += room;
      }
      y += tall;
      to.rect({ left: at.left, right: at.right, top: y - 1, bottom: y }, { fill: index === 0 ? palette.rule : palette.grid });
    }
    return boxes;
  };
