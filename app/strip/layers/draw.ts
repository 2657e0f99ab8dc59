import { PALETTES } from '../../kit/theme';
import type { Trace } from '../trace';
import type { Drawing, Layer, WordBox } from './drawing';
import { frameOf, type Frame } from './frame';
import { ink } from './ink';
import type { StripLook } from './look';
import { events, places } from './marks';
import { names } from './names';
import { paper } from './paper';
import { pencil } from './pencil';
import type { Surface } from './surface';

/** The layers of a strip, from the bottom up. */
const LAYERS: readonly Layer[] = [paper, places, pencil, ink, events, names];

/** Draws a strip of a size in pixels. @returns where everything lies, and the words that stand on it */
export function drawStrip(
  to: Surface,
  traces: readonly Trace[],
  look: StripLook,
  size: { width: number; height: number },
): { frame: Frame; boxes: WordBox[] } {
  const frame = frameOf(traces, look, size, to.widthOf);
  const drawing: Drawing = { to, frame, traces, look, palette: PALETTES[look.theme], boxes: [] };
  for (const layer of LAYERS) layer(drawing);
  return { frame, boxes: drawing.boxes };
}
