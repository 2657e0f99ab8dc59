import { power } from '../quantity/electric';
import { correctedBy, sourcesIn } from './corrected';
import type { Correction, Entry, Event, Header, Note, Picture, Reading, Source, Stop, Strike, Trial } from './entry';
import { TRIMMED } from './endings';
import { POWER_COMES, POWER_GOES } from './events';
import { EMPTY_TRACK, sighting, sightings, type Sighting, type Track } from './track';
import type { Logs, Samples } from '../samples/column';
import { gapsOf, type Span } from '../samples/gaps';
import { withLogs, saidWhere, shapeOf, type LaidLog } from './withLogs';
import { QUANTITIES, type Quantity } from '../quantity/quantity';
import type { Elapsed, Moment, WallTime } from '../quantity/times';

/** A reading with its time. */
export interface Seen {
  reading: Reading;
  seconds: Elapsed;
}

/** A reading that was struck: kept, and counted for nothing. */
export interface Struck {
  reading: Reading;
  seconds: number;
  strike: Strike;
}

/** A run as its ink tells it, without what a meter streamed. */
export interface RunInk {
  /** With its gear as it was corrected since. */
  header: Header;
  /** As it was at plug-in, and is stored. */
  asStarted: Header;
  /** Settings before they were corrected; `undefined` where none were. */
  settingsBefore?: Header['conditions'] | undefined;
  /** Between which moments it is looked at, in seconds from plug-in; endless where nothing says so. */
  kept: Span;
  /** Entries that stand and lie outside what is looked at: they count for nothing. */
  outside: readonly Entry[];
  /** A meter's logs and where they lie: the one it was imported from first. */
  logs: readonly LaidLog[];
  /** What was corrected of its gear, each with what stood in its place before. */
  corrections: (Correction & { before: Correction['gear'] | undefined })[];
  /** Every entry, in order of entry. */
  entries: readonly Entry[];
  /** Readings that stand, by the time they were seen. */
  readings: readonly Seen[];
  struck: Struck[];
  /** Every entry that was struck, readings among them, and what struck it. */
  crossed: { entry: Entry; seconds: number; strike: Strike }[];
  notes: (Note & { seconds: number })[];
  /** What happened, by its time. */
  events: (Event & { seconds: number })[];
  /** Chargers tried one after another, in order of entry. */
  trials: (Trial & { seconds: number })[];
  /** The sources to try, where the list of a spot check was changed or begun with more than chargers. */
  list?: Source[] | undefined;
  /** What it is called by in lists. */
  label?: { tags: readonly string[]; text: string } | undefined;
  /** When it was discarded, epoch milliseconds; `undefined` of a run that stands. */
  discardedAt?: number | undefined;
  /** Pictures taken as evidence. */
  pictures: Picture[];
  /** What it charged from, each from a time on; the first from plug-in. */
  sources: (Source & { from: number })[];
  /** Spans in which it was unplugged; the last is endless while it still is. */
  unplugged: { from: number; to: number }[];
  /** Spans in which the program was shut, asleep or gone. */
  unwatched: { from: number; to: number }[];
  /** By how much the wall clock was moved since plug-in, in milliseconds. */
  shift: number;
  stop?: (Stop & { seconds: number }) | undefined;
  /** Levels lower than one seen before them. */
  falls: Sighting[];
  /** Ids of readings whose level was seen turning. */
  turning: ReadonlySet<string>;
  /** Whether it was dead at plug-in: the display was seen to show nothing before it showed a level. */
  isDead: boolean;
  /** Quantities that a meter streamed rather than a person read. */
  sampled: ReadonlySet<Quantity>;
  /** Last moment of which anything is known, in seconds from plug-in: the stop, or the last thing seen. */
  end: number;
}

/** A run with every quantity over time. All figures are worked out from this. */
export interface RunRecord extends RunInk {
  tracks: Record<Quantity, Track>;
}

/** The rows in order; a copy only where they are not in order yet, for they nearly always are. */
function inOrder<Row>(rows: readonly Row[], compare: (one: Row, other: Row) => number): readonly Row[] {
  const isOrdered = rows.every((row, index) => index === 0 || compare(rows[index - 1] ?? row, row) <= 0);
  return isOrdered ? rows : [...rows].sort(compare);
}

/** What every entry is struck by, if it is. A strike that is itself struck counts for nothing. */
function strikes(entries: readonly Entry[]): Map<string, Strike> {
  const struck = new Map<string, Strike>();
  for (let index = entries.length - 1; index >= 0; index -= 1) {
    const entry = entries[index];
    if (entry?.kind === 'strike' && !struck.has(entry.id)) struck.set(entry.target, entry);
  }
  return struck;
}

/**
 * Folds a run's ink into its record.
 *
 * Readings are ordered by the time they were seen, then by order of entry; of two values of one kind at the same second the
 * later entry counts; struck entries count for nothing (numbers.md, *Seen time*). Watts are worked out from volts and amps
 * where a reading gives both and no watts.
 *
 * Where plug-in was set, the ends were trimmed or a log was moved, that is done first: everything else goes by it.
 *
 * @param samples a meter's columns, in seconds from plug-in as it was stored
 * @param logs    columns of logs that were laid in later, each in seconds of its own clock
 */
export function foldRun(asStarted: Header, entries: readonly Entry[], samples: Samples = {}, logs: Logs = {}): RunRecord {
  const asEntered = inOrder(entries, (one, other) => one.seq - other.seq || one.written - other.written);
  const struckBy = strikes(asEntered);
  const ordered = saidWhere(asEntered, ({ id }) => !struckBy.has(id));
  const standing = struckBy.size === 0 ? ordered : ordered.filter(({ id }) => !struckBy.has(id));
  const shape = shapeOf(asStarted, standing);
  const { kept } = shape;
  const corrected = correctedBy(
    shape.header,
    standing.flatMap((entry) => (entry.kind === 'correction' ? [entry] : [])),
    sourcesIn(standing),
  );
  const { header } = corrected;
  const outside: Entry[] = [];
  const readings: Seen[] = [];
  const struck: Struck[] = [];
  const crossed: RunRecord['crossed'] = [];
  const notes: RunRecord['notes'] = [];
  const happened: RunRecord['events'] = [];
  const trials: RunRecord['trials'] = [];
  const pictures: Picture[] = [];
  let [stop, list]: [RunRecord['stop'], RunRecord['list']] = [undefined, undefined];
  let [label, discardedAt]: [RunRecord['label'], RunRecord['discardedAt']] = [undefined, undefined];
  for (const entry of ordered) {
    const seconds = (entry.at - header.plugInAt) / 1000;
    const strike = struckBy.get(entry.id);
    if (strike) {
      crossed.push({ entry, seconds, strike });
      if (entry.kind === 'reading') struck.push({ reading: entry, seconds, strike });
    } else if (isPlaced(entry) && (seconds < kept.from || seconds > kept.to)) outside.push(entry);
    else if (entry.kind === 'reading') readings.push({ reading: entry, seconds });
    else if (entry.kind === 'note') notes.push({ ...entry, seconds });
    else if (entry.kind === 'event') happened.push({ ...corrected.event(entry), seconds });
    else if (entry.kind === 'trial') trials.push({ ...entry, source: corrected.source(entry.source), seconds });
    else if (entry.kind === 'label') label = { tags: entry.tags, text: entry.text ?? '' };
    else if (entry.kind === 'discard') discardedAt = entry.written;
    else if (entry.kind === 'list') list = entry.sources.map(corrected.source);
    else if (entry.kind === 'picture') pictures.push(entry);
    else if (entry.kind === 'stop') stop = { ...entry, seconds };
  }
  const seen = inOrder(readings, (one, other) => one.seconds - other.seconds || one.reading.seq - other.reading.seq);

  if (!stop && kept.to < Infinity) stop = trimmedAt(header, kept.to, outside);
  const laid = withLogs(asStarted, shape, standing, samples, logs);
  const columns: Samples = { ...laid.samples, watts: laid.samples.watts ?? sampledPower(laid.samples) };
  const tracks = {} as Record<Quantity, Track>;
  for (const quantity of QUANTITIES) tracks[quantity] = merge(handTrack(seen, quantity), columns[quantity], quantity !== 'percent');
  const lastSampled = QUANTITIES.map((quantity) => columns[quantity]?.seconds.at(-1) ?? 0);
  const events = [...inOrder(happened, (one, other) => one.seconds - other.seconds || one.seq - other.seq)];
  const end =
    stop?.seconds ?? Math.max(0, seen.at(-1)?.seconds ?? 0, events.at(-1)?.seconds ?? 0, trials.at(-1)?.seconds ?? 0, ...lastSampled);
  const sampled = new Set(QUANTITIES.filter((quantity) => (columns[quantity]?.seconds.length ?? 0) > 0));
  return {
    header,
    asStarted,
    settingsBefore: shape.settingsBefore,
    kept,
    outside,
    logs: laid.logs,
    corrections: corrected.corrections,
    entries: ordered,
    readings: seen,
    struck,
    crossed,
    notes,
    events,
    trials,
    list,
    label,
    discardedAt,
    pictures,
    sources: sourcesOf(header, events),
    unplugged: unpluggedSpans(events),
    unwatched: events.flatMap((each) =>
      each.event === 'away' && each.until !== undefined ? [{ from: each.seconds, to: (each.until - header.plugInAt) / 1000 }] : [],
    ),
    shift: events.reduce((moved, each) => moved + (each.event === 'clock' ? (each.shift ?? 0) : 0), 0),
    stop,
    tracks,
    falls: fallsOf(tracks.percent),
    turning: new Set(seen.filter(({ reading }) => reading.turning).map(({ reading }) => reading.id)),
    isDead: isDeadAt(events, tracks.percent),
    sampled,
    end,
  };
}

/** A run's ink alone, without the columns that were folded with it. */
export function withoutTracks(record: RunRecord): RunInk {
  const run: RunInk & Partial<RunRecord> = { ...record };
  delete run.tracks;
  return run;
}

/** What was streamed of a run, where it lies: moved, stretched and cut as its entries say. */
export function streamsLaid(asStarted: Header, entries: readonly Entry[], samples: Samples = {}, logs: Logs = {}): Samples {
  const struck = strikes(entries);
  const standing = entries.filter(({ id }) => !struck.has(id));
  return withLogs(asStarted, shapeOf(asStarted, standing), standing, samples, logs).samples;
}

/** What was seen or done at its moment, rather than said of the whole run. */
const isPlaced = ({ kind }: Entry) =>
  kind === 'reading' || kind === 'note' || kind === 'event' || kind === 'trial' || kind === 'stop' || kind === 'picture';

/** Where its end was trimmed off the run ends there, whatever ended it later. */
function trimmedAt(header: Header, seconds: number, outside: readonly Entry[]): RunRecord['stop'] {
  const later = outside.findLast(({ kind }) => kind === 'stop');
  if (!later) return undefined;
  const at = header.plugInAt + Math.round(seconds * 1000);
  return { kind: 'stop', seq: later.seq, id: later.id, at, written: later.written, because: 'other', remark: TRIMMED, seconds };
}

function sourcesOf({ charger, port, cable, feed }: Header, events: RunRecord['events']): RunRecord['sources'] {
  return [
    { from: 0, charger, port, cable, feed },
    ...events.flatMap((each) => (each.event === 'swapped' && each.source ? [{ from: each.seconds, ...each.source }] : [])),
  ];
}

/** From each time its power went to the next time it came; a second unplugging in between changes nothing. */
function unpluggedSpans(events: RunRecord['events']): RunRecord['unplugged'] {
  const spans: RunRecord['unplugged'] = [];
  let from: number | undefined;
  for (const { event, seconds } of events) {
    if (POWER_GOES.includes(event)) from ??= seconds;
    else if (POWER_COMES.includes(event) && from !== undefined) {
      spans.push({ from, to: seconds });
      from = undefined;
    }
  }
  return from === undefined ? spans : [...spans, { from, to: Infinity }];
}

/** Time plugged in up to a moment of a run, in seconds: what elapsed, without the spans in which it was unplugged. */
export function chargingTime({ unplugged }: Pick<RunInk, 'unplugged'>, moment: number): number {
  return moment - unplugged.reduce((sum, { from, to }) => sum + Math.max(0, Math.min(to, moment) - from), 0);
}

/** The moment of a run at which the wall clock shows `wall`, epoch milliseconds: as if the clock had never been changed since plug-in. */
export const momentOf = ({ shift }: RunInk, wall: WallTime): Moment => wall - shift;

/** Seconds from plug-in at which the wall clock shows `wall`. */
export const elapsedAt = (run: RunInk, wall: WallTime): Elapsed => (momentOf(run, wall) - run.header.plugInAt) / 1000;

/** What a run charges from at a moment. */
export function sourceAt({ sources, header }: Pick<RunInk, 'sources' | 'header'>, moment: number): Source {
  return sources.findLast(({ from }) => from <= moment) ?? header;
}

/** Whether the display was seen to show nothing before it showed a level. */
export const isDeadAt = (events: RunRecord['events'], level: Track): boolean =>
  events.some(({ event, seconds }) => event === 'dead' && seconds < (level.seconds[0] ?? Infinity));

/** Levels lower than one seen before them; every time figure of such a run is a first passage. */
export function fallsOf(level: Track): Sighting[] {
  const falls: Sighting[] = [];
  let highest = -Infinity;
  for (let index = 0; index < level.values.length; index += 1) {
    const value = level.values[index] ?? 0;
    const fell = value < highest ? sighting(level, index) : undefined;
    if (fell) falls.push(fell);
    else highest = value;
  }
  return falls;
}

/** The quantity in a reading or a trial; watts from volts and amps where they are not given. */
export function valueIn(reading: Partial<Record<Quantity, number | undefined>>, quantity: Quantity): number | undefined {
  if (quantity !== 'watts' || reading.watts !== undefined) return reading[quantity];
  const { volts, amps } = reading;
  return volts === undefined || amps === undefined ? undefined : power(volts, amps);
}

/** Whether a moment lies in the second of the last row: of what was read in one second, one value counts. */
export const isInLastSecond = (seconds: ArrayLike<number>, moment: number): boolean =>
  seconds.length > 0 && Math.floor(seconds[seconds.length - 1] ?? 0) === Math.floor(moment);

/** The readings of one quantity. They are in order of time, so those of one second stand beside each other. */
function handTrack(readings: readonly Seen[], quantity: Quantity): Track {
  const [seconds, values, entries]: [number[], number[], string[]] = [[], [], []];
  let lastSeq = 0;
  for (const { reading, seconds: seen } of readings) {
    const value = valueIn(reading, quantity);
    if (value === undefined) continue;
    const isSameSecond = isInLastSecond(seconds, seen);
    if (isSameSecond && lastSeq > reading.seq) continue;
    const row = isSameSecond ? seconds.length - 1 : seconds.length;
    seconds[row] = seen;
    values[row] = value;
    entries[row] = reading.id;
    lastSeq = reading.seq;
  }
  return seconds.length === 0 ? EMPTY_TRACK : { seconds, values, entries };
}

/**
 * What was read by hand and what a meter streamed, as one track. Where a meter measures all the time, what was read off it now and then tells nothing
 * more, only later or rounder: there the stream counts alone. Levels are what the display showed, whoever read it.
 *
 * @param isMeasured whether a meter measures it
 */
function merge(hand: Track, sampled: Samples[Quantity], isMeasured: boolean): Track {
  if (!sampled || sampled.seconds.length === 0) return hand;
  const gaps = gapsOf(sampled);
  const [from, to] = [sampled.seconds[0] ?? 0, sampled.seconds.at(-1) ?? 0];
  const isStreamed = (at: number) => at >= from && at <= to && !gaps.some((gap) => gap.from < at && at < gap.to);
  const beside = sightings(hand).filter(({ seconds }) => !isMeasured || !isStreamed(seconds));
  return beside.length === 0 ? sampled : woven(sampled, beside);
}

/** Readings put among a meter's rows by their times, after those of the same moment. A row of the meter's has no entry. */
function woven({ seconds, values }: NonNullable<Samples['watts']>, readings: readonly Sighting[]): Track {
  const length = seconds.length + readings.length;
  const [times, all] = [new Float64Array(length), new Float64Array(length)];
  const entries: string[] = [];
  entries.length = length;
  let row = 0;
  for (const [index, { seconds: at, value, entry = '' }] of readings.entries()) {
    while (row < seconds.length && (seconds[row] ?? 0) <= at) {
      [times[row + index], all[row + index]] = [seconds[row] ?? 0, values[row] ?? 0];
      row += 1;
    }
    [times[row + index], all[row + index], entries[row + index]] = [at, value, entry];
  }
  times.set(seconds.subarray(row), row + readings.length);
  all.set(values.subarray(row), row + readings.length);
  return { seconds: times, values: all, entries };
}

/** Watts of a meter that gave volts and amps at the same moments, and no watts. */
export function sampledPower({ volts, amps }: Samples): Samples['watts'] {
  if (!volts || !amps || volts.seconds.length !== amps.seconds.length) return undefined;
  if (volts.seconds.some((seconds, index) => seconds !== amps.seconds[index])) return undefined;
  return { seconds: volts.seconds, values: volts.values.map((each, index) => each * (amps.values[index] ?? 0)) };
}
