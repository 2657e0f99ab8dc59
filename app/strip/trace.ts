import { surfaceName } from '@core/bench';
import { checksOf, merged, runningTotal, unseenSpans, type Span, type Summary } from '@core/curve';
import { foldRun, sourceSays, type Header, type RunRecord, type Track } from '@core/ink';
import { quantityOf, TRACKED, type Quantity } from '@core/quantity';
import { expectedRun, ghostOf, type Forecast } from '@core/run';
import { gapsOf, rangeOf, type Dot, type Samples } from '@core/samples';
import { type Expected } from '@core/simulate';

/** What a strip draws of each quantity that has a track on it. */
export type Dots = Partial<Record<Quantity, Dot[]>>;

/** A run as a strip draws it. */
export interface Trace {
  id: string;
  name: string;
  pen: number;
  dots: Dots;
  /** Tracks that were worked out of others: pencil without a reading on it. */
  worked?: ReadonlySet<Quantity>;
  /** Tracks that a meter streamed: their line is ink. Between readings taken by hand there is only pencil. */
  streamed: ReadonlySet<Quantity>;
  /** Moments of such tracks that were read by hand all the same. */
  byHand?: Partial<Record<Quantity, ReadonlySet<number>>>;
  struck: Dot[];
  /** What its surfaces are called on this device, where they have names. */
  surfaces?: Partial<Record<Quantity, string | undefined>> | undefined;
  /** Whether temperatures are drawn as what they rose by. */
  isRise?: boolean;
  /** What happened, and when. */
  events: { at: number; says: string }[];
  missed: Span[];
  /** Stretches in which the program was shut, asleep or gone. */
  unwatched: Span[];
  /** Gaps in the watts too long to be bridged: nothing is drawn across them. */
  unseen: Span[];
  /** The charge to expect, in pencil; no ink. */
  expected?: Dots | undefined;
  /** An earlier run that lies under it, in pencil, moved so that both show the first level at one time. */
  ghost?: Dot[] | undefined;
  /** Between which times levels will come, in pencil. */
  forecasts?: readonly Forecast[] | undefined;
  end: number;
}

/** What a line on a shared paper is called: as its device names it, else as all do. */
export const lineName = (line: Quantity, { surfaces }: Pick<Trace, 'surfaces'>): string =>
  surfaces?.[line] ?? quantityOf(line).track?.short.toLowerCase() ?? line;

/** Rows a strip draws of one track at most; past them, each stretch keeps its lowest and highest. */
const MOST_DOTS = 1500;
/** Spans that lie closer than this share of the run are drawn as one. */
const SPAN_GRAIN = 1 / 1000;

/** Between which moments a run is drawn, and by how many rows of a track at most. */
type Drawn = Partial<Span> & { max?: number | undefined };

/** Where nothing was seen for too long no line is drawn, neither of what a meter streamed nor of watts, whose area is energy. */
function drawnOf(run: RunRecord, quantity: Quantity, { max = MOST_DOTS, ...span }: Drawn): Dot[] {
  const track = run.tracks[quantity];
  const gaps = quantity === 'watts' ? unseenSpans(run) : run.sampled.has(quantity) ? gapsOf(track) : [];
  return rangeOf(track, { ...span, max, gaps });
}

/** What was read of a run, as a strip draws it between two moments; the whole of it where none are said. */
const readDots = (run: RunRecord, drawn: Drawn = {}): Dots =>
  Object.fromEntries(TRACKED.map((quantity) => [quantity, drawnOf(run, quantity, drawn)]));

/** The running total of energy, where no counter told it. */
function totalDots(run: RunRecord, span: Partial<Span> = {}): Dots {
  const isWorked = run.tracks.wattHours.values.length === 0 && run.tracks.watts.values.length > 1;
  return isWorked ? { wattHours: rangeOf(runningTotal(run), { ...span, max: MOST_DOTS / 3 }) } : {};
}

/** All that a sheet can draw of a run between two moments. */
export const dotsOf = (run: RunRecord, span: Partial<Span>): Dots => ({ ...readDots(run, span), ...totalDots(run, span) });

/** A trace with what is only drawn on a sheet once it is asked for: a lane has no use for it, and is drawn at every reading. */
export const withTotal = (trace: Trace, run: RunRecord): Trace => ({
  ...trace,
  dots: { ...trace.dots, ...totalDots(run) },
  worked: new Set(run.tracks.wattHours.values.length === 0 ? (['wattHours'] as const) : []),
});

function byHand({ sampled, tracks }: RunRecord): Trace['byHand'] {
  const mixed = TRACKED.flatMap((quantity) => {
    const { entries, seconds } = tracks[quantity];
    return sampled.has(quantity) && entries
      ? [[quantity, new Set(entries.flatMap((entry, row) => (entry ? [seconds[row] ?? 0] : [])))] as const]
      : [];
  });
  return Object.fromEntries(mixed);
}

/** A run for the strip. @param most rows that are drawn of one track */
export function traceOf(
  run: RunRecord,
  name: string,
  pen: number,
  { now = run.end, max }: { now?: number; max?: number | undefined } = {},
): Trace {
  const missed = checksOf(run, now).filter(({ state }) => state === 'missed');
  const end = Math.max(run.end, now);
  const drawn = (spans: readonly Span[]) => merged(spans, end * SPAN_GRAIN);
  return {
    id: run.header.id,
    name,
    pen,
    dots: readDots(run, { max }),
    streamed: new Set(TRACKED.filter((quantity) => run.sampled.has(quantity))),
    byHand: byHand(run),
    surfaces: { frontCelsius: surfaceName(run.header.device, 'frontCelsius'), backCelsius: surfaceName(run.header.device, 'backCelsius') },
    struck: run.struck.flatMap(({ seconds, reading }): Dot[] => (reading.percent === undefined ? [] : [[seconds, reading.percent]])),
    events: run.events
      .filter(({ event }) => event !== 'away')
      .map((each) => ({
        at: each.seconds,
        says: each.event === 'swapped' && each.source ? `→ ${each.remark ?? sourceSays(each.source)}` : each.event,
      })),
    missed: drawn(missed),
    unwatched: drawn(run.unwatched),
    unseen: drawn(unseenSpans(run)),
    end,
  };
}

/** A log alone as a strip draws it, by where its clock stands at zero. @param zero in seconds from plug-in; @param drift parts in a million */
export function logTrace(own: Samples, header: Header, zero: number, drift: number): Trace {
  const rate = 1 + drift / 1e6;
  const moved: Samples = Object.fromEntries(
    Object.entries(own).map(([quantity, { seconds, values }]) => [
      quantity,
      { seconds: seconds.map((each) => zero + each * rate), values },
    ]),
  );
  return traceOf(foldRun({ ...header, cadence: undefined }, [], moved), 'this log', header.pen + 1);
}

/** A trace so many seconds later. */
export const later = (trace: Trace, by: number): Trace => ({
  ...trace,
  end: trace.end + by,
  unseen: trace.unseen.map(({ from, to }) => ({ from: from + by, to: to + by })),
  dots: Object.fromEntries(Object.entries(trace.dots).map(([line, dots]) => [line, dots.map(([at, value]): Dot => [at + by, value])])),
});

/** A run for the strip, with the charge to expect of it in pencil. @param coming its forecasts, if it is live */
export function tracedWithPencil(run: RunRecord, now = run.end, coming: readonly Forecast[] = []): Trace {
  return { ...withPencil(traceOf(run, sourceSays(run.header), run.header.pen, { now }), run), forecasts: coming };
}

/** A trace with the charge to expect of its run. */
export function withPencil(trace: Trace, run: RunRecord): Trace {
  const expected = expectedRun(run);
  return { ...trace, expected: expected && pencilOf(expected) };
}

/** The levels of an earlier run as they lie under a live one; none where it never showed the level at which the live one began. */
export function ghostDots(run: RunRecord, earlier: Track | undefined): Dot[] | undefined {
  const laid = earlier && ghostOf(run, earlier);
  if (!laid) return undefined;
  return rangeOf(earlier, { from: -laid.shift, max: MOST_DOTS / 3 }).flatMap(([seconds, value]): Dot[] =>
    seconds + laid.shift < 0 ? [] : [[seconds + laid.shift, value]],
  );
}

/** An expected charge as a strip draws it. Temperatures are not drawn: they hang on a room nobody measured. */
export function pencilOf({ seconds, percent, watts }: Expected): Dots {
  const dots = (values: Float64Array) => rangeOf({ seconds, values }, { max: MOST_DOTS / 3 });
  return { percent: dots(percent), watts: dots(watts) };
}

/** A trace of pencil alone: a pairing that has not been run. */
export function expectedTrace(id: string, name: string, pen: number, expected: Expected): Trace {
  return {
    id,
    name,
    pen,
    dots: {},
    streamed: new Set(),
    struck: [],
    events: [],
    missed: [],
    unwatched: [],
    unseen: [],
    expected: pencilOf(expected),
    end: expected.length,
  };
}

/** A run's outline for a row of a list, without opening it. */
export function outlineOf(summary: Summary): Trace {
  return {
    id: summary.id,
    name: `${summary.device} on ${summary.charger}`,
    pen: summary.pen,
    dots: { [summary.outlineOf ?? 'percent']: summary.outline },
    streamed: new Set(),
    struck: [],
    events: [],
    missed: [],
    unwatched: [],
    unseen: [],
    end: summary.end,
  };
}

/** Where the vertical rules of the paper lie: fine and coarse, in seconds, for a strip of this length. */
export function timeRules(until: number, max = 24): { fine: number; coarse: number } {
  const choices: [number, number][] = [
    [60, 300],
    [120, 600],
    [300, 1800],
    [600, 3600],
    [900, 3600],
    [1800, 7200],
    [3600, 14_400],
    [7200, 28_800],
    [21_600, 86_400],
  ];
  const found = choices.find(([step]) => until / step <= max);
  if (found) return { fine: found[0], coarse: found[1] };
  // From a month on whole days, twice as many as long as there are too many rules.
  let fine = 86_400;
  while (until / fine > max) fine *= 2;
  return { fine, coarse: 4 * fine };
}
