import type { LineLook, NibShape, Rect, Surface, WordLook } from './surface';

/** One thing that was drawn, and the rectangle that it was drawn within. */
export type Drawn = { within: Rect | undefined } & (
  | { kind: 'line'; look: LineLook; points: (readonly [x: number, y: number])[]; parts: number }
  | { kind: 'area'; fill: string; points: (readonly [x: number, y: number])[] }
  | { kind: 'rect'; at: Rect; fill: string | undefined }
  | { kind: 'nib'; shape: NibShape; x: number; y: number; look: { fill: string; stroke: string } }
  | { kind: 'words'; text: string; look: WordLook }
);

/** A surface that keeps what is drawn on it, for tests. Letters are all of one width there: no narrower than those of the program's type. */
export function recording(): Surface & { drawn: Drawn[] } {
  const drawn: Drawn[] = [];
  let within: Rect | undefined;
  return {
    drawn,
    line(look, trace) {
      const points: (readonly [number, number])[] = [];
      let parts = 0;
      trace({
        moveTo: (x, y) => {
          parts += 1;
          points.push([x, y]);
        },
        lineTo: (x, y) => points.push([x, y]),
      });
      drawn.push({ kind: 'line', look, points, parts, within });
    },
    area: (fill, trace) => {
      const points: (readonly [number, number])[] = [];
      const add = (x: number, y: number) => points.push([x, y]);
      trace({ moveTo: add, lineTo: add });
      drawn.push({ kind: 'area', fill, points, within });
    },
    rect: (at, { fill }) => drawn.push({ kind: 'rect', at, fill, within }),
    nib: (shape, x, y, _radius, look) => drawn.push({ kind: 'nib', shape, x, y, look, within }),
    words: (text, _x, _y, look) => drawn.push({ kind: 'words', text, look, within }),
    within(at, draw) {
      const before = within;
      within = at;
      draw();
      within = before;
    },
    widthOf: (text, { size, family }) => text.length * size * (family === 'figures' ? 0.62 : 0.55),
  };
}
