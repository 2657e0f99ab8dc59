import { escapeHtml } from '@core/quantity';
import { pageWidth } from './canvasSurface';
import type { Outline } from './outlines';
import { FAMILIES, isOpen, nibPaths, type Path, type Surface } from './surface';

const near = (value: number): string => String(Math.round(value * 100) / 100);
/** A colour, and how far it covers, as SVG has them apart: `#D3C6A933`. */
function painted(name: 'fill' | 'stroke', colour: string): string {
  const [, plain = colour, cover] = /^(#[0-9a-f]{6})([0-9a-f]{2})$/i.exec(colour) ?? [];
  return ` ${name}="${plain}"${cover ? ` ${name}-opacity="${near(Number.parseInt(cover, 16) / 255)}"` : ''}`;
}

/** A path as SVG writes it; empty where nothing was traced. */
function traced(trace: (path: Path) => void): string {
  const path: string[] = [];
  trace({
    moveTo: (x, y) => path.push(`M${near(x)} ${near(y)}`),
    lineTo: (x, y) => path.push(`${path.length === 0 ? 'M' : 'L'}${near(x)} ${near(y)}`),
  });
  return path.join('');
}

/**
 * An SVG as layers draw it. `body` gives what was drawn so far.
 *
 * @param widthOf how wide words are, for those that make room for each other
 * @param outline draws words as outlines; without it they are text
 */
export function svgSurface(widthOf: Surface['widthOf'], outline?: Outline): Surface & { body: () => string } {
  let parts: string[] = [];
  let clips = 0;
  return {
    body: () => parts.join(''),
    widthOf,
    line({ colour, width, dash = [], alpha }, trace) {
      const path = traced(trace);
      if (path === '') return;
      parts.push(
        `<path d="${path}" fill="none"${painted('stroke', colour)} stroke-width="${width}" stroke-linejoin="round"${
          dash.length > 0 ? ` stroke-dasharray="${dash.join(' ')}"` : ''
        }${alpha === undefined ? '' : ` opacity="${alpha}"`}/>`,
      );
    },
    area(fill, trace) {
      const path = traced(trace);
      if (path !== '') parts.push(`<path d="${path}Z"${painted('fill', fill)}/>`);
    },
    rect({ left, top, right, bottom }, { fill, stroke, width = 1, alpha }) {
      parts.push(
        `<rect x="${near(left)}" y="${near(top)}" width="${near(Math.max(0, right - left))}" height="${near(Math.max(0, bottom - top))}"${
          fill ? painted('fill', fill) : ' fill="none"'
        }${stroke ? `${painted('stroke', stroke)} stroke-width="${width}"` : ''}${alpha === undefined ? '' : ` opacity="${alpha}"`}/>`,
      );
    },
    nib(shape, x, y, radius, { fill, stroke, width }) {
      const look = `${painted('fill', isOpen(shape) ? 'none' : fill)}${painted('stroke', stroke)} stroke-width="${width}"`;
      if (shape === 'circle') parts.push(`<circle cx="${near(x)}" cy="${near(y)}" r="${near(radius)}"${look}/>`);
      else {
        const paths = nibPaths(shape, x, y, radius).map((path) => `M${path.map(([px, py]) => `${near(px)} ${near(py)}`).join('L')}`);
        parts.push(`<path d="${paths.join('')}${isOpen(shape) ? '' : 'Z'}"${look}/>`);
      }
    },
    words(text, x, y, look) {
      const { colour, size, family, weight, align = 'start', turned } = look;
      const about = `${painted('fill', colour)}${turned ? ` transform="rotate(-90 ${near(x)} ${near(y)})"` : ''}`;
      const path = outline?.(text, x, y, look);
      parts.push(
        path === undefined
          ? `<text x="${near(x)}" y="${near(y)}" font-family="${escapeHtml(FAMILIES[family])}" font-size="${size}" text-anchor="${align}"${weight ? ` font-weight="${weight}"` : ''}${about}>${escapeHtml(text)}</text>`
          : `<path d="${path}"${about}/>`,
      );
    },
    within({ left, top, right, bottom }, draw) {
      const outside = parts;
      parts = [];
      draw();
      const id = `within-${(clips += 1)}`;
      const inside = parts.join('');
      parts = outside;
      parts.push(
        `<clipPath id="${id}"><rect x="${near(left)}" y="${near(top)}" width="${near(right - left)}" height="${near(bottom - top)}"/></clipPath><g clip-path="url(#${id})">${inside}</g>`,
      );
    },
  };
}

/** What layers draw, as an SVG of a size that goes as wide as its place. @param caption what it shows, for who cannot see it */
export function svgOf(caption: string, width: number, height: number, draw: (to: Surface) => void): string {
  const to = svgSurface(pageWidth());
  draw(to);
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${height}" role="img" aria-label="${escapeHtml(caption)}">${to.body()}</svg>`;
}
