import { expect, test, type Page } from '@playwright/test';
import { browse, newProfile } from './browse';
import { bringShelf, choose, log, said } from './person';

const NAMES = ['Sedge 5', 'Heron 3', 'Bittern Slate', 'Curlew', 'Teasel 14', 'Reed 2'];
const lanes = (page: Page) => page.getByRole('article');
const reading = (page: Page, name: string) => page.getByRole('textbox', { name: new RegExp(`Reading of ${name}`) });

/** Picks a lane by its letter, in the empty due line. */
async function pick(page: Page, index: number): Promise<void> {
  await page.keyboard.press('Escape');
  await page.keyboard.press('abcdef'[index] ?? 'a');
  await expect(reading(page, NAMES[index] ?? '')).toBeFocused();
}

async function noted(page: Page, key: string, says: string): Promise<void> {
  await page.keyboard.press('v');
  await expect(page.getByRole('heading', { name: /^What happened at/ })).toBeVisible();
  await page.keyboard.press(key);
  await expect(said(page)).toContainText(says);
}

test('@run a race of six lanes comes through late, missed and struck readings, a swap, a reload, a killed browser, a moved clock and two tabs', async () => {
  const profile = newProfile();
  const first = await browse(profile);
  let { page } = first;
  await page.clock.install({ time: new Date('2026-10-05T12:00:00Z') });
  await bringShelf(page, NAMES, [...NAMES.map((name) => `Cobble for ${name}`), 'Quern 65']);
  await page.goto('/live/new');
  for (const [index, name] of NAMES.entries()) {
    await choose(page, 'Device', name);
    await choose(page, 'Charger', `Cobble for ${name}`);
    await page.getByLabel('Level at plug-in').fill(String(40 + 2 * index));
    if (index === 0) await choose(page, 'Method', 'Coarse then fine');
    if (index < NAMES.length - 1) await page.getByRole('button', { name: 'Start another with it' }).click();
  }
  await page.getByRole('button', { name: 'Ready' }).click();
  await expect(page.getByRole('button', { name: 'Switch the strip on now' })).toBeFocused();
  await page.keyboard.press('Space');
  await expect(lanes(page)).toHaveCount(6);

  // One key for the moment of all six; the values after, from lane to lane by Enter.
  await page.clock.fastForward('10:00');
  await page.keyboard.press('Shift+Space');
  await page.clock.fastForward('01:00');
  for (const [index, name] of NAMES.entries()) {
    await expect(page.getByRole('textbox', { name: new RegExp(`Reading of ${name} .*marked @10:0`) })).toBeFocused();
    await page.keyboard.type(String(60 + 2 * index));
    await page.keyboard.press('Enter');
    await expect(said(page)).toContainText(new RegExp(`Logged at 10 min.* on ${name}`));
  }

  // The last lane shows 90 %: all are fine from there. One is read late, one was struck and written again, and one swaps its source.
  await page.clock.fastForward('09:00');
  await pick(page, 5);
  await log(page, '92 @20:00');
  for (let index = 0; index < 6; index += 1) await expect(lanes(page).nth(index)).toContainText(/check at 2[05] min/);
  await page.clock.fastForward('02:30');
  await pick(page, 0);
  await log(page, '79');
  await page.keyboard.press('x');
  await page.keyboard.type('wrong row');
  await page.keyboard.press('Enter');
  await expect(said(page)).toContainText('Struck');
  await page.keyboard.press('Escape');
  await pick(page, 0);
  await log(page, '78 @22:10');
  await pick(page, 1);
  await noted(page, 'h', 'on Heron 3: volts stepped: handshake.');
  await page.keyboard.press('Escape');
  await pick(page, 1);
  await page.keyboard.press('v');
  await page.keyboard.press('x');
  await choose(page, 'Now charging from', 'Quern 65');
  await page.getByRole('button', { name: 'Note it' }).click();
  await expect(lanes(page).nth(1)).toContainText('Quern 65');

  // A lane’s own field logs on that lane, whoever’s turn it is.
  await page.getByLabel('What lane D shows').fill('71 @22:20');
  await page.getByLabel('What lane D shows').press('Enter');
  await expect(said(page)).toContainText('on Curlew');

  // The clock of the machine is put back by an hour: it asks, and the lanes count on. Then it is put right again.
  const elapsed = lanes(page).nth(0).locator('.elapsed');
  await expect(elapsed).toContainText(/2[23]:\d\d/);
  await page.clock.setSystemTime(new Date(Date.parse('2026-10-05T12:00:00Z') + 23 * 60_000 - 3600_000));
  await expect(page.getByText(/The clock of this machine went back by .* The lanes count on/)).toBeVisible();
  await expect(elapsed).toContainText(/2[23]:\d\d/);
  await page.getByRole('button', { name: 'T the clock was changed' }).click();
  await expect(page.getByText(/went back by/)).toHaveCount(0);
  await expect(elapsed).toContainText(/2[23]:\d\d/);
  await page.clock.setSystemTime(new Date(Date.parse('2026-10-05T12:00:00Z') + 23 * 60_000 + 10_000));
  await expect(page.getByText(/Not watched for .*: drawn as unseen/)).toBeVisible();
  await page.keyboard.press('Escape');
  await page.keyboard.press('t');
  await expect(page.getByText(/Not watched for/)).toHaveCount(0);
  await expect(elapsed).toContainText(/2[23]:\d\d/);

  // A reload, then a browser that is killed: every lane is back, and what it was away for is kept as not watched.
  await page.reload();
  await expect(lanes(page)).toHaveCount(6);
  await expect(elapsed).toContainText(/2[23]:\d\d/);
  await first.kill();
  const second = await browse(profile);
  ({ page } = second);
  await page.clock.install({ time: new Date('2026-10-05T12:41:00Z') });
  await page.goto('/');
  await expect(lanes(page)).toHaveCount(6);
  await expect(lanes(page).nth(0).locator('.elapsed')).toContainText(/41:\d\d/);
  await expect(lanes(page).nth(1)).toContainText('Quern 65');
  // From when the first browser was last here, at 23 min and as long as all that took.
  await expect(page.getByLabel('Due line').getByText('Not watched for')).toContainText(
    /Not watched for 1[4-8] min.* Whether the clock was changed meanwhile cannot be known/,
  );
  await page.getByRole('button', { name: 'it was away' }).click();

  // A second tab follows, and takes a lane over; the first stops writing it at once.
  const other = await page.context().newPage();
  await other.clock.install({ time: new Date('2026-10-05T12:42:00Z') });
  await other.goto(page.url());
  await expect(lanes(other)).toHaveCount(6);
  await other.keyboard.press('c');
  await expect(reading(other, 'Bittern Slate')).toBeDisabled();
  await other.getByRole('button', { name: 'Take over from the other tab' }).click();
  await expect(reading(other, 'Bittern Slate')).toBeEnabled();
  await log(other, '95');
  await expect(lanes(page).nth(2)).toContainText('95%');
  await expect(page.getByLabel('What lane C shows')).toBeDisabled();

  // What became of it all stands on the curve: late, missed, struck, the swap, and the time nobody watched.
  await page.bringToFront();
  await lanes(page).nth(0).getByRole('link', { name: 'Sedge 5' }).click();
  await expect(page.getByText(/Check at 20 min came 2 min .*late/)).toBeVisible();
  await expect(page.getByText(/Check at 25 min was missed|checks from 25 min to .* were missed/)).toBeVisible();
  await expect(page.getByText(/^Not watched from 23 min/)).toBeVisible();
  await expect(page.getByRole('button', { name: /the clock was changed, by 1 h.* back/ })).toBeVisible();
  await expect(page.getByText('struck: wrong row')).toBeVisible();
  await second.kill();
});

/** The order of lanes as it is stored: no sign on the board tells when it is. */
const storedOrder = (page: Page) =>
  page.evaluate(
    () =>
      new Promise<string[]>((resolve) => {
        const opening = indexedDB.open('inkpath');
        opening.onsuccess = () => {
          const { result } = opening;
          const name = result.objectStoreNames[0] ?? '';
          const asked = result.transaction(name, 'readonly').objectStore(name).get('setting/board');
          asked.onsuccess = () => {
            result.close();
            resolve((asked.result as { order?: string[] } | undefined)?.order ?? []);
          };
        };
      }),
  );

test('@long @run lanes are reordered by drag or arrow key, and one fills the board with an earlier run under it', async ({ page }) => {
  await page.clock.install({ time: new Date('2026-10-05T12:00:00Z') });
  await bringShelf(page, ['Sedge 5', 'Curlew', 'Reed 2'], ['Cobble 20']);
  const start = async (device: string, level: string) => {
    await page.goto('/live/new');
    await choose(page, 'Device', device);
    await page.getByLabel('Level at plug-in').fill(level);
    await page.getByRole('button', { name: 'Ready' }).click();
    await expect(page.getByRole('button', { name: 'Plug in now' })).toBeFocused();
    await page.keyboard.press('Space');
    await expect(page.getByRole('article', { name: device })).toBeVisible();
  };
  // An earlier run of the phone, to hold against.
  await start('Sedge 5', '10');
  await page.clock.fastForward('15:00');
  for (const line of ['20 @5:00', '30 @10:00', '40 @15:00']) await log(page, line);
  await page.keyboard.press('s');
  await expect(page.getByText('Its method would continue.')).toBeVisible();
  await page.getByRole('button', { name: 'Stop the run' }).click();
  await expect(page.getByRole('heading', { name: 'When it reached' })).toBeVisible();

  for (const device of ['Sedge 5', 'Curlew', 'Reed 2']) {
    await start(device, '10');
    await page.clock.fastForward('00:05');
  }
  const names = () => page.getByRole('article').evaluateAll((all) => all.map((each) => each.getAttribute('aria-label')?.split(':')[0]));
  expect(await names()).toEqual(['Lane A', 'Lane B', 'Lane C']);
  await page.getByRole('button', { name: /^Move lane C/ }).dragTo(page.getByRole('article').first(), { targetPosition: { x: 60, y: 10 } });
  await expect.poll(names).toEqual(['Lane C', 'Lane A', 'Lane B']);
  await expect.poll(() => storedOrder(page)).toHaveLength(3);
  const dragged = await storedOrder(page);
  await page.getByRole('button', { name: /^Move lane A/ }).press('ArrowDown');
  await expect.poll(names).toEqual(['Lane C', 'Lane B', 'Lane A']);
  // Nobody reloads within the few milliseconds that storing it takes.
  await expect.poll(() => storedOrder(page)).not.toEqual(dragged);
  await page.reload();
  await expect.poll(names).toEqual(['Lane C', 'Lane B', 'Lane A']);

  await page.getByRole('button', { name: 'Fill the board with lane A' }).click();
  await expect(page.getByRole('article')).toHaveCount(1);
  await page.getByRole('combobox', { name: 'Overlay an earlier run' }).press('ArrowDown');
  await page.getByRole('option', { name: /Sedge 5 on Cobble 20/ }).click();
  await page.clock.fastForward('10:00');
  await page.getByLabel('What lane A shows').fill('26 @5:00');
  await page.getByLabel('What lane A shows').press('Enter');
  await expect(said(page)).toContainText('Logged at 5 min');
  await page.getByLabel('What lane A shows').fill('39');
  await page.getByLabel('What lane A shows').press('Enter');
  await expect(page.getByRole('article')).toContainText(/ahead by [45] min, against Cobble 20 on 5 Oct/);
  await page.keyboard.press('Escape');
  await page.keyboard.press('Escape');
  await page.keyboard.press('o');
  await expect(page.getByRole('article')).toHaveCount(3);
});
