/** What layers draw on: a canvas, an SVG, a page that is printed. Lengths in pixels from the top left. */
export interface Surface {
  /** A line, as its path is traced. */
  line: (look: LineLook, trace: (path: Path) => void) => void;
  /** A filled shape without an edge, as the path about it is traced. */
  area: (fill: string, trace: (path: Path) => void) => void;
  rect: (at: Rect, look: { fill?: string | undefined; stroke?: string | undefined; width?: number; alpha?: number }) => void;
  /** A closed shape, or a cross, about a point. */
  nib: (shape: NibShape, x: number, y: number, radius: number, look: { fill: string; stroke: string; width: number }) => void;
  words: (text: string, x: number, y: number, look: WordLook) => void;
  /** What is drawn within reaches no further than a rectangle. */
  within: (at: Rect, draw: () => void) => void;
  widthOf: (text: string, look: WordLook) => number;
}

export interface Path {
  moveTo: (x: number, y: number) => void;
  lineTo: (x: number, y: number) => void;
}
export interface Rect {
  left: number;
  top: number;
  right: number;
  bottom: number;
}
export interface LineLook {
  colour: string;
  width: number;
  dash?: readonly number[] | undefined;
  alpha?: number;
}
export interface WordLook {
  colour: string;
  size: number;
  family: 'words' | 'figures';
  weight?: 700;
  align?: 'start' | 'middle' | 'end';
  /** Quarter turns to the left: 1 reads upwards. */
  turned?: 0 | 1;
}
export type NibShape = 'circle' | 'diamond' | 'triangle' | 'square' | 'down' | 'cross' | 'struck';

export const FAMILIES: Readonly<Record<WordLook['family'], string>> = {
  words: "'Atkinson Hyperlegible Next Variable', sans-serif",
  figures: "'Atkinson Hyperlegible Mono Variable', monospace",
};

/** The corners of a nib of radius 1 about 0, as paths; a circle has none. */
const CORNERS: Readonly<Record<Exclude<NibShape, 'circle'>, readonly (readonly (readonly [x: number, y: number])[])[]>> = {
  diamond: [
    [
      [0, -1],
      [1, 0],
      [0, 1],
      [-1, 0],
    ],
  ],
  triangle: [
    [
      [0, -1],
      [0.87, 0.5],
      [-0.87, 0.5],
    ],
  ],
  down: [
    [
      [0, 1],
      [0.87, -0.5],
      [-0.87, -0.5],
    ],
  ],
  square: [
    [
      [-0.71, -0.71],
      [0.71, -0.71],
      [0.71, 0.71],
      [-0.71, 0.71],
    ],
  ],
  cross: [
    [
      [0, -1],
      [0, 1],
    ],
    [
      [-1, 0],
      [1, 0],
    ],
  ],
  struck: [
    [
      [-0.71, -0.71],
      [0.71, 0.71],
    ],
    [
      [0.71, -0.71],
      [-0.71, 0.71],
    ],
  ],
};

/** The paths of a nib, each with its corners in pixels; none of a circle. */
export const nibPaths = (shape: NibShape, x: number, y: number, radius: number): (readonly [number, number])[][] =>
  shape === 'circle' ? [] : CORNERS[shape].map((path) => path.map(([dx, dy]) => [x + dx * radius, y + dy * radius] as const));
/** Whether a nib has no inside. */
export const isOpen = (shape: NibShape): boolean => shape === 'cross' || shape === 'struck';
