import { readFileSync, writeFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import { PORTS } from '../server/serve';
import { bringShelf, choose, entry, log, loseDatabases, said, secondCopy, startRun, stopRun, exportBy } from './person';

test.describe('on a phone', () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true });

  test('@run a whole run is taken by touch, a picture with it', async ({ page }) => {
    await page.clock.install({ time: new Date('2026-10-05T12:00:00Z') });
    await bringShelf(page, ['Sedge 5'], ['Cobble 20']);
    const goTo = async (place: string) => {
      await page.getByRole('button', { name: /, all places$/ }).tap();
      await page.getByRole('link', { name: place, exact: true }).tap();
    };
    await goTo('Live');
    await page.getByRole('link', { name: 'Start a run' }).first().tap();
    await page.getByLabel('Level at plug-in').fill('60');
    await page.getByLabel('Rested for (minutes)').fill('15');
    await page.getByLabel('Room, °C').fill('21');
    await page.getByRole('button', { name: 'Ready' }).tap();
    await page.getByRole('button', { name: 'Plug in now' }).tap();
    await expect(page.getByRole('article')).toContainText('60%');
    await page.clock.fastForward('05:00');
    await page.getByRole('button', { name: 'mark' }).tap();
    await entry(page).tap();
    await entry(page).fill('72 18w');
    await page.getByRole('button', { name: 'Log' }).tap();
    await expect(said(page)).toContainText('Logged at 5 min');

    const chooser = page.waitForEvent('filechooser');
    await page.getByRole('button', { name: 'picture', exact: true }).tap();
    await (await chooser).setFiles({ name: 'display.png', mimeType: 'image/png', buffer: readFileSync('public/icon-192.png') });
    await expect(said(page)).toContainText('Picture saved with the reading.');
    await page.getByRole('button', { name: 'event' }).tap();
    await page.getByRole('button', { name: /screen woken/ }).tap();
    await expect(said(page)).toContainText('screen woken');
    const wide = await page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth);
    expect(wide).toBeLessThanOrEqual(0);

    await page.clock.fastForward('05:00');
    await entry(page).fill('100 9w');
    await page.getByRole('button', { name: 'Log' }).tap();
    await expect(page.getByRole('article')).toContainText('it may stop, the display shows 100 %');
    await page.getByRole('button', { name: 'stop' }).tap();
    await expect(page.getByRole('dialog')).toContainText('Its method may stop here: the display shows 100 %.');
    await page.getByRole('button', { name: 'Stop the run' }).tap();
    await page.getByRole('button', { name: 'Picture of the reading at 5 min' }).tap();
    await expect(page.getByRole('img', { name: 'Picture of the reading at 5 min' })).toBeVisible();
    await page.getByRole('button', { name: 'Close', exact: true }).tap();

    // The logbook takes it along.
    await goTo('Runs');
    await page.getByRole('button', { name: 'More', exact: true }).tap();
    const book = JSON.parse(readFileSync((await exportBy(page, 'Export the logbook')).path, 'utf8')) as {
      pictures: Record<string, string>;
      runs: { header: { conditions: unknown } }[];
    };
    expect(Object.values(book.pictures)[0]).toMatch(/^data:image\/jpeg;base64,/);
    expect(book.runs[0]?.header.conditions).toEqual([
      { name: 'minutes left off before', value: '15' },
      { name: 'ambient, °C', value: '21' },
    ]);
  });
});

test('@long @run an hour asleep says when to wake the screen, and a check that came late is one that was missed', async ({ page }) => {
  await page.clock.install({ time: new Date('2026-10-05T12:00:00Z') });
  await bringShelf(page, ['Teasel 14'], ['Quern 30']);
  await startRun(page, 'Teasel 14', 'Quern 30', '50', 'Fixed hour from half');
  const lane = page.getByRole('article');
  await expect(lane).toContainText('Leave it asleep: the screen stays dark until the check.');
  await page.clock.fastForward('30:10');
  await expect(lane).toContainText('Wake the screen only now');
  await log(page, '71');
  await page.clock.fastForward('33:00');
  await expect(lane).toContainText('it may stop, the window is over');
  await page.keyboard.press('s');
  await expect(page.getByRole('dialog')).toContainText('no reading at 1 h');
  await page.keyboard.press('Escape');
  await stopRun(page, 'Window over');
});

test('@long @run a rehearsal is played at speed, read by a person or a stand-in, scored, and kept out of the logbook', async ({ page }) => {
  await page.goto('/live');
  await page.getByRole('link', { name: 'Try it in a rehearsal' }).click();
  await page.getByLabel('Minutes between readings').fill('0');
  await page.getByRole('button', { name: 'Plug in' }).click();
  await expect(page.getByText('Write minutes between readings').first()).toBeVisible();
  await page.getByLabel('Minutes between readings').fill('5');
  await choose(page, 'Devices', '2');
  await choose(page, 'Speed', '20 ×');
  await page.getByRole('button', { name: 'Plug in' }).click();
  await expect(page.getByText('not a run: made-up devices, nothing is saved')).toBeVisible();
  const field = page.getByRole('textbox', { name: /^Rehearsed reading of/ });
  await page.getByRole('article').first().getByText('late for the check').waitFor();
  const shown = await page.locator('figure .level').first().textContent();
  await field.fill(`${shown?.replace('%', '') ?? ''} # as shown`);
  await field.press('Enter');
  await expect(page.getByRole('status').filter({ hasText: 'Read at' })).toBeVisible();
  await field.press('b');
  await field.fill('99');
  await field.press('Enter');
  await field.press('Enter');
  await expect(page.getByRole('article').nth(1)).toContainText('99%');

  await page.getByLabel('Read automatically').check();
  await choose(page, 'Speed', '600 ×');
  await expect(page.getByRole('row', { name: /Redshank 3/ }).first()).toContainText(/Redshank 3\D*[6-9]|Redshank 3\D*\d\d/);
  await page.getByRole('button', { name: 'End the rehearsal' }).click();
  await expect(page.getByRole('heading', { name: 'How it was read' })).toBeVisible();
  await expect(
    page
      .getByRole('row', { name: /Knot 8/ })
      .getByRole('cell')
      .nth(5),
  ).not.toHaveText('0');
  await page.goto('/runs');
  await expect(page.getByRole('heading', { name: 'From plug-in to a verdict' })).toBeVisible();
  await page.goto('/live');
  await expect(page.getByRole('article')).toHaveCount(0);
});

test('@run without a network it opens, logs and keeps a run; a newer program waits', async ({ browser }) => {
  const context = await browser.newContext({ serviceWorkers: 'allow' });
  const page = await context.newPage();
  const own = `http://127.0.0.1:${PORTS.test}`;
  page.goto = (
    (goto) => (path: string, options?: object) =>
      goto(path.startsWith('/') ? own + path : path, options)
  )(page.goto.bind(page));
  await bringShelf(page, ['Sedge 5'], ['Cobble 20']);
  await page.goto('/help');
  await expect(page.getByText('it opens without a network')).toBeVisible();
  await context.setOffline(true);
  await startRun(page, 'Sedge 5', 'Cobble 20', '20');
  await log(page, '21 @0:00');
  await page.reload();
  await expect(page.getByRole('article')).toContainText('21%');

  // A newer program comes in the meantime: it waits for as long as anything is live, and then for a person.
  await context.setOffline(false);
  const program = readFileSync('dist/sw.js');
  await page.goto('/help');
  try {
    writeFileSync('dist/sw.js', `${program.toString()}\n// newer`);
    await page.evaluate(async () => (await navigator.serviceWorker.getRegistration())?.update());
  } finally {
    writeFileSync('dist/sw.js', program);
  }
  await expect(page.getByText('A newer Inkpath Log is ready. It waits until you take it, once nothing is live.')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Take it now' })).toBeDisabled();
  await stopRun(page, 'Window over');
  await page.getByRole('link', { name: 'a newer one is ready' }).click();
  await page.getByRole('button', { name: 'Take it now' }).click();
  await expect(page.getByText('A newer Inkpath Log is ready.')).toHaveCount(0);
  await context.close();
});

test('@run databases that the browser threw away are brought back from the second copy, and it says so', async ({ page }) => {
  await bringShelf(page, ['Sedge 5'], ['Cobble 20']);
  await startRun(page, 'Sedge 5', 'Cobble 20', '20');
  for (const line of ['21 18w', '22 18.1w # case off']) await log(page, line);
  // The copy follows a moment behind.
  await expect.poll(() => secondCopy(page)).toContain('case off');
  // What a browser does that finds them broken.
  await page.goto('/icon.svg');
  await loseDatabases(page);
  await page.goto('/');
  await expect(page.getByText('It was brought back from its second copy')).toBeVisible();
  await expect(page.getByRole('article')).toContainText('22%');
  await page.getByRole('button', { name: 'All right' }).click();
  await log(page, '23');
  await page.reload();
  await expect(page.getByRole('article')).toContainText('23%');
  await expect(page.getByText('It was brought back')).toHaveCount(0);
});
