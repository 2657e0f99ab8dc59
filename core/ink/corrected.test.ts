import { expect, it } from 'vitest';
import type { Cable } from '../bench/cable';
import { inkOf } from './build';
import { carried } from './corrected';
import type { Entry, Source } from './entry';
import { eventInWords, whatChanged } from './entrySays';
import { exampleHeader } from './example';
import { foldRun } from './fold';
import { chargedBy } from './sequence';

const cable = (name: string): Cable => ({ id: name, name, chargerEnd: 'USB-C', deviceEnd: 'USB-C', marker: 'none' });
const quern = {
  id: 'q',
  name: 'Quern 30',
  kind: 'adapter' as const,
  watts: 30,
  ports: [{ connector: 'USB-C' as const, name: 'left' }, { connector: 'USB-C' as const }],
};
const puddle = { id: 'p', name: 'Puddle', kind: 'pad' as const };
const short: Source = { charger: quern, cable: cable('Short'), port: 0 };

it.each<[string, Source, string[]]>([
  ['another charger', { charger: puddle, feed: { charger: quern } }, ['Puddle fed by Quern 30']],
  ['a cable', { ...short, cable: cable('Long') }, ['cable Long']],
  ['no cable', { charger: quern, port: 0 }, ['without the cable']],
  ['a port', { ...short, port: 1 }, ['port 2']],
  ['nothing', { ...short }, []],
  ['all but the charger', { ...short, cable: cable('Long'), port: 1 }, ['cable Long', 'port 2']],
])('names what a swap changed: %s', (_, after, says) => {
  expect(whatChanged(short, after)).toEqual(says);
});

it('names the feeder that was changed alone', () => {
  expect(
    whatChanged(
      { charger: puddle, feed: { charger: quern } },
      { charger: puddle, feed: { charger: { ...quern, id: 'x', name: 'Cobble' } } },
    ),
  ).toEqual(['fed by Cobble']);
});

const header = exampleHeader({ charger: quern, cable: cable('Short'), port: 0 });
const swap = (source: Source, seq: number, remark?: string): Entry => ({
  ...{ kind: 'event', seq, id: `s${seq}`, at: header.plugInAt + 600_000, written: header.plugInAt, event: 'swapped', source },
  ...(remark !== undefined && { remark }),
});
const rows = inkOf(header, [
  { seconds: 0, percent: 10 },
  { seconds: 1200, percent: 40 },
]);

it('tells a run whose cable alone was swapped by that cable', () => {
  const run = foldRun(header, [...rows, swap({ ...short, cable: cable('Long') }, 90, 'cable Long')]);
  expect(chargedBy(run)).toBe('Quern 30, then Quern 30 (cable Long) from 10 min');
  const [event] = run.events;
  expect(event && eventInWords(event)).toMatch(/, cable Long$/);
  // In older ink only what it was swapped to stands.
  const [old] = foldRun(header, [...rows, swap(short, 90)]).events;
  expect(old && eventInWords(old)).toMatch(/, to Quern 30$/);
});

it('corrects gear that was swapped in, and says what it was before', () => {
  const wrong = { ...puddle, watts: 5 };
  const right = { ...puddle, watts: 15 };
  const correction: Entry = {
    kind: 'correction',
    seq: 95,
    id: 'c',
    at: header.plugInAt,
    written: header.plugInAt,
    shelf: 'charger',
    gear: right,
    was: 'p',
  };
  const run = foldRun(header, [...rows, swap({ charger: wrong }, 90), correction]);
  expect(run.sources.at(-1)?.charger).toEqual(right);
  expect(run.corrections).toMatchObject([{ before: wrong }]);
  expect(carried(run.header, run.sources).map(({ shelf, gear }) => `${shelf} ${gear.name}`)).toEqual([
    `device ${header.device.name}`,
    'charger Quern 30',
    'cable Short',
    'charger Puddle',
  ]);
});
