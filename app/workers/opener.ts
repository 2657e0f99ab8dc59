import { align, type Alignment } from '@core/curve';
import { apart, foldStored } from '@core/exchange';
import type { RunRecord } from '@core/ink';
import { setAssumed, setManner, type Assumed, type Manner } from '@core/quantity';
import type { Samples } from '@core/samples';
import { expose } from 'comlink';
import { filedRun } from '../ledger/filing';
import { dotsOf, logTrace, traceOf, type Dots, type Trace } from '../strip/trace';
import { openedOf, type Opened } from './opened';

/** A run without one of its logs and that log alone, as a strip draws them: to be laid on each other by hand. */
export interface Apart {
  rest: Trace;
  own: Trace;
}

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

  /** Where a log that is not in a run yet lies in it. */
  alignNew: async (id: string, samples: Samples): Promise<Alignment | undefined> => align(foldStored(await filedRun(id)), samples),

  /** Where a log of a run lies in it, by all else that was read. */
  async alignAgain(id: string, log: string | undefined): Promise<Alignment | undefined> {
    const { rest, own } = apart(await filedRun(id), log);
    return align(foldStored(rest), own);
  },

  /** A run and one of its logs apart. @param zero when the clock of the log stands at zero, in seconds from plug-in; @param drift parts in a million */
  async apart(id: string, log: string | undefined, zero: number, drift: number): Promise<Apart> {
    const { rest, own } = apart(await filedRun(id), log);
    const run = foldStored(rest);
    return { rest: traceOf(run, 'all else', run.header.pen), own: logTrace(own, run.header, zero, drift) };
  },
};
export type Opener = typeof opener;

expose(opener);
