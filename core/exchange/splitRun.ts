import { sourceAt } from '../ink/fold';
import type { Draft, Entry } from '../ink/entry';
import { rowsBetween, type Samples } from '../samples/column';
import { foldStored, streamedOf, type StoredRun } from './logbook';

/** Kinds of entries that are said of a moment, and those that hold for every part of a run. */
const OF_A_MOMENT: readonly Entry['kind'][] = ['reading', 'note', 'event', 'trial', 'picture', 'stop'];
const OF_ALL: readonly Entry['kind'][] = ['label', 'correction', 'conditions'];

/**
 * Splits a run in two at a moment. What comes after becomes a run that was plugged in then, from what it charged from then; the first one is trimmed
 * to end there, and keeps all that it has.
 *
 * @param seconds from plug-in
 * @param id      of the second run
 */
export function splitRun(stored: StoredRun, seconds: number, id: string): { second: StoredRun; trim: Extract<Draft, { kind: 'trim' }> } {
  const run = foldStored(stored);
  const at = run.header.plugInAt + Math.round(seconds * 1000);
  const gone = new Set([...run.crossed.map(({ entry }) => entry.id), ...run.outside.map((entry) => entry.id)]);
  const entries = run.entries
    .filter((entry) => !gone.has(entry.id) && (OF_ALL.includes(entry.kind) || (OF_A_MOMENT.includes(entry.kind) && entry.at >= at)))
    .map((entry, index) => ({ ...entry, seq: index + 1 }));
  const { charger, port, cable, feed } = sourceAt(run, seconds);
  // A half belongs to no cell of a study, was started with no other, and no footage begins with it.
  const apart = { study: undefined, group: undefined, footage: undefined, lane: undefined };
  const samples: Samples = Object.fromEntries(
    Object.entries(streamedOf(stored)).flatMap(([quantity, column]) => {
      const rows = rowsBetween(column, seconds, Infinity);
      const moved = { seconds: Float64Array.from(rows.seconds, (each) => each - seconds), values: Float64Array.from(rows.values) };
      return moved.seconds.length > 0 ? [[quantity, moved]] : [];
    }),
  );
  return {
    second: {
      header: { ...stored.header, ...apart, id, plugInAt: at, charger, port, cable, feed },
      entries,
      ...(Object.keys(samples).length > 0 && { samples }),
    },
    trim: { kind: 'trim', at: run.header.plugInAt + Math.round(Math.max(0, run.kept.from) * 1000), until: at },
  };
}
