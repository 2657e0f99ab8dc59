import { type Charger, type Device } from '../core/bench';
import { SCHEMA } from '../core/ink';
import {
  attended,
  schedule,
  oneAfterAnother,
  studySetupsOf,
  tallyOf,
  usualCalendar,
  type GearAtHand,
  type Schedule,
  type Placed,
  type Study,
} from '../core/plan';
import { atMost, inColdBrowser, type Figure } from './harness';
import type { PlanTimes } from './pages/plan/main';

/** A Monday, so that five attended stretches make a week. */
const FROM = '2027-03-01';
const NOW = new Date(2027, 2, 1).getTime() / 1000;

const DEVICES: Device[] = [17, 18.6, 20, 31, 38, 54].map((wattHours, index) => ({
  id: `d${index}`,
  name: `device ${index + 1}`,
  kind: index < 3 ? 'phone' : index < 5 ? 'tablet' : 'laptop',
  wattHours,
  inputLimit: [25, 40, 18, 30, 45, 65][index],
  deliveryVolts: 20,
  connectors: ['USB-C'],
}));
const CHARGERS: Charger[] = [20, 25, 30, 30, 45, 45, 65, 100].map((watts, index) => ({
  id: `c${index}`,
  name: `charger ${index + 1}`,
  kind: 'adapter',
  watts,
}));
const GEAR: GearAtHand = {
  devices: DEVICES,
  chargers: CHARGERS,
  cables: [],
  meters: ['m0', 'm1'].map((id) => ({ id, name: `meter ${id}` })),
};

/** Each device on five of the chargers, twice: 60 runs. */
const STUDY: Study = {
  schema: SCHEMA,
  id: 'benchmark',
  name: 'sixty runs',
  question: 'Which charger?',
  method: 'fixed-interval',
  cadence: { kind: 'fixed', every: 300 },
  startLevel: 5,
  devices: DEVICES.map(({ id }) => id),
  chargers: CHARGERS.map(({ id }) => id),
  cables: [],
  meters: ['m0', 'm1'],
  states: ['asleep'],
  crossed: DEVICES.flatMap((_, device) =>
    [0, 1, 2].map((step) => ({ cell: `d${device}/c${(device + 3 * step) % 8}//asleep`, reason: 'not of interest' })),
  ),
  repeats: 2,
  order: 'counterbalanced',
  seed: 1,
  races: false,
  conditions: [],
  calendar: { ...usualCalendar(FROM), drain: 1800 },
};

/** How many attended stretches go by until all is done. */
const windowsOf = (placed: readonly Placed[], { problem }: Schedule) => {
  const finish = Math.max(...placed.map(({ end }) => end));
  return problem.windows.filter(({ from }) => from < finish).length;
};

/** The attended stretches that a fixed study of 60 runs takes, beside the proven bound, and beside the same runs one after another. */
export function planFigure({ plan: address }: { plan: string }): Promise<Figure[]> {
  return inColdBrowser(async (context) => {
    const lay = schedule(STUDY, studySetupsOf(STUDY, GEAR), GEAR, [], NOW);
    const weeks = attended(STUDY.calendar?.hours ?? [], FROM, NOW, 7).length;
    const page = context.pages()[0] ?? (await context.newPage());
    await page.goto(new URL('/live', address).href);
    const { found, seconds } = await page.evaluate(
      ({ problem, order }) =>
        (window as unknown as { measure: (problem: object, order: string[]) => Promise<PlanTimes> }).measure(problem, order),
      { problem: { ...lay.problem, pins: [] }, order: lay.order },
    );
    const alone = oneAfterAnother(lay) ?? [];
    const told = (placed: readonly Placed[]) => {
      const tally = tallyOf(placed, lay.problem);
      return `${(tally.attended / 3600).toFixed(1)} attended hours, ${tally.days} calendar days`;
    };
    const used = windowsOf(found.placed, lay);
    const least = found.bound?.windows ?? Number.NaN;
    const worst =
      `${lay.problem.jobs.length} runs, ${weeks} attended windows a week: ${used} windows beside ${least} proven (${found.bound?.resource ?? ''}); ` +
      `${told(found.placed)}; one after another ${told(alone)}; ${seconds.toFixed(1)} s in the worker, ${found.tried} plans tried`;
    return [atMost(1.1, { name: 'plan', value: used / least, unit: 'ratio', worst })];
  });
}
