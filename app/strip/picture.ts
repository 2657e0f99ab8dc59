import { escapeHtml } from '@core/quantity';
import { PALETTES, type ThemeName } from '../kit/theme';
import { surfaceOn } from './layers/canvasSurface';
import { drawStrip } from './layers/draw';
import { say, type WordBox } from './layers/drawing';
import type { StripLook } from './layers/look';
import type { Outline } from './layers/outlines';
import { svgSurface } from './layers/svgSurface';
import type { Path, Rect, Surface, WordLook } from './layers/surface';
import type { Trace } from './trace';

/** What stands about a picture: its title, sentences beneath it, and at its foot how sure it is and of which day. */
export interface PictureText {
  title: string;
  lines: readonly string[];
  foot: string;
}

/** A shape that people publish in: how large it is laid out, and how many pixels there are for one of that. */
export interface PictureShape {
  id: string;
  says: string;
  width: number;
  height: number;
  dense: number;
}
export const PICTURE_SHAPES: readonly PictureShape[] = [
  { id: 'square', says: 'square, 1080 × 1080', width: 720, height: 720, dense: 1.5 },
  { id: 'wide', says: '16:9, 1920 × 1080', width: 960, height: 540, dense: 2 },
  { id: 'large', says: '16:9, 3840 × 2160', width: 960, height: 540, dense: 4 },
  { id: 'tall', says: '9:16, 1080 × 1920', width: 540, height: 960, dense: 2 },
];
/** As large as it stands on the screen, with room for its words. */
export const asSeen = ({ width, height }: { width: number; height: number }): PictureShape => ({
  id: 'seen',
  says: 'as seen',
  width: Math.max(320, Math.round(width)),
  height: Math.max(240, Math.round(height)) + 110,
  dense: 2,
});

export const GROUNDS = ['paper', 'dark', 'transparent'] as const;
export type Ground = (typeof GROUNDS)[number];

/** Draws what a picture is of into a part of it. @returns its words */
export type PictureBody = (to: Surface, theme: ThemeName, at: Rect) => WordBox[];

const EDGE = 20;
/** How much of the height words may take above what they are about. */
const MOST_WORDS = 0.4;

/** Draws a picture: its words above, what it is of, and its foot. @returns all words on it */
export function drawPicture(to: Surface, { width, height }: PictureShape, text: PictureText, ground: Ground, body: PictureBody): WordBox[] {
  const theme: ThemeName = ground === 'dark' ? 'darkRoom' : 'paper';
  const palette = PALETTES[theme];
  const boxes: WordBox[] = [];
  if (ground !== 'transparent') to.rect({ left: 0, top: 0, right: width, bottom: height }, { fill: palette.paper });
  const write = (line: string, x: number, y: number, look: WordLook) => {
    say({ to, boxes }, 'text', line, x, y, look);
  };
  const room = width - 2 * EDGE;
  const large = width < 600 ? 18 : 21;
  const titled: WordLook = { colour: palette.ink, size: large, family: 'words', weight: 700 };
  const plain: WordLook = { colour: palette.ink, size: large * 0.68, family: 'words' };
  let y = EDGE + large * 0.8;
  for (const line of wrapped(to, text.title, room, titled, 2)) {
    write(line, EDGE, y, titled);
    y += large * 1.25;
  }
  for (const each of text.lines)
    for (const line of wrapped(to, each, room, plain, 3)) {
      if (y + plain.size * 1.4 > height * MOST_WORDS) break;
      write(line, EDGE, y, plain);
      y += plain.size * 1.4;
    }
  const small: WordLook = { colour: palette.soft, size: 11, family: 'words' };
  const foot = wrapped(to, text.foot, room, small, 2);
  const bottom = height - EDGE * 0.7 - 14 * foot.length;
  for (const [index, line] of foot.entries()) write(line, EDGE, bottom + 14 * (index + 1) - 2, small);
  boxes.push(...body(to, theme, { left: EDGE * 0.6, right: width - EDGE * 0.6, top: y, bottom }));
  return boxes;
}

/** A text in lines that are no wider than there is room; of more than so many the last one ends in an ellipsis. Long words break. */
export function wrapped(to: Surface, text: string, room: number, look: WordLook, max: number): string[] {
  const lines: string[] = [];
  let line = '';
  const words = text.split(/\s+/).flatMap((word) => pieces(to, word, room, look));
  for (const word of words) {
    const longer = line === '' ? word : `${line} ${word}`;
    if (line === '' || to.widthOf(longer, look) <= room) line = longer;
    else {
      lines.push(line);
      line = word;
    }
  }
  if (line !== '') lines.push(line);
  if (lines.length <= max) return lines;
  let last = lines[max - 1] ?? '';
  while (last.length > 1 && to.widthOf(`${last}…`, look) > room) last = last.slice(0, -1).trimEnd();
  return [...lines.slice(0, max - 1), `${last}…`];
}

function pieces(to: Surface, word: string, room: number, look: WordLook): string[] {
  if (to.widthOf(word, look) <= room) return [word];
  const found: string[] = [];
  let piece = '';
  for (const letter of word)
    if (piece !== '' && to.widthOf(piece + letter, look) > room) {
      found.push(piece);
      piece = letter;
    } else piece += letter;
  return [...found, piece];
}

/** A surface whose origin lies elsewhere on another. */
export function movedTo(to: Surface, left: number, top: number): Surface {
  const rect = (at: Rect): Rect => ({ left: at.left + left, right: at.right + left, top: at.top + top, bottom: at.bottom + top });
  const moved = (trace: (path: Path) => void) => (path: Path) => {
    trace({
      moveTo: (x, y) => {
        path.moveTo(x + left, y + top);
      },
      lineTo: (x, y) => {
        path.lineTo(x + left, y + top);
      },
    });
  };
  return {
    line(look, trace) {
      to.line(look, moved(trace));
    },
    area(fill, trace) {
      to.area(fill, moved(trace));
    },
    rect(at, look) {
      to.rect(rect(at), look);
    },
    nib(shape, x, y, radius, look) {
      to.nib(shape, x + left, y + top, radius, look);
    },
    words(text, x, y, look) {
      to.words(text, x + left, y + top, look);
    },
    within(at, draw) {
      to.within(rect(at), draw);
    },
    widthOf: (text, look) => to.widthOf(text, look),
  };
}

/** A strip as what a picture is of. */
export const stripBody =
  (traces: readonly Trace[], look: Omit<StripLook, 'theme'>): PictureBody =>
  (to, theme, { left, top, right, bottom }) =>
    drawStrip(movedTo(to, left, top), traces, { ...look, theme }, { width: right - left, height: bottom - top }).boxes.map((box) => ({
      ...box,
      left: box.left + left,
      right: box.right + left,
      top: box.top + top,
      bottom: box.bottom + top,
    }));

/** A picture as it is drawn. */
export interface PictureJob {
  shape: PictureShape;
  text: PictureText;
  ground: Ground;
  body: PictureBody;
}

const NO_ROOM = 'The browser has no room for a picture of this size. Choose a smaller one.';

/** Draws it on a canvas of its own. */
export function pictureCanvas({ shape, text, ground, body }: PictureJob, dense = shape.dense): HTMLCanvasElement {
  const canvas = document.createElement('canvas');
  const to = surfaceOn(canvas, shape.width, shape.height, dense);
  if (!to) throw new Error(NO_ROOM);
  drawPicture(to, shape, text, ground, body);
  return canvas;
}

/** As PNG: the fonts are in its pixels. @throws {Error} saying what to do */
export async function picturePng(picture: PictureJob): Promise<Blob> {
  await document.fonts.ready;
  const canvas = pictureCanvas(picture);
  const found = await new Promise<Blob | null>((resolve) => {
    canvas.toBlob(resolve, 'image/png');
  });
  if (!found) throw new Error(NO_ROOM);
  return found;
}

/** As SVG. @param widthOf how wide words are; @param outline draws them as outlines; without it they are text */
export function pictureSvg({ shape, text, ground, body }: PictureJob, widthOf: Surface['widthOf'], outline?: Outline): string {
  const to = svgSurface(widthOf, outline);
  drawPicture(to, shape, text, ground, body);
  const { width, height, dense } = shape;
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${width * dense}" height="${height * dense}" viewBox="0 0 ${width} ${height}" role="img"><title>${escapeHtml(text.title)}</title><desc>${escapeHtml([...text.lines, text.foot].join(' '))}</desc>${to.body()}</svg>`;
}
