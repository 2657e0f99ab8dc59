import { quantityOf, shownIn, type Quantity } from '@core/quantity';
import type { Palette } from '../../kit/theme';
import type { Trace } from '../trace';
import type { Frame, TrackFrame } from './frame';
import type { StripLook } from './look';
import type { Rect, Surface, WordLook } from './surface';

/** Words that were drawn: what they say, where, and by which layer. */
export interface WordBox extends Rect {
  text: string;
  layer: string;
}

/** What a layer draws with: the surface, where everything lies, what is drawn, and the words so far. */
export interface Drawing {
  to: Surface;
  frame: Frame;
  traces: readonly Trace[];
  look: StripLook;
  palette: Palette;
  boxes: WordBox[];
}
export type Layer = (drawing: Drawing) => void;

/** How far letters reach above and below their line, as shares of their size. */
const [ABOVE, BELOW] = [0.78, 0.24];

/** Where words would be, without drawing them. */
export function boxOf(to: Surface, text: string, x: number, y: number, look: WordLook): Rect {
  const { size, align = 'start', turned } = look;
  const long = to.widthOf(text, look);
  const before = align === 'start' ? 0 : align === 'middle' ? long / 2 : long;
  return turned
    ? { left: x - size * ABOVE, right: x + size * BELOW, top: y - (long - before), bottom: y + before }
    : { left: x - before, right: x + long - before, top: y - size * ABOVE, bottom: y + size * BELOW };
}

export const meets = (one: Rect, other: Rect): boolean =>
  one.left < other.right && other.left < one.right && one.top < other.bottom && other.top < one.bottom;

/** Draws words, and reports their box. */
export function say({ to, boxes }: Pick<Drawing, 'to' | 'boxes'>, layer: string, text: string, x: number, y: number, look: WordLook): void {
  if (text === '') return;
  to.words(text, x, y, look);
  boxes.push({ text, layer, ...boxOf(to, text, x, y, look) });
}

/** Whether words would lie on the paper, and on no others. */
export const isFree = ({ boxes, frame }: Pick<Drawing, 'boxes' | 'frame'>, box: Rect): boolean =>
  box.left >= frame.left - 1 &&
  box.right <= frame.right + 1 &&
  box.top >= frame.top - 9 &&
  box.bottom <= frame.bottom + 1 &&
  !boxes.some((each) => meets(each, box));

/** A text that is no wider than there is room, at its end with an ellipsis; empty where not even a few letters fit. */
export function fitted(to: Surface, text: string, room: number, look: WordLook): string {
  if (to.widthOf(text, look) <= room) return text;
  for (let length = text.length - 1; length >= 3; length -= 1) {
    const cut = `${text.slice(0, length).trimEnd()}…`;
    if (to.widthOf(cut, look) <= room) return cut;
  }
  return '';
}

/** Where a value of a line lies on the paper of its track. */
export const heightOf = (track: TrackFrame, line: Quantity, value: number): number => track.yOf(shownIn(quantityOf(line).unit, value));

/** The paper within its edges, a little more above and below for what is as wide as a pen. */
export const paperOf = ({ left, right, top, bottom }: Rect, more = 0): Rect => ({ left, right, top: top - more, bottom: bottom + more });
