// First: it puts the database in place that the others look for as they load.
import { emptyBrowser, plant } from '../ledger/testBrowser';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { foldRun, inkOf, SCHEMA } from '@core/ink';
import { exampleHeader } from '../../core/ink/example';
import { sampleRows, SAMPLES } from '../ledger/samples';
import { besideOf, openedOf } from './opened';
import type * as OpenRun from './openRun';
import { toWire } from './wire';

/** A worker that does as it is told when it is told to: what it was asked, and what it has not answered yet. */
class Hand {
  asked: string[] = [];
  open: (() => void)[] = [];
  isOver = false;
  /** Something in it failed that nobody caught. */
  die = (): void => undefined;
  terminate = () => {
    this.isOver = true;
  };
}
let hands: Hand[] = [];
const workers = () => hands.filter(({ isOver }) => !isOver);
/** Has every worker answer what it was asked first. */
function answerAll(): void {
  for (const { open } of workers()) open.shift()?.();
}

const recordOf = (id: string) => foldRun(exampleHeader({ id }), inkOf(exampleHeader({ id }), [{ seconds: 0, percent: 10 }]));
vi.mock('./wrapped', () => ({
  wrappedWorker: (hand: Hand, onLost: () => void) => {
    hand.die = onLost;
    const asked = <Result>(what: string, result: Result) =>
      new Promise<Result>((resolve) => {
        hand.asked.push(what);
        hand.open.push(() => {
          resolve(result);
        });
      });
    const wireOf = (id: string) => (id === 'none' ? undefined : toWire(besideOf(recordOf(id))));
    return {
      beside: (ids: string[]) => asked(`beside ${ids.join(' ')}`, ids.map(wireOf)),
      ahead: (ids: string[]) => asked(`ahead ${ids.join(' ')}`, undefined),
      open: (id: string) => asked(`open ${id}`, openedOf(recordOf(id))),
      span: (id: string) => Promise.resolve([id]),
    };
  },
}));

/** The room as a page begins with it, in a browser of so many cores. */
async function begun(cores: number): Promise<typeof OpenRun> {
  vi.stubGlobal('navigator', { locks: navigator.locks, hardwareConcurrency: cores });
  vi.resetModules();
  return import('./openRun');
}
/** Waits until pending database requests and microtasks have run. */
async function settled(): Promise<void> {
  for (let turn = 0; turn < 50; turn += 1) await new Promise((resolve) => setImmediate(resolve));
}
/** Has workers answer until some work is done. */
async function doneWith<Result>(work: Promise<Result>): Promise<Result> {
  const ends = work.then(() => true);
  while (!(await Promise.race([ends, settled()]))) answerAll();
  return work;
}

async function stream(id: string, rows: number): Promise<void> {
  const column = { seconds: Float64Array.from({ length: rows }, (_, row) => row), values: new Float64Array(rows) };
  for (const [key, value] of sampleRows(id, { watts: column })) await plant(key, value, SAMPLES);
}

beforeEach(async () => {
  await emptyBrowser();
  hands = [];
  vi.stubGlobal(
    'Worker',
    class extends Hand {
      constructor() {
        super();
        hands.push(this);
      }
    },
  );
  vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] });
});
afterEach(() => vi.useRealTimers());

it('opens many runs in handfuls, in as many workers as leave one core to the page, three handfuls in hand at most', async () => {
  const { openBeside } = await begun(3);
  const ids = [...Array.from({ length: 58 }, (_, index) => `run-${index}`), 'none'];
  const told: number[] = [];
  const found = openBeside(ids, 400, (done) => told.push(done));
  await settled();
  expect(hands.map(({ asked }) => asked.length)).toEqual([3, 3]);
  expect([...(await doneWith(found)).keys()].sort()).toEqual(ids.filter((id) => id !== 'none').sort());
  expect(told.at(-1)).toBe(58);
  // Ten handfuls, each asked for once.
  expect(hands.flatMap(({ asked }) => asked).sort()).toEqual([...new Set(hands.flatMap(({ asked }) => asked))].sort());
  expect(hands.flatMap(({ asked }) => asked)).toHaveLength(10);
});

it('keeps a run that is opened by itself from waiting for the handfuls that are still to come', async () => {
  const { openBeside, openRun, spanWithin } = await begun(2);
  await stream('long', 10);
  const all = openBeside(
    Array.from({ length: 60 }, (_, index) => `run-${index}`),
    400,
    () => undefined,
  );
  await settled();
  const opened = openRun('long');
  await settled();
  expect(hands[0]?.asked.at(-1)).toBe('open long');
  await doneWith(Promise.all([all, opened]));
  // A closer look at it goes to the worker that holds it.
  expect(await spanWithin('long', 0, 5)).toEqual(['long']);
  expect(hands).toHaveLength(1);
});

it('leaves a worker the time to store what it worked out before it ends, and the last of them stays', async () => {
  const { openBeside } = await begun(4);
  const ids = Array.from({ length: 18 }, (_, index) => `run-${index}`);
  for (const again of [false, true]) {
    await doneWith(openBeside(ids, 400, () => undefined));
    vi.advanceTimersByTime(3000);
    // Whoever works again meanwhile rests anew.
    expect([again, workers().length]).toEqual([again, 3]);
  }
  vi.advanceTimersByTime(3000);
  expect(workers()).toHaveLength(1);
});

it('works short streams out ahead while there is nothing else to do, and leaves what was read by hand or is long', async () => {
  const { openBeside, workAhead } = await begun(2);
  for (const id of ['a', 'b']) await stream(id, 10);
  await stream('long', 140_000);
  const header = exampleHeader({ id: 'hand' });
  await plant('run/hand', { schema: SCHEMA, header, entries: [] });
  const all = openBeside(
    Array.from({ length: 18 }, (_, index) => `run-${index}`),
    400,
    () => undefined,
  );
  await settled();
  const ahead = workAhead(['a', 'hand', 'long', 'b'], 400);
  await settled();
  answerAll();
  await settled();
  expect(hands[0]?.asked.filter((what) => what.startsWith('ahead'))).toEqual([]);
  await doneWith(Promise.all([all, ahead]));
  expect(hands[0]?.asked.at(-1)).toBe('ahead a b');
});

it('goes on with another worker where one has died, and frees what it had in hand', async () => {
  const { openRun } = await begun(2);
  for (const id of ['a', 'b', 'c', 'd', 'e', 'f']) await stream(id, 10);
  // One worker, with as much in hand as it may have; two wait for it.
  const opening = ['a', 'b', 'c', 'd', 'e', 'f'].map((id) => openRun(id));
  await settled();
  const [first] = hands;
  expect(first?.asked).toHaveLength(4);
  first?.die();
  await settled();
  const [, second] = hands;
  expect(first?.isOver).toBe(true);
  expect(second?.asked).toEqual(['open e', 'open f']);
  answerAll();
  answerAll();
  await Promise.all(opening.slice(4));
});
