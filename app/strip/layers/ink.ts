import { bisector } from 'd3-array';
import { quantityOf, shownIn, type Quantity } from '@core/quantity';
import type { Dot } from '@core/samples';
import { penOf, type Pen } from '../pens';
import type { Trace } from '../trace';
import { heightOf, paperOf, type Drawing, type Layer } from './drawing';
import type { TrackFrame } from './frame';
import { isInk, linesOn, READ, type Size } from './look';
import type { LineLook, Path } from './surface';

/** Nibs along the whole width of a strip that several pens share. */
const MOST_NIBS = 28;
const bySeconds = bisector<Dot, number>(([seconds]) => seconds);

/**
 * What was read. A meter's stream is a line of ink, broken where nothing was seen; between two readings taken by hand there is only pencil, with a nib at
 * each of them; struck readings stay, crossed out and joined to nothing.
 */
export const ink: Layer = (drawing) => {
  const { to, frame, traces, look } = drawing;
  const lines = traces.flatMap((trace) =>
    frame.tracks.flatMap((track) => linesOn([trace], track.track).map((line) => ({ trace, track, line }))),
  );
  to.within(paperOf(frame, 10), () => {
    for (const { trace, track, line } of lines) stroke(drawing, trace, track, line);
  });
  if (look.size === 'row') return;
  for (const { trace, track, line } of lines) nibs(drawing, trace, track, line);
  if (!look.penned) for (const trace of traces) crosses(drawing, trace);
};

/** How a line is drawn: as ink, or in pencil between readings; among others always with its pen. */
function lookOf({ look, palette }: Drawing, trace: Trace, line: Quantity): LineLook {
  const pen = penOf(trace.pen, look.theme);
  if (look.size === 'row') return { colour: pen.colour, width: 1.75, dash: look.penned ? pen.dash : [] };
  if (trace.streamed.has(line) || look.penned) return { colour: pen.colour, width: 2, dash: look.penned ? pen.dash : [] };
  return { colour: palette.pencil, width: 1.25, dash: READ };
}

function stroke(drawing: Drawing, trace: Trace, track: TrackFrame, line: Quantity): void {
  const { to, frame, look, palette } = drawing;
  const dots = trace.dots[line] ?? [];
  if (dots.length === 0) return;
  const hand = isInk(trace, line) || look.size === 'row' || !trace.streamed.has(line) ? undefined : trace.byHand?.[line];
  const own = lookOf(drawing, trace, line);
  if (!hand) {
    to.line(own, (path) => {
      trail(path, dots, frame, track, line);
    });
    return;
  }
  // Beside what a meter streamed: from and to a reading taken by hand there is only pencil.
  const parts = (isHand: boolean) => (path: Path) => {
    trail(path, dots, frame, track, line, (one, other) => (hand.has(one) || hand.has(other)) === isHand);
  };
  to.line(own, parts(false));
  to.line({ colour: palette.pencil, width: 1.25, dash: READ }, parts(true));
}

/** Traces a line from the dot before the paper's left edge to the one behind its right. Both scales are straight, so two heights give all. */
function trail(
  path: Path,
  dots: readonly Dot[],
  frame: Drawing['frame'],
  track: TrackFrame,
  line: Quantity,
  isDrawn?: (one: number, other: number) => boolean,
): void {
  const { unit } = quantityOf(line);
  const [x0, y0] = [frame.xOf(0), track.yOf(shownIn(unit, 0))];
  const [byX, byY] = [frame.xOf(1) - x0, track.yOf(shownIn(unit, 1)) - y0];
  const last = Math.min(dots.length - 1, bySeconds.right(dots, frame.until));
  let isBroken = true;
  let before = Number.NaN;
  for (let row = Math.max(0, bySeconds.left(dots, frame.from) - 1); row <= last; row += 1) {
    const [at, value] = dots[row] ?? [0];
    if (value === undefined) isBroken = true;
    else {
      if (isBroken || (isDrawn && !isDrawn(before, at))) path.moveTo(x0 + at * byX, y0 + value * byY);
      else path.lineTo(x0 + at * byX, y0 + value * byY);
      isBroken = false;
      before = at;
    }
  }
}

const radiusOf = ({ nib }: Pen, size: Size) => (size === 'lane' ? 5 : 4) + (nib === 'circle' || nib === 'square' ? 0 : 1);

/** Alone, every reading has its nib; among others one now and then tells the pens apart. */
function nibs({ to, frame, look, palette }: Drawing, trace: Trace, track: TrackFrame, line: Quantity): void {
  const isStreamed = trace.streamed.has(line);
  const hand = isStreamed ? trace.byHand?.[line] : undefined;
  if ((isStreamed && !hand) || trace.worked?.has(line)) return;
  const pen = penOf(trace.pen, look.theme);
  const dots = trace.dots[line] ?? [];
  const every = look.penned && !hand ? Math.max(1, Math.round((dots.length * look.until) / (MOST_NIBS * Math.max(trace.end, 1)))) : 1;
  const nib = { fill: pen.hollow ? palette.paper : pen.colour, stroke: pen.colour, width: pen.nib === 'cross' ? 2.5 : 1.5 };
  for (const [index, [at, value]] of dots.entries()) {
    if (value === undefined || at < frame.from || at > frame.until) continue;
    if (hand ? !hand.has(at) : index % every !== 0 && index !== dots.length - 1) continue;
    to.nib(pen.nib, frame.xOf(at), heightOf(track, line, value), radiusOf(pen, look.size), nib);
  }
}

function crosses({ to, frame, palette }: Drawing, { struck }: Trace): void {
  const track = frame.trackOf('percent');
  if (!track) return;
  for (const [at, value] of struck)
    if (value !== undefined && at >= frame.from && at <= frame.until)
      to.nib('struck', frame.xOf(at), track.yOf(value), 6, { fill: 'none', stroke: palette.soft, width: 1.75 });
}
