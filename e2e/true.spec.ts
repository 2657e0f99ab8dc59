import { expect, test } from '@playwright/test';
import type { Draft } from '../core/ink';
import {
  addCharger,
  addDevice,
  bookOf,
  bringShelf,
  compareAll,
  figure,
  importFile,
  log,
  runOf,
  startRun,
  stopRun,
  type Row,
} from './person';

/** Where figures met badly: what is true of each is still true where two come together. */

const drumlin = { id: 'drumlin', name: 'Drumlin', kind: 'dock' as const, watts: 45 };
const quern = { id: 'quern', name: 'Quern 65', kind: 'adapter' as const, watts: 65 };

const every10 = (percents: readonly number[], watts: number): Row[] =>
  percents.map((percent, index) => ({ minutes: 10 * index, percent, watts }));
const SLOW = [10, 20, 30, 40, 50, 60, 70, 80, 90, 100];
const FAST = [10, 30, 50, 70, 80, 90, 95, 98, 99, 100];

test('a run that was swapped stands by itself beside those that were not @true', async ({ page }) => {
  const swapped: Draft = { kind: 'event', event: 'swapped', at: 60_000, source: { charger: quern } };
  const runs = [
    runOf('one', drumlin, every10(SLOW, 40)),
    runOf('two', drumlin, every10(SLOW, 40)),
    runOf('swapped', drumlin, [{ minutes: 0, percent: 10, watts: 40 }, ...every10(FAST, 62).slice(1)], [swapped]),
    runOf('quern', quern, every10(FAST, 62)),
  ];
  await page.goto('/runs');
  await importFile(page, 'swaps.json', bookOf(runs));
  const name = 'Drumlin, then Quern 65 from 1 min';
  await expect(page.getByText(name).first()).toBeVisible();
  await page.goto('/compare?runs=one.two.swapped.quern&cols=level-80,peak');
  const row = (of: string) => page.getByRole('row', { name: new RegExp(`^${of} from`) });
  await expect(row(name)).toContainText('several sources fed it: not ranked');
  // The true repeats are two, and their mean is theirs alone.
  await expect(row('Drumlin')).toContainText('mean of 2');
  await expect(row('Quern 65')).not.toContainText('mean of');
  await page.getByRole('button', { name: 'The whole verdict' }).click();
  await expect(page.getByLabel('Verdict', { exact: true }).getByText(name)).toHaveCount(0);
  await page.goto('/runs/swapped');
  await expect(page.getByRole('heading', { level: 1 })).toContainText(name);
  await expect(figure(page, 'Peak, highest single reading')).toContainText('on Quern 65');
});

test('windows that were read three seconds late are told apart @true', async ({ page }) => {
  const late = (percents: readonly number[]): Row[] =>
    [0, 15, 30, 60].map((minutes, index) => ({ minutes: minutes + (index === 0 ? 0 : 0.05), percent: percents[index] ?? 0 }));
  await page.goto('/runs');
  await importFile(
    page,
    'windows.json',
    bookOf([runOf('fast', quern, late([0, 45, 70, 95])), runOf('slow', drumlin, late([0, 33, 58, 84]))]),
  );
  await page.goto('/compare?runs=fast.slow&cols=gain-900,gain-1800,gain-3600&level=gain-900');
  const quick = page.getByRole('row', { name: /^Quern 65/ });
  await expect(quick).toContainText('45 points');
  await expect(quick).toContainText('± 1');
  await expect(page.getByRole('region', { name: 'In short' })).toContainText(/^Most: Quern 65, 45 points in 15 min/);
});

test('power that falls evenly is one taper @true', async ({ page }) => {
  const rows = Array.from({ length: 101 }, (_, minute) => ({
    minutes: minute,
    watts: 28 * (1 - minute / 100),
    ...(minute % 10 === 0 && { percent: minute }),
  }));
  await page.goto('/runs');
  await importFile(page, 'taper.json', bookOf([runOf('taper', quern, rows)]));
  await page.goto('/runs/taper');
  await expect(figure(page, '1. Taper')).toContainText('→ 0');
  await expect(figure(page, '3. Taper')).toHaveCount(0);
});

test('@long a charge light that was watched going out is known to seconds @true', async ({ page }) => {
  await page.clock.install({ time: new Date('2026-10-05T12:00:00Z') });
  await page.goto('/bench');
  await addDevice(page, 'Curlew', '1200', '3.6');
  await addCharger(page, 'Cobble 12', '12');
  await startRun(page, 'Curlew', 'Cobble 12');
  await page.clock.fastForward('10:00');
  await log(page, 'light on');
  await page.clock.fastForward('03:00:00');
  await log(page, 'light out!');
  await stopRun(page, 'Light out');
  await expect(figure(page, 'Light out')).toContainText('3 h 10');
  await expect(figure(page, 'Light out')).toContainText('between');
});

// trade.md, Sums: battery Wh × share ÷ (Wh sampled ÷ minutes sampled): 54 Wh × 50 % ÷ (3 Wh ÷ 5 min) = 45 min.
test('@long @true one Wh figure read at the end of five minutes is a sample, and setups are carried on from one level', async ({
  page,
}) => {
  await page.clock.install({ time: new Date('2026-10-05T12:00:00Z') });
  await bringShelf(page, [{ name: 'Teasel 14', kind: 'laptop', wattHours: 54, inputLimit: 65 }], ['Quern 30', 'Quern 45']);
  const zeroed = page.getByLabel('I set its Wh counter to zero as I plug in');
  for (const [name, start, wattHours] of [
    ['Quern 30', '40', '2.01'],
    ['Quern 45', '12', '3.01'],
  ] as const) {
    // Asked once: the second time it is as it was left.
    await startRun(page, 'Teasel 14', name, start, 'Energy sample', async () => {
      if (name === 'Quern 30') await zeroed.check();
      await expect(zeroed).toBeChecked();
    });
    await page.clock.fastForward('05:00');
    // Seen on the minute, however long a slow machine takes to type it.
    await log(page, `${wattHours}wh @5:00`);
    await stopRun(page, 'Window over');
  }
  await expect(figure(page, 'Mean by energy sample')).toContainText(/36\.[01] W/);
  await compareAll(page, 2);
  await expect(page.getByRole('row', { name: /^Quern 45/ })).toContainText(/45 min± \d minno loss, no taper/);
  await expect(page.getByRole('row', { name: /^Quern 30/ })).toContainText(/1 h 07± \d minno loss, no taper/);
});

test('@true the workloads of a load test are never averaged, over two sources of one run or over runs of other work', async ({ page }) => {
  const works = ['idle', 'office', 'video', 'graphics', 'render'];
  const loaded = (id: string, names: readonly string[], watts: readonly number[], more: readonly Draft[] = []) =>
    runOf(
      id,
      drumlin,
      names.flatMap((_, at) => [1, 5, 9].map((minute) => ({ minutes: 10 * at + minute, watts: watts[at] ?? 0, percent: 40 }))),
      [
        ...names.flatMap((remark, at): Draft[] => [
          { kind: 'event', event: 'work started', remark, at: 600_000 * at },
          { kind: 'event', event: 'work ended', remark, at: 600_000 * (at + 1) - 1000 },
        ]),
        ...more,
      ],
    );
  const swapped: Draft = { kind: 'event', event: 'swapped', at: 30 * 60_000, source: { charger: quern } };
  await page.goto('/runs');
  await importFile(
    page,
    'loads.json',
    bookOf([
      loaded('five', works, [18, 22, 26, 44, 60], [swapped]),
      loaded('two', ['idle', 'graphics'], [20, 45]),
      loaded('other', ['idle', 'render'], [20, 45]),
    ]),
  );
  await page.goto('/runs/five');
  const done = page.getByRole('region', { name: 'Workloads' });
  for (const [at, name] of works.entries()) {
    const row = done.getByRole('row', { name: new RegExp(`^${name}`) });
    await expect(row).toContainText([18, 22, 26, 44, 60][at]?.toFixed(1) ?? '');
    await expect(row).toContainText(at < 3 ? 'Drumlin' : 'Quern 65');
  }
  // The watts of the first source are not those of the second, nor of all that was done.
  await expect(page.getByRole('complementary', { name: 'Figures' })).not.toContainText('34.0 W');

  await page.goto('/compare?runs=five.two.other&cols=peak,energy');
  const setup = (of: string) => page.getByRole('row', { name: new RegExp(`^${of}`) });
  await expect(setup('Drumlin, then Quern 65 from 30 min')).toContainText('several sources fed it: not ranked');
  // Other work makes another setup: two of one charger, and no mean of the two.
  await expect(setup('Drumlin')).toHaveCount(3);
  // The same work on the same source was repeated, and is the only mean there is.
  await expect(page.getByRole('rowheader', { name: /mean of [23]/ })).toHaveText([/^\s*idle · mean of 3\s*$/]);
});
