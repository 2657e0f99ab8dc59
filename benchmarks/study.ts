import { expect, type Page } from '@playwright/test';
import type { Charger, Device } from '../core/bench';
import { logbookOf, writeLogbook } from '../core/exchange';
import { SCHEMA } from '../core/ink';
import type { Study } from '../core/plan';
import { expectationOf } from '../core/power';
import { expectedCharge } from '../core/simulate';
import { finished, importFile } from '../e2e/person';
import { atMost, inColdBrowser, type Figure } from './harness';

/** Three phones on five chargers, a run of each, raced where they share no gear. */
const DEVICES: Device[] = [
  { id: 'sedge', name: 'Sedge 5', kind: 'phone', milliampHours: 4500, nominalVolts: 3.85, inputLimit: 25, deliveryVolts: 9 },
  { id: 'heron', name: 'Heron 3', kind: 'phone', milliampHours: 3400, nominalVolts: 3.85, inputLimit: 18, deliveryVolts: 9 },
  { id: 'rush', name: 'Rush 7', kind: 'phone', milliampHours: 5000, nominalVolts: 3.87, inputLimit: 30, deliveryVolts: 9 },
];
const CHARGERS: Charger[] = [
  [12, '5V⎓2.4A', 9],
  [15, '5V⎓3A', 12],
  [20, '5V⎓3A 9V⎓2.22A', 19],
  [30, '5V⎓3A 9V⎓3A', 34],
  [65, '5V⎓3A 9V⎓3A 15V⎓3A 20V⎓3.25A', 59],
].map(([watts, label, price]) => ({
  id: `brick-${watts ?? 0}`,
  name: `Brick ${watts ?? 0}`,
  kind: 'adapter' as const,
  watts: Number(watts),
  ports: [{ connector: 'USB-C' as const, label: String(label) }],
  price: Number(price),
  weight: 40 + Number(watts),
}));
const CHECK = 600;
const START = 2;
const STUDY: Study = {
  schema: SCHEMA,
  id: 'fifteen',
  name: 'Fifteen',
  question: 'Which charger for which phone?',
  method: 'fixed-interval',
  cadence: { kind: 'fixed', every: CHECK },
  startLevel: START,
  devices: DEVICES.map(({ id }) => id),
  chargers: CHARGERS.map(({ id }) => id),
  cables: [],
  meters: [],
  states: ['asleep'],
  crossed: [],
  repeats: 1,
  order: 'as listed',
  seed: 1,
  races: true,
  conditions: [],
};

/** What a person takes for a press of the pointer, thought included, and for a letter typed (Card, Moran & Newell 1980, keystroke-level model, from memory). */
const PERSON = { press: 1.1 + 0.2 + 1.35, letter: 0.28 };

/** The level that a phone shows so many seconds after its plug-in. */
function levelOf(device: Device, charger: Charger): (seconds: number) => number {
  const expected = expectedCharge(expectationOf(device, charger).negotiated, START);
  if (!expected) throw new Error(`${device.name} is not expected to charge on ${charger.name}.`);
  return (seconds) => {
    const row = expected.seconds.findLastIndex((at) => at <= seconds);
    return Math.min(100, Math.floor(expected.percent[Math.max(0, row)] ?? START));
  };
}

/** Plays the next race of the study to its end. @returns how long each of its runs was plugged in, and how long somebody had to be there, in seconds */
async function playRace(page: Page, own: string): Promise<{ runs: number[]; attended: number } | undefined> {
  await page.goto(`${own}plan/${STUDY.id}`);
  const next = page.getByRole('link', { name: /^Next/ });
  const done = page.getByRole('link', { name: /^Compare its 15 runs/ });
  await expect(next.or(done)).toBeVisible();
  if (await done.isVisible()) return undefined;
  await next.click();
  await page.getByRole('button', { name: 'Ready' }).click();
  await page.getByRole('button', { name: /Plug in now|Switch the strip on now/ }).waitFor();
  await page.keyboard.press('Space');
  const lanes = page.getByRole('article');
  await lanes.first().waitFor();
  const names = await lanes.evaluateAll((all) => all.map((each) => each.getAttribute('aria-label') ?? ''));
  const live = names.map((name) => {
    const device = DEVICES.find((each) => name.includes(`${each.name} on `));
    const charger = CHARGERS.find((each) => name.replace(/\.$/, '').endsWith(each.name));
    if (!device || !charger) throw new Error(`Nobody knows what is charged in ${name}.`);
    return { device, level: levelOf(device, charger), isDone: false };
  });
  const runs: number[] = [];
  for (let seconds = CHECK; live.some(({ isDone }) => !isDone); seconds += CHECK) {
    await page.clock.fastForward(CHECK * 1000);
    for (const lane of live.filter(({ isDone }) => !isDone)) {
      const level = lane.level(seconds);
      const field = page.getByRole('textbox', { name: new RegExp(`Reading of ${lane.device.name}`) });
      // Lanes are called by their letters, which follow their places.
      const label = await page.getByRole('article', { name: new RegExp(`${lane.device.name} on `) }).getAttribute('aria-label');
      const letter = /^Lane ([A-Z])/.exec(label ?? '')?.[1];
      const pick = async () => {
        await page.keyboard.press('Escape');
        if (letter) await page.keyboard.press(letter.toLowerCase());
      };
      await pick();
      await field.fill(String(level));
      await field.press('Enter');
      await expect(page.getByLabel('Due line').locator('.answer')).toContainText('Logged at');
      if (level < 100) continue;
      // The due line has gone on to the next lane.
      await pick();
      await page.keyboard.press('s');
      await page.getByRole('button', { name: 'Stop the run' }).click();
      await expect(
        page
          .getByText(/^Stopped: /)
          .or(page.getByRole('heading', { name: 'When it reached' }))
          .first(),
      ).toBeVisible();
      runs.push(seconds);
      lane.isDone = true;
    }
  }
  return { runs, attended: Math.max(...runs) };
}

/** From the last reading to a written verdict: what the page takes, and what its reader takes for the presses and the words. In seconds. */
async function writeVerdict(page: Page, own: string): Promise<number> {
  await page.clock.resume();
  const began = performance.now();
  let presses = 0;
  const press = async (role: 'link' | 'button', name: RegExp | string) => {
    presses += 1;
    await page.getByRole(role, { name }).first().click();
  };
  await page.goto(`${own}plan/${STUDY.id}`);
  await press('link', /^Compare its 15 runs/);
  await press('button', 'The whole verdict');
  await press('button', 'Edit: To 80 %');
  const words = 'Buy the 20 W one: what is dearer shows no gain that matters.';
  await page.getByLabel('To 80 %, in your own words').fill(words);
  presses += 1;
  await page.getByRole('region', { name: 'Verdict in full' }).getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('region', { name: 'Verdict in full' })).toContainText(words);
  return (performance.now() - began) / 1000 + (presses + 1) * PERSON.press + words.length * PERSON.letter;
}

/** From the verdict to a page that could go out: written up, one sentence in one’s own words, who lent what, and the file in hand. In seconds, as above. */
async function writePiece(page: Page): Promise<number> {
  const began = performance.now();
  let presses = 0;
  const press = async (name: RegExp | string) => {
    presses += 1;
    await page
      .getByRole('button', { name, exact: typeof name === 'string' })
      .first()
      .click();
  };
  await press('Write it up');
  await expect(page.getByRole('button', { name: 'Export', exact: true })).toBeEnabled();
  await press('Edit The short answer');
  const words = 'Buy the 20 W one, and keep the change for a good cable.';
  await expect(page.getByRole('textbox', { name: 'The short answer, in your own words' })).toBeFocused();
  await page.keyboard.type(words);
  await press('Done');
  await expect(page.locator('#block-short')).toContainText(words);
  await press('Say it once');
  await press('Nothing was lent');
  await press('Save');
  await press('Export');
  const download = page.waitForEvent('download');
  presses += 2;
  const sheet = page.getByRole('dialog', { name: 'Export' });
  await sheet.getByRole('radio', { name: /^Web page/ }).check();
  await sheet.getByRole('button', { name: 'Export', exact: true }).click();
  await download;
  return (performance.now() - began) / 1000 + presses * PERSON.press + words.length * PERSON.letter;
}

/** Fifteen runs played through the interface: attended hours beside one run after another, and seconds from the last reading to a written verdict. */
export function study({ own }: { own: string }): Promise<Figure[]> {
  return inColdBrowser(async (context) => {
    const page = context.pages()[0] ?? (await context.newPage());
    await page.clock.install({ time: new Date('2026-10-05T08:00:00Z') });
    await page.goto(`${own}runs`);
    // With a run beside it: a study alone is one to repeat, and asks for gear.
    await importFile(
      page,
      'book.json',
      writeLogbook(logbookOf({ devices: DEVICES, chargers: CHARGERS, studies: [STUDY] }, [finished('before', [5, 60])])),
    );
    const races: { runs: number[]; attended: number }[] = [];
    for (let race = await playRace(page, own); race; race = await playRace(page, own)) races.push(race);
    const hours = (seconds: readonly number[]) => seconds.reduce((sum, each) => sum + each, 0) / 3600;
    const [attended, alone] = [hours(races.map((race) => race.attended)), hours(races.flatMap(({ runs }) => runs))];
    const verdict = await writeVerdict(page, own);
    const piece = await writePiece(page);
    return [
      atMost(0.5, {
        name: 'study',
        value: attended / alone,
        unit: 'ratio',
        worst: `${races.flatMap(({ runs }) => runs).length} runs in ${races.length} races: ${attended.toFixed(1)} attended hours beside ${alone.toFixed(1)} one after another`,
      }),
      atMost(60, {
        name: 'study, to a verdict',
        value: verdict,
        unit: 's',
        worst: 'from the last reading: waits of the page, presses and words by the keystroke-level model',
      }),
      atMost(120, {
        name: 'study, to a page',
        value: piece,
        unit: 's',
        worst: 'from the verdict: written up, a sentence of one’s own, who lent what, a web page in hand; by the same model',
      }),
    ];
  });
}
