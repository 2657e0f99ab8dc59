import { expect, test, type Page } from '@playwright/test';
import type { Draft, Header, Trial } from '../core/ink';
import { bookOf, DEMO, importFile, isReady, runOf, type Row } from './person';

/** The answer first, and findings beneath it that say nothing against it. */

const inShort = (page: Page) => page.getByRole('region', { name: 'In short' });
const finding = (page: Page, title: string) =>
  page
    .getByRole('region', { name: 'Verdict in full' })
    .getByRole('listitem')
    .filter({ has: page.getByRole('heading', { name: title, exact: true }) });
const press = (page: Page, name: string) => page.getByRole('button', { name, exact: true }).click();
const adapter = (name: string, watts: number) => ({ id: name.replaceAll(' ', '-'), name, kind: 'adapter' as const, watts });
/** Levels every ten minutes. */
const levels = (...percents: number[]): Row[] => percents.map((percent, index) => ({ minutes: 10 * index, percent }));

async function compare(page: Page, runs: Parameters<typeof bookOf>[0], query = ''): Promise<void> {
  await page.goto('/runs');
  await importFile(page, 'runs.json', bookOf(runs));
  await page.goto(`/compare?runs=${runs.map(({ header }) => header.id).join('.')}${query}`);
}

test('@said a phone study has its answer first, on every picture, in the verdict and on the study, and it is one', async ({ page }) => {
  await page.goto(`${DEMO}/compare`);
  await isReady(page);
  await press(page, 'Van chargers, round one');
  await expect(inShort(page)).toContainText('Fastest to full: ');
  await expect(inShort(page)).toContainText('For the money: Cobble 20, most of the gain for £25.');
  await expect(inShort(page)).toContainText(/Sure to at least 19 in 20, .* By the time to 100 %, of 7 runs\./);
  const answer = await inShort(page).innerText();
  for (const picture of ['Bars', 'Matrix', 'Verdict']) {
    await press(page, picture);
    await expect(inShort(page)).toHaveText(answer.replaceAll('\n', ''), { useInnerText: false });
  }
  // The findings that weigh most tell why; the rest when asked. Full time and night have one value of one time.
  await expect(finding(page, 'Worth')).toContainText('Counted: Cobble 20 £19, Short cable £6.');
  await expect(finding(page, 'Overnight')).not.toContainText('The slowest of them');
  await press(page, 'Why: Overnight');
  await expect(finding(page, 'Overnight')).toContainText('The slowest of them, Cobble 12, takes 2 h 43');
  await press(page, 'Curves');
  const side = page.getByRole('region', { name: 'Figures side by side' });
  await expect(side.getByRole('row', { name: /^Cobble 12/ })).toContainText('2 h 43');
  await page.goto(`${DEMO}/plan`);
  await page.getByRole('link', { name: 'Van chargers, round one' }).first().click();
  await expect(inShort(page)).toContainText('Fastest to full: ');
});

test('@said a window study goes by its window, and says of 100 % only what was asked', async ({ page }) => {
  const rule: Header['rule'] = { ends: 'window', wants: ['level'] };
  const window = (id: string, watts: number, ...percents: number[]) =>
    runOf(id, adapter(`Quern ${watts}`, watts), levels(...percents), [], { rule, cadence: { kind: 'marks', at: [600, 1200, 1800] } });
  await compare(page, [window('slow', 20, 5, 12, 19, 26), window('fast', 65, 5, 25, 45, 62)]);
  await expect(inShort(page)).toContainText(/^Most: Quern 65, 57 points in 30 min, 36 ± \d points more than Quern 20\./);
  await expect(page.getByText('100 %', { exact: false }).and(inShort(page))).toHaveCount(0);
  await page.goto(`${new URL(page.url()).pathname}?runs=slow.fast&level=100`);
  await expect(inShort(page)).toContainText('Too few were seen at 100 %. Most: Quern 65, 57 points in 30 min');
});

test('@said one run that was loaded on a dock and on its adapter has its verdict by itself', async ({ page }) => {
  const [dock, own] = [{ id: 'drumlin', name: 'Drumlin', kind: 'dock' as const, watts: 45 }, adapter('Quern 65', 65)];
  const works = ['idle', 'graphics', 'idle', 'graphics'];
  const scored = (minutes: number, value: number): Draft => ({
    kind: 'event',
    event: 'work ended',
    remark: 'graphics',
    at: minutes * 60_000 - 1000,
    scores: [{ name: 'frames', value, unit: 'fps', better: 'more' }],
  });
  const run = runOf(
    'load',
    dock,
    works.flatMap((_, at) => [1, 5, 9].map((minute) => ({ minutes: 10 * at + minute, watts: at % 2 === 0 ? 20 : 44, percent: 40 }))),
    [
      ...works.map((remark, at): Draft => ({ kind: 'event', event: 'work started', remark, at: 600_000 * at })),
      { kind: 'event', event: 'work ended', remark: 'idle', at: 599_000 },
      scored(20, 30),
      { kind: 'event', event: 'swapped', at: 1_200_000, source: { charger: own } },
      { kind: 'event', event: 'work ended', remark: 'idle', at: 1_799_000 },
      scored(40, 41),
    ],
  );
  await compare(page, [run]);
  await expect(page.getByRole('heading', { name: 'Sedge 5, source by source' })).toBeVisible();
  await expect(finding(page, 'Does it slow it down')).toContainText('Yes: Drumlin in graphics');
  await expect(finding(page, 'Does it slow it down')).toContainText('Drumlin scores surely worse in graphics (frames).');
  await expect(page.getByRole('region', { name: 'Workloads by source' }).getByRole('row', { name: /^idle/ })).toHaveCount(2);
});

test('@said a spot check ends in a ranking and a sentence, and says once what was not seen', async ({ page }) => {
  const trial = (name: string, status: Trial['status'], state: Trial['state'], at: number) =>
    ({ kind: 'trial', source: { charger: adapter(name, 20) }, state, status, at: at * 60_000 }) as Draft;
  const run = runOf(
    'spot',
    adapter('Cobble 12', 12),
    [{ minutes: 0, percent: 40 }],
    [
      trial('Cobble 12', 'drains', 'awake', 1),
      trial('Cobble 12', 'slow', 'asleep', 2),
      trial('Sluice 40', 'not charging', 'awake', 3),
      ...['Quern 30', 'Quern 45', 'Quern 65', 'Drumlin'].map((name, at) => trial(name, 'fast', 'awake', 4 + at)),
      trial('Haversack', 'charges', 'awake', 9),
    ],
    { list: [] },
  );
  await page.goto('/runs');
  await importFile(page, 'spot.json', bookOf([run]));
  await page.goto('/runs/spot');
  await expect(
    page.getByText('fast: four; charges, how fast not seen: Haversack; only asleep: Cobble 12; Sluice 40 connects and does not charge.'),
  ).toBeVisible();
  await expect(page.getByText(/^Whether the level moves was not seen of \d of these: /)).toHaveCount(1);
  const rows = page.getByRole('region', { name: 'Compatibility' }).getByRole('row');
  await expect(rows.nth(1)).toContainText('Quern 30');
  await expect(rows.last()).toContainText('Sluice 40');
});

test('@said a camera’s answer says when it was full and what it takes at most', async ({ page }) => {
  const device: Header['device'] = { id: 'tern', name: 'Tern 2', kind: 'camera' };
  const camera = (id: string, watts: number, minutes: number) =>
    runOf(
      id,
      adapter(`Hutch ${watts}`, watts),
      [
        { minutes: 0, watts: Math.min(watts, 7.4) },
        { minutes: minutes - 30, watts: Math.min(watts, 7.4) },
      ],
      [
        { kind: 'event', event: 'light on', at: (minutes - 4) * 60_000 },
        { kind: 'event', event: 'light off', at: minutes * 60_000 },
      ],
      { device },
    );
  await compare(page, [camera('own', 5, 226), camera('bank', 10, 170)]);
  await expect(inShort(page)).toContainText(/^Fastest: Hutch 10, .* to full/);
  await expect(inShort(page)).toContainText('Tern 2 takes 7.4 W at most.');
});

test('@long @said five phones have a sentence each and one charger for all; bars name the charger under its device', async ({ page }) => {
  const chargers = [
    adapter('Cobble 12', 12),
    adapter('Cobble 20', 20),
    adapter('Quern 30', 30),
    adapter('Quern 45', 45),
    adapter('Quern 65', 65),
  ];
  const phones = ['Sedge 5', 'Heron 3', 'Bittern 7', 'Avocet 2', 'Curlew 9'];
  const runs = phones.flatMap((name, at) =>
    chargers.map((charger, place) => {
      const pace = 9 + 3 * place + at;
      const percents = Array.from({ length: 14 }, (_, step) => Math.min(100, 2 + pace * step));
      return runOf(`p${at}c${place}`, charger, levels(...percents.slice(0, percents.indexOf(100) + 1 || 14)), [], {
        device: { id: `d${at}`, name, kind: 'phone' },
      });
    }),
  );
  await compare(page, runs, '&show=bars&bars=Times');
  for (const phone of phones) await expect(inShort(page)).toContainText(`${phone}: Fastest`);
  await expect(inShort(page)).toContainText(/One for all: Quern 65/);
  const block = page.getByRole('region', { name: 'Time to 80 %' });
  await expect(block.getByRole('heading', { level: 3 })).toHaveText(phones);
  await expect(block.getByRole('list', { name: 'Heron 3' }).getByRole('listitem').first()).toContainText('Quern 65');
  for (const width of [1280, 390]) {
    await page.setViewportSize({ width, height: 800 });
    // No name is cut, and none lies under its value.
    const cut = await block
      .locator('.name > span:last-child')
      .evaluateAll((names) => names.filter((name) => name.scrollWidth > name.clientWidth + 1).length);
    expect(cut).toBe(0);
  }
});
