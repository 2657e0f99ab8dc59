import { FAMILIES, isOpen, nibPaths, type Surface, type WordLook } from './surface';

const fontOf = ({ size, family, weight }: WordLook) => `${weight ?? 400} ${size}px ${FAMILIES[family]}`;
const ALIGN = { start: 'left', middle: 'center', end: 'right' } as const;

/** A canvas as layers draw on it. */
function canvasSurface(ctx: CanvasRenderingContext2D): Surface {
  const at = (alpha: number | undefined, draw: () => void) => {
    ctx.globalAlpha = alpha ?? 1;
    draw();
    ctx.globalAlpha = 1;
  };
  return {
    line({ colour, width, dash = [], alpha }, trace) {
      at(alpha, () => {
        ctx.strokeStyle = colour;
        ctx.lineWidth = width;
        ctx.lineJoin = 'round';
        ctx.setLineDash(dash as number[]);
        ctx.beginPath();
        trace(ctx);
        ctx.stroke();
      });
    },
    area(fill, trace) {
      ctx.fillStyle = fill;
      ctx.beginPath();
      trace(ctx);
      ctx.fill();
    },
    rect({ left, top, right, bottom }, { fill, stroke, width = 1, alpha }) {
      at(alpha, () => {
        if (fill) {
          ctx.fillStyle = fill;
          ctx.fillRect(left, top, right - left, bottom - top);
        }
        if (!stroke) return;
        ctx.strokeStyle = stroke;
        ctx.lineWidth = width;
        ctx.setLineDash([]);
        ctx.strokeRect(left, top, right - left, bottom - top);
      });
    },
    nib(shape, x, y, radius, { fill, stroke, width }) {
      ctx.beginPath();
      if (shape === 'circle') ctx.arc(x, y, radius, 0, 2 * Math.PI);
      for (const path of nibPaths(shape, x, y, radius)) {
        for (const [index, [px, py]] of path.entries())
          if (index === 0) ctx.moveTo(px, py);
          else ctx.lineTo(px, py);
        if (!isOpen(shape)) ctx.closePath();
      }
      ctx.setLineDash([]);
      ctx.fillStyle = fill;
      ctx.strokeStyle = stroke;
      ctx.lineWidth = width;
      if (!isOpen(shape)) ctx.fill();
      ctx.stroke();
    },
    words(text, x, y, look) {
      ctx.font = fontOf(look);
      ctx.fillStyle = look.colour;
      ctx.textAlign = ALIGN[look.align ?? 'start'];
      ctx.textBaseline = 'alphabetic';
      if (!look.turned) {
        ctx.fillText(text, x, y);
        return;
      }
      ctx.save();
      ctx.translate(x, y);
      ctx.rotate(-Math.PI / 2);
      ctx.fillText(text, 0, 0);
      ctx.restore();
    },
    within({ left, top, right, bottom }, draw) {
      ctx.save();
      ctx.beginPath();
      ctx.rect(left, top, right - left, bottom - top);
      ctx.clip();
      draw();
      ctx.restore();
    },
    widthOf(text, look) {
      ctx.font = fontOf(look);
      return ctx.measureText(text).width;
    },
  };
}

/** A canvas made so large, in pixels of the page and so many of its own for each, and empty. @returns `undefined` where the browser has no room for it */
export function surfaceOn(
  canvas: HTMLCanvasElement,
  width: number,
  height: number,
  dense = window.devicePixelRatio || 1,
): Surface | undefined {
  const ctx = canvas.getContext('2d');
  if (!ctx) return undefined;
  const [wide, high] = [Math.round(width * dense), Math.round(height * dense)];
  // A canvas that is given its size anew is made anew.
  if (canvas.width !== wide || canvas.height !== high) [canvas.width, canvas.height] = [wide, high];
  ctx.setTransform(dense, 0, 0, dense, 0, 0);
  ctx.clearRect(0, 0, width, height);
  return canvasSurface(ctx);
}

/** How wide words are on this page. */
export const pageWidth = (): Surface['widthOf'] => {
  const ctx = document.createElement('canvas').getContext('2d');
  return ctx ? canvasSurface(ctx).widthOf : (word, { size }) => word.length * size * 0.6;
};
