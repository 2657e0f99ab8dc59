import { power } from '../quantity/electric';
import type { Entry, Header, Note, Reading, Stop, Strike } from './entry';
import { EMPTY_TRACK, QUANTITIES, sightings, trackOf, type Quantity, type Samples, type Sighting, type Track } from './track';

/** A reading with its time from plug-in, in seconds. */
export interface Seen {
  reading: Reading;
  seconds: number;
}

/** A reading that was struck: kept, and counted for nothing. */
export interface Struck {
  reading: Reading;
  seconds: number;
  strike: Strike;
}

/** A run as its ink tells it. All figures are worked out from this. */
export interface RunRecord {
  header: Header;
  /** Every entry, in order of entry. */
  entries: Entry[];
  /** Readings that stand, by the time they were seen. */
  readings: Seen[];
  struck: Struck[];
  notes: (Note & { seconds: number })[];
  stop?: (Stop & { seconds: number }) | undefined;
  tracks: Record<Quantity, Track>;
  /** Levels lower than one seen before them. */
  falls: Sighting[];
  /** Quantities that a meter streamed rather than a person read. */
  sampled: ReadonlySet<Quantity>;
  /** Last moment of which anything is known, in seconds from plug-in: the stop, or the last thing seen. */
  end: number;
}

/** What every entry is struck by, if it is. A strike that is itself struck counts for nothing. */
function strikes(entries: readonly Entry[]): Map<string, Strike> {
  const struck = new Map<string, Strike>();
  for (const entry of [...entries].reverse()) {
    if (entry.kind === 'strike' && !struck.has(entry.id)) struck.set(entry.target, entry);
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
 * @param samples a meter's columns, in seconds from plug-in
 */
export function foldRun(header: Header, entries: readonly Entry[], samples: Samples = {}): RunRecord {
  const ordered = [...entries].sort((one, other) => one.seq - other.seq || one.written - other.written);
  const struckBy = strikes(ordered);
  const secondsOf = ({ at }: Entry) => (at - header.plugInAt) / 1000;
  const standing = ordered.filter(({ id }) => !struckBy.has(id));

  const readings = standing
    .filter((entry) => entry.kind === 'reading')
    .map((reading) => ({ reading, seconds: secondsOf(reading) }))
    .sort((one, other) => one.seconds - other.seconds || one.reading.seq - other.reading.seq);

  const struck = ordered.flatMap((reading) => {
    const strike = struckBy.get(reading.id);
    return reading.kind === 'reading' && strike ? [{ reading, seconds: secondsOf(reading), strike }] : [];
  });
  const notes = standing.filter((entry) => entry.kind === 'note').map((note) => ({ ...note, seconds: secondsOf(note) }));
  const lastStop = standing.filter((entry) => entry.kind === 'stop').at(-1);
  const stop = lastStop && { ...lastStop, seconds: secondsOf(lastStop) };

  const columns: Samples = { ...samples, watts: samples.watts ?? sampledPower(samples) };
  const tracks = {} as Record<Quantity, Track>;
  for (const quantity of QUANTITIES) tracks[quantity] = merge(handTrack(readings, quantity), columns[quantity]);
  const lastSampled = QUANTITIES.map((quantity) => columns[quantity]?.seconds.at(-1) ?? 0);
  const end = stop?.seconds ?? Math.max(0, readings.at(-1)?.seconds ?? 0, ...lastSampled);
  const sampled = new Set(QUANTITIES.filter((quantity) => (columns[quantity]?.seconds.length ?? 0) > 0));
  return { header, entries: ordered, readings, struck, notes, stop, tracks, falls: fallsOf(tracks.percent), sampled, end };
}

/** Levels lower than one seen before them; every time figure of such a run is a first passage. */
function fallsOf(level: Track): Sighting[] {
  let highest = -Infinity;
  return sightings(level).filter(({ value }) => {
    const fell = value < highest;
    highest = Math.max(highest, value);
    return fell;
  });
}

/** The quantity in a reading; watts from volts and amps where they are not given. */
export function valueIn(reading: Reading, quantity: Quantity): number | undefined {
  const { volts, amps } = reading;
  if (quantity === 'watts' && reading.watts === undefined && volts !== undefined && amps !== undefined) return power(volts, amps);
  return reading[quantity];
}

function handTrack(readings: readonly Seen[], quantity: Quantity): Sighting[] {
  const bySecond = new Map<number, Sighting & { seq: number }>();
  for (const { reading, seconds } of readings) {
    const value = valueIn(reading, quantity);
    const before = bySecond.get(Math.floor(seconds));
    if (value === undefined || (before && before.seq > reading.seq)) continue;
    bySecond.set(Math.floor(seconds), { seconds, value, entry: reading.id, seq: reading.seq });
  }
  return [...bySecond.values()];
}

function merge(hand: Sighting[], sampled: Samples[Quantity]): Track {
  if (!sampled || sampled.seconds.length === 0) return hand.length === 0 ? EMPTY_TRACK : trackOf(hand);
  if (hand.length === 0) return sampled;
  const rows = Array.from(sampled.seconds, (seconds, index) => ({ seconds, value: sampled.values[index] ?? 0 }));
  return trackOf([...rows, ...hand]);
}

/** Watts of a meter that gave volts and amps at the same moments, and no watts. */
function sampledPower({ volts, amps }: Samples): Samples['watts'] {
  if (!volts || !amps || volts.seconds.length !== amps.seconds.length) return undefined;
  if (volts.seconds.some((seconds, index) => seconds !== amps.seconds[index])) return undefined;
  return { seconds: volts.seconds, values: volts.values.map((each, index) => each * (amps.values[index] ?? 0)) };
}
