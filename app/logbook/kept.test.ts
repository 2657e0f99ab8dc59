// First: it puts the database in place that the others look for as they load.
import { emptyBrowser, newTab } from '../ledger/testBrowser';
import { beforeEach, expect, it } from 'vitest';
import type { Draft } from '@core/ink';
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
const notesOf = (entries: readonly { kind: string }[]) =>
  entries.flatMap((entry) => (entry.kind === 'note' ? [(entry as { text: string }).text] : []));

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
