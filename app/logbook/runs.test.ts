import { emptyBrowser } from '../ledger/testBrowser';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { inkOf } from '@core/ink';
import { setAssumed, USUALLY } from '@core/quantity';
import { exampleHeader } from '../../core/ink/example';
import { useLogbook } from './runs';

/** What the workers were asked for, and how they answer. */
const asked: string[] = [];
let answer = async (ids: readonly string[]) => Promise.resolve(new Map(ids.map((id) => [id, { id }])));
vi.mock('../workers/openRun', () => ({
  openBeside: (ids: readonly string[], max: number) => {
    asked.push(`${max}: ${ids.join(' ')}`);
    return answer(ids);
  },
  openRun: (id: string) => {
    asked.push(`open ${id}`);
    return Promise.resolve({ id });
  },
  workAhead: (ids: readonly string[], max: number) => {
    asked.push(`ahead ${max}: ${ids.join(' ')}`);
    return Promise.reject(new Error('The worker is gone.'));
  },
}));

const usual = answer;
const lay = async (logbook: ReturnType<typeof useLogbook>, ...ids: string[]) => [
  ...(await logbook.openForComparison(ids, () => undefined)).keys(),
];

beforeEach(async () => {
  await emptyBrowser();
  asked.length = 0;
  answer = usual;
});
afterEach(() => {
  vi.useRealTimers();
  setAssumed(USUALLY);
});

it('lays a run beside others once, as finely as so many are drawn, and one that was opened not at all', async () => {
  const logbook = useLogbook();
  await logbook.open('b');
  expect((await lay(logbook, 'a', 'b')).sort()).toEqual(['a', 'b']);
  await lay(logbook, 'a', 'b');
  expect(asked).toEqual(['open b', '1500: a']);
  // Of many, each is drawn less finely.
  await lay(logbook, 'a', 'b', 'c', 'd', 'e', 'f', 'g');
  expect(asked.at(-1)).toBe('400: a c d e f g');
});

it('works runs out again once a setting that reaches into figures has changed, and once a run came in', async () => {
  const logbook = useLogbook();
  await lay(logbook, 'a');
  setAssumed({ ...USUALLY, realUse: 0.8 });
  await lay(logbook, 'a');
  await logbook.load();
  await lay(logbook, 'a');
  await lay(logbook, 'a');
  expect(asked).toEqual(['1500: a', '1500: a', '1500: a']);
});

it('forgets one run alone for one entry of it, and none for what another lane does', async () => {
  const logbook = useLogbook();
  const runs = ['a', 'b'].map((id) => {
    const header = exampleHeader({ id });
    return { header, entries: inkOf(header, [{ seconds: 0, percent: 10 }]) };
  });
  await logbook.importRuns(runs);
  await lay(logbook, 'a', 'b');
  await logbook.load();
  await lay(logbook, 'a', 'b');
  expect(asked.filter((each) => !each.startsWith('ahead'))).toEqual(['1500: a b']);
  await logbook.writeToAll(['b'], () => ({ kind: 'label', at: 0, tags: ['winter'] }));
  await lay(logbook, 'a', 'b');
  expect(asked.at(-1)).toBe('1500: b');
});

it('forgets what is worked out while it is forgotten', async () => {
  const logbook = useLogbook();
  let end = (): void => undefined;
  answer = (ids) =>
    new Promise((resolve) => {
      end = () => {
        resolve(new Map(ids.map((id) => [id, { id }])));
      };
    });
  const first = lay(logbook, 'a');
  await vi.waitFor(() => {
    expect(asked).toHaveLength(1);
  });
  await logbook.load();
  end();
  expect(await first).toEqual(['a']);
  answer = usual;
  await lay(logbook, 'a');
  expect(asked).toEqual(['1500: a', '1500: a']);
});

it('has what was imported worked out for comparisons a little later, and nobody hears of it where that fails', async () => {
  const logbook = useLogbook();
  const header = exampleHeader({ id: 'a' });
  vi.useFakeTimers({ toFake: ['setTimeout'] });
  await logbook.importRuns([{ header, entries: inkOf(header, [{ seconds: 0, percent: 10 }]) }]);
  expect(logbook.summaries.map(({ id }) => id)).toEqual(['a']);
  expect(asked).toEqual([]);
  await vi.advanceTimersByTimeAsync(3000);
  await vi.waitFor(() => {
    expect(asked).toEqual(['ahead 400: a']);
  });
});
