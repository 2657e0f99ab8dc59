import { quantityOf, type Quantity } from '@core/quantity';
import { penOf } from '../pens';
import { lineName, type Trace } from '../trace';
import { boxOf, fitted, heightOf, isFree, meets, say, type Drawing, type Layer } from './drawing';
import { NAME_SIZE, type TrackFrame } from './frame';
import { EXPECTED, GHOST, linesOn, mainTrack, READ } from './look';
import type { WordLook } from './surface';

/** How high the name of a line is, in pixels. */
const NAME = 13;
/** How much of the width of a paper a name may take. */
const SHARE = 0.3;

/** Names: of several runs at the ends of their curves, of several lines on one paper where they end, and of what is in pencil at the foot. */
export const names: Layer = (drawing) => {
  const { look, traces, frame } = drawing;
  if (look.size === 'row') return;
  legend(drawing);
  if (look.size !== 'sheet') return;
  if (traces.length === 1)
    for (const track of frame.tracks) {
      const lines = linesOn(traces, track.track);
      if (lines.length > 1) nameLines(drawing, track, lines, traces[0]);
    }
  if (look.penned && traces.length > 1) nameEnds(drawing);
};

/** What is drawn in pencil, with its dashes. A lane has room for what is not ink alone. */
function legend(drawing: Drawing): void {
  const { to, frame, look, traces, palette } = drawing;
  const main = mainTrack(traces);
  const track = frame.trackOf(main);
  if (!track) return;
  const isSheet = look.size === 'sheet';
  const isRead = isSheet && !look.penned && traces.some((trace) => !trace.streamed.has(main) && (trace.dots[main] ?? []).length > 1);
  const words = [
    ...(isRead ? [{ word: 'between readings', dash: READ }] : []),
    ...(traces.some(({ expected }) => expected) ? [{ word: 'expected', dash: EXPECTED }] : []),
    ...(traces.some(({ ghost }) => ghost) ? [{ word: 'earlier run', dash: GHOST }] : []),
  ];
  const text: WordLook = { colour: palette.pencil, size: isSheet ? 12 : 10, family: 'words', align: 'end' };
  const at = track.bottom - (isSheet ? 10 : 6);
  let right = frame.right - (isSheet ? 8 : 34);
  for (const { word, dash } of words.reverse()) {
    const wide = to.widthOf(word, text);
    if (right - wide - 28 < frame.left) return;
    if (isFree(drawing, boxOf(to, word, right, at, text))) say(drawing, 'names', word, right, at, text);
    const end = right - wide - 6;
    to.line({ colour: palette.pencil, width: 1.5, dash }, (path) => {
      path.moveTo(end - 22, at - 4);
      path.lineTo(end, at - 4);
    });
    right = end - 36;
  }
}

/** Several lines on one paper are named where they end, each at its own height. */
function nameLines(drawing: Drawing, track: TrackFrame, lines: readonly Quantity[], trace: Trace | undefined): void {
  const { to, frame, palette } = drawing;
  const look: WordLook = { colour: palette.soft, size: 12, family: 'words', align: 'end' };
  for (const line of lines) {
    const [at, value] = trace?.dots[line]?.findLast(([, each]) => each !== undefined) ?? [];
    if (at === undefined || value === undefined || !trace) continue;
    const word = quantityOf(line).track?.on ? lineName(line, trace) : 'surface';
    const x = Math.min(frame.xOf(at), frame.right) - 6;
    const from = heightOf(track, line, value) - 6;
    const heights = Array.from({ length: 8 }, (_, index) => from + 12 * (index % 2 === 0 ? index / 2 : -(index + 1) / 2));
    const y = heights.find((each) => isFree(drawing, boxOf(to, word, x, each, look)));
    if (y !== undefined) say(drawing, 'names', word, x, y, look);
  }
}

/** Names lines near their ends: beside the paper where there is room, else on it at its right edge. */
function nameEnds(drawing: Drawing): void {
  const { frame, traces, look } = drawing;
  const main = mainTrack(traces);
  const track = frame.trackOf(main);
  if (!track) return;
  const ends = [...new Map(traces.map((trace) => [trace.name, trace])).values()].flatMap(({ name, pen, dots }): NamedEnd[] => {
    const [at, value] = dots[main]?.findLast(([seconds, each]) => each !== undefined && seconds <= frame.until) ?? [];
    if (at === undefined || value === undefined) return [];
    return [{ name, colour: penOf(pen, look.theme).colour, x: frame.xOf(at) + 4, y: heightOf(track, main, value) }];
  });
  const { namesAt } = frame;
  nameColumn(drawing, ends, {
    x: namesAt ?? frame.right - 4,
    isOnPaper: namesAt === undefined,
    room: (frame.right - frame.left) * SHARE,
    top: track.top + 1,
    bottom: track.bottom,
  });
}

/** What is to be named: a line where it ends, a point. */
export interface NamedEnd {
  name: string;
  colour: string;
  weight?: 700;
  x: number;
  y: number;
}

/**
 * Names under each other in a column, each as near to the end of its own as the others leave room, with a hair between the two. Where more are named than find
 * room, the last of them are left out.
 *
 * @param column where names begin, or end where they stand on the paper; between which heights; and how wide one may be
 */
export function nameColumn(
  { to, boxes, palette }: Pick<Drawing, 'to' | 'boxes' | 'palette'>,
  ends: readonly NamedEnd[],
  { x, isOnPaper, room, top, bottom }: { x: number; isOnPaper?: boolean; room: number; top: number; bottom: number },
): void {
  const fits = Math.floor((bottom - top + 1) / NAME);
  if (fits < 1) return;
  const shown = ends.slice(0, fits);
  const heights = spreadOut(
    shown.map(({ y }) => y + 4),
    NAME,
    { low: top + NAME - 5, high: bottom - 3 },
  );
  for (const [index, { name, colour, weight, x: left, y }] of shown.entries()) {
    const look: WordLook = { colour, size: NAME_SIZE, family: 'words', align: isOnPaper ? 'end' : 'start', ...(weight && { weight }) };
    const at = heights[index] ?? y;
    const words = fitted(to, name, room, look);
    const box = boxOf(to, words, x, at, look);
    if (boxes.some((each) => meets(each, box))) continue;
    if (left < box.left - 8)
      to.line({ colour, width: 0.75, alpha: 0.6 }, (path) => {
        path.moveTo(left, y);
        path.lineTo(box.left - 3, at - 4);
      });
    if (isOnPaper) to.rect({ left: box.left - 1, right: box.right + 1, top: box.top, bottom: box.bottom }, { fill: `${palette.paper}CC` });
    say({ to, boxes }, 'names', words, x, at, look);
  }
}

/**
 * Places that want to be near others and must not overlap: each as near as it can be, in order.
 *
 * @param wanted where each would be; @param gap between two, at least; @param within which all lie, as far as there is room
 * @returns in the order of `wanted`
 */
export function spreadOut(wanted: readonly number[], gap: number, within: { low: number; high: number }): number[] {
  const order = wanted.map((_, index) => index).sort((one, other) => (wanted[one] ?? 0) - (wanted[other] ?? 0));
  const room = Math.min(gap, (within.high - within.low) / Math.max(1, wanted.length - 1));
  const placed: number[] = [];
  let last = -Infinity;
  for (const index of order) {
    last = Math.max(wanted[index] ?? 0, within.low, last + room);
    placed[index] = last;
  }
  let next = Infinity;
  for (const index of order.reverse()) {
    next = Math.min(placed[index] ?? 0, within.high, next - room);
    placed[index] = next;
  }
  return placed;
}
