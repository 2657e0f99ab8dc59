import { expose } from 'comlink';
import { setAsked, setAssumed, setManner } from '@core/quantity';
import type { Rest } from '@core/exchange';
import { seldom, type Progress } from '../kit/work';
import type { SetAside } from '../ledger/live';
import type { OpenerWays } from '../workers/opener';
import { EXPORTS, type ExportId } from './exports';
import { FileMaker } from './fileMaker';
import { exportSourceOf, type Count } from './source';
import type { Target } from './target';

/** A file that was made, and what is in it. */
export interface Exported {
  file: Blob;
  count: Count;
  /** Runs that are not in it. */
  aside: SetAside[];
  /** What else is not in it, in sentences. */
  leftOut: string[];
}

/** Files are made here, so that a large one never stops the clock. A worker is ended when its work is called off. */
const exporter = {
  /**
   * @param ways what figures take for granted, which are asked for, and how they are written
   * @param rest what there is beside runs and pictures, asked for when the runs have gone by
   */
  async write(id: ExportId, target: Target, ways: OpenerWays, rest: () => Promise<Rest>, progress: Progress): Promise<Exported> {
    setManner(ways.manner);
    setAssumed(ways.assumed);
    setAsked(ways.asked);
    const row = EXPORTS.find((each) => each.id === id);
    if (!row) throw new Error('There is no such export.');
    const source = exportSourceOf(target, rest, seldom(progress));
    const file = new FileMaker(row.mediaType);
    await row.write(source, file);
    const { count, aside, leftOut } = source;
    return { file: file.end(), count, aside, leftOut };
  },
};
export type Exporter = typeof exporter;

expose(exporter);
