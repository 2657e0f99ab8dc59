import { expect, test } from '@playwright/test';
import type { StoredRun } from '../core/exchange';
import { inkOf, type Jotted } from '../core/ink';
import { bookOf, bringShelf, figure, finished, importFile, log, startRun, stopRun } from './person';

/** A finished run of given readings. */
const read = (id: string, jotted: readonly Jotted[]): StoredRun => {
  const { header, entries } = finished(id, [0]);
  const [stop] = entries.slice(-1);
  const at = header.plugInAt + (jotted.at(-1)?.seconds ?? 0) * 1000;
  return {
    header: { ...header, cadence: { kind: 'fixed', every: 60 } },
    entries: [...inkOf(header, jotted), ...(stop ? [{ ...stop, at, written: at, seq: 9999 }] : [])],
  };
};

test('@numbers a dead start keeps its gains, marked assumed; a level seen turning narrows its milestone; 59:58 counts for the hour', async ({
  page,
}) => {
  await page.clock.install({ time: new Date('2026-10-05T12:00:00Z') });
  await bringShelf(page, ['Sedge 5'], ['Cobble 20']);
  await startRun(page, 'Sedge 5', 'Cobble 20', 'dead');
  await page.clock.fastForward('10:00');
  await log(page, '4 @7:30');
  await page.clock.fastForward('20:00');
  await log(page, '24 @30:00');
  await page.clock.fastForward('20:00');
  await log(page, '44 @50:00');
  await page.clock.fastForward('06:00');
  await log(page, '50! @55:00');
  await page.clock.fastForward('04:30');
  await log(page, '54 @59:58');
  await stopRun(page, 'Window over');
  await expect(figure(page, 'Gained in 30 min')).toContainText('24 points');
  await expect(figure(page, 'Gained in 30 min')).toContainText('from 0 % assumed');
  await expect(figure(page, 'Gained in 1 h')).toContainText('54 points');
  await expect(figure(page, '50 %')).toContainText('between 54 min 55 s and 55 min');
  await expect(figure(page, 'First level')).toContainText('after a dead start');
  await figure(page, 'Gained in 1 h')
    .getByRole('button', { name: /Show working/ })
    .click();
  await expect(figure(page, 'Gained in 1 h')).toContainText('read a little before');
  const ink = page.getByRole('region', { name: 'Ink' });
  await expect(ink.getByRole('row', { name: /seen turning/ })).toBeVisible();
  await expect(ink.getByRole('row', { name: /dead: the display showed nothing/ })).toBeVisible();
});

test('@numbers a three-hour hold is found in a run read each minute, and the full time is void', async ({ page }) => {
  await page.goto('/runs');
  const rows = Array.from({ length: 260 }, (_, minute): Jotted => ({
    seconds: minute * 60,
    percent: minute < 30 ? 50 + minute : minute < 216 ? 80 : Math.min(100, 80 + minute - 215),
    watts: minute < 33 ? 15 : minute < 213 ? 0.4 : 9,
  }));
  await importFile(page, 'held.json', bookOf([read('held', rows)]));
  await page.goto('/runs/held');
  await expect(figure(page, '100 % shown')).toContainText('void');
  await expect(page.getByRole('button', { name: /Held by an adaptive setting/ })).toBeVisible();
});

test('@numbers 28 and 93 % at one check are told apart at 80 %, repeats are pooled, and differences have margins', async ({ page }) => {
  await page.goto('/runs');
  const every = (id: string, ...levels: number[]) => finished(id, levels);
  const slow = every('slow', 0, 5, 10, 15, 20, 24, 28, 82);
  const fast = every('fast', 0, 17, 33, 50, 64, 76, 93, 100);
  const again = {
    ...fast,
    header: { ...fast.header, id: 'again' },
    entries: fast.entries.map((each) => ({ ...each, id: `again-${each.id}` })),
  };
  await importFile(page, 'race.json', bookOf([slow, fast, again]));
  await page.goto('/compare?runs=slow.fast.again&level=80');
  const table = page.getByRole('region', { name: 'Figures side by side' });
  await expect(table.getByRole('row')).toHaveCount(3);
  const pooled = table.getByRole('row', { name: /Charger fast/ });
  await expect(pooled).toContainText('2 runs');
  await expect(pooled).toContainText('mean of 2');
  await expect(pooled).toContainText(/min saved/);
  await expect(pooled).toContainText(/± \d+ min/);
  await expect(page.getByRole('region', { name: 'In short' })).toContainText(
    /^Fastest: Charger fast, \d+ min to 80 %, .* sooner than Charger slow/,
  );
  await pooled.getByRole('link', { name: '2', exact: true }).click();
  await expect(page).toHaveURL(/runs\/again/);
});
