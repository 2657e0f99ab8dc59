import { describe, expect, it } from 'vitest';
import { CONDITIONS } from '../method/conditions';
import { SCHEMA } from '../ink/version';
import { agendaOf, movesOf, nextRun, oneAfterAnother, tallyOf } from './agenda';
import { attended, usualCalendar } from './calendar';
import { calendarSchema, type Calendar } from './calendarSchema';
import { differing } from './differing';
import { readHours, writeHours } from './hoursText';
import { schedule } from './schedule';
import { runKey, runsOf } from './matrix';
import { racesOf } from './races';
import { scheduled, restored, search } from './search';
import { studySetupsOf, type GearAtHand } from './setups';
import type { Study } from './study';

const HOUR = 3600;
/** A Monday. */
const FROM = '2027-03-01';
const NOW = new Date(2027, 2, 1).getTime() / 1000;
const calendar = usualCalendar(FROM);
const phone = { kind: 'phone', wattHours: 17, inputLimit: 25, deliveryVolts: 9 } as const;
const gear: GearAtHand = {
  devices: ['one', 'two', 'three'].map((id) => ({ id, name: `Phone ${id}`, ...phone })),
  chargers: [12, 20, 30, 45].map((watts) => ({ id: `c${watts}`, name: `Cobble ${watts}`, kind: 'adapter', watts })),
  cables: [],
  meters: [],
};
const study: Study = {
  schema: SCHEMA,
  id: 's',
  name: 'Van chargers',
  question: 'Which charger?',
  method: 'fixed-interval',
  cadence: { kind: 'fixed', every: 300 },
  startLevel: 2,
  devices: ['one', 'two', 'three'],
  chargers: ['c12', 'c20', 'c30', 'c45'],
  cables: [],
  meters: [],
  states: ['asleep'],
  crossed: [],
  repeats: 1,
  order: 'as listed',
  seed: 1,
  races: false,
  conditions: [...CONDITIONS],
};
const lay = (changes: Partial<Study> = {}, hours: Partial<Calendar> = {}, made: string[] = [], from: GearAtHand = gear) => {
  const changed = { ...study, ...changes, calendar: { ...calendar, ...hours } };
  return schedule(changed, studySetupsOf(changed, from), from, made, NOW);
};

describe('the hours', () => {
  it('are read and written as people type them', () => {
    expect(readHours('9-12:30; 13.30 to 17', 2)).toEqual({
      hours: [
        { day: 2, from: 540, to: 750 },
        { day: 2, from: 810, to: 1020 },
      ],
    });
    expect(
      writeHours(
        [
          { day: 2, from: 810, to: 1020 },
          { day: 2, from: 540, to: 750 },
          { day: 3, from: 0, to: 5 },
        ],
        2,
      ),
    ).toBe('9:00–12:30, 13:30–17:00');
    expect(readHours('', 1)).toEqual({ hours: [] });
    expect(readHours('17-9', 3)).toMatchObject({ error: expect.stringMatching(/^Wednesday: .* ends before it begins/) as string });
    for (const bad of ['nine to five', '9', '9:75-10', '9-25'])
      expect(readHours(bad, 1)).toMatchObject({ error: expect.stringMatching(/^Monday: .* is no stretch of hours/) as string });
  });

  it('fall on their weekdays from the first day on, and not before now', () => {
    const stretches = attended(calendar.hours, FROM, NOW, 14);
    expect(stretches).toHaveLength(10);
    expect(new Date((stretches[5]?.from ?? 0) * 1000).getDay()).toBe(1);
    expect(attended(calendar.hours, FROM, NOW + 10 * HOUR, 14)[0]).toEqual({ from: NOW + 10 * HOUR, to: NOW + 17 * HOUR });
  });

  it('may not overlap or run backwards', () => {
    const complaint = (changes: Partial<Calendar>) => () => calendarSchema.validateSync({ ...calendar, ...changes });
    expect(complaint({})).not.toThrow();
    expect(
      complaint({
        hours: [
          { day: 1, from: 540, to: 700 },
          { day: 1, from: 690, to: 800 },
        ],
      }),
    ).toThrow(/overlap/);
    expect(complaint({ hours: [{ day: 3, from: 700, to: 540 }] })).toThrow(/ends before it begins/);
    expect(complaint({ sockets: 0 })).toThrow(/At least one socket/);
    expect(complaint({ from: 'soon' })).toThrow(/Choose the first day/);
  });
});

describe('a study made ready for its days', () => {
  it('occupies the device from draining on, the rest from the moment of sitting down', () => {
    const [job] = lay().problem.jobs;
    expect(job?.spans).toContainEqual({ resource: 'device/one', from: -(3600 + 15 * 60), to: job?.length });
    expect(job?.spans).toContainEqual({ resource: 'charger/c12', from: 0, to: job?.length });
    expect(job?.visits[0]).toEqual({ from: 0, to: 120 + 20 });
    expect(job?.visits[1]).toEqual({ from: 120 + 300, to: 120 + 320 });
    expect((job?.length ?? 1) % 60).toBe(0);
  });

  it('leaves out runs that were made', () => {
    expect(lay({}, {}, ['one/c12//asleep']).problem.jobs).toHaveLength(11);
  });

  it('reads a race in one visit of so many readings', () => {
    const { problem } = lay({ races: true, devices: ['one', 'two'], chargers: ['c20', 'c30'] });
    expect(problem.jobs).toHaveLength(2);
    expect(problem.jobs[0]?.visits[1]).toEqual({ from: 2 * 120 + 300, to: 2 * 120 + 300 + 40 });
    expect(problem.jobs[0]?.spans.filter(({ resource }) => resource === 'socket')).toHaveLength(2);
  });

  it('lays no run that is expected to take no charge, and says which', () => {
    const weak = { ...gear, devices: [{ ...gear.devices[0], id: 'one', name: 'Phone one', kind: 'phone' as const, leastWatts: 15 }] };
    const found = lay({ devices: ['one'] }, { otherwise: HOUR }, [], weak);
    expect(found.idle.map(({ cell }) => cell.charger)).toEqual(['c12']);
    expect(found.problem.jobs).toHaveLength(3);
  });

  const unknown = { ...gear, devices: [{ id: 'one', name: 'Phone one', kind: 'phone' as const }] };
  it.each([
    [/There are no attended hours/, lay({}, { hours: [] })],
    [
      /takes up to|take up to .* longest stretch of attended hours is 1 h 00\. Lengthen a day/,
      lay({}, { hours: [{ day: 1, from: 540, to: 600 }] }),
    ],
    [/No length can be expected of Phone one on Cobble 12, .* and 1 more: give the batteries/, lay({ devices: ['one'] }, {}, [], unknown)],
    [/fall due faster than one person can take them/, lay({ races: true, cadence: { kind: 'fixed', every: 30 } })],
    [
      /Phone one on Cobble 12 is pinned to Sunday 10:00, but it does not fit into your hours/,
      lay({}, { pins: [{ run: 'one/c12//asleep#1', at: (NOW + 6 * 86_400 + 10 * HOUR) * 1000 }] }),
    ],
    [/which is past/, lay({}, { pins: [{ run: 'one/c12//asleep#1', at: (NOW - 86_400) * 1000 }] })],
    [
      /but Phone one is then needed twice/,
      lay({}, { pins: ['one/c12//asleep#1', 'one/c20//asleep#1'].map((run) => ({ run, at: (NOW + 10 * HOUR) * 1000 })) }),
    ],
    [
      /but every socket is in use then/,
      lay({}, { sockets: 1, pins: ['one/c12//asleep#1', 'two/c20//asleep#1'].map((run) => ({ run, at: (NOW + 10 * HOUR) * 1000 })) }),
    ],
  ])('says %s', (sentence, { obstacles }) => {
    expect(obstacles.join(' ')).toMatch(sentence);
  });

  it('lets what fits into no day go on overnight, where that is allowed', () => {
    const short = { hours: [1, 2, 3].map((day) => ({ day, from: 540, to: 600 })) };
    const { obstacles, problem } = lay({}, { ...short, nights: true });
    expect(obstacles).toEqual([]);
    expect(problem.jobs.every(({ overnight }) => overnight)).toBe(true);
  });

  it('is done sooner than one run after another, in fewer attended hours', () => {
    const found = lay();
    const steps = search(found.problem, found.order);
    const { placed } = steps.next().value;
    const alone = oneAfterAnother(found) ?? [];
    expect(alone).toHaveLength(12);
    const [mine, theirs] = [tallyOf(placed, found.problem), tallyOf(alone, found.problem)];
    expect(mine.attended).toBeLessThan(theirs.attended);
    expect(mine.days).toBeLessThan(theirs.days);
  });
});

describe('a calendar that was laid before', () => {
  const found = lay();
  const placed = scheduled(found.problem, found.problem.jobs)?.placed ?? [];
  const agenda = agendaOf(found, placed);
  const before = agenda.map(({ key, at }) => ({ run: key, at: at * 1000 }));

  it('comes back as it was, as long as it holds', () => {
    const times = new Map(before.map(({ run, at }) => [run, at / 1000]));
    expect(
      restored(found.problem, times)
        ?.map(({ at }) => at)
        .sort(),
    ).toEqual(placed.map(({ at }) => at).sort());
    // Draining for the first has begun: that is no reason to plan anew. That it should have been plugged in is.
    expect(restored({ ...found.problem, earliest: NOW + 8 * HOUR + 1800 }, times)).toBeDefined();
    const later = schedule({ ...study, calendar }, studySetupsOf(study, gear), gear, [], NOW + 10 * HOUR);
    expect(restored(later.problem, times)).toBeUndefined();
    expect(restored(found.problem, new Map())).toBeUndefined();
  });

  it('says what comes next: the first as laid, else the first of the study', () => {
    const kept = {
      ...study,
      calendar: {
        ...calendar,
        laid: [
          { run: 'two/c30//asleep#1', at: 5 },
          { run: 'one/c12//asleep#1+two/c20//asleep#1', at: 9 },
        ],
      },
    };
    expect(nextRun(kept, [])?.cell.key).toBe('two/c30//asleep');
    expect(nextRun(kept, ['two/c30//asleep'])?.cell.key).toBe('one/c12//asleep');
    expect(nextRun(study, [])?.cell.key).toBe('one/c12//asleep');
  });

  it('tells what has moved, and when one plugs in', () => {
    expect(movesOf(before, agenda)).toEqual([]);
    expect(movesOf([], agenda)).toEqual([]);
    const [first] = agenda;
    expect(first?.plugIn).toBe((first?.at ?? 0) + 120);
    expect(movesOf([{ run: first?.key ?? '', at: 5000 }, ...before.slice(1)], agenda)).toMatchObject([{ from: 5 }]);
  });
});

it('points out what differs from earlier runs of the study, before plug-in', () => {
  const now = [
    { name: 'case', value: 'off' },
    { name: 'ambient, °C', value: '24' },
    { name: 'Wi-Fi', value: 'Off' },
  ];
  const earlier = [
    [
      { name: 'ambient, °C', value: '22' },
      { name: 'Wi-Fi', value: 'off' },
    ],
    [
      { name: 'ambient, °C', value: '22' },
      { name: 'case', value: 'on' },
    ],
  ];
  expect(differing(now, earlier)).toEqual([
    { name: 'case', now: 'off', before: ['on'] },
    { name: 'ambient, °C', now: '24', before: ['22'] },
  ]);
  expect(differing(now, [])).toEqual([]);
});

describe('races', () => {
  it('put a full matrix into as few as it has chargers: no two of a race share gear', () => {
    const runs = runsOf(study);
    const races = racesOf(runs, 4);
    expect(races).toHaveLength(4);
    for (const race of races) expect(new Set(race.flatMap(({ cell }) => [cell.device, cell.charger])).size).toBe(2 * race.length);
    expect(races.flat().map(runKey).sort()).toEqual(runs.map(runKey).sort());
  });

  it('put identical units of one device on as many chargers at once, and no more than there are', () => {
    const runs = runsOf({ ...study, devices: ['sedge'], chargers: ['a', 'b', 'c', 'd', 'e'], crossed: [] });
    expect(racesOf(runs, 12, () => 5)).toHaveLength(1);
    expect(racesOf(runs, 12, () => 2).map((race) => race.length)).toEqual([2, 2, 1]);
    expect(racesOf(runs, 12)).toHaveLength(5);
  });

  it('do not share what feeds a pad', () => {
    const fed = { ...study, chargers: ['pad', 'brick', 'other'], crossed: [], feeds: [{ charger: 'pad', by: 'brick' }] };
    for (const race of racesOf(runsOf(fed), 12)) {
      const used = race.flatMap(({ cell }) => [cell.charger, ...(cell.feed === undefined ? [] : [cell.feed])]);
      expect(new Set(used).size).toBe(used.length);
    }
  });

  it('are no larger than there are sockets, and of one repeat', () => {
    expect(
      racesOf(runsOf({ ...study, repeats: 2 }), 2).every(
        (race) => race.length <= 2 && new Set(race.map(({ repeat }) => repeat)).size === 1,
      ),
    ).toBe(true);
  });
});

it('says when races are split for want of sockets, and what would let them start together', () => {
  const split = lay({ races: true }, { sockets: 2 });
  expect(split.notes).toEqual([
    '3 runs could race from one strip, but there are 2 sockets: they are split into races of up to 2. With 3 sockets they would start together.',
  ]);
  expect(lay({ races: true }, { sockets: 4 }).notes).toEqual([]);
  expect(lay({}, { sockets: 2 }).notes).toEqual([]);
});
