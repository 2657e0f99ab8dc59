import { byLevel, readRun, remarksOf, workloads, type ReadRun, type Remark, type Workload } from '@core/curve';
import { foldStored } from '@core/exchange';
import { withoutTracks, type RunInk, type RunRecord } from '@core/ink';
import { TEMPERATURES, type Quantity } from '@core/quantity';
import { againstPencil, type AgainstPencil } from '@core/run';
import { filedRun } from '../ledger/filing';
import { tracedWithPencil, withTotal, type Trace } from '../strip/trace';
import { thinned } from './levels';

/** A quantity by level. */
export interface LevelLine {
  of: Quantity;
  points: [level: number, value: number][];
}

/** A run as screens show it: values only. What a meter streamed stays where it was read, for it may be a million rows. */
export interface Opened extends ReadRun {
  remarks: Remark[];
  workloads: Workload[];
  /** Power and heat by level: points of % and W or °C. */
  byLevel: LevelLine[];
  /** Its figures beside what its gear let one expect. */
  pencil: AgainstPencil[];
  /** The strip of the whole run, with the charge to expect in pencil. */
  trace: Trace;
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

export function openedOf(record: RunRecord): Opened {
  const read = readRun(record);
  return {
    ...read,
    pencil: againstPencil(record, read.figures),
    remarks: remarksOf(record),
    workloads: workloads(record),
    byLevel: (['watts', ...TEMPERATURES] as const).flatMap((of) => {
      const points = byLevel(record, of);
      return points.length > 1 ? [{ of, points }] : [];
    }),
    trace: withTotal(tracedWithPencil(record), record),
    sketch: sketchOf(record),
  };
}

/** Reads a filed run, folds it and works it out. @throws {StorageTrouble} when there is none of that id */
export async function openFiled(id: string): Promise<Opened> {
  return openedOf(foldStored(await filedRun(id)));
}
