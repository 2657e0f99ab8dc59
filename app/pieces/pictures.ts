import { max } from 'd3-array';
import { whiskersOf } from '@core/compare';
import type { BlockId, ComposedBlock, PagePicture, WrittenUp } from '@core/report';
import { escapeHtml, spell, type PlainTable } from '@core/quantity';
import { barsBody } from '../strip/barsPicture';
import { usualTracks } from '../strip/layers/look';
import { pageWidth } from '../strip/layers/canvasSurface';
import { svgSurface } from '../strip/layers/svgSurface';
import type { ThemeName } from '../kit/theme';
import { distinctPens } from '../strip/pens';
import { stripBody, type PictureBody } from '../strip/picture';
import type { Trace } from '../strip/trace';
import type { Beside } from '../workers/opened';

/** A picture of a piece: what it draws, how high, what it shows in a sentence, and the same as a table. */
export interface DrawnBlock {
  body: PictureBody;
  height: number;
  says: string;
  twin: PlainTable;
}

/** So many times are told of a curve in its table at most. */
const MOST_TIMES = 20;
const STEPS = [60, 120, 300, 600, 900, 1800, 3600, 7200, 14_400, 28_800, 86_400];
/** So many figures are drawn as bars. */
const MOST_BARS = 3;

/** The pen of each setup: that of the first of its runs. */
const pensOf = (opened: readonly Beside[], setups: WrittenUp['setups']): number[] =>
  distinctPens(setups.map(({ runs: [first] }) => opened.find(({ run }) => run.header.id === first)?.run.header.pen ?? 0));

/** Runs as their setups are drawn: one name and one pen for all runs of a setup. */
function tracesOf(opened: readonly Beside[], { setups }: WrittenUp, shown: readonly string[]): Trace[] {
  const pens = pensOf(opened, setups);
  return shown.flatMap((id) => {
    const index = setups.findIndex((each) => each.id === id);
    const { name = '', runs = [] } = setups[index] ?? {};
    return opened
      .filter(({ run }) => runs.includes(run.header.id))
      .map(({ trace }) => ({ ...trace, expected: undefined, forecasts: undefined, name, pen: pens[index] ?? 0 }));
  });
}

const endOf = (traces: readonly Trace[]): number => Math.max(600, max(traces, ({ end }) => end) ?? 0) * 1.02;

/** What strips show, told at even times: the last that was seen of each until then. */
function twinOf(caption: string, traces: readonly Trace[], of: 'percent' | 'watts', unit: string): PlainTable {
  const end = endOf(traces);
  const step = STEPS.find((each) => end / each <= MOST_TIMES) ?? end / MOST_TIMES;
  const times = Array.from({ length: Math.floor(end / step) + 1 }, (_, place) => place * step);
  const seenBy = ({ dots, end: over }: Trace, at: number) =>
    at > over + step ? undefined : dots[of]?.findLast(([seconds, value]) => seconds <= at && value !== undefined)?.[1];
  return {
    caption,
    heads: ['After', ...traces.map(({ name }) => `${name}, ${unit}`)],
    rows: times.map((at) => [
      spell(at),
      ...traces.map((trace) => {
        const value = seenBy(trace, at);
        return value === undefined ? undefined : Math.round(value * 10) / 10;
      }),
    ]),
  };
}

/** Draws nothing of the levels where what else was read is meant. */
const withoutLevels = (trace: Trace): Trace => ({ ...trace, dots: { ...trace.dots, percent: [] }, struck: [] });

/** What the picture of a block draws; nothing where there is nothing to draw. */
export function drawnOf(
  { id, setups, columns }: Pick<ComposedBlock, 'id' | 'setups'> & { columns?: readonly string[] | undefined },
  opened: readonly Beside[],
  written: WrittenUp,
): DrawnBlock | undefined {
  const names = setups.flatMap((each) => written.setups.find((setup) => setup.id === each)?.name ?? []);
  const draw: Partial<Record<BlockId, () => DrawnBlock | undefined>> = {
    curves: () => {
      const traces = tracesOf(opened, written, setups).filter(({ dots }) => (dots.percent ?? []).length > 0);
      if (traces.length === 0) return undefined;
      return {
        body: stripBody(traces, { size: 'sheet', penned: true, tracks: ['percent'], until: endOf(traces) }),
        height: 400,
        says: `The level shown over time from plug-in, of ${names.join(', ')}.`,
        twin: twinOf('The level shown, by time from plug-in', traces, 'percent', '%'),
      };
    },
    watts: () => {
      const traces = tracesOf(opened, written, setups).map(withoutLevels);
      const tracks = usualTracks(traces);
      if (tracks.length === 0) return undefined;
      return {
        body: stripBody(traces, { size: 'sheet', penned: true, tracks, until: endOf(traces) }),
        height: 160 + 170 * Math.min(3, tracks.length),
        says: `Power and temperatures over time from plug-in, of ${names.join(', ')}.`,
        twin: twinOf('Power, by time from plug-in', traces, 'watts', 'W'),
      };
    },
    bars: () => {
      const asked = columns ?? written.usual.times ?? [];
      const drawn = written.columns
        .filter(({ measure, cells }) => asked.includes(measure.id) && measure.better && cells.some(({ mean }) => mean && !mean.isLeast))
        .slice(0, MOST_BARS);
      const places = setups.flatMap((each) => written.setups.findIndex((setup) => setup.id === each));
      const pens = pensOf(opened, written.setups);
      if (drawn.length === 0) return undefined;
      const tops = new Map<string, number>();
      for (const { measure, cells } of drawn)
        for (const cell of cells) tops.set(measure.unit, Math.max(tops.get(measure.unit) ?? 0, whiskersOf(cell)?.high ?? 0));
      const blocks = drawn.map(({ measure, cells }) => ({
        measure,
        top: (tops.get(measure.unit) ?? 0) * 1.02 || 1,
        groups: [
          {
            of: '',
            bars: places.map((place) => ({ name: written.setups[place]?.name ?? '', cell: cells[place], pen: pens[place] ?? 0 })),
          },
        ],
      }));
      const titles = drawn.map(({ measure }) => measure.title);
      return {
        body: barsBody(blocks),
        height: drawn.length * (places.length + 2) * 26 + 30,
        says: `${titles.join(', ')} of ${names.join(', ')}, each with its margin.`,
        twin: {
          caption: titles.join(', '),
          heads: ['Setup', ...titles],
          rows: places.map((place) => [
            written.setups[place]?.name,
            ...drawn.map(({ cells }) => [cells[place]?.value ?? '—', cells[place]?.range.split(' · ')[0]].filter(Boolean).join(' · ')),
          ]),
        },
      };
    },
  };
  return draw[id]?.();
}

/** How wide pictures are laid out: as wide as the text of a page. */
export const WIDE = 720;

/** A picture within a page: its words are text, in the type of the page. */
function within({ body, height, says }: DrawnBlock, theme: ThemeName): string {
  const to = svgSurface(pageWidth());
  body(to, theme, { left: 0, top: 0, right: WIDE, bottom: height });
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${WIDE} ${height}" role="img" aria-label="${escapeHtml(says)}">${to.body()}</svg>`;
}

/** A picture as a page has it, for light and for dark; on paper for light alone. */
export const onPage = (drawn: DrawnBlock, isPaper = false): PagePicture => ({
  light: within(drawn, 'paper'),
  dark: isPaper ? '' : within(drawn, 'darkRoom'),
  says: drawn.says,
  twin: drawn.twin,
});
