import { max, range } from 'd3-array';
import { PALETTES } from '../kit/theme';
import { fitted, say, type WordBox } from './layers/drawing';
import { BEFORE_NAMES, namesBeside } from './layers/frame';
import { nameColumn } from './layers/names';
import type { Path, Rect, Surface, WordLook } from './layers/surface';
import type { PictureBody } from './picture';
import { penOf } from './pens';

/** An axis: what it is of, from where to where, how far apart its rules are, and how a value of it is written. */
export interface PlotAxis {
  title: string;
  min: number;
  max: number;
  step: number;
  write: (value: number) => string;
}

/** A line against two axes, in the order of its points. */
export interface PlotLine {
  name: string;
  points: readonly (readonly [x: number, y: number])[];
  /** A line without a pen of its own is drawn softly, in these dashes. */
  pen: number | { dash: readonly number[] };
  /** Its margin, from below and above each point. */
  margins?: readonly number[];
  /** It is read at the right edge. */
  isRight?: boolean;
  /** Each point was read by a person, and has the nib of its pen. */
  isRead?: boolean;
}

/** Lines against axes, where no time of a run lies beneath: by level, or as what one is ahead of another. */
export interface Plot {
  across: PlotAxis;
  /** What is read at the left edge, and at the right one. */
  left?: PlotAxis | undefined;
  right?: PlotAxis | undefined;
  /** Where neither is better: its rule is drawn as strong as ink. */
  zero?: number;
  lines: readonly PlotLine[];
}

const FIGURES = { size: 12, family: 'figures' } as const;
/** Pixels that the label of a rule needs across its axis, and along it. */
const [LABEL, BETWEEN] = [16, 10];
/** Room above for the titles of scales, beneath for the labels and the title of the axis across, and at the edges. */
const [ABOVE, BENEATH, EDGE] = [26, 40, 10];
/** A line of the legend, where names find no room beside the paper. */
const LEGEND = 17;

const rulesOf = ({ min, max: max, step }: PlotAxis): number[] => range(Math.ceil(min / step - 1e-9) * step, max + step * 1e-6, step);

/** Lines with their axes, named at their ends where there is room, else above; no two words meet. */
export const plotBody =
  ({ across, left, right, zero, lines }: Plot): PictureBody =>
  (to, theme, at) => {
    const palette = PALETTES[theme];
    const boxes: WordBox[] = [];
    const figures: WordLook = { ...FIGURES, colour: palette.soft };
    const words: WordLook = { colour: palette.soft, size: 12, family: 'words' };
    const write = (text: string, x: number, y: number, look: WordLook) => {
      say({ to, boxes }, 'plot', text, x, y, look);
    };
    const gutter = (axis: PlotAxis | undefined) =>
      axis ? (max(rulesOf(axis), (value) => to.widthOf(axis.write(value), figures)) ?? 0) + 8 : 0;
    const lookOf = ({ pen }: PlotLine) =>
      typeof pen === 'number' ? penOf(pen, theme) : { colour: palette.soft, dash: pen.dash, nib: 'circle' as const, hollow: false };

    /** Runs of one setup have one name and one pen: they are named once. */
    const named = [...new Map(lines.map((line) => [line.name, line])).values()];
    const inner: Rect = { left: at.left + EDGE + gutter(left), right: at.right - EDGE - gutter(right), top: at.top, bottom: at.bottom };
    const names = namesBeside(
      to.widthOf,
      named.map(({ name }) => name),
      { width: at.right - at.left, room: inner.right - inner.left },
    );
    const legend = names > 0 || named.length < 2 ? [] : legendLines(to, named, inner.right - inner.left, words);
    const paper: Rect = {
      left: inner.left,
      right: inner.right - names,
      top: at.top + ABOVE + legend.length * LEGEND,
      bottom: at.bottom - BENEATH,
    };
    const xOf = (x: number) => paper.left + ((x - across.min) / (across.max - across.min)) * (paper.right - paper.left);
    const heightOn = (axis: PlotAxis) => (y: number) =>
      paper.bottom - ((y - axis.min) / (axis.max - axis.min)) * (paper.bottom - paper.top);

    for (const [row, each] of legend.entries())
      for (const { line, x, text } of each) {
        const [y, { colour, dash }] = [at.top + 14 + row * LEGEND, lookOf(line)];
        to.line({ colour, width: 2, dash }, (path) => {
          path.moveTo(inner.left + x, y - 4);
          path.lineTo(inner.left + x + 22, y - 4);
        });
        write(text, inner.left + x + 28, y, words);
      }

    let told = -Infinity;
    for (const x of rulesOf(across)) {
      to.rect({ left: xOf(x), right: xOf(x) + 1, top: paper.top, bottom: paper.bottom }, { fill: palette.grid });
      const text = across.write(x);
      const half = to.widthOf(text, figures) / 2;
      if (xOf(x) - half < Math.max(told, at.left) || xOf(x) + half > at.right) continue;
      write(text, xOf(x), paper.bottom + 16, { ...figures, align: 'middle' });
      told = xOf(x) + half + BETWEEN;
    }
    write(across.title, paper.right, paper.bottom + 33, { ...words, align: 'end' });
    const half = (paper.right - paper.left) / (left && right ? 2 : 1) - 8;
    for (const axis of [left, right]) {
      if (!axis) continue;
      const yOf = heightOn(axis);
      const isRight = axis === right;
      const every = Math.max(1, Math.ceil((LABEL * rulesOf(axis).length) / Math.max(1, paper.bottom - paper.top)));
      for (const [index, value] of rulesOf(axis).entries()) {
        if (!isRight || !left)
          to.rect(
            { left: paper.left, right: paper.right, top: yOf(value), bottom: yOf(value) + 1 },
            { fill: value === zero ? palette.ink : palette.grid },
          );
        if (index % every === 0)
          write(axis.write(value), isRight ? paper.right + 6 : paper.left - 6, yOf(value) + 4, {
            ...figures,
            align: isRight ? 'start' : 'end',
          });
      }
      write(fitted(to, axis.title, half, words), isRight ? paper.right : paper.left, paper.top - 8, {
        ...words,
        align: isRight ? 'end' : 'start',
      });
    }

    const axisOf = ({ isRight }: PlotLine) => (isRight ? right : left);
    to.within(paper, () => {
      for (const line of lines) {
        const axis = axisOf(line);
        if (!axis || !line.margins) continue;
        const yOf = heightOn(axis);
        const edge = (path: Path, sign: 1 | -1, index: number) => {
          const [x, y] = line.points[index] ?? [0, 0];
          path.lineTo(xOf(x), yOf(y + sign * (line.margins?.[index] ?? 0)));
        };
        to.area(`${lookOf(line).colour}26`, (path) => {
          for (const index of line.points.keys()) edge(path, 1, index);
          for (let index = line.points.length - 1; index >= 0; index -= 1) edge(path, -1, index);
        });
      }
      for (const line of lines) {
        const axis = axisOf(line);
        if (!axis) continue;
        const [yOf, { colour, dash }] = [heightOn(axis), lookOf(line)];
        to.line({ colour, width: typeof line.pen === 'number' ? 2 : 1.5, dash }, (path) => {
          for (const [x, y] of line.points) path.lineTo(xOf(x), yOf(y));
        });
      }
    });
    for (const line of lines) {
      const axis = axisOf(line);
      if (!axis || !line.isRead) continue;
      const [yOf, { colour, nib, hollow }] = [heightOn(axis), lookOf(line)];
      for (const [x, y] of line.points)
        to.nib(nib, xOf(x), yOf(y), 3.5, { fill: hollow ? palette.paper : colour, stroke: colour, width: 1.5 });
    }
    if (names > 0) {
      const ends = named.flatMap((line) => {
        const [[x, y] = [], axis] = [line.points.at(-1), axisOf(line)];
        return x === undefined || y === undefined || !axis
          ? []
          : [
              {
                name: line.name,
                colour: lookOf(line).colour,
                x: xOf(x) + 4,
                y: Math.min(Math.max(heightOn(axis)(y), paper.top), paper.bottom),
              },
            ];
      });
      const x = paper.right + gutter(right) + BEFORE_NAMES;
      nameColumn({ to, boxes, palette }, ends, { x, room: names - BEFORE_NAMES, top: paper.top, bottom: paper.bottom });
    }
    return boxes;
  };

/** Names with their lines above the paper, in rows as wide as it: where each begins. */
function legendLines(to: Surface, lines: readonly PlotLine[], room: number, look: WordLook) {
  const rows: { line: PlotLine; x: number; text: string }[][] = [];
  let end = Infinity;
  for (const line of lines) {
    const text = fitted(to, line.name, room - 28, look);
    const wide = 28 + to.widthOf(text, look);
    if (end + wide > room) {
      rows.push([]);
      end = 0;
    }
    rows.at(-1)?.push({ line, x: end, text });
    end += wide + 14;
  }
  return rows;
}
