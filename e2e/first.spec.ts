import { expect, test, type Page } from '@playwright/test';
import { bookOf, bringShelf, choose, DEMO, doMore, importFile, isReady, log, runOf, SCREENS, startRun, stopRun } from './person';
import { lasting, SIZES } from './troubles';
import { exampleHeader } from '../core/ink/example';

/** First minutes, small screens and large text: what a person sees who has never been here, or sees little at once. */

test('@long @first every place, the theme and the settings are reached on the narrowest screen, and typing goes on', async ({ page }) => {
  await page.setViewportSize({ width: 195, height: 422 });
  await page.goto(`${DEMO}/live`);
  await isReady(page);
  for (const place of ['Bench', 'Plan', 'Runs', 'Compare', 'Sums', 'Help', 'Settings', 'Live']) {
    await page.getByRole('button', { name: /, all places$/ }).click();
    await page.getByRole('navigation', { name: 'Places' }).getByRole('link', { name: place }).click();
    await expect(page.getByRole('button', { name: `${place}, all places` })).toHaveAttribute('aria-expanded', 'false');
  }
  await page.getByRole('button', { name: /, all places$/ }).click();
  await page.getByRole('button', { name: /Dark theme|Light theme/ }).click();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'More keys' }).click();
  await page.getByRole('button', { name: 'mark', exact: false }).first().click();
  await page.getByRole('textbox', { name: /Reading of/ }).fill('50');
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('Due line', { exact: true })).toContainText('Logged at');
});

/** Names from right to left, in another script, and as long as may be, on runs of one device that is charged anew by each. */
const NAMES = [
  'شاحن سريع جدا للهاتف المحمول',
  '急速充電器の名前はとても長い',
  'Donaudampfschifffahrtsgesellschaftskapitaen charger of sixty ch',
  'W'.repeat(60),
];

test('@long @first names from right to left, in other scripts and of sixty letters tear nothing apart', async ({ page }) => {
  test.setTimeout(600_000);
  const device = { ...exampleHeader().device, name: 'هاتف تجريبي باسم طويل' };
  const runs = NAMES.map((name, index) =>
    runOf(
      `run-${index}`,
      { id: `c-${index}`, name: name.slice(0, 60), kind: 'adapter', watts: 20 },
      [0, 10, 20, 40, 80].map((minutes) => ({ minutes, percent: Math.min(100, 2 + minutes * (1 + index / 4)), watts: 18 })),
      [],
      { device, plugInAt: Date.UTC(2026, 9, 5 + index, 9) },
    ),
  );
  await page.goto('/settings');
  await isReady(page);
  await importFile(page, 'runs.json', bookOf(runs));
  const found: string[] = [];
  const ids = runs.map(({ header }) => header.id).join('.');
  for (const path of [
    '/runs',
    '/runs/run-0',
    `/compare?runs=${ids}`,
    `/compare?show=bars&runs=${ids}`,
    `/compare?show=matrix&runs=${ids}`,
    `/compare?show=verdict&runs=${ids}`,
  ]) {
    await page.setViewportSize({ width: 1280, height: 800 });
    await page.goto(path);
    await isReady(page);
    await expect(page.getByText('Opening')).toHaveCount(0);
    for (const [width, height] of SIZES) {
      await page.setViewportSize({ width, height });
      for (const each of await lasting(page)) found.push(`${path} at ${width} × ${height}: ${each}`);
    }
  }
  expect(found).toEqual([]);
});

test('@first from an empty logbook the first reading is logged in seven actions, each step offered; then the next, to the verdict', async ({
  page,
}) => {
  await page.goto('/');
  await isReady(page);
  // On every place the same path, its step at hand marked, and a picture of what is at its end.
  for (const place of ['/bench', '/plan', '/runs', '/compare', '/live']) {
    await page.goto(place);
    const path = page.getByRole('region', { name: 'From plug-in to a verdict' });
    await expect(path.getByRole('listitem')).toHaveCount(4);
    await expect(path.locator('[aria-current="step"]')).toContainText('Gear');
    await expect(path.getByRole('img', { name: /made-up runs/ })).toBeVisible();
    await expect(path.getByRole('link', { name: 'Look round in the demo logbook' })).toHaveAttribute('href', `${DEMO}/`);
  }
  await expect(page.getByText('npm run')).toHaveCount(0);
  let actions = 0;
  const act = async (what: Promise<unknown>) => {
    await what;
    actions += 1;
  };
  await act(page.getByRole('link', { name: 'Name a device and a charger' }).click());
  await act(page.getByRole('combobox', { name: 'Device' }).fill('Sedge 5'));
  await page.getByRole('combobox', { name: 'Device' }).press('Enter');
  await act(page.getByRole('combobox', { name: 'Charger' }).fill('Cobble 20'));
  await page.getByRole('combobox', { name: 'Charger' }).press('Enter');
  await act(page.getByRole('button', { name: 'Ready' }).click());
  await act(page.keyboard.press('Space'));
  await expect(page.getByRole('article')).toBeVisible();
  await act(page.keyboard.type('42'));
  await act(page.keyboard.press('Enter'));
  await expect(page.getByRole('article')).toContainText('42');
  expect(actions).toBeLessThanOrEqual(7);
  await stopRun(page, 'Window over');
  await page.getByRole('link', { name: 'Start another run' }).click();
  await page.getByRole('button', { name: 'Ready' }).click();
  await page.keyboard.press('Space');
  await log(page, '40');
  await stopRun(page, 'Window over');
  await page.goto('/compare');
  await expect(page.getByRole('button', { name: 'Sedge 5', exact: true }).first()).toBeVisible();
});

test('@first on the bench each piece of gear leads on to the next step', async ({ page }) => {
  await page.goto('/bench');
  await page.getByRole('button', { name: 'Add a device' }).click();
  await page.getByRole('textbox', { name: 'Name', exact: true }).fill('Sedge 5');
  await page.getByRole('button', { name: 'Save and add a charger' }).click();
  await expect(page.getByRole('heading', { name: 'A new charger' })).toBeVisible();
  await page.getByRole('textbox', { name: 'Name', exact: true }).fill('Cobble 20');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByText('Cobble 20 is on the shelf.')).toBeVisible();
  await page.getByRole('link', { name: 'Start a run' }).click();
  await expect(page.getByRole('heading', { name: 'Start a run' })).toBeVisible();
});

test('@first the demo opens on a comparison, says what it is for, and leads past five stops, once', async ({ page }) => {
  const troubles: string[] = [];
  page.on('console', (message) => {
    if (message.type() === 'error') troubles.push(message.text());
  });
  await page.goto(DEMO);
  await expect(page.getByText('Inkpath Log times how devices charge')).toBeVisible();
  await expect(page.getByRole('region', { name: 'In short' })).toContainText('Fastest to full');
  await expect(page.getByRole('region', { name: 'Figures side by side' })).toBeVisible();
  await page.getByRole('button', { name: 'Take the tour' }).click();
  for (let stop = 1; stop <= 5; stop += 1) {
    await expect(page.getByText(`${stop} of 5`)).toBeVisible();
    await page.getByRole('button', { name: stop < 5 ? 'Next' : 'Done' }).click();
  }
  await expect(page.getByText('of 5')).toHaveCount(0);
  await page.reload();
  await expect(page.getByRole('region', { name: 'In short' })).toBeVisible();
  await expect(page.getByText('Inkpath Log times how devices charge')).toHaveCount(0);
  // Nothing of it offends the policy of the page.
  expect(troubles).toEqual([]);
});

test('@long @first addresses say what they are, old ones lead there, and each screen has its own title', async ({ page }) => {
  const titles = new Set<string>();
  for (const path of Object.values(SCREENS)) {
    await page.goto(DEMO + path);
    await isReady(page);
    await expect(page).toHaveTitle(/^.+ · Inkpath Log$/);
    titles.add((await page.title()).replace('● Reading due · ', ''));
  }
  // Four comparisons of other runs, and of three of them the same number.
  expect(titles.size).toBeGreaterThanOrEqual(Object.keys(SCREENS).length - 2);
  for (const [old, now] of [
    ['/run', '/live'],
    ['/run/new?study=x', '/live/new?study=x'],
    ['/curve', '/runs'],
    ['/curve/saltmarsh-6', '/runs/saltmarsh-6'],
  ] as const) {
    await page.goto(DEMO + old);
    await expect(page).toHaveURL(DEMO + now);
  }
});

const press = (page: Page, name: string) => page.getByRole('button', { name, exact: true }).click();
const undo = async (page: Page) => {
  await page.locator('h1').first().click();
  await page.keyboard.press('Control+z');
};
const saidUndone = (page: Page) => expect(page.getByText(/^Undone: /)).toBeVisible();

test('@first undo brings back a discarded run, a strike, a retired charger, a sentence, a comparison and a setting', async ({ page }) => {
  test.setTimeout(300_000);
  // A run that was discarded.
  await page.goto(`${DEMO}/runs/saltmarsh-1`);
  await isReady(page);
  await expect(page.getByRole('button', { name: 'Copy the ink' })).toBeVisible();
  await doMore(page, 'Discard');
  await expect(page.getByText(/This run was discarded on/)).toBeVisible();
  await expect(page.getByText('Discarded the run.')).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText(/This run was discarded on/)).toHaveCount(0);
  // A reading that was struck, of a finished run.
  await page.getByRole('button', { name: /^Strike the reading at 5 min/ }).click();
  await page.getByRole('dialog').getByRole('textbox').fill('slip');
  await page.getByRole('dialog').getByRole('button', { name: 'Strike it' }).click();
  await expect(page.getByText('struck: slip')).toBeVisible();
  await undo(page);
  await saidUndone(page);
  await expect(page.getByText('struck: slip')).toHaveCount(0);
  // A charger that was retired.
  await page.goto(`${DEMO}/bench?shelf=charger`);
  await isReady(page);
  await page
    .getByRole('row', { name: /Cobble 12/ })
    .getByRole('button', { name: /Retire/ })
    .click();
  await expect(page.getByRole('row', { name: /Cobble 12/ })).toHaveCount(0);
  await undo(page);
  await expect(page.getByRole('row', { name: /Cobble 12/ })).toHaveCount(1);
  // In a field it is the field's own.
  await page.getByRole('textbox', { name: 'Search chargers' }).fill('Quern');
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('textbox', { name: 'Search chargers' })).toHaveValue('');
  // A setting.
  await page.goto(`${DEMO}/settings`);
  await choose(page, 'Temperatures in', '°F');
  await expect(page.getByText('98.6 °F')).toBeVisible();
  await undo(page);
  await expect(page.getByText('37.0 °C')).toBeVisible();
  // A comparison that was saved, and a sentence of its verdict in words of one's own.
  await page.goto(`${DEMO}/compare?show=verdict&runs=saltmarsh-1.saltmarsh-3.saltmarsh-5`);
  await isReady(page);
  const finding = page.getByRole('listitem').filter({ hasText: 'Overnight' });
  await finding.getByRole('button', { name: /Edit/ }).click();
  await finding.getByRole('textbox').fill('Any of them, for nights.');
  await finding.getByRole('button', { name: 'Save' }).click();
  await expect(finding).toContainText('Any of them, for nights.');
  await undo(page);
  await expect(finding).not.toContainText('Any of them, for nights.');
});

test('@long @first undo moves a lane and a run of the calendar back, takes a reading and a correction back, and refuses what changed since', async ({
  page,
  context,
}) => {
  test.setTimeout(300_000);
  await bringShelf(page, ['Sedge 5', 'Heron 3'], ['Cobble 20', 'Quern 30']);
  await startRun(page, 'Sedge 5', 'Cobble 20', '10');
  await startRun(page, 'Heron 3', 'Quern 30', '10');
  const lanes = page.getByRole('article');
  await expect(lanes.first()).toContainText('Sedge 5');
  await page.getByRole('button', { name: /^Move lane A/ }).press('ArrowDown');
  await expect(lanes.first()).toContainText('Heron 3');
  await undo(page);
  await expect(lanes.first()).toContainText('Sedge 5');
  // A reading that was logged.
  await log(page, '20');
  await undo(page);
  await saidUndone(page);
  // What is undone while its run is compared is compared anew.
  await page.goto(`${DEMO}/runs/saltmarsh-3`);
  await page.getByRole('button', { name: /^Strike the reading at 5 min/ }).click();
  await page.getByRole('dialog').getByRole('textbox').fill('slip');
  await page.getByRole('dialog').getByRole('button', { name: 'Strike it' }).click();
  await expect(page.getByText('struck: slip')).toBeVisible();
  await page.getByRole('navigation', { name: 'Places' }).getByRole('link', { name: 'Compare' }).click();
  await press(page, 'Van chargers, round one');
  const seen = page.locator('main').getByRole('table').filter({ hasText: 'over time' }).getByRole('row');
  await expect(seen.first()).toBeAttached();
  const before = await seen.count();
  await undo(page);
  await saidUndone(page);
  await expect.poll(() => seen.count()).toBeGreaterThan(before);
  // A run of a calendar that was pinned, and gear of a run that was corrected.
  await page.goto(`${DEMO}/plan/saltmarsh-chargers/calendar`);
  const pins = page.getByRole('button', { name: /^Pin / });
  await expect(page.getByRole('progressbar', { name: 'Searching' })).toHaveCount(0, { timeout: 60_000 });
  await pins.first().click();
  await expect(page.getByRole('button', { name: /^Let go of / })).toHaveCount(1);
  await undo(page);
  await expect(page.getByText('Undone: Moved a run in the calendar.')).toBeVisible();
  await expect(page.getByRole('button', { name: /^Let go of / })).toHaveCount(0);
  await page.goto(`${DEMO}/runs/saltmarsh-1`);
  await doMore(page, 'Correct its gear');
  await choose(page, 'It was really', 'Quern 65');
  await page.getByRole('button', { name: 'Correct it', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Sedge 5 on Quern 65' })).toBeVisible();
  await undo(page);
  await expect(page.getByRole('heading', { name: 'Sedge 5 on Cobble 12' })).toBeVisible();
  await page.goto('/bench?shelf=charger');
  await page
    .getByRole('row', { name: /Cobble 20/ })
    .getByRole('button', { name: /Retire/ })
    .click();
  await expect(page.getByRole('row', { name: /Cobble 20/ })).toHaveCount(0);
  const other = await context.newPage();
  await other.goto('/bench?shelf=charger');
  await other.getByLabel('Show what is retired').check();
  await other.getByRole('button', { name: /Put Cobble 20 back/ }).click();
  await expect(page.getByRole('row', { name: /Cobble 20/ })).toHaveCount(1);
  await undo(page);
  await expect(page.getByText('Cobble 20 was changed since. Nothing was undone.')).toBeVisible();
  await expect(page.getByRole('row', { name: /Cobble 20/ })).toHaveCount(1);
});
