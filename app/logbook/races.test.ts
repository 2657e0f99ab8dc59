// First: it puts the database in place that the others look for as they load.
import { emptyBrowser, newTab, refuse, storedKeys } from '../ledger/testBrowser';
import fc, { type Scheduler } from 'fast-check';
import { afterEach, expect, it, vi } from 'vitest';
import type { Draft, Entry } from '@core/ink';
import { exampleHeader } from '../../core/ink/example';
import { adoptInk } from '../ledger/acts';
import { catalogue, filedRun } from '../ledger/filed';
import { idIn, runOfInk } from '../ledger/keys';
import { liveRuns } from '../ledger/live';
import { useLanes } from './lanes';
import { useLogbook } from './runs';

/**
 * Whatever is done at once, on three lanes and in two tabs, whatever fails, in whatever order the ends of transactions are heard, and wherever the
 * browser is killed: what was answered as stored is in the fold once, what was answered as not stored is nowhere, what happened to several lanes
 * at once is on all of them or on none, no tab shows an entry twice, and every lane is written by one.
 */

/** The second copy stands a while after what it is of. */
vi.mock('../ledger/secondCopy', async (original) => {
  const real = await original<typeof import('../ledger/secondCopy')>();
  const writeLine: typeof real.writeLine = async (isEarly) => {
    const line = await real.writeLine(isEarly);
    return { ...line, stands: () => later().then(line.stands) };
  };
  return { ...real, writeLine };
});

/** So many schedules with every test run; `npm run thorough` has fifty times as many, in handfuls. */
const SCHEDULES = Number(process.env.SCHEDULES ?? 2000);
const LANES = ['a', 'b', 'c'] as const;
const plugInAt = Date.UTC(2026, 9, 5, 14);

interface Step {
  act: 'log' | 'log on all' | 'clock' | 'tag' | 'stop' | 'reopen' | 'claim' | 'follow';
  lane: (typeof LANES)[number];
  tab: 0 | 1;
  /** Which of the changes that follow is refused, if one is. */
  refused: number | undefined;
}
const step = fc.record<Step>({
  act: fc.constantFrom('log', 'log', 'log', 'log on all', 'clock', 'tag', 'stop', 'stop', 'reopen', 'claim', 'follow'),
  lane: fc.constantFrom(...LANES),
  tab: fc.constantFrom(0, 0, 0, 1),
  refused: fc.option(fc.integer({ min: 1, max: 8 }), { nil: undefined, freq: 4 }),
});

/** What was said of an act: that it is stored, that it is not; or nothing, for the browser was killed before. */
interface Told {
  mark: string;
  runs: readonly string[];
  answer: 'stored' | 'not stored' | undefined;
}

/** Has the ends of transactions heard in the order of a schedule. */
function scheduled(scheduler: Scheduler): void {
  const begin = Reflect.get(IDBDatabase.prototype, 'transaction') as (...args: unknown[]) => IDBTransaction;
  vi.spyOn(IDBDatabase.prototype, 'transaction').mockImplementation(function (this: IDBDatabase, ...args: unknown[]) {
    const transaction = begin.apply(this, args);
    let heard: (() => void) | null = null;
    Object.defineProperty(transaction, 'oncomplete', {
      get: () => heard,
      set: (listen: () => void) => {
        heard = () => void scheduler.schedule(Promise.resolve()).then(listen);
      },
    });
    return transaction;
  });
}

/** Waits until the databases have answered every pending request. */
const answered = async () => {
  for (let turn = 0; turn < 3; turn += 1) await new Promise((resolve) => setImmediate(resolve));
};

/** Whether the browser of a schedule was killed, or all in it is over: nothing is told in it any more. */
let isKilled = false;

/** What takes longer than to look through a lane. */
const later = () => answered().then(answered).then(answered).then(answered);

/** Lets what is under way go on, an end at a time; to its end, or until a kill. */
async function goOn(scheduler: Scheduler, acts: readonly Promise<unknown>[], ends: number): Promise<void> {
  const all = { areOver: false };
  void Promise.allSettled(acts).then(() => (all.areOver = true));
  let quiet = 0;
  for (let heard = 0; heard < ends && quiet < 40;) {
    await answered();
    if (all.areOver) return;
    if (scheduler.count() === 0) quiet += 1;
    else {
      quiet = 0;
      heard += 1;
      await scheduler.waitNext(1);
    }
  }
}

/** The marks that stand in the ink of a run, struck ones too. */
const marksIn = (entries: readonly Entry[]): string[] =>
  entries.flatMap((entry) => {
    if (entry.kind === 'note') return [entry.text];
    if (entry.kind === 'label') return [entry.text ?? ''];
    return entry.kind === 'event' && entry.event === 'clock' ? [`clock ${entry.shift}`] : [];
  });

afterEach(() => vi.restoreAllMocks());

it(
  `keeps what was answered, over ${SCHEDULES} schedules`,
  async () => {
    const outcomes = { stored: 0, 'not stored': 0, open: 0 };
    await fc.assert(
      fc.asyncProperty(
        fc.scheduler(),
        fc.array(step, { minLength: 2, maxLength: 9 }),
        fc.integer({ min: 1, max: 30 }),
        async (scheduler, steps, ends) => {
          isKilled = false;
          await emptyBrowser();
          const first = newTab();
          for (const id of LANES)
            await useLanes(first).start(exampleHeader({ id, plugInAt }), [{ kind: 'reading', at: plugInAt, percent: 2 }]);
          const second = newTab();
          await useLanes(second).load();
          const tabs = [first, second];
          const told: Told[] = [];
          scheduled(scheduler);
          let mend = (): void => undefined;
          const acts = steps.map((each, index) => {
            if (each.refused !== undefined) {
              mend();
              mend = refuse((nth) => nth === each.refused);
            }
            return doStep(each, `m${index}`, tabs, told);
          });
          await goOn(scheduler, acts, ends);
          isKilled = true;
          mend();
          vi.restoreAllMocks();
          // The browser was killed, or all is done: what was under way in it is heard no more. The next start.
          for (let turn = 0; turn < 12; turn += 1) await later();
          expectShown(tabs.flatMap((tab) => useLanes(tab).inOrder));
          for (const each of told) outcomes[each.answer ?? 'open'] += 1;
          newTab();
          await useLanes().load();
          await adoptInk();
          await expectTrue(told);
        },
      ),
      { numRuns: SCHEDULES, endOnFailure: false },
    );
    // Each came about often enough to tell something.
    expect(Math.min(outcomes.stored, outcomes['not stored'], outcomes.open)).toBeGreaterThan(SCHEDULES / 10);
  },
  SCHEDULES * 500,
);

it('shows an entry once and holds a run once, though other tabs tell of something while they are stored', async () => {
  await emptyBrowser();
  const lanes = useLanes();
  const told = async (work: Promise<unknown>) => {
    const act = { isOver: false };
    const done = work.finally(() => (act.isOver = true));
    while (!act.isOver) await lanes.follow();
    await done;
  };
  const at = { header: exampleHeader({ id: 'a', plugInAt }), drafts: [] };
  await told(lanes.startSet([at]));
  await told(lanes.write('a', { kind: 'reading', at: plugInAt, percent: 2 }));
  await lanes.stop('a', { kind: 'stop', at: plugInAt + 60_000, because: 'window over' });
  await told(lanes.reopen((await useLogbook().open('a')).run));
  await later();
  expect(lanes.inOrder.map(({ entries, mine }) => [entries.value.map(({ kind }) => kind), mine.value])).toEqual([
    [['reading', 'stop', 'strike'], true],
  ]);
});

function doStep({ act, lane, tab }: Step, mark: string, tabs: readonly ReturnType<typeof newTab>[], told: Told[]): Promise<unknown> {
  const lanes = useLanes(tabs[tab]);
  const logbook = useLogbook(tabs[tab]);
  const isMine = (id: string) => lanes.inOrder.some(({ header, mine }) => header.id === id && mine.value);
  const note: Draft = { kind: 'note', at: plugInAt + 1000, text: mark };
  /** Writes down what is said of it. */
  const tell = (runs: readonly string[], work: Promise<unknown>, name = mark) => {
    const said: Told = { mark: name, runs, answer: undefined };
    told.push(said);
    return work.then(
      () => (said.answer = 'stored'),
      () => (said.answer = 'not stored'),
    );
  };
  const mine = LANES.filter(isMine);
  switch (act) {
    case 'log':
      return isMine(lane) ? tell([lane], lanes.write(lane, note)) : Promise.resolve();
    case 'log on all':
      return mine.length > 0 ? tell(mine, lanes.writeTogether(mine.map((runId) => ({ runId, draft: note })))) : Promise.resolve();
    case 'clock': {
      const shift = 1000 + Number(mark.slice(1));
      const drafts = mine.map((runId) => ({ runId, draft: { kind: 'event', event: 'clock', at: plugInAt + 1000, shift } as const }));
      return mine.length > 0 ? tell(mine, lanes.writeTogether(drafts), `clock ${shift}`) : Promise.resolve();
    }
    case 'tag':
      // On runs wherever they lie.
      return tell(
        LANES,
        logbook.writeToAll(LANES, () => ({ kind: 'label', at: plugInAt, tags: [], text: mark })),
      );
    case 'stop':
      return isMine(lane)
        ? lanes.stop(lane, { kind: 'stop', at: plugInAt + 60_000, because: 'window over' }).catch(() => undefined)
        : Promise.resolve();
    case 'reopen':
      // Once what was stopped at the same time may be filed.
      return later()
        .then(() => filedRun(lane))
        .then(async () => lanes.reopen((await logbook.open(lane)).run))
        .catch(() => undefined);
    case 'claim':
      return lanes.claim(lane);
    case 'follow':
      return followOften(lanes);
  }
}

/** The other tabs tell of something again and again. */
async function followOften(lanes: ReturnType<typeof useLanes>): Promise<void> {
  for (let turn = 0; turn < 8 && !isKilled; turn += 1) await answered().then(lanes.follow);
}

/** What all tabs show: no entry twice, and each run is written by one of them. */
function expectShown(lanes: ReturnType<typeof useLanes>['inOrder']): void {
  for (const { entries } of lanes) expect(new Set(entries.value.map(({ id }) => id)).size).toBe(entries.value.length);
  const writers = LANES.map((id) => lanes.filter(({ header, mine }) => header.id === id && mine.value).length);
  const isLane = LANES.map((id) => (lanes.some(({ header }) => header.id === id) ? 1 : 0));
  expect(writers).toEqual(isLane);
}

async function expectTrue(told: readonly Told[]): Promise<void> {
  const [live, listed] = [(await liveRuns()).map(({ header }) => header.id), (await catalogue()).map(({ id }) => id)];
  // Every run is in one place, whole.
  expect([...live, ...listed].sort()).toEqual([...LANES]);
  expect((await storedKeys('run')).map(idIn).sort()).toEqual([...listed].sort());
  expect((await storedKeys('ink')).filter((key) => !live.includes(runOfInk(key)))).toEqual([]);
  const marks = new Map<string, string[]>();
  for (const { header, entries } of await liveRuns()) marks.set(header.id, marksIn(entries));
  for (const id of listed) marks.set(id, marksIn((await filedRun(id)).entries));
  for (const { mark, runs, answer } of told) {
    const found = runs.map((id) => (marks.get(id) ?? []).filter((each) => each === mark).length);
    const counts = [...new Set(found)];
    expect([mark, answer, counts.length]).toEqual([mark, answer, 1]);
    if (answer === 'stored') expect([mark, counts]).toEqual([mark, [1]]);
    else if (answer === 'not stored') expect([mark, counts]).toEqual([mark, [0]]);
    else expect(counts[0]).toBeLessThanOrEqual(1);
  }
}
