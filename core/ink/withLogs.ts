import { joined, rowsBetween, type Logs, type Samples } from '../samples/column';
import type { Span } from '../samples/gaps';
import { QUANTITIES, type Quantity } from '../quantity/quantity';
import type { Entry, Header, Place } from './entry';

/** A meter's log where it lies in a run. */
export interface LaidLog {
  /** Its id; none of the one the run was imported from. */
  log: string | undefined;
  /** Of the file it was read from. */
  name: string;
  /** When its clock stood at zero, in seconds from plug-in; and by how much it goes slow, in parts of a million. */
  zero: number;
  drift: number;
  /** Its first and its last row, in seconds from plug-in. */
  from: number;
  to: number;
  quantities: readonly Quantity[];
}

/** When a run was plugged in, which part of it is looked at, and its settings, by what was said last of each. */
export interface Shape {
  header: Header;
  /** In seconds from plug-in. */
  kept: Span;
  settingsBefore?: Header['conditions'] | undefined;
}

/** @param standing entries that are not struck, in order of entry */
export function shapeOf(asStarted: Header, standing: readonly Entry[]): Shape {
  const plugIn = standing.findLast((entry) => entry.kind === 'plug-in');
  const trim = standing.findLast((entry) => entry.kind === 'trim');
  const settings = standing.findLast((entry) => entry.kind === 'conditions');
  const plugInAt = plugIn?.at ?? asStarted.plugInAt;
  const from = Math.max(plugIn ? 0 : -Infinity, trim ? (trim.at - plugInAt) / 1000 : -Infinity);
  return {
    header: plugIn || settings ? { ...asStarted, plugInAt, ...(settings && { conditions: settings.conditions }) } : asStarted,
    kept: { from, to: trim ? (trim.until - plugInAt) / 1000 : Infinity },
    ...(settings && { settingsBefore: asStarted.conditions }),
  };
}

/**
 * Lays a meter's logs on the time of the run: each moved to where it lies, stretched by what its clock is slow, and cut to what is looked at. Of two
 * logs that give one quantity, the one that was there first counts for as long as it lasts.
 *
 * @param standing entries that are not struck, in order of entry
 */
export function withLogs(
  asStarted: Header,
  { header, kept }: Shape,
  standing: readonly Entry[],
  samples: Samples,
  logs: Logs,
): { samples: Samples; logs: LaidLog[] } {
  const added = standing.flatMap((entry) => (entry.kind === 'log' ? [{ entry, samples: logs[entry.log] ?? {} }] : []));
  const isStreamed = Object.keys(samples).length > 0;
  if (!isStreamed && added.length === 0) return { samples, logs: [] };
  const places = new Map<string | undefined, Place>();
  for (const entry of standing) if (entry.kind === 'place') places.set(entry.log, entry);
  const all = [
    ...(isStreamed ? [{ log: undefined, name: asStarted.source ?? 'the meter', at: asStarted.plugInAt, drift: 0, samples }] : []),
    ...added.map(({ entry, samples: columns }) => ({ ...entry, drift: entry.drift ?? 0, samples: columns })),
  ].map((each) => {
    const place = places.get(each.log);
    const [at, drift] = place ? [place.at, place.drift ?? 0] : [each.at, each.drift];
    const zero = (at - header.plugInAt) / 1000;
    return { ...each, zero, drift, laid: placed(each.samples, zero, drift, kept) };
  });
  const whole: Samples = {};
  for (const { laid } of all)
    for (const quantity of QUANTITIES) {
      const [first, other] = [whole[quantity], laid[quantity]];
      if (other && other.seconds.length > 0) whole[quantity] = first ? mergedColumns(first, other) : other;
    }
  return {
    samples: whole,
    logs: all.map(({ log, name, zero, drift, laid }) => {
      const columns = Object.values(laid).filter(({ seconds }) => seconds.length > 0);
      return {
        log,
        name,
        zero,
        drift,
        from: Math.min(...columns.map(({ seconds }) => seconds[0] ?? 0)),
        to: Math.max(...columns.map(({ seconds }) => seconds.at(-1) ?? 0)),
        quantities: QUANTITIES.filter((quantity) => laid[quantity]),
      };
    }),
  };
}

/** Entries as they lie: what the words of a log say is moved with that log. @param entries in order of entry; @param stands whether one is not struck */
export function saidWhere(entries: readonly Entry[], stands: (entry: Entry) => boolean): readonly Entry[] {
  const logs = new Map(entries.flatMap((entry) => (entry.kind === 'log' && stands(entry) ? [[entry.log, entry] as const] : [])));
  if (logs.size === 0) return entries;
  const places = new Map<string, Place>();
  for (const entry of entries) if (entry.kind === 'place' && entry.log !== undefined && stands(entry)) places.set(entry.log, entry);
  return entries.map((entry) => {
    const log = entry.kind === 'note' || entry.kind === 'event' ? logs.get(entry.log ?? '') : undefined;
    if (!log) return entry;
    const { at, drift } = places.get(log.log) ?? log;
    return { ...entry, at: Math.round(at + (entry.at - log.at) * (1 + (drift ?? 0) / 1e6)) };
  });
}

type Columns = NonNullable<Samples['watts']>;

/** Columns where a log lies. What need not be moved or cut is not copied. */
function placed(samples: Samples, zero: number, drift: number, kept: Span): Samples {
  const isMoved = zero !== 0 || drift !== 0;
  const isCut = kept.from > -Infinity || kept.to < Infinity || zero < 0;
  const rate = 1 + drift / 1e6;
  const laid: Samples = {};
  const times = new Map<Float64Array, Float64Array>();
  for (const quantity of QUANTITIES) {
    const column = samples[quantity];
    if (!column) continue;
    const seconds = times.get(column.seconds) ?? (isMoved ? column.seconds.map((each) => zero + each * rate) : column.seconds);
    times.set(column.seconds, seconds);
    const moved = isMoved ? { seconds, values: column.values } : column;
    // What was measured before plug-in belongs to no charge.
    laid[quantity] = isCut ? (rowsBetween(moved, Math.max(0, kept.from), kept.to) as Columns) : moved;
  }
  return laid;
}

/** Two columns of one quantity: the first for as long as it lasts, the other before and after. */
function mergedColumns(first: Columns, other: Columns): Columns {
  const [from, to] = [first.seconds[0] ?? 0, first.seconds.at(-1) ?? 0];
  const before = rowsBetween(other, -Infinity, from - 1e-3) as Columns;
  const after = rowsBetween(other, to + 1e-3, Infinity) as Columns;
  return {
    seconds: joined([before.seconds, first.seconds, after.seconds]),
    values: joined([before.values, first.values, after.values]),
  };
}
