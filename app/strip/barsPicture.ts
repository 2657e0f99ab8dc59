import { whiskersOf, type Cell, type Measure } from '@core/compare';
import { PALETTES, type ThemeName } from '../kit/theme';
import { fitted, say, type WordBox } from './layers/drawing';
import type { Rect, Surface, WordLook } from './layers/surface';
import type { PictureBody } from './picture';
import { penOf } from './pens';

/** A bar: its setup, its figure and its pen. */
export interface PicturedBar {
  name: string;
  cell: Cell | undefined;
  pen: number;
}
/** A block of bars: a figure, its setups by device, all of one unit on one scale. */
export interface PicturedBlock {
  measure: Pick<Measure, 'title' | 'unit' | 'better'>;
  /** The most that any bar of its unit reaches. */
  top: number;
  groups: readonly { of: string; bars: readonly PicturedBar[] }[];
}

/** Rows of bars, in pixels: as high as there is room for, never lower than can be read. */
const [HIGH, LOW] = [26, 15];
const rowsOf = ({ groups }: PicturedBlock) => 1.4 + groups.reduce((sum, { of, bars }) => sum + (of ? 1 : 0) + bars.length, 0) + 0.5;

/** Bars with the whiskers of their margins, as a picture: as many figures as there is room for, the first of them first. */
export const barsBody =
  (blocks: readonly PicturedBlock[]): PictureBody =>
  (to, theme, at) => {
    const boxes: WordBox[] = [];
    const room = at.bottom - at.top - 8;
    let count = blocks.length;
    const needed = (some: number) => blocks.slice(0, some).reduce((sum, block) => sum + rowsOf(block), 0);
    while (count > 1 && needed(count) * LOW > room) count -= 1;
    const row = Math.min(HIGH, Math.max(6, room / Math.max(1, needed(count))));
    let y = at.top + 8;
    for (const block of blocks.slice(0, count)) y = drawBlock(to, theme, boxes, block, { ...at, top: y }, row);
    return boxes;
  };

function drawBlock(to: Surface, theme: ThemeName, boxes: WordBox[], block: PicturedBlock, at: Rect, row: number): number {
  const palette = PALETTES[theme];
  const { measure, top, groups } = block;
  const size = Math.min(13, row * 0.62);
  const words: WordLook = { colour: palette.ink, size, family: 'words' };
  const figures: WordLook = { colour: palette.ink, size, family: 'figures', align: 'end' };
  const told = ({ cell }: PicturedBar) => [cell?.value ?? '—', cell?.range.split(' · ')[0]].filter(Boolean).join('  ');
  const all = groups.flatMap(({ bars }) => bars);
  const wide = at.right - at.left;
  const nameRoom = Math.min(wide * 0.28, Math.max(...all.map(({ name }) => to.widthOf(name, words))) + 18);
  const valueRoom = Math.min(wide * 0.42, Math.max(...all.map((bar) => to.widthOf(told(bar), figures))) + 34);
  const [left, right] = [at.left + nameRoom + 8, at.right - valueRoom - 8];
  const xOf = (value: number) => left + Math.min(1, Math.max(0, value / top)) * (right - left);
  let y = at.top;
  const better = measure.better ? ` (${measure.better === 'less' ? 'shorter' : 'longer'} is better)` : '';
  const titled: WordLook = { ...words, size: size * 1.05, weight: 700 };
  say({ to, boxes }, 'bars', fitted(to, `${measure.title}${better}`, wide - 8, titled), at.left + 4, y + row * 0.85, titled);
  y += row * 1.4;
  for (const { of, bars } of groups) {
    if (of) {
      say({ to, boxes }, 'bars', fitted(to, of, wide - 8, words), at.left + 4, y + row * 0.7, { ...words, weight: 700 });
      y += row;
    }
    for (const bar of bars) {
      const pen = penOf(bar.pen, theme);
      const [middle, high] = [y + row / 2, row * 0.3];
      to.nib(pen.nib, at.left + 9, middle, size * 0.38, { fill: pen.hollow ? palette.paper : pen.colour, stroke: pen.colour, width: 1.5 });
      say({ to, boxes }, 'bars', fitted(to, bar.name, nameRoom - 18, words), at.left + 18, middle + size * 0.35, words);
      to.rect({ left: left - 1, right: left, top: y + 1, bottom: y + row - 1 }, { fill: palette.ink });
      const mean = bar.cell?.mean;
      if (bar.cell && mean && !mean.isLeast) {
        const body = { left, right: xOf(mean.value), top: middle - high, bottom: middle + high };
        to.rect(body, pen.hollow ? { stroke: pen.colour, width: 1.5 } : { fill: pen.colour, alpha: 0.82 });
        const whiskers = whiskersOf(bar.cell);
        if (whiskers) {
          const [low, most] = [xOf(whiskers.low), xOf(whiskers.high)];
          to.line({ colour: palette.ink, width: 1.25 }, (path) => {
            path.moveTo(low, middle);
            path.lineTo(most, middle);
            for (const x of [low, most]) {
              path.moveTo(x, middle - high * 0.7);
              path.lineTo(x, middle + high * 0.7);
            }
          });
        }
      }
      const place = bar.cell?.place ?? '';
      if (place)
        say({ to, boxes }, 'bars', place, right + 24, middle + size * 0.35, { ...figures, colour: palette.soft, size: size * 0.85 });
      say({ to, boxes }, 'bars', fitted(to, told(bar), valueRoom - 32, figures), at.right - 4, middle + size * 0.35, figures);
      y += row;
    }
  }
  return y + row * 0.5;
}
