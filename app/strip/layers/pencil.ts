import type { Forecast } from '@core/run';
import type { Dot } from '@core/samples';
import type { Quantity } from '@core/quantity';
import { heightOf, paperOf, type Drawing, type Layer } from './drawing';
import { EXPECTED, GHOST } from './look';
import type { LineLook } from './surface';

/** How far the mark of an earliest reaches, in pixels, where nothing says how late it can be. */
const OPEN_END = 14;

/** What is expected lies under the ink and looks like nothing else: thin, grey, dotted. It is no data, so nothing points at it. */
export const pencil: Layer = (drawing) => {
  const { to, frame, traces, palette } = drawing;
  const look: LineLook = { colour: palette.pencil, width: 1.5 };
  to.within(paperOf(frame), () => {
    for (const { expected, ghost, forecasts = [] } of traces) {
      for (const { track } of frame.tracks) sketch(drawing, track, expected?.[track], { ...look, dash: EXPECTED });
      sketch(drawing, 'percent', ghost, { ...look, dash: GHOST });
      for (const each of forecasts) bracket(drawing, each, look);
    }
  });
};

function sketch({ to, frame }: Drawing, line: Quantity, dots: readonly Dot[] | undefined, look: LineLook): void {
  const track = frame.trackOf(line);
  if (!track || !dots || dots.length === 0) return;
  to.line(look, (path) => {
    for (const [seconds, value] of dots) if (value !== undefined) path.lineTo(frame.xOf(seconds), heightOf(track, line, value));
  });
}

/** Between which times a level will come: a bracket at its height, open where only the earliest is known. */
function bracket({ to, frame }: Drawing, { level, low, high }: Forecast, look: LineLook): void {
  const track = frame.trackOf('percent');
  if (!track) return;
  const [left, at] = [frame.xOf(low), track.yOf(level)];
  const right = high === undefined ? left + OPEN_END : frame.xOf(high);
  const below = at + (level === 100 ? 7 : -7);
  to.line(look, (path) => {
    path.moveTo(left, below);
    path.lineTo(left, at);
    path.lineTo(right, at);
    if (high !== undefined) path.lineTo(right, below);
  });
}
