import { notices, readRun, wattsByLevel, workloads, type Notice, type ReadRun, type Workload } from '@core/curve';
import { foldStored } from '@core/exchange';
import type { RunRecord } from '@core/ink';
import { filedRun } from '../ledger/filing';
import { tracedWithPencil, withTotal, type Trace } from '../strip/trace';
import { thinned } from './levels';

/** A run as screens show it: values only. What a meter streamed stays where it was read, for it may be a million rows. */
export interface Opened extends ReadRun {
  remarks: Notice[];
  workloads: Workload[];
  /** Power by level: points of % and W. */
  byLevel: [level: number, watts: number][];
  /** The strip of the whole run, with the charge to expect in pencil. */
  trace: Trace;
  /** The run with its tracks, of those a meter streamed as many rows as a strip draws: for ghosts and for weighing a line. No figure is worked out of it. */
  sketch: RunRecord;
}

function sketchOf(record: RunRecord): RunRecord {
  const tracks = { ...record.tracks };
  for (const quantity of record.sampled) tracks[quantity] = thinned(tracks[quantity]);
  return { ...record, tracks };
}

export function openedOf(record: RunRecord): Opened {
  return {
    ...readRun(record),
    remarks: notices(record).filter(({ kind }) => kind !== 'struck'),
    workloads: workloads(record),
    byLevel: wattsByLevel(record),
    trace: withTotal(tracedWithPencil(record), record),
    sketch: sketchOf(record),
  };
}

/** Reads a filed run, folds it and works it out. @throws {StorageTrouble} when there is none of that id */
export async function openFiled(id: string): Promise<Opened> {
  return openedOf(foldStored(await filedRun(id)));
}
