import type { Span } from '@core/curve';
import type { Quantity } from '@core/quantity';
import { quantityOf, sharersOf, TRACKED } from '@core/quantity';
import type { ThemeName } from '../../kit/theme';
import type { Trace } from '../trace';

/** How large a strip is drawn: a row of a list, a lane of the board, or a sheet of its own. */
export type Size = 'row' | 'lane' | 'sheet';

export interface StripLook {
  size: Size;
  theme: ThemeName;
  /** Left and right edge of the paper, in seconds from plug-in. */
  from?: number | undefined;
  until: number;
  /** A place to point out: bounds of a figure, or the span of a notice. */
  band?: (Span & { label: string; level?: number | undefined }) | undefined;
  /** Stretches that are numbered on the paper of power: the stages of a charge. */
  stages?: readonly Span[] | undefined;
  /** Levels that were reached, ringed on the line of levels; one of them may be pointed at. */
  marks?: readonly { at: number; level: number; isLit: boolean }[] | undefined;
  /** Whether lines are drawn with their pens, so that several can be told apart, rather than in pencil. */
  penned: boolean;
  /** Which tracks to draw, if not all. */
  tracks?: readonly Quantity[] | undefined;
}

const holds = (traces: readonly Trace[], track: Quantity) =>
  traces.some(({ dots, expected }) => (dots[track] ?? []).length > 0 || (expected?.[track] ?? []).length > 0);

/** The track that a strip of any size has: the level; of devices that show none, their power, or the current where that is all. */
export const mainTrack = (traces: readonly Trace[]): Quantity =>
  (['percent', 'watts', 'amps'] as const).find((track) => holds(traces, track)) ?? 'percent';

/** What is drawn on the paper of a track: its own line, and those that share it, as far as there is anything. */
export const linesOn = (traces: readonly Trace[], track: Quantity): Quantity[] =>
  [track, ...sharersOf(track)].filter((each) => holds(traces, each));

/** Tracks that could be drawn: those that at least one trace has something on. */
export const tracksThere = (traces: readonly Trace[]): Quantity[] =>
  TRACKED.filter((track) => !quantityOf(track).track?.on && linesOn(traces, track).length > 0);

/** What a sheet begins with: all but what is drawn once it is asked for. Amps stand in where no watts were read. */
export const usualTracks = (traces: readonly Trace[]): Quantity[] =>
  tracksThere(traces).filter((track) => !quantityOf(track).track?.asked || (track === 'amps' && !holds(traces, 'watts')));

/** Tracks that are drawn, from the top down. The main one is always there. */
export function tracksOf(traces: readonly Trace[], { size, tracks }: Pick<StripLook, 'size' | 'tracks'>): Quantity[] {
  const main = mainTrack(traces);
  const wanted = size === 'sheet' ? (tracks ?? usualTracks(traces)) : [];
  return TRACKED.filter((track) => track === main || (wanted.includes(track) && tracksThere(traces).includes(track)));
}

/** Whether temperatures are drawn as what they rose by. */
export const isOfRise = (traces: readonly Trace[]): boolean => traces.some(({ isRise }) => isRise);

/** Whether a line is a meter's stream alone: ink from end to end. */
export const isInk = ({ streamed, byHand }: Trace, track: Quantity): boolean => streamed.has(track) && !byHand?.[track];

/** Dashes of pencil: between two readings, what is expected, and an earlier run. */
export const READ = [4, 3];
export const EXPECTED = [1.5, 3.5];
export const GHOST = [7, 5];
