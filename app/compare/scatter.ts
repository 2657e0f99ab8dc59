import { max, min, ticks } from 'd3-array';
import type { Plotted } from '@core/advise';
import { spell } from '@core/quantity';
import { PALETTES } from '../kit/theme';
import { boxOf, fitted, meets, say, type WordBox } from '../strip/layers/drawing';
import { nameColumn } from '../strip/layers/names';
import type { Rect, WordLook } from '../strip/layers/surface';
import type { PictureBody } from '../strip/picture';
import { penOf } from '../strip/pens';

/** Setups by two figures, the better end of each to the left and up. */
export interface Scatter {
  points: readonly Plotted[];
  /** Of each setup of the group, by its place. */
  pens: readonly number[];
  /** What lies to the right, and how it is written. */
  across: string;
  write: (x: number) => string;
}

/** Of so many the names stand in a column of their own, each with a line to its point. */
const MANY = 8;
const NIB = 6;
const STEPS = [60, 120, 300, 600, 900, 1800, 3600, 7200];

/** A little more than all that is drawn reaches. */
function widest(low: number, high: number): [number, number] {
  const room = Math.max((high - low) * 0.08, high * 0.04, 1e-6);
  return [Math.max(0, low - room), high + room];
}

/** A scatter with the whiskers of its margins, and the line on which nothing is beaten; no name on another, on a nib or on a whisker. */
export const scatterBody =
  ({ points, pens, across, write }: Scatter): PictureBody =>
  (to, theme, at) => {
    const palette = PALETTES[theme];
    const boxes: WordBox[] = [];
    const figures: WordLook = { colour: palette.soft, size: 12, family: 'figures' };
    const words: WordLook = { colour: palette.soft, size: 12, family: 'words' };
    const isMany = points.length > MANY;
    const names = isMany ? Math.min(170, (at.right - at.left) * 0.36) : 10;
    const paper: Rect = { left: at.left + 62, right: at.right - names, top: at.top + 14, bottom: at.bottom - 42 };
    const xs = widest(min(points, (each) => each.x - each.xMargin) ?? 0, max(points, (each) => each.x + each.xMargin) ?? 1);
    const ys = widest(min(points, (each) => each.y - each.yMargin) ?? 0, max(points, (each) => each.y + each.yMargin) ?? 1);
    const xOf = (x: number) => paper.left + ((x - xs[0]) / (xs[1] - xs[0])) * (paper.right - paper.left);
    /** Sooner is higher. */
    const yOf = (y: number) => paper.top + ((y - ys[0]) / (ys[1] - ys[0])) * (paper.bottom - paper.top);

    let told = -Infinity;
    for (const x of ticks(...xs, Math.max(2, Math.round((paper.right - paper.left) / 110)))) {
      to.rect({ left: xOf(x), right: xOf(x) + 1, top: paper.top, bottom: paper.bottom }, { fill: palette.grid });
      const half = to.widthOf(write(x), figures) / 2;
      if (xOf(x) - half < Math.max(told, at.left) || xOf(x) + half > at.right) continue;
      say({ to, boxes }, 'scatter', write(x), xOf(x), paper.bottom + 16, { ...figures, align: 'middle' });
      told = xOf(x) + half + 6;
    }
    const step = STEPS.find((each) => (ys[1] - ys[0]) / each <= Math.max(2, (paper.bottom - paper.top) / 34)) ?? 14_400;
    for (let y = Math.ceil(ys[0] / step) * step; y <= ys[1]; y += step) {
      to.rect({ left: paper.left, right: paper.right, top: yOf(y), bottom: yOf(y) + 1 }, { fill: palette.grid });
      say({ to, boxes }, 'scatter', spell(y), paper.left - 8, yOf(y) + 4, { ...figures, align: 'end' });
    }
    const axis = fitted(to, across, at.right - at.left - 8, words);
    const end = Math.max(paper.right, at.left + 4 + to.widthOf(axis, words));
    say({ to, boxes }, 'scatter', axis, end, at.bottom - 8, { ...words, align: 'end' });

    const line = points.filter(({ isOn }) => isOn).sort((one, other) => one.x - other.x);
    if (line.length > 1)
      to.line({ colour: palette.pencil, width: 1.5, dash: [3, 4] }, (path) => {
        for (const { x, y } of line) path.lineTo(xOf(x), yOf(y));
      });
    /** Nibs and whiskers: no name lies on them. */
    const taken: Rect[] = [];
    for (const { x, y, xMargin, yMargin, index } of points) {
      const whiskers = [
        ...(yMargin > 0 ? [{ left: xOf(x) - 1, right: xOf(x) + 1, top: yOf(y - yMargin), bottom: yOf(y + yMargin) }] : []),
        ...(xMargin > 0 ? [{ left: xOf(x - xMargin), right: xOf(x + xMargin), top: yOf(y) - 1, bottom: yOf(y) + 1 }] : []),
      ];
      for (const each of whiskers) to.rect(each, { fill: palette.ink, alpha: 0.75 });
      const pen = penOf(pens[index] ?? 0, theme);
      to.nib(pen.nib, xOf(x), yOf(y), NIB, { fill: pen.hollow ? palette.paper : pen.colour, stroke: pen.colour, width: 1.5 });
      taken.push(...whiskers, { left: xOf(x) - NIB - 1, right: xOf(x) + NIB + 1, top: yOf(y) - NIB - 1, bottom: yOf(y) + NIB + 1 });
    }
    const lookOf = ({ isOn }: Plotted): WordLook => ({ ...words, colour: isOn ? palette.ink : palette.soft, ...(isOn && { weight: 700 }) });
    const leader = (fromX: number, fromY: number, toX: number, toY: number) => {
      to.line({ colour: palette.soft, width: 0.75, alpha: 0.6 }, (path) => {
        path.moveTo(fromX, fromY);
        path.lineTo(toX, toY);
      });
    };
    if (isMany) {
      const ends = [...points]
        .sort((one, other) => one.y - other.y)
        .map((each) => ({ ...lookOf(each), name: each.name, x: xOf(each.x) + NIB, y: yOf(each.y) }));
      nameColumn({ to, boxes, palette }, ends, {
        x: paper.right + 12,
        room: at.right - paper.right - 12,
        top: paper.top,
        bottom: paper.bottom,
      });
      return boxes;
    }
    for (const each of points) {
      const [x, y, look] = [xOf(each.x), yOf(each.y), lookOf(each)];
      const name = fitted(to, each.name, (paper.right - paper.left) * 0.5, look);
      const found = placesAbout(x, y)
        .map((place) => ({ ...place, box: boxOf(to, name, place.x, place.y, { ...look, align: place.align }) }))
        .find(
          ({ box }) =>
            box.left >= paper.left &&
            box.right <= at.right &&
            box.top >= at.top &&
            box.bottom <= paper.bottom + 2 &&
            ![...taken, ...boxes].some((other) => meets(box, other)),
        );
      if (!found) continue;
      if (found.isFar) leader(x, y, found.x + (found.align === 'start' ? -3 : 3), found.y - 4);
      say({ to, boxes }, 'scatter', name, found.x, found.y, { ...look, align: found.align });
    }
    return boxes;
  };

/** Where the name of a point may stand, the best first: beside it, above and below, then further off with a line to it. */
function placesAbout(x: number, y: number): { x: number; y: number; align: 'start' | 'end'; isFar: boolean }[] {
  const rows = [-9, 18, 4, -24, 33, -39, 48, -54, 63, -72, 81, -90];
  return rows.flatMap((row) =>
    (['start', 'end'] as const).map((align) => ({ x: x + (align === 'start' ? 11 : -11), y: y + row, align, isFar: Math.abs(row) > 20 })),
  );
}
