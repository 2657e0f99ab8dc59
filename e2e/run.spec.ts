import { expect, test, type Page } from '@playwright/test';
import { addCharger, addDevice, choose, log, said, startRun, stopRun } from './person';

const event = async (page: Page, key: string) => {
  const sheet = page.getByRole('heading', { name: /^What happened at/ });
  await expect(sheet).toHaveCount(0);
  await page.keyboard.press('v');
  await expect(sheet).toBeVisible();
  await page.keyboard.press(key);
};

test('@run an event of each kind is noted with two keys, and shows on the strip, in the table and in the figures', async ({ page }) => {
  await page.clock.install({ time: new Date('2026-10-05T12:00:00Z') });
  await addDevice(page, 'Sedge 5', '4500', '3.85', '25');
  await addCharger(page, 'Cobble 20', '20');
  await addCharger(page, 'Quern 65', '65');
  await startRun(page, 'Sedge 5', 'Cobble 20', '5');
  await page.clock.fastForward('05:00');
  await log(page, '12 5.1v @5:00');
  await page.clock.fastForward('05:00');
  await log(page, '20 9.02v @10:00');
  await expect(said(page)).toContainText('Volts stepped from 5.1 to 9.0 V: V, then H, notes the handshake.');
  await page.keyboard.press('Escape');
  for (const [key, says] of [
    ['b', 'it booted'],
    ['h', 'volts stepped: handshake'],
    ['c', 'chime or charge icon'],
    ['n', 'it said: slow charger'],
    ['r', 'connected, but not charging'],
    ['s', 'screen woken'],
    ['m', 'moved on its pad'],
    ['l', 'charge light on'],
    ['a', 'held by an adaptive setting'],
    ['f', 'camera stopped'],
  ] as const) {
    await event(page, key);
    await expect(said(page)).toContainText(`on Sedge 5: ${says}.`);
  }
  // Of a light that is out it is asked whether somebody saw it.
  for (const [key, says] of [
    ['f', 'charge light found out'],
    ['s', 'charge light seen going out'],
  ] as const) {
    await event(page, 'k');
    await expect(page.getByText('The charge light is out: it was')).toBeVisible();
    await page.keyboard.press(key);
    await expect(said(page)).toContainText(`on Sedge 5: ${says}.`);
  }

  // Unplugged for two minutes: elapsed and charging time are both kept.
  const lane = page.getByRole('article');
  await event(page, 'u');
  await expect(lane).toContainText('Cobble 20, unplugged');
  await page.clock.fastForward('02:00');
  await event(page, 'p');
  await expect(lane).toContainText(/charging for 10:[0-5]\d/);

  // A workload with two scores; and another source from here on.
  await event(page, 'w');
  await page.getByLabel('Workload').fill('rendering');
  await page.keyboard.press('Enter');
  await expect(said(page)).toContainText('workload started');
  await event(page, 'e');
  await expect(page.getByLabel('Workload')).toHaveValue('rendering');
  await page.getByLabel('Score 1').fill('frames');
  await page.getByRole('button', { name: 'Note it' }).click();
  await expect(page.getByRole('alert').filter({ hasText: 'A score needs a name and a number' })).toBeVisible();
  await page.getByLabel('Value').fill('41,5');
  await page.getByLabel('Unit').fill('fps');
  await page.getByRole('button', { name: 'Note it' }).click();
  await expect(said(page)).toContainText('workload ended');
  await event(page, 'x');
  await choose(page, 'Now charging from', 'Quern 65');
  await page.getByRole('button', { name: 'Note it' }).click();
  await expect(lane).toContainText('Quern 65');
  await page.reload();
  await expect(lane).toContainText('Quern 65');

  // A moment that was marked is the moment of the event.
  await page.clock.fastForward('03:00');
  await page.keyboard.press('Space');
  await page.clock.fastForward('01:00');
  await event(page, 's');
  await expect(said(page)).toContainText(/Noted at 15 min/);
  await stopRun(page, 'Window over');
  const ink = page.getByRole('region', { name: 'Ink' });
  await expect(ink.getByRole('row', { name: /workload ended, rendering, frames 41.5 fps/ })).toBeVisible();
  await expect(ink.getByRole('row', { name: /source or cable swapped, to Quern 65/ })).toBeVisible();
  await expect(page.getByText(/Without power from 10 min to 12 min: charging time leaves it out/)).toBeVisible();
});

test('@long @run a reading that falls due calls by title, icon, notice and voice; in quiet hours by title and icon alone', async ({
  page,
  context,
}) => {
  await context.grantPermissions(['notifications']);
  await page.addInitScript(() => {
    const calls: string[] = [];
    Object.assign(window, { calls });
    Object.assign(window, {
      Notification: Object.assign(
        function (title: string) {
          calls.push(title);
        },
        { permission: 'granted', requestPermission: () => Promise.resolve('granted') },
      ),
    });
    Object.assign(window, {
      SpeechSynthesisUtterance: function (this: { text: string }, text: string) {
        this.text = text;
      },
    });
    Object.defineProperty(window, 'speechSynthesis', { value: { speak: ({ text }: { text: string }) => calls.push(text) } });
    Object.defineProperty(document, 'visibilityState', { get: () => (localStorage.getItem('away') ? 'hidden' : 'visible') });
  });
  await page.clock.install({ time: new Date('2026-10-05T12:00:00Z') });
  await addDevice(page, 'Sedge 5', '4500', '3.85', '25');
  await addCharger(page, 'Cobble 20', '20');
  await startRun(page, 'Sedge 5', 'Cobble 20', '5', undefined, async () => {
    await page.getByText('Reminder: sound clear').click();
    await choose(page, 'Sound', 'soft');
    await page.getByRole('button', { name: 'Sound the chime' }).click();
    await expect(page.getByText(/It was sounded just now|keeps it silent/)).toBeVisible();
    await page.getByLabel('Show a system notification').check();
    await page.getByLabel('Speak the name of the lane').check();
  });
  const calls = () => page.evaluate(() => (window as unknown as { calls: string[] }).calls);
  const icon = page.locator('link[rel="icon"]');
  await page.evaluate(() => {
    localStorage.setItem('away', 'yes');
    document.dispatchEvent(new Event('visibilitychange'));
  });
  await page.clock.fastForward('05:05');
  await expect.poll(calls).toEqual(['Read Sedge 5', 'Reading due']);
  await expect(icon).toHaveAttribute('href', /mark-due/);
  await expect(page).toHaveTitle(/Reading due/);
  await log(page, '12');
  await expect(icon).not.toHaveAttribute('href', /mark-due/);

  await page.goto('/settings');
  await page.getByLabel('Quiet from').fill('00:00');
  await page.getByLabel('until').fill('23:59');
  await page.clock.fastForward('05:00');
  await expect(page).toHaveTitle(/Reading due/);
  expect(await calls()).toEqual([]);
});
