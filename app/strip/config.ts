import type { Chart, ChartConfiguration, ChartDataset, Plugin, ScaleOptionsByType, ScriptableLineSegmentContext } from 'chart.js';
import type { AnnotationOptions } from 'chartjs-plugin-annotation';
import { bisector, extent, max, min } from 'd3-array';
import { type Span } from '@core/curve';
import { nominal, quantityOf, sharersOf, shownIn, TRACKED, trimmed, type Quantity } from '@core/quantity';
import { type Forecast } from '@core/run';
import type { Dot } from '@core/samples';
import { PALETTES, type Palette, type ThemeName } from '../kit/theme';
import { penOf, PEN_COUNT, type Nib, type Pen } from './pens';
import { lineName, timeRules, type Trace } from './trace';

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

const FIGURES = "'Atkinson Hyperlegible Mono Variable', monospace";
const WORDS = "'Atkinson Hyperlegible Next Variable', sans-serif";
const NIBS: Readonly<Record<Nib, { style: 'circle' | 'rectRot' | 'triangle' | 'rect' | 'cross'; rotation: number }>> = {
  circle: { style: 'circle', rotation: 0 },
  diamond: { style: 'rectRot', rotation: 0 },
  triangle: { style: 'triangle', rotation: 0 },
  square: { style: 'rect', rotation: 0 },
  down: { style: 'triangle', rotation: 180 },
  cross: { style: 'cross', rotation: 0 },
};

/** Dashes of pencil: between two readings, what is expected, and an earlier run. */
const READ = [4, 3];
const EXPECTED = [1.5, 3.5];
const GHOST = [7, 5];

/** Nibs along the whole width of a strip that several pens share. */
const MOST_NIBS = 28;

type LineSet = ChartDataset<'line', { x: number; y: number }[]>;
type Scale = ScaleOptionsByType<'linear'>;

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

/** A strip as Chart.js draws it: tracks under each other on one paper, time to the right. */
export function stripConfig(traces: readonly Trace[], look: StripLook): ChartConfiguration<'line', { x: number; y: number }[]> {
  const tracks = tracksOf(traces, look);
  const sets = traces.flatMap((trace) => [
    ...tracks.flatMap((axis) =>
      linesOn(traces, axis)
        .filter((track) => !isInk(trace, track))
        .map((track) => lineOf(trace, track, axis, look)),
    ),
    ...struckOf(trace, look, tracks.includes('percent')),
  ]);
  const scales: Record<string, object> = { x: timeScale(look) };
  for (const track of tracks) scales[track] = valueScale(track, traces, tracks, look);
  return {
    type: 'line',
    data: { datasets: sets },
    plugins: [
      rules(tracks, look),
      pencil(traces, tracks, look),
      ink(traces, tracks, look),
      titles(traces, tracks, look),
      ...(traces.length > PEN_COUNT ? [names(traces, look)] : []),
    ],
    options: {
      animation: false,
      parsing: false,
      normalized: true,
      responsive: true,
      maintainAspectRatio: false,
      events: [],
      layout: { padding: look.size === 'sheet' ? { top: 10, right: 14, bottom: 0, left: 4 } : { top: 6, right: 4, bottom: 2, left: 0 } },
      scales,
      plugins: {
        legend: { display: false },
        annotation: { animations: { colors: false, numbers: { duration: 0 } }, annotations: places(traces, tracks, look) },
      },
    },
  };
}

/** Whether a line is a meter's stream alone: ink from end to end. Such lines are long, and drawn without Chart.js looking at every point of them. */
const isInk = ({ streamed, byHand }: Trace, track: Quantity): boolean => streamed.has(track) && !byHand?.[track];

function lineOf(trace: Trace, track: Quantity, axis: Quantity, look: StripLook): LineSet {
  const { theme, size, penned, until } = look;
  const pen = penOf(trace.pen, theme);
  const inked = trace.streamed.has(track);
  const palette = PALETTES[theme];
  // Alone, every reading has its dot; among others a nib now and then tells the pens apart.
  const dots = trace.dots[track] ?? [];
  const every = penned ? Math.max(1, Math.round((dots.length * until) / (MOST_NIBS * Math.max(trace.end, 1)))) : 1;
  const last = dots.length - 1;
  const isWorked = trace.worked?.has(track) ?? false;
  const dotted = size !== 'row' && !inked && !isWorked;
  const line = penned
    ? { borderColor: pen.colour, borderDash: pen.dash, borderWidth: 2 }
    : { borderColor: palette.pencil, borderDash: READ, borderWidth: 1.25 };
  const hand = inked && size !== 'row' ? trace.byHand?.[track] : undefined;
  return {
    label: trace.name,
    yAxisID: axis,
    data: pointsOf(dots, track),
    ...(hand && { segment: handSegments(hand, palette.pencil) }),
    ...(inked || size === 'row'
      ? { borderColor: pen.colour, borderDash: penned ? pen.dash : [], borderWidth: size === 'row' ? 1.75 : 2 }
      : line),
    ...nibOf(pen, palette.paper),
    pointRadius: dotted
      ? ({ dataIndex }) => (dataIndex % every === 0 || dataIndex === last ? radius(pen, size) : 0)
      : hand
        ? ({ dataIndex }) => (hand.has(dots[dataIndex]?.[0] ?? -1) ? radius(pen, size) : 0)
        : 0,
    clip: 10,
    tension: 0,
  };
}

/** Beside what a meter streamed: from and to a reading taken by hand there is only pencil. */
const handSegments = (hand: ReadonlySet<number>, pencil: string): LineSet['segment'] => {
  const isHand = ({ p0, p1 }: ScriptableLineSegmentContext) => hand.has(p0.parsed.x ?? -1) || hand.has(p1.parsed.x ?? -1);
  return {
    borderDash: (segment) => (isHand(segment) ? READ : undefined),
    borderColor: (segment) => (isHand(segment) ? pencil : undefined),
    borderWidth: (segment) => (isHand(segment) ? 1.25 : undefined),
  };
};

/** The points of a line as Chart.js takes them, kept with it. */
const made = new WeakMap<readonly Dot[], LineSet['data']>();
function pointsOf(dots: readonly Dot[], track: Quantity): LineSet['data'] {
  // Degrees are shown as a person chose, and may be chosen anew.
  const found = (quantityOf(track).unit === '°C' ? undefined : made.get(dots)) ?? dots.map(toPoint(track));
  made.set(dots, found);
  return found;
}

/** A dot in the shown unit. Chart.js draws no line to or from a point that is not a number. */
const toPoint =
  (track: Quantity) =>
  ([x, y]: Dot) => ({ x, y: y === undefined ? Number.NaN : shownIn(quantityOf(track).unit, y) });

const radius = ({ nib }: Pen, size: Size) => (size === 'lane' ? 5 : 4) + (nib === 'circle' || nib === 'square' ? 0 : 1);

function nibOf(pen: Pen, paper: string): Partial<LineSet> {
  const { style, rotation } = NIBS[pen.nib];
  return {
    pointStyle: style,
    pointRotation: rotation,
    pointBackgroundColor: pen.hollow ? paper : pen.colour,
    pointBorderColor: pen.colour,
    pointBorderWidth: style === 'cross' ? 2.5 : 1.5,
  };
}

/** Struck readings stay, crossed out and joined to nothing. */
function struckOf(trace: Trace, { theme, size, penned }: StripLook, hasLevels: boolean): LineSet[] {
  if (size === 'row' || penned || trace.struck.length === 0 || !hasLevels) return [];
  return [
    {
      label: 'struck',
      yAxisID: 'percent',
      data: trace.struck.map(toPoint('percent')),
      showLine: false,
      pointStyle: 'crossRot',
      pointRadius: 6,
      pointBorderWidth: 1.75,
      pointBorderColor: PALETTES[theme].soft,
    },
  ];
}

/** How many fine rules there are along a strip at most. */
const MOST_RULES: Readonly<Record<Size, number>> = { sheet: 30, lane: 24, row: 8 };

/** Moments so far apart that lie between two others. */
function momentsAt(step: number, from: number, until: number): number[] {
  const first = Math.ceil(from / step - 1e-9);
  return Array.from({ length: Math.max(0, Math.floor(until / step) - first + 1) }, (_, index) => (first + index) * step);
}

function timeScale({ from = 0, until, theme, size }: StripLook): object {
  const { coarse } = timeRules(until - from, MOST_RULES[size]);
  return {
    type: 'linear',
    min: from,
    max: until,
    border: { display: false },
    grid: { display: false },
    afterBuildTicks: (axis: { ticks: { value: number }[] }) => {
      axis.ticks = momentsAt(coarse, from, until).map((value) => ({ value }));
    },
    ticks: {
      display: size !== 'row',
      autoSkip: false,
      maxRotation: 0,
      align: 'start',
      color: PALETTES[theme].soft,
      font: { family: FIGURES, size: size === 'sheet' ? 12 : 11 },
      callback: (value: number | string) => (Number(value) < until ? (Number(value) === 0 ? '0' : nominal(Number(value))) : ''),
    },
  };
}

/** The rules of the paper, fine and coarse. Drawn here: Chart.js would ask for the looks of every one of them at every frame. */
function rules(tracks: readonly Quantity[], { theme, size }: StripLook): Plugin<'line'> {
  const { rule, grid } = PALETTES[theme];
  return {
    id: 'rules',
    beforeDraw({ ctx, scales, chartArea: { left, top, right, bottom } }) {
      const { x } = scales;
      if (!x) return;
      const { fine, coarse } = timeRules(x.max - x.min, MOST_RULES[size]);
      /** Of a pixel's width, on a pixel. */
      const line = (colour: string, ...[x1, y1, x2, y2]: [number, number, number, number]) => {
        ctx.fillStyle = colour;
        ctx.fillRect(Math.round(x1), Math.round(y1), Math.max(1, x2 - x1), Math.max(1, y2 - y1));
      };
      ctx.save();
      for (const moment of momentsAt(fine, x.min, x.max)) {
        const at = x.getPixelForValue(moment);
        line(moment % coarse === 0 ? rule : grid, at, top, at, bottom);
      }
      for (const track of tracks) {
        const scale = scales[track];
        for (const { value } of scale?.ticks ?? []) {
          const at = scale?.getPixelForValue(value) ?? Number.NaN;
          line(track === 'percent' && value % 50 === 0 ? rule : grid, left, at, right, at);
        }
      }
      ctx.restore();
    },
  };
}

/** Where a lane says its levels: inside, at its right edge, where there is nothing but time to come. */
const LANE_LEVELS = [40, 80];
/** Pixels that the label of a rule needs. */
const LABEL = 13;
/** From how many pixels on a lane has room for all of them. */
const TALL = 180;

/** The least and the most of a line, kept with it: a strip that is looked along asks at every frame. */
const known = new WeakMap<readonly Dot[], readonly number[]>();
function endsOf(dots: readonly Dot[] | undefined): readonly number[] {
  if (!dots) return [];
  const found = known.get(dots) ?? extent(dots, ([, value]) => value).filter((each) => each !== undefined);
  known.set(dots, found);
  return found;
}

function valueScale(track: Quantity, traces: readonly Trace[], tracks: readonly Quantity[], { theme, size }: StripLook): Partial<Scale> {
  const palette = PALETTES[theme];
  const { track: drawn, unit } = quantityOf(track);
  const values = linesOn(traces, track).flatMap((line) =>
    traces.flatMap(({ dots, expected }) => [...endsOf(dots[line]), ...endsOf(expected?.[line])].map((value) => shownIn(unit, value))),
  );
  const top = Math.max(0, max(values) ?? 0);
  const wattStep = roundStep(top);
  const ranges = {
    hundred: { min: 0, max: 100, step: size === 'sheet' ? 10 : 20 },
    'from zero': {
      min: Math.min(0, Math.floor((min(values) ?? 0) / wattStep) * wattStep),
      max: Math.ceil((top * 1.1) / wattStep) * wattStep,
      step: wattStep,
    },
    // A room is about so warm; a rise begins at none.
    tens: isOfRise(traces) ? tens(values, 0, 0) : tens(values, shownIn(unit, 21), shownIn(unit, 29)),
  };
  const { step, ...range } = ranges[drawn?.axis ?? 'from zero'];
  /** A low lane says a few of its levels; a high one as many as a sheet. Of others, every second or third is said where all would crowd. */
  const labelled = (value: number, height: number) => {
    if (track !== 'percent') {
      const every = Math.ceil((LABEL * (range.max - range.min)) / step / height);
      return Math.round(value / step) % every === 0 && (size !== 'lane' || (value > range.min && value < range.max));
    }
    return value % 20 === 0 && (size === 'sheet' || (value > 0 && value < 100 && (height > TALL || LANE_LEVELS.includes(value))));
  };
  return {
    type: 'linear',
    position: size === 'lane' ? 'right' : 'left',
    stack: 'strip',
    stackWeight: drawn?.weight ?? 1,
    weight: tracks.length - tracks.indexOf(track),
    ...range,
    offset: size === 'sheet' && (track === 'percent' || tracks.length > 1),
    border: { display: false },
    grid: { display: false },
    ticks: {
      display: size !== 'row',
      mirror: size === 'lane',
      stepSize: step,
      autoSkip: false,
      padding: size === 'lane' ? 3 : 6,
      color: palette.soft,
      font: { family: FIGURES, size: size === 'lane' ? 10 : 12 },
      callback: function (this: { height: number }, value: number | string) {
        return labelled(Number(value), this.height) ? `${trimmed(Number(value))}${drawn?.mark ?? ''}` : '';
      },
    },
  } as unknown as Partial<Scale>;
}

/** Whether temperatures are drawn as what they rose by. */
const isOfRise = (traces: readonly Trace[]): boolean => traces.some(({ isRise }) => isRise);

/** From ten to ten around what was read, and around a stretch at least; by twenties where tens would crowd. */
function tens(values: number[], warm: number, warmer: number): { min: number; max: number; step: number } {
  const [low, high] = [Math.min(warmer, min(values) ?? warmer), Math.max(warm, max(values) ?? warm)];
  const step = high - low > 50 ? 20 : 10;
  return { min: Math.floor(low / step) * step, max: Math.ceil(high / step) * step, step };
}

/** A step of an axis from zero that gives two or three rules up to the highest value. */
function roundStep(top: number): number {
  if (top <= 0) return 2;
  return [0.1, 0.2, 0.5, 1, 2, 5, 10, 20, 50, 100].find((step) => top / step <= 3.2) ?? 200;
}

/** Places on the paper: checks that were missed, and the one pointed out. */
function places(traces: readonly Trace[], tracks: readonly Quantity[], look: StripLook): Record<string, AnnotationOptions> {
  const { theme, band, size, until } = look;
  const palette = PALETTES[theme];
  const all: Record<string, AnnotationOptions> = {};
  const main = mainTrack(traces);
  if (traces.length === 1 && size !== 'row') {
    for (const [index, { from, to }] of (traces[0]?.missed ?? []).entries()) {
      all[`missed-${index}`] = spanOf(from, to, main, index === 0 ? missedWord(traces[0]?.missed.length ?? 0) : '', palette.due);
    }
  }
  if (traces.length === 1 && size !== 'row') {
    for (const [index, { from, to }] of (traces[0]?.unwatched ?? []).entries()) {
      for (const track of tracks)
        all[`unwatched-${track}-${index}`] = spanOf(from, to, track, track === main && index === 0 ? 'not watched' : '', palette.soft);
    }
    for (const [index, [at, words]] of together(traces[0]?.events ?? [], until * SIDE_BY_SIDE).entries())
      all[`event-${index}`] = eventLine(at, words, look, at < until * SIDE_BY_SIDE);
  }
  if (traces.length === 1 && tracks.includes('watts')) {
    for (const [index, { from, to }] of (traces[0]?.unseen ?? []).entries()) {
      all[`unseen-${index}`] = spanOf(from, to, 'watts', 'unseen', palette.soft);
    }
  }
  if (tracks.includes('watts'))
    for (const [index, stage] of (look.stages ?? []).entries()) all[`stage-${index}`] = stageOf(stage, index, palette);
  if (tracks.includes('percent'))
    for (const { at, level, isLit } of look.marks ?? [])
      all[`mark-${level}`] = {
        type: 'point',
        xValue: at,
        yValue: level,
        yScaleID: 'percent',
        radius: isLit ? 10 : 7,
        backgroundColor: 'transparent',
        borderColor: isLit ? palette.due : palette.soft,
        borderWidth: isLit ? 2 : 1,
      };
  if (!band) return all;
  for (const track of tracks) {
    all[`band-${track}`] = {
      type: 'box',
      xMin: band.from,
      xMax: band.to,
      yScaleID: track,
      backgroundColor: `${palette.due}1F`,
      borderColor: palette.due,
      borderWidth: band.from === band.to ? 1.5 : 0,
      drawTime: 'beforeDatasetsDraw',
    };
  }
  if (band.level !== undefined && tracks.includes('percent')) {
    all.level = {
      type: 'line',
      yScaleID: 'percent',
      yMin: band.level,
      yMax: band.level,
      borderColor: palette.due,
      borderDash: [2, 3],
      borderWidth: 1.25,
    };
  }
  return all;
}

/** The word on the first of the checks that were missed: how many there are, for each of thirty would say it thirty times. */
const missedWord = (count: number) => (count > 1 ? `missed, ${count} stretches` : 'missed');

/** Events this close, as a share of the paper, have their words side by side at one line. */
const SIDE_BY_SIDE = 0.015;

/** Events in order, those within a span of the first of them in one: when it was, and what they say. */
function together(events: Trace['events'], span: number): [at: number, words: string[]][] {
  const lines: [number, string[]][] = [];
  for (const { at, says } of events) {
    const last = lines.at(-1);
    if (last && at - last[0] <= span * Math.min(3, last[1].length)) last[1].push(says);
    else lines.push([at, [says]]);
  }
  return lines;
}

/** Words that find room beside each other; the others fold into a count. Each is as long as its paper is high. */
function shortened(words: readonly string[], size: Size): string[] {
  const most = size === 'sheet' ? 40 : 18;
  const told = words.length > 3 ? [...words.slice(0, 2), `and ${words.length - 2} more`] : words;
  return told.map((word) => (word.length > most ? `${word.slice(0, most - 1)}…` : word));
}

/** Something that happened: a line at its moment, with a word at its foot, on the side where the paper is; several words stand side by side. */
function eventLine(at: number, words: string[], { theme, size }: StripLook, isAtEdge: boolean): AnnotationOptions {
  const palette = PALETTES[theme];
  return {
    type: 'line',
    scaleID: 'x',
    value: at,
    borderColor: palette.ink,
    borderWidth: 1,
    borderDash: [1, 3],
    label: {
      display: true,
      content: shortened(words, size),
      position: 'end',
      rotation: -90,
      xAdjust: (isAtEdge ? 1 : -1) * (1 + 7 * shortened(words, size).length),
      backgroundColor: `${palette.paper}CC`,
      color: palette.ink,
      padding: 2,
      font: { family: WORDS, size: 11, weight: 'normal' },
    },
  };
}

/** A stage of the charge: its number at the head of its stretch, every other one shaded. */
function stageOf({ from, to }: Span, index: number, palette: Palette): AnnotationOptions {
  return {
    type: 'box',
    xMin: from,
    xMax: to,
    yScaleID: 'watts',
    backgroundColor: index % 2 === 0 ? `${palette.rule}33` : 'transparent',
    borderWidth: 0,
    drawTime: 'beforeDatasetsDraw',
    label: {
      display: true,
      content: String(index + 1),
      color: palette.soft,
      font: { family: WORDS, size: 11, weight: 'normal' },
      position: { x: 'start', y: 'start' },
      padding: 3,
    },
  };
}

/** A stretch of the paper with a word on it: something that is not there. */
function spanOf(from: number, to: number, track: Quantity, word: string, colour: string): AnnotationOptions {
  return {
    type: 'box',
    xMin: from,
    xMax: to,
    yScaleID: track,
    backgroundColor: `${colour}14`,
    borderWidth: 0,
    drawTime: 'beforeDatasetsDraw',
    label: {
      display: true,
      content: word,
      color: colour,
      font: { family: WORDS, size: 11, weight: 'normal' },
      position: { x: 'center', y: 'start' },
    },
  };
}

/** What is expected lies under the ink and looks like nothing else: thin, grey, dotted. It is no data, so nothing points at it. */
function pencil(traces: readonly Trace[], tracks: readonly Quantity[], { theme }: StripLook): Plugin<'line'> {
  return {
    id: 'pencil',
    beforeDatasetsDraw({ ctx, scales, chartArea: { left, top, right, bottom } }) {
      ctx.save();
      ctx.beginPath();
      ctx.rect(left, top, right - left, bottom - top);
      ctx.clip();
      ctx.strokeStyle = PALETTES[theme].pencil;
      ctx.lineWidth = 1.5;
      ctx.setLineDash(EXPECTED);
      for (const { expected } of traces) {
        for (const track of tracks) {
          const [x, y] = [scales.x, scales[track]];
          if (!x || !y || !expected) continue;
          ctx.beginPath();
          for (const [seconds, value = Number.NaN] of expected[track] ?? [])
            ctx.lineTo(x.getPixelForValue(seconds), y.getPixelForValue(value));
          ctx.stroke();
        }
      }
      ctx.setLineDash(GHOST);
      for (const { ghost } of traces) {
        if (!ghost || !scales.x || !scales.percent) continue;
        ctx.beginPath();
        for (const [seconds, value = Number.NaN] of ghost)
          ctx.lineTo(scales.x.getPixelForValue(seconds), scales.percent.getPixelForValue(value));
        ctx.stroke();
      }
      ctx.setLineDash([]);
      for (const { forecasts = [] } of traces) for (const band of forecasts) bracket(ctx, scales, band);
      ctx.restore();
    },
  };
}

/** What meters streamed: a line with its pen, broken where nothing was seen. */
function ink(traces: readonly Trace[], tracks: readonly Quantity[], { size, theme, penned }: StripLook): Plugin<'line'> {
  return {
    id: 'ink',
    beforeDatasetsDraw({ ctx, scales, chartArea: { left, top, right, bottom } }) {
      ctx.save();
      ctx.beginPath();
      ctx.rect(left, top - 10, right - left, bottom - top + 20);
      ctx.clip();
      ctx.lineWidth = size === 'row' ? 1.75 : 2;
      ctx.lineJoin = 'round';
      for (const trace of traces) {
        const pen = penOf(trace.pen, theme);
        ctx.strokeStyle = pen.colour;
        ctx.setLineDash(penned ? pen.dash : []);
        for (const axis of tracks)
          for (const track of linesOn([trace], axis)) {
            const [x, y] = [scales.x, scales[axis]];
            if (x && y && isInk(trace, track)) strokeDots(ctx, trace.dots[track] ?? [], x, y, track);
          }
      }
      ctx.restore();
    },
  };
}

/** Strokes a line from the dot before the paper's left edge to the one behind its right. Both scales are straight, so their ends give all between. */
function strokeDots(ctx: CanvasRenderingContext2D, dots: readonly Dot[], x: Scales[string], y: Scales[string], track: Quantity): void {
  const { unit } = quantityOf(track);
  const [xOf, yOf] = [straight(x), straight(y)];
  const zero = shownIn(unit, 0);
  const byY = (shownIn(unit, 1) - zero) * yOf.by;
  const y0 = yOf.zero + zero * yOf.by;
  const last = Math.min(dots.length - 1, bySeconds.right(dots, x.max));
  let isBroken = true;
  ctx.beginPath();
  for (let row = Math.max(0, bySeconds.left(dots, x.min) - 1); row <= last; row += 1) {
    const [at, value] = dots[row] ?? [0];
    if (value === undefined) isBroken = true;
    else if (isBroken) {
      ctx.moveTo(xOf.zero + at * xOf.by, y0 + value * byY);
      isBroken = false;
    } else ctx.lineTo(xOf.zero + at * xOf.by, y0 + value * byY);
  }
  ctx.stroke();
}
const bySeconds = bisector<Dot, number>(([seconds]) => seconds);
type Scales = Chart['scales'];

/** A scale as where its zero lies and how far it goes for one, in pixels. Its own ends tell it: Chart.js cuts off what lies far beyond the paper. */
function straight(scale: Scales[string]): { zero: number; by: number } {
  const first = scale.getPixelForValue(scale.min);
  const by = (scale.getPixelForValue(scale.max) - first) / (scale.max - scale.min);
  return { zero: first - scale.min * by, by };
}

/** How far the mark of an earliest reaches, in pixels, where nothing says how late it can be. */
const OPEN_END = 14;

/** Between which times a level will come: a bracket at its height, open where only the earliest is known. */
function bracket(ctx: CanvasRenderingContext2D, scales: Chart['scales'], { level, low, high }: Forecast): void {
  const [x, y] = [scales.x, scales.percent];
  if (!x || !y) return;
  const [left, at] = [x.getPixelForValue(low), y.getPixelForValue(level)];
  const right = high === undefined ? left + OPEN_END : x.getPixelForValue(high);
  const below = at + (level === 100 ? 7 : -7);
  ctx.beginPath();
  ctx.moveTo(left, below);
  ctx.lineTo(left, at);
  ctx.lineTo(right, at);
  if (high !== undefined) ctx.lineTo(right, below);
  ctx.stroke();
}

/** What is drawn in pencil, as its legend names it, and with which dashes. */
function pencilled(traces: readonly Trace[], main: Quantity, { penned }: StripLook): { word: string; dash: number[] }[] {
  const isRead = !penned && traces.some((trace) => !trace.streamed.has(main) && (trace.dots[main] ?? []).length > 1);
  return [
    ...(isRead ? [{ word: 'between readings', dash: READ }] : []),
    ...(traces.some(({ expected }) => expected) ? [{ word: 'expected', dash: EXPECTED }] : []),
    ...(traces.some(({ ghost }) => ghost) ? [{ word: 'earlier run', dash: GHOST }] : []),
  ];
}

/** Names each track at its right end, and at the foot of the main one what is in pencil. */
function titles(traces: readonly Trace[], tracks: readonly Quantity[], look: StripLook): Plugin<'line'> {
  const { size, theme } = look;
  const main = mainTrack(traces);
  return {
    id: 'titles',
    afterDraw({ ctx, scales, chartArea }) {
      if (size === 'row') return;
      ctx.save();
      if (scales[main]) {
        // A lane has room for what is not ink alone.
        const words = pencilled(traces, main, look).filter(({ dash }) => size === 'sheet' || dash !== READ);
        let right = chartArea.right - (size === 'lane' ? 34 : 8);
        ctx.font = `${size === 'lane' ? 10 : 12}px ${WORDS}`;
        ctx.textAlign = 'right';
        ctx.strokeStyle = PALETTES[theme].pencil;
        ctx.fillStyle = PALETTES[theme].pencil;
        ctx.lineWidth = 1.5;
        for (const { word, dash } of words.reverse()) {
          const at = scales[main].bottom - (size === 'lane' ? 6 : 10);
          ctx.fillText(word, right, at);
          right -= ctx.measureText(word).width + 6;
          ctx.setLineDash(dash);
          ctx.beginPath();
          ctx.moveTo(right - 22, at - 4);
          ctx.lineTo(right, at - 4);
          ctx.stroke();
          right -= 36;
        }
        ctx.setLineDash([]);
      }
      if (size !== 'sheet') {
        ctx.restore();
        return;
      }
      ctx.font = `12px ${WORDS}`;
      ctx.fillStyle = PALETTES[theme].soft;
      ctx.textAlign = 'right';
      for (const track of tracks) {
        const scale = scales[track];
        const lines = linesOn(traces, track);
        if (scale && lines.length > 1 && traces.length === 1) nameLines(ctx, scales, lines, traces[0]);
        if (!scale || track === 'percent') continue;
        const { title = '', axis } = quantityOf(track).track ?? {};
        ctx.fillText(axis === 'tens' && isOfRise(traces) ? `rise of ${title}` : title, chartArea.right - 6, scale.top + 14);
      }
      ctx.restore();
    },
  };
}

/** Several lines on one paper are named where they end, each at its own height. */
function nameLines(ctx: CanvasRenderingContext2D, scales: Chart['scales'], lines: readonly Quantity[], trace: Trace | undefined): void {
  const taken: number[] = [];
  for (const line of lines) {
    const { unit, track } = quantityOf(line);
    const [at, value] = trace?.dots[line]?.findLast(([, each]) => each !== undefined) ?? [];
    const [x, y] = [scales.x, scales[track?.on ?? line]];
    if (at === undefined || value === undefined || !x || !y) continue;
    let height = y.getPixelForValue(shownIn(unit, value)) - 6;
    while (taken.some((each) => Math.abs(each - height) < 12)) height += 12;
    taken.push(height);
    ctx.fillText(track?.on && trace ? lineName(line, trace) : 'surface', Math.min(x.getPixelForValue(at), x.right) - 6, height);
  }
}

/** How high the name of a line is, in pixels. */
const NAME = 13;

/**
 * Names lines near their ends, once there are more than there are pens. Names stand under each other at the right edge of the paper, each as near to
 * the end of its line as the others leave room, with a hair between the two.
 */
function names(traces: readonly Trace[], { theme }: StripLook): Plugin<'line'> {
  const main = mainTrack(traces);
  return {
    id: 'names',
    afterDatasetsDraw({ ctx, scales, chartArea }) {
      const [x, y] = [scales.x, scales[main]];
      if (!x || !y) return;
      const ends = [...new Map(traces.map((trace) => [trace.name, trace])).values()].flatMap(({ name, pen, dots }) => {
        const [at, value] = dots[main]?.findLast(([seconds, each]) => each !== undefined && seconds <= x.max) ?? [];
        if (at === undefined || value === undefined) return [];
        return [
          {
            name,
            colour: penOf(pen, theme).colour,
            left: x.getPixelForValue(at),
            top: y.getPixelForValue(shownIn(quantityOf(main).unit, value)),
          },
        ];
      });
      const tops = spreadOut(
        ends.map(({ top }) => top),
        NAME,
        { low: y.top + NAME, high: y.bottom - 2 },
      );
      ctx.save();
      ctx.font = `11px ${WORDS}`;
      ctx.textAlign = 'right';
      ctx.lineWidth = 0.75;
      for (const [index, { name, colour, left, top }] of ends.entries()) {
        const [at, right] = [tops[index] ?? top, chartArea.right - 4];
        const words = name.length > 30 ? `${name.slice(0, 29)}…` : name;
        ctx.fillStyle = colour;
        ctx.strokeStyle = colour;
        const edge = right - ctx.measureText(words).width - 4;
        ctx.globalAlpha = 0.6;
        if (left < edge) {
          ctx.beginPath();
          ctx.moveTo(left + 4, top);
          ctx.lineTo(edge, at - 4);
          ctx.stroke();
        }
        ctx.globalAlpha = 1;
        ctx.fillText(words, right, at);
      }
      ctx.restore();
    },
  };
}

/**
 * Places that want to be near others and must not overlap: each as near as it can be, in order.
 *
 * @param wanted where each would be; @param gap between two, at least; @param within which all lie, as far as there is room
 * @returns in the order of `wanted`
 */
export function spreadOut(wanted: readonly number[], gap: number, within: { low: number; high: number }): number[] {
  const order = wanted.map((_, index) => index).sort((one, other) => (wanted[one] ?? 0) - (wanted[other] ?? 0));
  const room = Math.min(gap, (within.high - within.low) / Math.max(1, wanted.length - 1));
  const placed: number[] = [];
  let last = -Infinity;
  for (const index of order) {
    last = Math.max(wanted[index] ?? 0, within.low, last + room);
    placed[index] = last;
  }
  let next = Infinity;
  for (const index of order.reverse()) {
    next = Math.min(placed[index] ?? 0, within.high, next - room);
    placed[index] = next;
  }
  return placed;
}
