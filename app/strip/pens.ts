import { PALETTES, type ThemeName } from '../kit/theme';

/** Shapes of the nib, told apart without colour. */
export type Nib = 'circle' | 'diamond' | 'triangle' | 'square' | 'down' | 'cross';

/** A pen: colour, dash and nib together. Beyond six the nib is hollow. */
export interface Pen {
  colour: string;
  dash: number[];
  nib: Nib;
  hollow: boolean;
}

const PENS: readonly { paper: string; darkRoom: string; dash: number[]; nib: Nib }[] = [
  { paper: '#0B57A4', darkRoom: '#7DB7F5', dash: [], nib: 'circle' },
  { paper: '#B8430B', darkRoom: '#FF9C6B', dash: [9, 4], nib: 'diamond' },
  { paper: '#0A6E52', darkRoom: '#5FD3AE', dash: [2, 4], nib: 'triangle' },
  { paper: '#8C2F74', darkRoom: '#E79AD2', dash: [5, 3], nib: 'square' },
  { paper: '#6B5200', darkRoom: '#DDBB55', dash: [14, 4, 2, 4], nib: 'down' },
  { paper: '#2B2B33', darkRoom: '#D7D7DE', dash: [10, 3, 2, 3, 2, 3], nib: 'cross' },
];

export const PEN_COUNT = PENS.length * 2;

/** The pen of a number, in a theme. Numbers past twelve begin again; lines are then labelled. */
export function penOf(number: number, theme: ThemeName): Pen {
  const pen = PENS[number % PENS.length];
  const hollow = Math.floor(number / PENS.length) % 2 === 1;
  return { colour: pen?.[theme] ?? PALETTES[theme].ink, dash: pen?.dash ?? [], nib: pen?.nib ?? 'circle', hollow };
}

/**
 * Pens for one picture: every run keeps its own unless one before it has that pen; then it borrows the next free one.
 *
 * @param own pen numbers of the runs, in the order they are drawn
 */
export function distinctPens(own: readonly number[]): number[] {
  const taken = new Set<number>();
  const free = (from: number) => {
    for (let step = 0; step < PEN_COUNT; step += 1) if (!taken.has((from + step) % PEN_COUNT)) return (from + step) % PEN_COUNT;
    return from % PEN_COUNT;
  };
  const keeps = own.map((number) => !taken.has(number % PEN_COUNT) && Boolean(taken.add(number % PEN_COUNT)));
  return own.map((number, index) => {
    if (keeps[index]) return number % PEN_COUNT;
    const borrowed = free(number);
    taken.add(borrowed);
    return borrowed;
  });
}
