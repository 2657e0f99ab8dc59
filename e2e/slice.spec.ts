import { expect, test } from '@playwright/test';
import { addCharger, addDevice, choose, doMore, entry, figure, log, logEveryFive, said, startRun, stopRun } from './person';

const NOON = new Date('2026-10-05T12:00:00Z');

test.beforeEach(async ({ page }) => {
  await page.clock.install({ time: NOON });
});

test('@slice from an empty shelf to two runs laid over each other', async ({ page }) => {
  await page.goto('/');
  await expect(page.getByRole('heading', { name: 'From plug-in to a verdict' })).toBeVisible();
  await addDevice(page, 'Sedge 5', '4500', '3.85', '25');
  await addCharger(page, 'Cobble 20', '20', '19');
  await addCharger(page, 'Quern 30', '30', '34');

  await startRun(page, 'Sedge 5', 'Quern 30', '40');
  await logEveryFive(page, ['47 25w', '56 25w', '65 18w', '75 15w', '86 9w', '95 5w', '100 2w']);
  await expect(said(page)).toContainText('It shows 100 %');
  await stopRun(page, 'Full');
  await expect(figure(page, '80 %')).toContainText('between 21 and 23 min');
  await expect(figure(page, '100 % shown')).toContainText('35 min');
  await expect(figure(page, 'Gained in 15 min')).toContainText('25 points');
  await expect(figure(page, 'Gained in 1 h')).toContainText('full by then');
  await expect(figure(page, 'Peak, highest single reading')).toContainText('25 W± 2 W');
  await expect(figure(page, 'Average')).toContainText('W');
  await expect(figure(page, 'Energy in')).toContainText('Wh');

  await page.getByRole('button', { name: 'Show working of 80 %' }).click();
  await expect(page.locator('.working')).toContainText('20 min + (80 − 75.5) ÷ 11 × 5 min');
  await page.getByRole('link', { name: '86 % at 25 min' }).click();
  await expect(page.locator('tr:target')).toContainText('86');

  await startRun(page, 'Sedge 5', 'Cobble 20', '40');
  await logEveryFive(page, ['46 19w', '53 19w', '61 19w', '69 17w', '77 13w', '85 9w', '93 6w', '98 3w', '100 2w']);
  await stopRun(page, 'Full');

  await page.getByRole('link', { name: 'Runs' }).click();
  await page.getByLabel('Pick Sedge 5 on Cobble 20').check();
  await page.getByLabel('Pick Sedge 5 on Quern 30').check();
  await page.getByRole('button', { name: 'Compare 2 runs' }).click();
  await expect(page.getByRole('img', { name: /2 runs of Sedge 5/ })).toBeVisible();
  const quern = page.getByRole('row', { name: /^Quern 30/ });
  await expect(quern).toContainText('10 min saved');
  await expect(quern).toContainText(/time −22 ± \d+ % to 100 %/);
  await expect(quern).toContainText(/rate \+29 ± \d+ % to 100 %/);
  await expect(page.getByRole('region', { name: 'In short' })).toContainText(/^Fastest: Quern 30, .* to full/);

  await choose(page, 'By', 'time to 50 %');
  await expect(quern).toContainText('a tie');
  await expect(quern).toContainText(/differs by \d+ ± \d+ min/);
  await choose(page, 'Set against', 'Quern 30');
  await expect(quern).toContainText('baseline');
});

test('@slice the due line counts down on every screen, then calls', async ({ page }) => {
  await page.addInitScript(() => {
    const counted = window as unknown as { tones: number };
    counted.tones = 0;
    const start = OscillatorNode.prototype.start;
    OscillatorNode.prototype.start = function (...args) {
      counted.tones += 1;
      start.apply(this, args);
    };
  });
  await addDevice(page, 'Sedge 5', '4500', '3.85');
  await addCharger(page, 'Cobble 20', '20');
  await startRun(page, 'Sedge 5', 'Cobble 20');
  await expect(page.getByRole('article')).toContainText('–%');

  const line = page.getByLabel('Due line');
  for (const place of ['Bench', 'Live', 'Runs', 'Compare', 'Help']) {
    await page
      .getByRole('navigation')
      .getByRole('link', { name: new RegExp(`^${place}`) })
      .click();
    await expect(line).toContainText(/[34]:\d\d/);
  }
  const tones = () => page.evaluate(() => (window as unknown as { tones: number }).tones);
  expect(await tones()).toBe(0);
  await page.clock.fastForward('05:00');
  await expect(line).toContainText('due');
  await expect(page).toHaveTitle(/Reading due/);
  expect(await tones()).toBe(2);
  await page.clock.fastForward('00:40');
  await expect(line).toContainText(/0:[45]\d|1:\d\d/);
  await log(page, '3');
  await expect(line).toContainText(/[34]:\d\d/);
  await expect(page).toHaveTitle(/^(?!.*due).* · Inkpath Log$/);
});

test('@slice a whole run is logged by keyboard alone', async ({ page }) => {
  await addDevice(page, 'Sedge 5', '4500', '3.85');
  await addCharger(page, 'Cobble 20', '20');
  const type = (text: string) => page.keyboard.type(text);
  const press = async (...keys: string[]) => {
    for (const key of keys) await page.keyboard.press(key);
  };
  await press('Shift+L');
  await expect(page.getByRole('heading', { name: 'From plug-in to a verdict' })).toBeVisible();
  await press('n');
  await expect(page.getByRole('combobox', { name: 'Device' })).toBeFocused();
  await press('Tab', 'Tab');
  await type('2');
  await press('Enter');
  await expect(page.getByRole('button', { name: 'Plug in now' })).toBeFocused();
  await press('Space');
  await expect(page.getByRole('article')).toContainText('2%');

  await page.clock.fastForward('05:00');
  await type('12 18.4w');
  await press('Enter');
  await expect(page.getByRole('article')).toContainText('12%');
  await press('Escape');

  // The moment first, the values after.
  await page.clock.fastForward('04:58');
  await press('Space');
  await expect(page.getByLabel('Due line')).toContainText(/marked @(9:5|10:)\d/);
  await page.clock.fastForward('00:20');
  await type('21 31.5c');
  await press('Enter');
  await expect(said(page)).toContainText(/Logged at (9 min 5\d s|10 min)/);

  // A slip, struck with a reason and written again.
  await type('92 @5:30');
  await press('Enter');
  await expect(said(page)).toContainText('From 12 to 92 % in');
  await press('Enter');
  await expect(page.getByRole('article')).toContainText('21%');
  await expect(said(page)).toContainText('Logged at 5 min 30 s');
  await press('x');
  await expect(page.getByLabel(/Why strike 92 % at 5 min 30 s/)).toBeFocused();
  await press('Escape');
  await page.keyboard.press('Escape');
  await press('s');
  await expect(page.getByRole('heading', { name: /^Stop Sedge 5/ })).toBeVisible();
  await press('ArrowUp', 'Enter');
  await expect(page.getByRole('dialog')).toBeHidden();
  await expect(page.getByRole('heading', { name: 'Sedge 5 on Cobble 20' })).toBeVisible();
  await expect(page.getByText(/ended at .*stopped early: it will not finish/)).toBeVisible();
  await press('Shift+M');
  await expect(page.getByRole('heading', { level: 1, name: 'Compare' })).toBeVisible();
  await press('?');
  await expect(page.getByRole('heading', { name: 'Keys' })).toBeVisible();
});

test('@slice a wrong entry is struck with a reason, stays visible, and is written again', async ({ page }) => {
  await addDevice(page, 'Sedge 5', '4500', '3.85');
  await addCharger(page, 'Cobble 20', '20');
  await startRun(page, 'Sedge 5', 'Cobble 20', '2');
  await logEveryFive(page, ['12 18w']);
  await page.clock.fastForward('05:00');
  await entry(page).fill('92 18w @10:00');
  await page.keyboard.press('Enter');
  await expect(said(page)).toContainText('From 12 to 92 % in 5 min? Enter again keeps it; or correct the line.');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'strike' }).click();
  await page.getByLabel(/Why strike 92 % at 10 min/).fill('slipped a digit');
  await page.keyboard.press('Enter');
  await expect(entry(page)).toHaveValue('92 18w @10:00');
  await entry(page).fill('22 18w @10:00');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('article')).toContainText('22%');

  await stopRun(page, 'Window over');
  const ink = page.getByRole('region', { name: 'Ink' });
  const struck = page.getByRole('row').filter({ hasText: 'struck: slipped a digit' });
  await expect(struck).toContainText('92');
  // Later, in the filed run, the same way.
  await page.getByRole('button', { name: 'Strike the reading at 5 min' }).click();
  await page.getByLabel('Why?').fill('wrong phone');
  await page.getByRole('button', { name: 'Strike it' }).click();
  await expect(page.getByRole('row').filter({ hasText: 'struck: wrong phone' })).toBeVisible();
  const again = page.getByLabel('Write a reading into this run');
  await expect(again).toHaveValue('12 18w @5:00');
  await again.fill('11 18w @5:00');
  await again.press('Enter');
  await expect(ink.getByRole('row', { name: /^5 min 11/ })).toBeVisible();
  await page.reload();
  await expect(page.getByRole('row').filter({ hasText: 'struck' })).toHaveCount(2);
  await expect(ink.getByRole('row', { name: /^5 min 11/ })).toBeVisible();
});

test('@slice the entry line answers slips with a sentence, and keeps nothing of them', async ({ page }) => {
  await addDevice(page, 'Sedge 5', '4500', '3.85');
  await addCharger(page, 'Cobble 20', '20');
  await startRun(page, 'Sedge 5', 'Cobble 20', '40');
  await page.clock.fastForward('05:00');
  const slips = {
    'lots of it': '“lots” is not a figure this line knows',
    '42 43': 'Two percentages on one line',
    '130%': 'cannot be a charge level',
    '-5%': 'cannot be a charge level',
    '42 @-1:00': 'is before plug-in',
    '42 @14:40': 'is still to come',
    '': 'Nothing to log yet',
  };
  for (const [line, sentence] of Object.entries(slips)) {
    await entry(page).fill(line);
    await entry(page).press('Enter');
    await expect(said(page)).toContainText(sentence);
    await expect(entry(page)).toHaveValue(line);
  }
  await entry(page).fill('42 900w');
  await entry(page).press('Enter');
  await expect(said(page)).toContainText('900 W from Cobble 20, which is rated 20 W?');
  await expect(page.getByRole('article')).toContainText('40%');
  await entry(page).press('Enter');
  await expect(page.getByRole('article')).toContainText('900.0 W');
  await page.clock.fastForward('00:10');
  await log(page, '41');
  await expect(said(page)).toContainText('41 % is lower than the 42 % seen before it');
  await stopRun(page, 'Stopped early, for another reason');
  await expect(page.getByText('kept after asking')).toBeVisible();
  await expect(page.getByText('lower than before')).toBeVisible();
});

test('@slice a stop can be taken back', async ({ page }) => {
  await addDevice(page, 'Sedge 5', '4500', '3.85');
  await addCharger(page, 'Cobble 20', '20');
  await startRun(page, 'Sedge 5', 'Cobble 20', '40');
  await logEveryFive(page, ['46']);
  await stopRun(page, 'Went wrong');
  await doMore(page, 'Resume run');
  await expect(page.getByRole('article')).toContainText('46%');
  await page.clock.fastForward('05:00');
  await log(page, '52');
  await page.reload();
  await expect(page.getByRole('article')).toContainText('52%');
  await stopRun(page, 'Window over');
  await expect(page.getByText(/ended at .*, window over/)).toBeVisible();
});
