import { expect, test, type Page } from '@playwright/test';
import { logbookOf, writeLogbook } from '../core/exchange';
import { exampleHeader } from '../core/ink/example';
import { SUMS } from '../core/sums';
import { bookOf, DEMO, finished, importFile, isReady } from './person';

const press = (page: Page, name: string) => page.getByRole('button', { name, exact: true }).click();
const verdict = (page: Page) => page.getByRole('region', { name: 'Verdict in full' });
/** The sentence for a need, with its reason and what can be done about it. */
const finding = (page: Page, title: string) =>
  verdict(page)
    .getByRole('listitem')
    .filter({ has: page.getByRole('heading', { name: title, exact: true }) });

test('@judge from the demo study to a written verdict: sentences, pictures, own words, and a run that is planned from it', async ({
  page,
}) => {
  await page.goto(`${DEMO}/compare`);
  await isReady(page);
  await press(page, 'Van chargers, round one');
  await page.getByRole('complementary', { name: 'Verdict' }).getByRole('button', { name: 'The whole verdict' }).click();
  await expect(finding(page, 'To 80 %')).toContainText('Quern 30 or Quern 65');
  // Reasons are open of what weighs most; the rest unfold by one press, or all of them.
  await expect(finding(page, 'From what wattage on')).not.toContainText('The device is the limit');
  await press(page, 'Show every reason');
  await expect(finding(page, 'To 80 %')).toContainText(/Surely slower than the best: .*Cobble 12 by \d+ min \(\d+ to \d+ min\)/);
  await expect(finding(page, 'Overnight')).toContainText('coolest: Cobble 12');
  await expect(finding(page, 'Worth')).toContainText(/Cobble 20: most of the gain for £25.*a minute/);
  await expect(finding(page, 'From what wattage on')).toContainText('The device is the limit, as expected: 25 W');
  await expect(finding(page, 'Keep or throw away')).toContainText('Keep Cobble 12 for nights; not for top-ups');
  await expect(page.getByRole('img', { name: /^price against time to 80 %/ })).toBeVisible();
  await expect(page.getByRole('row', { name: /^Cobble 20 £25 .* not beaten$/ })).toHaveCount(1);

  // What its reader needs changes what is said, and stands in the address.
  await page.getByLabel('A trip may cost').selectOption('50 %');
  await expect(finding(page, 'On a trip')).toContainText('Cobble 20: 61 g');
  await page.reload();
  await expect(finding(page, 'On a trip')).toContainText('Cobble 20: 61 g');

  // Own words stand in place of a sentence, over a reload.
  await press(page, 'Edit: To 80 %');
  await page.getByLabel('To 80 %, in your own words').fill('');
  await finding(page, 'To 80 %').getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('Write the sentence, or take the one that was worked out.')).toBeVisible();
  await page.getByLabel('To 80 %, in your own words').fill('Take either Quern for the vans.');
  await finding(page, 'To 80 %').getByRole('button', { name: 'Save' }).click();
  await page.reload();
  await expect(finding(page, 'To 80 %')).toContainText('Take either Quern for the vans.Worked out: Quern 30 or Quern 65');
  await press(page, 'Take what was worked out: To 80 %');
  await expect(finding(page, 'To 80 %')).not.toContainText('for the vans');

  await press(page, 'Show every reason');
  // A tie of less than a tenth is not worth more runs; what could hide in it is said.
  await expect(finding(page, 'To full')).toContainText(/cannot tell them apart; up to \d+ min could hide/);
  await expect(page.getByRole('button', { name: 'Put it into the plan: To full' })).toHaveCount(0);
  // What was not run yet is planned from here.
  await press(page, 'Put it into the plan: Not run yet');
  await expect(page.getByRole('heading', { name: 'Van chargers, round one' })).toBeVisible();
});

test('@judge an edit goes stale when a figure under it changes, is kept or taken anew; a turning lead is told', async ({ page }) => {
  await page.goto('/');
  const fades = [2, 30, 45, 55, 60, 64, 67, 70, 73, 76, 79, 82, 85, 88, 91, 94, 97, 100];
  const steady = [2, 12, 22, 32, 42, 52, 62, 72, 82, 92, 100];
  await importFile(page, 'book.json', bookOf([finished('early', fades), finished('steady', steady)]));
  await page.goto('/compare?runs=early.steady&show=verdict');
  await expect(finding(page, 'A lead that turns')).toContainText(
    /Charger early is ahead of Charger steady until \d+ min, and behind from \d+ min on/,
  );
  // Their checks are unlike by more than twice: both are told by the middle of what they lie between.
  await expect(finding(page, 'To full')).toContainText('Charger steady: 49 min');
  await press(page, 'Edit: To full');
  await page.getByLabel('To full, in your own words').fill('Steady wins.');
  await finding(page, 'To full').getByRole('button', { name: 'Save' }).click();
  await expect(finding(page, 'To full')).toContainText('Steady wins.');
  await expect(page.getByText('What this was written from has changed.')).toHaveCount(0);

  // The last reading was of another device.
  await page.goto('/runs/steady');
  await page
    .getByRole('region', { name: 'Ink' })
    .getByRole('button', { name: /Strike the reading at 50 min/ })
    .click();
  await page.getByLabel('Why?').fill('read beside it');
  await page.getByRole('button', { name: 'Strike it' }).click();
  await expect(page.getByText('struck: read beside it')).toBeVisible();
  await page.goto('/compare?runs=early.steady&show=verdict');
  const full = finding(page, 'To full');
  await expect(full).toContainText('What this was written from has changed.');
  await full.getByRole('button', { name: 'Keep yours' }).click();
  await expect(full.getByText('has changed')).toHaveCount(0);
  await expect(full).toContainText('Steady wins.');
  await page.goto('/runs/steady');
  await page.getByRole('region', { name: 'Ink' }).getByRole('button', { name: 'Let 100 % at 50 min count again' }).click();
  await expect(page.getByText('struck: read beside it')).toHaveCount(0);
  await page.goto('/compare?runs=early.steady&show=verdict');
  await full.getByRole('button', { name: 'Take the new one' }).click();
  await expect(full).toContainText('Charger steady: 49 min');
  await expect(full).not.toContainText('Steady wins.');
});

test('@judge a full window is seen through, an open cell is planned, and gear that is gone is named', async ({ page }) => {
  const windowRun = (id: string, name: string, watts: number, half: number, end: number) => {
    const run = finished(id, [50, half, end]);
    const header = exampleHeader({
      ...run.header,
      charger: { ...run.header.charger, name, watts },
      cadence: { kind: 'marks', at: [1800, 3600] },
      rule: { ends: 'window', wants: ['level'] },
    });
    // Read at half an hour and at the hour.
    const entries = run.entries.map((entry) => ({ ...entry, at: header.plugInAt + (entry.at - header.plugInAt) * 6 }));
    return { ...run, header, entries };
  };
  const [one, other] = [windowRun('w45', 'Wren 45', 45, 72, 97), windowRun('w65', 'Wren 65', 65, 90, 98)];
  const apart = finished('apart', [2, 30, 60, 90]);
  const device = { ...apart.header.device, id: 'heron', name: 'Heron 3' };
  const elsewhere = { ...apart, header: exampleHeader({ ...apart.header, device, charger: other.header.charger }) };
  const devices = [one.header.device, device];
  await page.goto('/');
  const book = logbookOf({ devices, chargers: [one.header.charger], cables: [], meters: [] }, [one, other, elsewhere]);
  await importFile(page, 'book.json', writeLogbook(book));
  await page.goto('/compare?runs=w45.w65&show=verdict');
  await expect(finding(page, 'A full window')).toContainText('The end of the window hides what Wren 45 and Wren 65 differ by');
  await expect(finding(page, 'A full window')).toContainText(/At 30 min Wren 65 had gained \d+ ± \d+ points more than Wren 45/);

  // What was not run is one press from the plan; of gear that is not on the bench it says so.
  await page.goto('/compare?runs=w45.w65.apart&show=matrix');
  await press(page, 'Plan Heron 3 on Wren 45: it was not run');
  await expect(page.getByRole('heading', { name: 'To settle: Heron 3' })).toBeVisible();
  await expect(page.getByRole('link', { name: /Next: Heron 3 on Wren 45/ })).toBeVisible();
  await page.goto('/compare?runs=w45.apart&show=matrix');
  await press(page, 'Plan Sedge 5 on Wren 65: it was not run');
  await expect(page.getByText('Wren 65 is not on the bench: put it there, then plan the run.')).toBeVisible();
});

test('@long @judge each sum is filled in from a run, tells its margin, and is kept as a note of a study', async ({ page }) => {
  await page.goto(`${DEMO}/runs/saltmarsh-2`);
  await isReady(page);
  await page.getByRole('button', { name: 'More', exact: true }).click();
  await page.getByRole('link', { name: 'Sums of this run' }).click();
  const results = page.getByRole('table', { name: 'What it comes to' });
  // What each needs beside what the run knows, and what it then says first.
  const typed: Readonly<Record<string, Readonly<Record<string, string>>>> = {
    split: { 'At the cable': '55', 'Into the battery': '29' },
    pad: { 'Into the pad': '19', 'Out of it, metered or assumed': '15' },
    pack: { For: '8' },
    bank: { Bank: '74' },
    cable: { 'Volts at the charger': '9.2' },
    cost: { 'Price of a kWh': '0.30' },
    worth: { 'Time without it': '94 ± 4' },
  };
  for (const { id, title } of SUMS) {
    await page.getByRole('navigation', { name: 'Sums' }).getByRole('link', { name: title, exact: true }).click();
    await expect(page.getByRole('heading', { name: title, exact: true })).toBeVisible();
    await expect(
      page.getByText(id === 'split' || id === 'pad' ? 'This run knows none of these figures.' : 'Filled in from the run:'),
    ).toBeVisible();
    for (const [name, text] of Object.entries(typed[id] ?? {}))
      await page.getByRole('form', { name: title }).getByLabel(name).first().fill(text);
    await expect(results.getByRole('row').first(), title).toContainText(/\d/);
  }
  await expect(results).toContainText('carried freely');

  // Nonsense is refused where it stands; what a margin allows is told.
  await page.getByRole('navigation', { name: 'Sums' }).getByRole('link', { name: 'Worth, for each minute saved' }).click();
  await page.getByLabel('Time without it').fill('soon');
  await expect(page.getByText('Write a number, with a margin if you know it')).toBeVisible();
  await page.getByLabel('Time without it').fill('64 ± 9');
  await expect(page.getByText('no price for a minute can be told')).toBeVisible();
  await page.getByLabel('Time without it').fill('94 ± 4');
  await expect(results).toContainText(/A minute saved0\.\d+ ± 0\.\d+/);
  await page.getByRole('combobox', { name: 'Study' }).press('ArrowDown');
  await page.getByRole('option', { name: 'Van chargers, round one' }).click();
  await press(page, 'Save as a note');
  await expect(page.getByText('Saved with Van chargers, round one.')).toBeVisible();
  await page.getByRole('link', { name: 'Plan', exact: true }).click();
  await page.getByRole('link', { name: 'Van chargers, round one' }).click();
  await expect(page.getByText(/^Worth, for each minute saved: saved 31 min/)).toBeVisible();
  await press(page, 'Remove note 1');
  await expect(page.getByText(/^Worth, for each minute saved/)).toHaveCount(0);
});
