import { foldStored } from '@core/exchange';
import type { RunRecord } from '@core/ink';
import { setAssumed, setManner, type Assumed, type Manner } from '@core/quantity';
import { expose } from 'comlink';
import { filedRun } from '../ledger/filing';
import { dotsOf, type Dots } from '../strip/trace';
import { openedOf, type Opened } from './opened';

/** Runs with a meter's stream are opened here, so that the clock goes on while a million rows are read. */
let record: RunRecord | undefined;
const opener = {
  /** @param manner  how its remarks are written; @param assumed what its figures take for granted */
  async open(id: string, manner: Manner, assumed: Assumed): Promise<Opened> {
    setManner(manner);
    setAssumed(assumed);
    record = foldStored(await filedRun(id));
    return openedOf(record);
  },
  /** What is to be drawn of the run that was opened, between two moments: as fine as it was streamed. */
  within: (from: number, to: number): Dots => (record ? dotsOf(record, { from, to }) : {}),
};
export type Opener = typeof opener;

expose(opener);
