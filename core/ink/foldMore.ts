import type { Entry } from './entry';
import { fallsOf, isDeadAt, isInLastSecond, valueIn, type RunRecord, type Seen } from './fold';
import type { Track } from './track';
import { QUANTITIES, type Quantity } from '../quantity/quantity';

/**
 * Folds one more entry, which was added to the ink in place. What nearly every entry is, a reading or a note that was seen last and is entered last,
 * costs no more than what is new of it, however long the run is.
 *
 * @param record of the ink before it was added; nothing else of it is changed
 * @returns the same as `foldRun` of all of the ink; `undefined` where the run has to be folded whole
 */
export function foldMore(record: RunRecord, entries: readonly Entry[]): RunRecord | undefined {
  const entry = entries.at(-1);
  const before = entries.at(-2);
  // Ink that had to be put in order first is another.
  if (record.entries !== entries || !entry || !before || entry.seq <= before.seq) return undefined;
  if (record.stop || record.logs.length > 0 || record.kept.from > -Infinity || record.kept.to < Infinity) return undefined;
  if (entries.some((each) => each.kind === 'strike' && each.target === entry.id)) return undefined;
  const seconds = (entry.at - record.header.plugInAt) / 1000;
  if (entry.kind === 'note') return { ...record, notes: [...record.notes, { ...entry, seconds }] };
  const last = record.readings.at(-1);
  if (entry.kind !== 'reading' || (last && seconds < last.seconds)) return undefined;
  return withReading(record, { reading: entry, seconds });
}

function withReading(record: RunRecord, seen: Seen): RunRecord {
  const { reading, seconds } = seen;
  const tracks = { ...record.tracks };
  for (const quantity of QUANTITIES) tracks[quantity] = withRow(tracks[quantity], seen, quantity);
  const { percent } = tracks;
  return {
    ...record,
    readings: [...record.readings, seen],
    tracks,
    falls: percent === record.tracks.percent ? record.falls : fallsOf(percent),
    turning: reading.turning ? new Set([...record.turning, reading.id]) : record.turning,
    isDead: isDeadAt(record.events, percent),
    end: Math.max(record.end, seconds),
  };
}

/** A track with what a reading says of its quantity: of two values of one second the later entry counts. */
function withRow(track: Track, { reading, seconds }: Seen, quantity: Quantity): Track {
  const value = valueIn(reading, quantity);
  if (value === undefined) return track;
  const { length } = track.seconds;
  const kept = isInLastSecond(track.seconds, seconds) ? length - 1 : length;
  return {
    seconds: [...take(track.seconds, kept), seconds],
    values: [...take(track.values, kept), value],
    entries: [...take(track.entries ?? [], kept), reading.id],
  };
}

const take = <Value>(rows: ArrayLike<Value>, count: number): Value[] => Array.prototype.slice.call(rows, 0, count) as Value[];
