// First: it puts the database in place that the others look for as they load.
import { emptyBrowser, newTab, quiet, refuse } from '../ledger/testBrowser';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { elapsedAt } from '@core/ink';
import { exampleHeader } from '../../core/ink/example';
import { useBoard } from './board';
import { useLanes } from './lanes';
import { keepHeartbeat, useWatch } from './watch';

const MINUTE = 60_000;
const HOUR = 60 * MINUTE;
let [wall, steady, id, listeners]: [number, number, string, Set<() => void>] = [0, 0, '', new Set()];

vi.mock('../kit/clock', async (original) => ({
  ...(await original<object>()),
  onTick: (listen: () => void) => listeners.add(listen),
}));

/** Time goes by, and the clock of the machine may be set on top of it. */
async function pass(milliseconds: number, set = 0): Promise<void> {
  wall += milliseconds + set;
  steady += milliseconds;
  for (const each of listeners) each();
  await quiet();
}

beforeEach(async () => {
  await emptyBrowser();
  [wall, steady, listeners] = [Date.UTC(2026, 9, 5, 14), 5000, new Set()];
  vi.spyOn(Date, 'now').mockImplementation(() => wall);
  vi.spyOn(performance, 'now').mockImplementation(() => steady);
  id = `run-${Math.random().toString(36).slice(2)}`;
  await useLanes().start(exampleHeader({ id, plugInAt: wall }), [{ kind: 'reading', at: wall, percent: 5 }]);
});
afterEach(() => vi.restoreAllMocks());

const run = () => {
  const found = useLanes().records.find(({ header }) => header.id === id);
  if (!found) throw new Error('no lane');
  return found;
};

/** A second lane, and half an hour that no clock but the one on the wall has counted: the question is open on both. */
async function askedOnTwo() {
  const other = `${id}-other`;
  await useLanes().start(exampleHeader({ id: other, plugInAt: wall }), [{ kind: 'reading', at: wall, percent: 50 }]);
  const watching = useWatch();
  await watching.start();
  await pass(10 * MINUTE);
  await pass(500, 30 * MINUTE);
  return { other, watching };
}

describe('the watch', () => {
  it('says nothing while the clock merely goes', async () => {
    await useWatch().start();
    for (let minute = 0; minute < 5; minute += 1) await pass(MINUTE);
    expect(useWatch().question).toBe('');
    expect(run().unwatched).toEqual([]);
  });

  it('keeps what the machine slept through as not watched, or takes it for a changed clock when told', async () => {
    const watching = useWatch();
    await watching.start();
    await pass(10 * MINUTE);
    await pass(500, 30 * MINUTE);
    expect(watching.question).toBe('Not watched for 30 min: drawn as unseen.');
    expect(run().unwatched).toEqual([{ from: 600, to: 2400.5 }]);
    await watching.changed();
    expect(run().unwatched).toEqual([]);
    expect(elapsedAt(run(), wall)).toBe(600.5);
    expect(watching.question).toBe('');
  });

  it('asks about a clock that was put back, counts on meanwhile, and can be told to go by it', async () => {
    const watching = useWatch();
    await watching.start();
    await pass(10 * MINUTE);
    await pass(500, -HOUR);
    expect(watching.question).toMatch(/went back by 1 h.*The lanes count on/);
    await watching.changed();
    expect(elapsedAt(run(), wall)).toBe(600.5);
    await pass(500, HOUR);
    await watching.changed();
    expect(elapsedAt(run(), wall)).toBe(601);
    await pass(500, -HOUR);
    await watching.asItIs();
    // No run counts from before what was seen of it.
    expect(elapsedAt(run(), wall)).toBe(0);
  });

  it('looks back at a start to when it was last here, and says what cannot be known', async () => {
    await useWatch().start();
    await pass(20_000);
    wall += 2 * HOUR;
    const pinia = newTab();
    await useLanes(pinia).load();
    await useLanes().claim(id);
    await useWatch().start();
    expect(useWatch().question).toMatch(/^Not watched for 2 h.*cannot be known/);
    expect(run().unwatched).toEqual([{ from: 20, to: 7220 }]);
    await useWatch().asItIs();
    expect(useWatch().question).toBe('');
    expect(run().unwatched).toHaveLength(1);
  });

  it('never judges a run by a heartbeat from before its plug-in, whatever the clocks say', async () => {
    const old = id;
    await keepHeartbeat({ at: wall, runs: [old] });
    await useLanes().stop(old, { kind: 'stop', at: wall, because: 'other' });
    wall += 2 * HOUR;
    newTab();
    await useLanes().load();
    id = `${old}-next`;
    await useLanes().start(exampleHeader({ id, plugInAt: wall }), [{ kind: 'reading', at: wall, percent: 5 }]);
    await useWatch().start();
    expect(useWatch().question).toBe('');
    expect(run().unwatched).toEqual([]);
    // Nor when the clock went back meanwhile, so that the heartbeat seems to be of later.
    await keepHeartbeat({ at: wall + 5 * HOUR, runs: [old] });
    newTab();
    await useLanes().load();
    await useLanes().claim(id);
    await useWatch().start();
    expect(useWatch().question).toBe('');
  });

  it('puts no run before its plug-in or what was seen of it, and can undo every answer', async () => {
    const watching = useWatch();
    await watching.start();
    await pass(10 * MINUTE);
    await useLanes().write(id, { kind: 'reading', at: wall, percent: 12 });
    await pass(500, 30 * MINUTE);
    const before = run().entries.length;
    // Another run, plugged in just before the jump, cannot be put back by half an hour.
    await watching.asItIs();
    await watching.undo();
    expect(watching.question).toMatch(/^Not watched for 30 min/);
    await watching.changed();
    expect(elapsedAt(run(), wall)).toBe(600.5);
    await watching.undo();
    expect(run().unwatched).toEqual([{ from: 600, to: 2400.5 }]);
    expect(run().shift).toBe(0);
    expect(run().entries.length).toBeGreaterThan(before);
    await watching.changed();
    await pass(500, -2 * HOUR);
    await watching.asItIs();
    expect(elapsedAt(run(), wall)).toBe(600);
    await watching.undo();
    await watching.changed();
    expect(elapsedAt(run(), wall)).toBe(601);
  });

  it('is answered once for the lanes that are still live, when one was stopped while the question was open', async () => {
    const { other, watching } = await askedOnTwo();
    await useLanes().stop(other, { kind: 'stop', at: wall, because: 'other' });
    await watching.changed().catch(() => undefined);
    await watching.changed().catch(() => undefined);
    expect(watching.question).toBe('');
    expect(elapsedAt(run(), wall)).toBe(600.5);
    await watching.undo();
    expect(elapsedAt(run(), wall)).toBe(2400.5);
  });

  it('is not answered at all where the answer could not be stored on every lane', async () => {
    const { watching } = await askedOnTwo();
    for (let nth = 1; nth <= 4; nth += 1) {
      const mend = refuse((each) => each === nth);
      await watching.changed().catch(() => undefined);
      mend();
      if (watching.question === '') await watching.undo();
      expect(useLanes().records.map(({ shift }) => shift)).toEqual([0, 0]);
    }
    await watching.changed();
    expect(useLanes().records.map((each) => elapsedAt(each, wall))).toEqual([600.5, 600.5]);
  });

  it('watches on when it could not look back', async () => {
    const broken = vi.spyOn(IDBObjectStore.prototype, 'get').mockImplementationOnce(() => {
      throw new DOMException('no', 'UnknownError');
    });
    await useWatch().start();
    broken.mockRestore();
    await pass(MINUTE);
    await pass(500, 30 * MINUTE);
    expect(useWatch().question).toMatch(/^Not watched for 30 min/);
  });

  it('is silent about a reload, and about a start with nothing live', async () => {
    await keepHeartbeat({ at: wall - 30_000, runs: [id] });
    await useWatch().start();
    expect(useWatch().question).toBe('');
    await useLanes().stop(id, { kind: 'stop', at: wall, because: 'other' });
    await pass(500, -HOUR);
    expect(useWatch().question).toBe('');
  });
});

describe('the board', () => {
  it('keeps the order lanes were moved into, new ones last, through a reload', async () => {
    for (const name of ['b', 'c']) await useLanes().start(exampleHeader({ id: `${id}-${name}`, plugInAt: wall + 1000 }), []);
    const ids = () => useBoard().shown.map(({ header }) => header.id);
    expect(ids()).toEqual([id, `${id}-b`, `${id}-c`]);
    useBoard().move(id, 2);
    expect(ids()).toEqual([`${id}-b`, `${id}-c`, id]);
    useBoard().move(id, -1);
    expect(ids()[0]).toBe(id);
    useBoard().move(`${id}-c`, 0);
    await quiet();
    newTab();
    await useLanes().load();
    await useBoard().load();
    await useLanes().start(exampleHeader({ id: `${id}-d`, plugInAt: wall - 1000 }), []);
    expect(ids()).toEqual([`${id}-c`, id, `${id}-b`, `${id}-d`]);
  });

  it('lays an earlier run under a lane, and leaves out one that is gone', async () => {
    await useLanes().start(exampleHeader({ id: `${id}-old`, plugInAt: wall - HOUR }), [{ kind: 'reading', at: wall - HOUR, percent: 3 }]);
    await useLanes().stop(`${id}-old`, { kind: 'stop', at: wall, because: 'other' });
    await useBoard().lay(id, `${id}-old`);
    expect(useBoard().ghostUnder(id)?.run.header.id).toBe(`${id}-old`);
    await useBoard().lay(id, 'gone');
    expect(useBoard().ghostUnder(id)).toBeUndefined();
    await useBoard().lay(id, undefined);
    expect(useBoard().ghostUnder(id)).toBeUndefined();
  });
});
