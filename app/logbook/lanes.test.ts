// First: it puts the database in place that the others look for as they load.
import { emptyBrowser, newTab, plant, refuse, stored, storedKeys } from '../ledger/testBrowser';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { Draft } from '@core/ink';
import { exampleHeader } from '../../core/ink/example';
import { remove } from '../ledger/acts';
import { entryOf } from '../ledger/entries';
import { rawRun } from '../ledger/filed';
import { inkKey } from '../ledger/keys';
import { liveRuns } from '../ledger/live';
import { useInkActs } from './inkActs';
import { useLanes } from './lanes';
import { useLogbook } from './runs';

const MINUTE = 60_000;
let plugInAt: number;
let id: string;

beforeEach(async () => {
  await emptyBrowser();
  plugInAt = Date.now() - 12 * MINUTE;
  id = `run-${Math.random().toString(36).slice(2)}`;
});

const level = (percent: number, minutes: number): Draft => ({ kind: 'reading', at: plugInAt + minutes * MINUTE, percent });
const stop = (minutes: number) => ({ kind: 'stop', at: plugInAt + minutes * MINUTE, because: 'window over' }) as const;

async function started(name = id) {
  const lanes = useLanes();
  await lanes.start(exampleHeader({ id: name, plugInAt }), [level(2, 0)]);
  return lanes;
}

describe('the live runs', () => {
  it('show what was written, once it is stored', async () => {
    const lanes = await started();
    await lanes.write(id, level(12, 5));
    expect(lanes.records[0]?.readings.map(({ reading }) => reading.percent)).toEqual([2, 12]);
    expect(lanes.due[0]).toMatchObject({ runId: id, due: 600 });
    expect(lanes.letterOf(id)).toBe('A');
  });

  it('keep their letters when others stop, after a reload too, and when a run is taken up again', async () => {
    const lanes = await started('one');
    await lanes.startSet(['two', 'three'].map((name) => ({ header: exampleHeader({ id: name, plugInAt }), drafts: [] })));
    const letters = () => Object.fromEntries(useLanes().records.map(({ header }) => [header.id, useLanes().letterOf(header.id)]));
    expect(letters()).toEqual({ one: 'A', two: 'B', three: 'C' });
    await lanes.stop('one', stop(6));
    await lanes.start(exampleHeader({ id: 'four', plugInAt }), []);
    expect(letters()).toEqual({ two: 'B', three: 'C', four: 'A' });
    await lanes.reopen((await useLogbook().open('one')).run);
    newTab();
    await useLanes().load();
    expect(letters()).toEqual({ one: 'D', two: 'B', three: 'C', four: 'A' });
  });

  it('are all told of what happened to them at once', async () => {
    const lanes = await started('one');
    await lanes.start(exampleHeader({ id: 'two', plugInAt }), []);
    const off = (runId: string) => ({ runId, draft: { kind: 'event', at: plugInAt + MINUTE, event: 'switched off' } as const });
    await lanes.writeTogether([off('one'), off('two')]);
    expect(lanes.records.map(({ events }) => events.length)).toEqual([1, 1]);
  });

  it('come back after a reload, with their letters in order of plug-in', async () => {
    await (await started()).write(id, level(12, 5));
    newTab();
    const again = useLanes();
    await again.load();
    expect(again.records.map(({ header, readings }) => [header.id, readings.length])).toEqual([[id, 2]]);
  });

  it('show nothing of an entry that could not be stored', async () => {
    const lanes = await started();
    const full = vi.spyOn(IDBObjectStore.prototype, 'put').mockImplementationOnce(() => {
      throw new DOMException('full', 'QuotaExceededError');
    });
    await expect(lanes.write(id, level(12, 5))).rejects.toThrow(/no room left/);
    full.mockRestore();
    expect(lanes.records[0]?.readings).toHaveLength(1);
    await lanes.write(id, level(13, 6));
    expect(lanes.records[0]?.readings).toHaveLength(2);
  });

  it('leave the board for the list when stopped, and come back when the stop is taken back', async () => {
    const lanes = await started();
    await lanes.write(id, level(12, 5));
    await lanes.stop(id, stop(6));
    const logbook = useLogbook();
    expect(lanes.records).toEqual([]);
    expect(logbook.summaries).toMatchObject([{ id, lastLevel: 12, stop: 'window over' }]);

    await lanes.reopen((await logbook.open(id)).run);
    expect(logbook.summaries).toEqual([]);
    await lanes.write(id, level(20, 10));
    await lanes.stop(id, stop(11));
    expect(logbook.summaries).toMatchObject([{ lastLevel: 20 }]);
  });

  it('are discarded and put back once filed, and cleared out for good after thirty days', async () => {
    const lanes = await started();
    await lanes.stop(id, stop(6));
    const logbook = useLogbook();
    await logbook.writeToAll([id], () => ({ kind: 'label', at: plugInAt, tags: ['slip'], text: 'beside the oven' }));
    expect(logbook.summaries).toMatchObject([{ id, tags: ['slip'], note: 'beside the oven' }]);
    await useInkActs().discard([id]);
    expect([logbook.summaries, logbook.discarded.map((each) => each.id)]).toEqual([[], [id]]);
    await useInkActs().putBack(id);
    expect(logbook.summaries).toHaveLength(1);
    await useInkActs().discard([id]);
    await logbook.clearOut(Date.now() + 29 * 24 * 60 * MINUTE);
    expect(logbook.discarded).toHaveLength(1);
    await logbook.clearOut(Date.now() + 31 * 24 * 60 * MINUTE);
    expect(logbook.discarded).toEqual([]);
    expect(await stored(`run/${id}`)).toBeUndefined();
  });

  it('are filed at the next start when a crash came between the stop and the filing', async () => {
    const lanes = await started();
    const mend = refuse((_nth, key) => key.startsWith('listed/'));
    await expect(lanes.stop(id, stop(6))).rejects.toThrow();
    mend();
    newTab();
    await useLanes().load();
    expect(useLanes().records).toEqual([]);
    expect(useLogbook().summaries).toMatchObject([{ id, stop: 'window over' }]);
    expect(await storedKeys('live')).toEqual([]);
  });
});

describe('a run that cannot be filed or read', () => {
  it('says that its stop is stored, is set aside, and closes nothing else', async () => {
    const lanes = await started();
    await started(`${id}-other`);
    const mend = refuse((_nth, key) => key.startsWith('run/'));
    await expect(lanes.stop(id, stop(6))).rejects.toThrow(/^The stop is stored, but the run could not be filed yet.*no room left/);
    newTab();
    const again = useLanes();
    await again.load();
    expect(again.records.map(({ header }) => header.id)).toEqual([`${id}-other`]);
    expect([...again.aside.values()]).toMatchObject([
      { id, name: 'Sedge 5 on Cobble 20', why: expect.stringMatching(/no room left/) as string },
    ]);
    expect(await again.tryAgain(id)).toBe(false);
    mend();
    expect(await again.tryAgain(id)).toBe(true);
    expect(useLogbook().summaries).toMatchObject([{ id, stop: 'window over' }]);
  });

  it('is named when its header cannot be read, with all that is stored of it, and can be removed', async () => {
    await started();
    await plant('live/broken', { plugInAt: 5, schema: 99, device: { name: 'Curlew' } });
    for (const [name, percent] of [
      ['broken', 3],
      ['headless', 4],
    ] as const) {
      const entry = entryOf(level(percent, 1), 1);
      await plant(inkKey(name, entry), entry);
    }
    newTab();
    const lanes = useLanes();
    await lanes.load();
    await lanes.tidyUp();
    expect(lanes.records).toHaveLength(1);
    expect([...lanes.aside.values()]).toMatchObject([
      { id: 'broken', name: 'Curlew', why: expect.stringMatching(/newer Inkpath Log/) as string },
      { id: 'headless', why: 'Its header was lost; its ink is here.' },
    ]);
    expect(await rawRun('broken')).toMatchObject({ ink: [{ percent: 3 }], live: { schema: 99 } });
    for (const each of ['broken', 'headless']) await remove(each);
    newTab();
    await useLanes().load();
    await useLanes().tidyUp();
    expect(useLanes().aside.size).toBe(0);
  });
});

it('are waited for: a tab that is closed frees its lanes, and what was typed meanwhile is logged', async () => {
  const first = await started();
  newTab();
  const second = useLanes();
  await second.load();
  expect(second.inOrder[0]?.mine.value).toBe(false);
  const logged = second.write(id, level(12, 5));
  first.inOrder[0]?.hold?.release();
  await logged;
  expect(second.inOrder[0]?.mine.value).toBe(true);
});

it('are written by one tab alone: another follows, and takes over when asked', async () => {
  const first = await started();
  newTab();
  const second = useLanes();
  await second.load();
  await expect(second.write(id, level(12, 5))).rejects.toThrow(/Another tab has .*\. Log it there/);
  await first.write(id, level(12, 5));
  await second.claim(id);
  expect(second.records[0]?.readings).toHaveLength(2);
  await second.write(id, level(21, 10));
  await vi.waitFor(() => expect(first.inOrder[0]?.mine.value).toBe(false));
  await expect(first.write(id, level(99, 11))).rejects.toThrow(/Another tab/);
  await second.stop(id, stop(12));
  expect(useLogbook().summaries).toMatchObject([{ lastLevel: 21 }]);
  // What was on its way as it was stopped is in the run all the same.
  await second.write(id, level(23, 13));
  expect(useLogbook().summaries).toMatchObject([{ lastLevel: 23 }]);
  await expect(second.write('gone', level(99, 13))).rejects.toThrow(/no such run/);
});

it('show what is written in another tab on a run that was resumed meanwhile, however the two meet', async () => {
  const first = await started();
  await first.stop(id, stop(6));
  newTab();
  const [second, acts] = [useLanes(), useInkActs()];
  await useLogbook().load();
  const { run } = await useLogbook().open(id);
  await first.reopen(run);
  // Told that it is live again, it shows the lane; what was typed on the run as it was is still on its way.
  await second.follow();
  expect(await acts.writeFiled(run, { kind: 'note', at: plugInAt, text: 'beside the oven' })).toBeUndefined();
  expect(second.records[0]?.notes).toMatchObject([{ text: 'beside the oven' }]);
  await acts.writeToAll([id], () => ({ kind: 'label', at: plugInAt, tags: ['slip'] }));
  expect(second.records[0]?.label?.tags).toEqual(['slip']);
});

it('show all of a run that is resumed in a tab which had not been told that it was stopped', async () => {
  const first = await started();
  newTab();
  const second = useLanes();
  await second.load();
  await first.stop(id, stop(6));
  await useLogbook().load();
  await second.reopen((await useLogbook().open(id)).run);
  expect(second.records[0]?.entries.map(({ kind }) => kind)).toEqual(['reading', 'stop', 'strike']);
  expect(second.inOrder[0]?.mine.value).toBe(true);
});

describe('a set that starts together', () => {
  const cadence = { kind: 'coarse then fine', every: 600, level: 90, then: 300 } as const;
  const two = () =>
    ['a', 'b'].map((name) => ({ header: exampleHeader({ id: `${id}-${name}`, group: 'set', plugInAt, cadence }), drafts: [level(5, 0)] }));
  const due = (lanes: ReturnType<typeof useLanes>) => Object.fromEntries(lanes.due.map(({ runId, due: at }) => [runId.slice(-1), at]));

  it('is read finely as a whole once the first lane shows the level, and still after a reload', async () => {
    const lanes = useLanes();
    await lanes.startSet(two());
    expect(due(lanes)).toEqual({ a: 600, b: 600 });
    await lanes.write(`${id}-a`, level(91, 10));
    await lanes.write(`${id}-b`, level(40, 10));
    await vi.waitFor(() => expect(due(lanes)).toEqual({ a: 900, b: 900 }));
    newTab();
    await useLanes().load();
    expect(due(useLanes())).toEqual({ a: 900, b: 900 });
    expect(useLanes().records[1]?.events).toMatchObject([{ event: 'fine', remark: 'Sedge 5 showed 90 %' }]);
  });

  it('starts as a whole or not at all', async () => {
    const mend = refuse((_nth, key) => key.startsWith(`ink/${id}-b`));
    await expect(useLanes().startSet(two())).rejects.toThrow(/no room left/);
    mend();
    expect(await liveRuns()).toEqual([]);
    await useLanes().startSet(two());
    expect((await liveRuns()).map(({ entries }) => entries.length)).toEqual([1, 1]);
  });
});
