import { byLevel, readRun, remarksOf, workloads, type ReadRun, type Remark, type Workload } from '@core/curve';
import { foldStored, type StoredRun } from '@core/exchange';
import { chargedBy, withoutTracks, type RunInk, type RunRecord, type Track } from '@core/ink';
import { TEMPERATURES, type Quantity } from '@core/quantity';
import { againstPencil, type AgainstPencil } from '@core/run';
import { tracedWithPencil, traceOf, withPencil, withTotal, type Trace } from '../strip/trace';
import { thinned } from './levels';

/** A quantity by level. */
export interface LevelLine {
  of: Quantity;
  points: [level: number, value: number][];
}

/** A run as it is laid beside others: values only. What a meter streamed stays where it was read, for it may be a million rows. */
export interface Beside extends ReadRun {
  workloads: Workload[];
  /** Power and heat by level: points of % and W or °C. */
  byLevel: LevelLine[];
  /** Its levels, as many rows as a strip draws. */
  percent: Track;
  /** The strip of the whole run. */
  trace: Trace;
}

/** A run as its own page shows it; its strip has the charge to expect in pencil. */
export interface Opened extends Beside {
  remarks: Remark[];
  /** Its figures beside what its gear let one expect. */
  pencil: AgainstPencil[];
  /** The run with its tracks, of those a meter streamed as many rows as a strip draws: for ghosts and for weighing a line. No figure is worked out of it. */
  sketch: RunRecord;
}

/** What of a run can be shown before its figures are worked out. */
export interface Glimpse {
  run: RunInk;
  trace: Trace;
}

export const glimpseOf = (record: RunRecord): Glimpse => ({ run: withoutTracks(record), trace: tracedWithPencil(record) });

function sketchOf(record: RunRecord): RunRecord {
  const tracks = { ...record.tracks };
  for (const quantity of record.sampled) tracks[quantity] = thinned(tracks[quantity]);
  return { ...record, tracks };
}

/** @param max rows that a strip of it draws of one track */
export const besideOf = (record: RunRecord, max?: number): Beside => ({
  ...readRun(record),
  workloads: workloads(record),
  byLevel: (['watts', ...TEMPERATURES] as const).flatMap((of) => {
    const points = byLevel(record, of);
    return points.length > 1 ? [{ of, points }] : [];
  }),
  percent: record.sampled.has('percent') ? thinned(record.tracks.percent) : record.tracks.percent,
  trace: withTotal(traceOf(record, chargedBy(record), record.header.pen, { max }), record),
});

export function openedOf(record: RunRecord): Opened {
  const beside = besideOf(record);
  return {
    ...beside,
    trace: withPencil(beside.trace, record),
    pencil: againstPencil(record, beside.figures),
    remarks: remarksOf(record),
    sketch: sketchOf(record),
  };
}

/** A stored run as it is laid beside others. @param max rows that a strip of it draws of one track */
export const besideStored = (run: StoredRun, max: number): Beside => besideOf(foldStored(run), max);
