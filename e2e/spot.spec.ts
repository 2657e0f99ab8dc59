import { expect, test } from '@playwright/test';
import { bringShelf, choose, chooseAll, log, said, startRun, stopRun, exportBy } from './person';

const CHARGERS = ['Alder 5', 'Birch 10', 'Cobble 20', 'Drumlin', 'Elm 30', 'Fir 45', 'Gorse 65', 'Puddle'];

test('@run a spot check of eight chargers goes by keyboard alone, and comes to a table of what works', async ({ page }) => {
  await page.clock.install({ time: new Date('2026-10-05T12:00:00Z') });
  await bringShelf(page, ['Sedge 5'], CHARGERS);
  await page.goto('/live/spot');
  await chooseAll(page, 'Chargers');
  await page.getByRole('button', { name: 'Try 8 chargers' }).click();
  const field = page.getByLabel(/^Volts, amps or watts; the level/);
  const trial = (name: string) => page.getByRole('form', { name: `Trial of ${name}` });

  // Plug in, let it settle, read; a letter in the empty field says what is seen, figures suggest the rest.
  await expect(trial('Alder 5')).toBeVisible();
  await expect(field).toBeFocused();
  await page.keyboard.press('Space');
  await expect(page.getByRole('timer')).toContainText(/0:1\d until it has settled/);
  await page.clock.fastForward('00:16');
  await expect(page.getByRole('timer')).toContainText('settled: read it now');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toContainText('Say what it does');
  await page.keyboard.press('k');
  await page.keyboard.press('i');
  await page.keyboard.type('5v 0.5a 47');
  await expect(page.getByRole('radio', { name: /charges slowly · likely/ })).toBeChecked();
  await page.keyboard.press('Enter');
  await expect(trial('Birch 10')).toBeVisible();

  // The slow one is left plugged in for a second look: its level fell.
  const look = page.getByRole('form', { name: 'Second look at Alder 5' });
  await expect(look).toContainText(/look again in 1[12]:/);
  await page.clock.fastForward('12:05');
  await expect(look).toContainText('look again now');
  await look.getByLabel('Level now').fill('46');
  await look.getByRole('button', { name: 'Log the level' }).click();
  await expect(look).toHaveCount(0);

  for (const [name, keys, line] of [
    ['Birch 10', 'h', '47 9w'],
    ['Cobble 20', 'kim', '9v 2.1a'],
    ['Drumlin', 'r', ''],
    ['Elm 30', 'kkim', '20w # warm'],
    ['Fir 45', 'c', '0w'],
    ['Gorse 65', 'af', '9v 2a'],
    ['Puddle', 's', '47'],
  ] as const) {
    await expect(trial(name)).toBeVisible();
    await expect(field).toBeFocused();
    for (const key of keys) await page.keyboard.press(key);
    await page.keyboard.type(line);
    await page.keyboard.press('Enter');
  }
  await expect(page.getByText('All of them were tried.')).toBeVisible();
  await page.reload();
  const row = (name: string) => page.getByRole('region', { name: 'Compatibility' }).getByRole('row', { name: new RegExp(`^${name}`) });
  await expect(row('Alder 5')).toContainText('drains while plugged in; −1 % in 12 min');
  await expect(row('Birch 10')).toContainText('holds the level');
  await expect(row('Cobble 20')).toContainText('charges fast');
  await expect(row('Drumlin')).toContainText('refuses');
  await expect(row('Elm 30')).toContainText('icon and meter yes, chime no');
  await expect(row('Elm 30')).toContainText('warm');
  await expect(row('Fir 45')).toContainText('connected, but not charging');
  await expect(row('Gorse 65')).toContainText('asleep');

  // One is tried again, and the last word counts; then the table stands with the run, and goes out as CSV.
  await page
    .getByRole('list', { name: 'Sources to try' })
    .getByRole('button', { name: /^Drumlin/ })
    .click();
  await page.getByRole('radio', { name: /charges slowly/ }).click();
  await page.getByRole('button', { name: 'Log it, and on to the next' }).click();
  await expect(row('Drumlin')).toContainText('charges slowly');
  await page.getByRole('button', { name: 'stop' }).click();
  await page.getByRole('button', { name: 'Stop the run' }).click();
  await expect(row('Drumlin')).toContainText('charges slowly');
  // The best come first, in a sentence and in the table; what was not seen is said once.
  await expect(page.getByText(/^fast: .*; slowly: /)).toBeVisible();
  await expect(page.getByText(/^Whether the level moves was not seen of/)).toHaveCount(1);
  await expect(page.getByRole('region', { name: 'Compatibility' }).getByRole('row').nth(1)).toContainText('charges fast');
  await page.getByRole('button', { name: 'More', exact: true }).click();
  const { name } = await exportBy(page, 'Export', 'Table of what was tried, as CSV');
  expect(name).toMatch(/^spot-check-sedge-5-2026.*\.csv$/);
});

test('@run a load test splits the power of each workload and source, and says when the battery helped', async ({ page }) => {
  await page.clock.install({ time: new Date('2026-10-05T12:00:00Z') });
  await bringShelf(page, ['Teasel 14'], ['Drumlin', 'Quern 65']);
  await startRun(page, 'Teasel 14', 'Drumlin', '30', 'Load test');
  const work = async (key: string, name: string, score = '') => {
    await page.keyboard.press('v');
    await expect(page.getByRole('heading', { name: /^What happened at/ })).toBeVisible();
    await page.keyboard.press(key);
    await page.getByLabel('Workload').fill(name);
    if (score) {
      await page.getByLabel('Score 1').fill('frames');
      await page.getByLabel('Value').fill(score);
      await page.getByLabel('Unit').fill('fps');
    }
    await page.keyboard.press('Enter');
    await expect(page.getByRole('dialog')).toHaveCount(0);
    await expect(said(page)).toContainText('Noted at');
    await page.keyboard.press('Escape');
  };
  const lane = page.getByRole('article');
  await work('w', 'idle');
  await page.clock.fastForward('05:00');
  await expect(lane).toContainText('Watts in, and what the system says of the battery');
  await log(page, '19w bat 9w');
  await expect(lane).toContainText('idle: 19.0 W in, 9.0 W of it into the battery, 10.0 W used');
  await work('e', 'idle');
  await work('w', 'graphics');
  await page.clock.fastForward('05:00');
  await log(page, '19w bat -6w');
  await expect(lane).toContainText('The battery helps: what comes in is not what it uses');
  await work('e', 'graphics', '41.5');
  await expect(lane).toContainText('it may stop, the workload has ended');
  await stopRun(page, 'Window over');
  const table = page.getByRole('region', { name: 'Workloads' });
  await expect(table.getByRole('row', { name: /^idle/ })).toContainText('some of the input went into the battery');
  await expect(table.getByRole('row', { name: /^graphics/ })).toContainText('the battery helped: input is not consumption');
  await expect(table.getByRole('row', { name: /^graphics/ })).toContainText('frames 41.5 fps (more is better)');
});

test('@long @run an energy sample projects the time to a level, with what it takes for granted', async ({ page }) => {
  await page.clock.install({ time: new Date('2026-10-05T12:00:00Z') });
  await bringShelf(page, ['Sedge 5'], ['Cobble 20']);
  await startRun(page, 'Sedge 5', 'Cobble 20', '40', 'Energy sample');
  const lane = page.getByRole('article');
  await expect(lane).toContainText('write the Wh at the start of the 5 min too');
  await log(page, '10wh');
  await page.clock.fastForward('05:10');
  await expect(lane).toContainText('The Wh of the meter now');
  await log(page, '11.5wh');
  // 17.3 Wh × 10 % at 17.4 W.
  await expect(lane).toContainText(/50 % in about [56] min at this power: loss and taper left out/);
  await expect(lane).toContainText('it may stop, the window is over');
});

test('@long @run a run that was filmed is written up by the time of the clip', async ({ page }) => {
  await bringShelf(page, ['Sedge 5'], ['Cobble 20']);
  await page.goto('/live/footage');
  await choose(page, 'Device', 'Sedge 5');
  await choose(page, 'Charger', 'Cobble 20');
  await page.getByLabel('Plugged in at').fill('2026-10-05T14:00');
  await page.getByLabel('Time of the clip at plug-in').fill('0:02');
  await page.getByLabel('Speed').fill('fast');
  await page.getByRole('button', { name: 'Write it up' }).click();
  await expect(page.getByText('Write how many times as fast it plays').first()).toBeVisible();
  await page.getByLabel('Speed').fill('60');
  await page.getByRole('button', { name: /add a cut/ }).click();
  await page.getByLabel('Cut 1, at time of the clip').fill('0:22');
  await page.getByLabel('Minutes missing').fill('10');
  await expect(page.getByText('At 1:02 of the clip the run is at 1 h 10')).toBeVisible();
  await page.getByRole('button', { name: 'Write it up' }).click();
  await expect(page.getByText(/read from footage, plugged in at 0:02 of the clip, 60 × as fast, 1 cut/)).toBeVisible();

  const field = page.getByLabel('A reading, with the time of the clip');
  for (const [line, says] of [
    ['10 @0:02', 'Written at 0 s'],
    ['24', 'Say where in the clip it was read'],
    ['24 @0:12', 'Written at 10 min'],
    ['11 @0:01', 'it was not plugged in yet'],
    ['50 @0:27', 'Written at 35 min'],
  ] as const) {
    await field.fill(line);
    await field.press('Enter');
    await expect(page.getByRole('status').filter({ hasText: says })).toBeVisible();
  }
  await page.getByRole('button', { name: 'The footage ends there' }).click();
  await expect(page.getByText(/ended at 35 min/)).toBeVisible();
});
