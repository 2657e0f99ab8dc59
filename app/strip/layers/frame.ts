import { extent, max, min } from 'd3-array';
import { nominal, quantityOf, shownIn, trimmed, type Quantity } from '@core/quantity';
import type { Dot } from '@core/samples';
import { timeRules, type Trace } from '../trace';
import { isOfRise, linesOn, tracksOf, type Size, type StripLook } from './look';
import type { Rect, Surface, WordLook } from './surface';

/** A track on the paper: its scale, from the top down, and where its rules and labels are. Values as they are shown. */
export interface TrackFrame extends Rect {
  track: Quantity;
  min: number;
  max: number;
  yOf: (shown: number) => number;
  rules: number[];
  labels: { value: number; text: string }[];
}

/** Where everything lies on a strip of a size in pixels. */
export interface Frame extends Rect {
  size: Size;
  from: number;
  until: number;
  xOf: (seconds: number) => number;
  /** Seconds at which there are rules, and which of them are coarse. */
  fine: number[];
  coarse: number;
  tracks: TrackFrame[];
  trackOf: (track: Quantity) => TrackFrame | undefined;
  /** Where the names of several runs begin, to the right of the paper; `undefined` where there is no room for them but on it. */
  namesAt: number | undefined;
}

/** What stands around the paper, in pixels. */
const EDGES: Readonly<Record<Size, Rect>> = {
  sheet: { left: 8, top: 10, right: 14, bottom: 24 },
  lane: { left: 6, top: 6, right: 4, bottom: 20 },
  row: { left: 0, top: 6, right: 4, bottom: 2 },
};
/** How many fine rules there are along a strip at most. */
const MOST_RULES: Readonly<Record<Size, number>> = { sheet: 30, lane: 24, row: 8 };
/** Above and below the scale of a track that shares a sheet with others. */
const APART = 9;
/** Where a lane says its levels: inside, at its right edge, where there is nothing but time to come. */
const LANE_LEVELS = [40, 80];
/** Pixels that the label of a rule needs. */
const LABEL = 13;
/** From how many pixels on a lane has room for all of them. */
const TALL = 180;

/** From how many pixels on names stand beside the paper; how much of its width they may take, and how far before them it ends. */
const ROOMY = 480;
const NAMES_SHARE = 0.26;
export const BEFORE_NAMES = 16;
export const NAME_SIZE = 11;

export const labelSize = (size: Size): number => (size === 'sheet' ? 12 : 10);

/** Lays a strip out. @param widthOf how wide a label is */
export function frameOf(
  traces: readonly Trace[],
  look: StripLook,
  { width, height }: { width: number; height: number },
  widthOf: Surface['widthOf'],
): Frame {
  const { size, from = 0, until } = look;
  const edge = EDGES[size];
  const shown = tracksOf(traces, look);
  const weights = shown.map((track) => quantityOf(track).track?.weight ?? 1);
  const whole = weights.reduce((sum, each) => sum + each, 0);
  const room = Math.max(1, height - edge.top - edge.bottom);
  const apart = size === 'sheet' ? APART : 0;
  let top = edge.top;
  const stacked = shown.map((track, index) => {
    const [high, low] = [top + apart, (top += (room * (weights[index] ?? 1)) / whole) - apart];
    return trackFrame(track, traces, size, { left: 0, right: 0, top: high, bottom: Math.max(low, high + 1) });
  });
  const label: WordLook = { colour: '', size: labelSize(size), family: 'figures' };
  const gutter = size === 'sheet' ? (max(stacked, ({ labels }) => max(labels, ({ text }) => widthOf(text, label))) ?? 0) + 8 : 0;
  const left = edge.left + gutter;
  const isNamed = size === 'sheet' && look.penned && traces.length > 1;
  const named = isNamed
    ? namesBeside(
        widthOf,
        traces.map(({ name }) => name),
        { width, room: width - left },
      )
    : 0;
  const right = Math.max(left + 1, width - edge.right - named);
  const { fine, coarse } = timeRules(until - from, MOST_RULES[size]);
  const tracks = stacked.map((each) => ({ ...each, left, right }));
  const perSecond = (right - left) / Math.max(1e-9, until - from);
  return {
    ...{ size, from, until, left, right, top: edge.top, bottom: height - edge.bottom },
    namesAt: named > 0 ? right + BEFORE_NAMES : undefined,
    xOf: (seconds) => left + (seconds - from) * perSecond,
    fine: momentsAt(fine, from, until),
    coarse,
    tracks,
    trackOf: (track) => tracks.find((each) => each.track === track),
  };
}

/** How wide the column is in which lines are named beside their paper, with the room before it; 0 where it would take too much of a narrow one. */
export function namesBeside(
  widthOf: Surface['widthOf'],
  names: readonly string[],
  { width, room }: { width: number; room: number },
): number {
  if (names.length < 2 || width < ROOMY) return 0;
  const widest = max(names, (name) => widthOf(name, { colour: '', size: NAME_SIZE, family: 'words' })) ?? 0;
  return Math.min(widest, room * NAMES_SHARE) + BEFORE_NAMES;
}

/** Moments so far apart that lie between two others. */
export function momentsAt(step: number, from: number, until: number): number[] {
  const first = Math.ceil(from / step - 1e-9);
  return Array.from({ length: Math.max(0, Math.floor(until / step) - first + 1) }, (_, index) => (first + index) * step);
}

/** A moment as a label of the time says it. */
export const momentLabel = (seconds: number): string => (seconds === 0 ? '0' : nominal(seconds));

/** The least and the most of a line, kept with it: a strip that is looked along asks at every frame. */
const knownDots = new WeakMap<readonly Dot[], readonly number[]>();
function endsOf(dots: readonly Dot[] | undefined): readonly number[] {
  if (!dots) return [];
  const found = knownDots.get(dots) ?? extent(dots, ([, value]) => value).filter((each) => each !== undefined);
  knownDots.set(dots, found);
  return found;
}

function trackFrame(track: Quantity, traces: readonly Trace[], size: Size, at: Rect): TrackFrame {
  const { track: drawn, unit } = quantityOf(track);
  const values = linesOn(traces, track).flatMap((line) =>
    traces.flatMap(({ dots, expected }) => [...endsOf(dots[line]), ...endsOf(expected?.[line])].map((value) => shownIn(unit, value))),
  );
  const {
    min: low,
    max: high,
    step,
  } = scaleOf(drawn?.axis ?? 'from zero', values, {
    unit,
    isRise: isOfRise(traces),
    isFine: size === 'sheet',
  });
  const height = at.bottom - at.top;
  /** A low lane says a few of its levels; a high one as many as a sheet. Of others, every second or third is said where all would crowd. */
  const isLabelled = (value: number) => {
    if (track !== 'percent') {
      const every = Math.ceil((LABEL * (high - low)) / step / height);
      return Math.round(value / step) % every === 0 && (size !== 'lane' || (value > low && value < high));
    }
    if (size === 'sheet') return value % (height > TALL / 2 ? 20 : 50) === 0;
    return value % 20 === 0 && value > 0 && (height > TALL || LANE_LEVELS.includes(value) || value === 100);
  };
  const rules = Array.from({ length: Math.round((high - low) / step) + 1 }, (_, index) => low + index * step);
  return {
    ...at,
    track,
    min: low,
    max: high,
    yOf: (shown) => at.bottom - ((shown - low) / (high - low)) * height,
    rules,
    labels: size === 'row' ? [] : rules.filter(isLabelled).map((value) => ({ value, text: `${trimmed(value)}${drawn?.mark ?? ''}` })),
  };
}

type Axis = NonNullable<ReturnType<typeof quantityOf>['track']>['axis'];

/** The scale of an axis: from where to where, and how far apart its rules are. Values as they are shown. */
export function scaleOf(
  axis: Axis,
  values: readonly number[],
  { unit, isRise = false, isFine = true }: { unit: string; isRise?: boolean; isFine?: boolean },
): { min: number; max: number; step: number } {
  if (axis === 'hundred') return { min: 0, max: 100, step: isFine ? 10 : 20 };
  // A room is about so warm; a rise begins at none.
  if (axis === 'tens') return isRise ? tens(values, 0, 0) : tens(values, shownIn(unit, 21), shownIn(unit, 29));
  const most = Math.max(0, max(values) ?? 0);
  const step = roundStep(most);
  return { min: Math.min(0, Math.floor((min(values) ?? 0) / step) * step), max: Math.ceil((most * 1.1) / step) * step || step, step };
}

/** From ten to ten around what was read, and around a stretch at least; by twenties where tens would crowd. */
function tens(values: readonly number[], warm: number, warmer: number): { min: number; max: number; step: number } {
  const [low, high] = [Math.min(warmer, min(values) ?? warmer), Math.max(warm, max(values) ?? warm)];
  const step = high - low > 50 ? 20 : 10;
  const [least, most] = [Math.floor(low / step) * step, Math.ceil(high / step) * step];
  return { min: least, max: Math.max(most, least + step), step };
}

/** A step of an axis from zero that gives two or three rules up to the highest value. */
function roundStep(top: number): number {
  if (top <= 0) return 2;
  return [0.1, 0.2, 0.5, 1, 2, 5, 10, 20, 50, 100].find((step) => top / step <= 3.2) ?? 200;
}
