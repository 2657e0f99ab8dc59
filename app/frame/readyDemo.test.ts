// First: it puts the database in place that the others look for as they load.
import { emptyBrowser, newTab } from '../ledger/testBrowser';
import { beforeEach, expect, it, vi } from 'vitest';
import { fileName } from '../kit/saveFile';
import { useLanes } from '../logbook/lanes';
import { useLogbook } from '../logbook/runs';
import { useShelf } from '../logbook/shelf';
import { readNow } from '../ledger/readAhead';
import { readyDemo } from './readyDemo';

beforeEach(async () => {
  await emptyBrowser();
});

/** Opens the demo as a page does. */
async function openDemo(now: number) {
  const pinia = newTab();
  const lay = await readyDemo(readNow, now);
  await Promise.all([useShelf().load(), useLogbook().load(), useLanes().load()]);
  await lay?.(pinia);
  return lay !== undefined;
}

it('is laid once, with a live run that counts from shortly before it was opened', async () => {
  const now = Date.now();
  expect(await openDemo(now)).toBe(true);
  expect(useShelf().devices.map(({ name }) => name)).toContain('Bittern Slate');
  expect(useLanes().records).toHaveLength(1);
  expect(useLanes().due[0]?.wait).toBeGreaterThan(60);
  await vi.waitFor(() => expect(useLogbook().summaries).toHaveLength(12), 30_000);
  expect((await useLogbook().open('saltmarsh-5')).run.stop?.because).toBe('will not finish');
  await vi.waitFor(async () => expect(await openDemo(now + 60_000)).toBe(false), 30_000);
  expect(useLanes().records).toHaveLength(1);
});

it('lays one live run, and keeps what was logged on it, even when the page was left before all of it was laid', async () => {
  const now = Date.now();
  await (
    await readyDemo(readNow, now)
  )?.(newTab());
  const [run] = useLanes().records;
  await useLanes().write(run?.header.id ?? '', { kind: 'reading', at: now, percent: 54 });
  await openDemo(now + 100);
  expect(useLanes().records.map(({ readings }) => readings.at(-1)?.reading.percent)).toEqual([54]);
  await useLogbook().open('saltmarsh-1');
});

it('lays its live run anew once it is stale, and leaves everything else alone', async () => {
  const now = Date.now();
  await openDemo(now);
  await useLogbook().open('saltmarsh-1');
  await vi.waitFor(async () => expect(await openDemo(now)).toBe(false), 30_000);
  await useShelf().remove({ shelf: 'charger', gear: { id: 'puddle' } });
  expect(await openDemo(now + 4 * 3600_000)).toBe(true);
  expect(useLanes().records.map(({ header }) => header.plugInAt)).toEqual([now + 4 * 3600_000 - 2_300_000]);
  expect(useShelf().chargers.map(({ id }) => id)).not.toContain('puddle');
});

it('makes a file name of any text', () => {
  expect(fileName('Sedge <b>5</b>', 'on', 'Cobble 20')).toBe('sedge-b-5-b-on-cobble-20');
  expect(fileName('Ståndard / ../ ')).toBe('ståndard');
  expect(fileName('⎓')).toBe('inkpath');
});
