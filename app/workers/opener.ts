import { align, spanOf, type Alignment, type SpanFigures } from '@core/curve';
import { separateLog, foldStored, type StoredRun } from '@core/exchange';
import type { RunRecord } from '@core/ink';
import { QUANTITIES, setAsked, setAssumed, setManner, type AskedFigures, type Assumed, type Manner, type Quantity } from '@core/quantity';
import { expose } from 'comlink';
import { eachFiled, filedInk, filedRun } from '../ledger/filed';
import { mergeStreams, streamsOf } from '../ledger/samples';
import { workedOut } from '../ledger/worked';
import { dotsOf, logTrace, traceOf, type Dots, type Trace } from '../strip/trace';
import { besideStored, glimpseOf, openedOf, type Glimpse, type Opened } from './opened';
import { toWire, type Wire } from './wire';

const FIRST: readonly Quantity[] = ['percent', 'watts'];
const OTHERS = QUANTITIES.filter((each) => !FIRST.includes(each));

/** What works runs out: a build names this file by all that is in it. `undefined` while the program is being written. */
const PROGRAM = import.meta.env.PROD ? location.pathname : undefined;

/** How a run is opened. */
export interface OpenerWays {
  manner: Manner;
  assumed: Assumed;
  asked: AskedFigures;
}

/** A run without one of its logs and that log alone, as a strip draws them: to be laid on each other by hand. */
export interface Apart {
  rest: Trace;
  own: Trace;
}

/** All that what is worked out hangs on beside the run. @param max rows that a strip draws of one track */
const howOf = (ways: OpenerWays, max?: number): string | undefined => PROGRAM && JSON.stringify([PROGRAM, ways, max]);

/** Has figures worked out as they are asked for: whatever was read meanwhile may have been for another. */
function follow({ manner, assumed, asked }: OpenerWays): void {
  setManner(manner);
  setAssumed(assumed);
  setAsked(asked);
}

/** Runs with a meter's stream are opened here, so that the clock goes on while a million rows are read. The last of them is held. */
let held: { id: string; record: RunRecord } | undefined;
const opener = {
  /**
   * @param ways  how its remarks are written, what its figures take for granted, and which are asked for
   * @param first is told what can be drawn of it, before its figures are worked out
   */
  async open(id: string, ways: OpenerWays, first?: (glimpse: Glimpse) => void): Promise<Opened> {
    // Level and power are read and shown first: what else there is may be twice as much.
    const read: { early?: StoredRun } = {};
    if (first) {
      const [glimpse] = await workedOut('glimpse', [id], howOf(ways), async () => {
        const [ink, streams] = await Promise.all([filedInk(id), streamsOf(id, FIRST)]);
        read.early = { ...ink, ...streams };
        follow(ways);
        return [glimpseOf(foldStored(read.early))];
      });
      if (glimpse) first(glimpse);
    }
    const { early } = read;
    const record = foldStored(early ? { ...early, ...mergeStreams(early, await streamsOf(id, OTHERS)) } : await filedRun(id));
    held = { id, record };
    follow(ways);
    return openedOf(record);
  },
  /**
   * Runs as they are laid beside each other, in the order of their ids; `undefined` where there is none of an id.
   *
   * @param max rows that a strip of them draws of one track
   */
  async beside(ids: readonly string[], ways: OpenerWays, max: number): Promise<(Wire | undefined)[]> {
    return workedOut('beside', ids, howOf(ways, max), (missing) =>
      eachFiled(missing, (run) => {
        follow(ways);
        return toWire(besideStored(run, max));
      }),
    );
  },
  /** Works runs out as they will be laid beside others. */
  async ahead(ids: readonly string[], ways: OpenerWays, max: number): Promise<void> {
    if (PROGRAM) await opener.beside(ids, ways, max);
  },
  /** Least, mean and most within a stretch of the run that is held. */
  span: (id: string, from: number, to: number): SpanFigures[] => (held?.id === id ? spanOf(held.record, from, to) : []),
  /** What is to be drawn of the run that is held, between two moments: as fine as it was streamed. */
  within: (id: string, from: number, to: number): Dots => (held?.id === id ? dotsOf(held.record, { from, to }) : {}),

  /** Where a log of a run lies in it, by all else that was read. */
  async alignAgain(id: string, log: string | undefined): Promise<Alignment | undefined> {
    const { rest, own } = separateLog(await filedRun(id), log);
    return align(foldStored(rest), own);
  },

  /** A run and one of its logs apart. @param zero when the clock of the log stands at zero, in seconds from plug-in; @param drift parts in a million */
  async apart(id: string, log: string | undefined, zero: number, drift: number): Promise<Apart> {
    const { rest, own } = separateLog(await filedRun(id), log);
    const run = foldStored(rest);
    return { rest: traceOf(run, 'all else', run.header.pen), own: logTrace(own, run.header, zero, drift) };
  },
};
export type Opener = typeof opener;

expose(opener);
