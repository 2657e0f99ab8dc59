// First: it puts the database in place that the others look for as they load.
import { emptyBrowser, newTab, quiet, refuse } from '../ledger/testBrowser';
import { beforeEach, expect, it } from 'vitest';
import type { Draft, Entry } from '@core/ink';
import { exampleHeader } from '../../core/ink/example';
import { useLanes } from './lanes';
import { useLogbook } from './runs';

/** What is answered as stored is kept, and what is answered as not stored is not there, whatever else is going on. */

const MINUTE = 60_000;
let plugInAt: number;
let id: string;

beforeEach(async () => {
  await emptyBrowser();
  plugInAt = Date.now() - 12 * MINUTE;
  id = `run-${Math.random().toString(36).slice(2)}`;
  await useLanes().start(exampleHeader({ id, plugInAt }), [{ kind: 'reading', at: plugInAt, percent: 2 }]);
});

const note = (text: string): Draft => ({ kind: 'note', at: plugInAt + MINUTE, text });
const stop = { kind: 'stop', because: 'window over' } as const;
const notesOf = (entries: readonly Entry[]) => entries.flatMap((entry) => (entry.kind === 'note' ? [entry.text] : []));

it('a note that is written while its run is stopped is in the run if it was answered as stored', async () => {
  const lanes = useLanes();
  const stopping = lanes.stop(id, { ...stop, at: plugInAt + 6 * MINUTE });
  const answered: string[] = [];
  for (let each = 0; each < 25; each += 1) {
    await lanes.write(id, note(`n${each}`)).then(
      () => answered.push(`n${each}`),
      () => undefined,
    );
  }
  await stopping;
  newTab();
  await useLanes().load();
  await useLanes().tidyUp();
  const { entries } = (await useLogbook().open(id)).run;
  expect(answered.length).toBeGreaterThan(0);
  expect(notesOf(entries)).toEqual(answered);
});

it('an event of several lanes that is answered as not stored is on none of them, after a reload either', async () => {
  const other = `${id}-other`;
  await useLanes().start(exampleHeader({ id: other, plugInAt }), []);
  for (let nth = 1; nth <= 6; nth += 1) {
    const mend = refuse((each) => each === nth);
    const isStored = await useLanes()
      .writeTogether([id, other].map((runId) => ({ runId, draft: note(`at ${nth}`) })))
      .then(
        () => true,
        () => false,
      );
    mend();
    newTab();
    await useLanes().load();
    const has = useLanes().records.map(({ entries }) => notesOf(entries).includes(`at ${nth}`));
    expect([nth, ...has]).toEqual([nth, isStored, isStored]);
    await Promise.all([id, other].map((each) => useLanes().claim(each)));
  }
});

it('a run that is reopened while something is added to it is live with its header, or filed: one of both, with all of its ink', async () => {
  await useLanes().stop(id, { ...stop, at: plugInAt + 6 * MINUTE });
  for (let round = 0; round < 24; round += 1) {
    const { run } = await useLogbook().open(id);
    const added = useLogbook().write(run, note(`r${round}`));
    for (let wait = 0; wait < round; wait += 1) await new Promise((resolve) => setImmediate(resolve));
    await Promise.allSettled([added, useLanes().reopen(run)]);
    newTab();
    await useLogbook().load();
    await useLanes().load();
    await useLanes().tidyUp();
    const [live] = useLanes().records;
    const filed = useLogbook().summaries.filter((each) => each.id === id);
    expect([round, Number(live !== undefined) + filed.length]).toEqual([round, 1]);
    const { entries } = live ?? (await useLogbook().open(id)).run;
    expect(notesOf(entries)).toContain(`r${round}`);
    if (!live) continue;
    await useLanes().claim(id);
    await useLanes().stop(id, { ...stop, at: plugInAt + 6 * MINUTE });
  }
});

it('a lane that is claimed twice at once is this tab’s', async () => {
  const first = useLanes();
  newTab();
  const second = useLanes();
  await second.load();
  await Promise.all([second.claim(id), second.claim(id)]);
  await quiet();
  expect(second.inOrder[0]?.mine.value).toBe(true);
  expect(first.inOrder[0]?.mine.value).toBe(false);
  await second.write(id, note('here'));
});
