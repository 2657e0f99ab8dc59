import { describe, expect, it } from 'vitest';
import type { Workload } from '../curve/workloads';
import { readRun, type ReadRun } from '../curve/figures';
import { inkOf } from '../ink/build';
import type { Draft, Entry, Header } from '../ink/entry';
import { exampleHeader } from '../ink/example';
import { foldRun } from '../ink/fold';
import { aheadOf, turnOf } from './ahead';
import { gathered, padsOf } from './gathered';
import { loadsOf } from './loads';
import { setupsOf } from './setups';
import { unlikeIn } from './unlike';

const levels = (...values: number[]) => ({ seconds: values.map((_, index) => index * 300), values });

describe('ahead of the baseline', () => {
  it('is the level of one less that of the other, with a margin that holds 0 where they are not told apart', () => {
    const found = aheadOf([levels(0, 20, 40, 60, 80)], [levels(0, 10, 20, 30, 40)]);
    expect(found.at(-1)).toMatchObject({ seconds: 1200, value: 40, isDistinguishable: true });
    for (const { value, margin, isDistinguishable } of found) if (isDistinguishable) expect(Math.abs(value)).toBeGreaterThan(margin);
    expect(
      aheadOf([levels(0, 20, 40)], [levels(0, 20, 40)]).every(({ isDistinguishable, value }) => !isDistinguishable && value === 0),
    ).toBe(true);
    const turned = aheadOf([levels(0, 10, 20, 30, 40)], [levels(0, 20, 40, 60, 80)]);
    expect(turned.map(({ value }) => value)).toEqual(found.map(({ value }) => 0 - value));
  });

  it('is told while all of both were read, and not at all where nothing was', () => {
    const [long, short] = [levels(0, 20, 40, 60, 80), levels(0, 10, 20)];
    expect(aheadOf([long], [short]).at(-1)?.seconds).toBe(600);
    expect(aheadOf([long, short], [short]).at(-1)?.seconds).toBe(600);
    // One that begins later is not ahead before it has begun.
    const late = { seconds: [300, 600, 900], values: [30, 40, 50] };
    expect(aheadOf([long, late], [long])[0]?.seconds).toBe(300);
    expect(aheadOf([long], [long, late])[0]?.seconds).toBe(300);
    expect(aheadOf([long], [{ seconds: [], values: [] }])).toEqual([]);
    expect(aheadOf([long], [{ seconds: [0], values: [5] }])).toEqual([]);
  });

  // trade.md: a winner at half an hour can lose at 100 %.
  it('tells when a lead is lost, and of none that nobody had', () => {
    const fades = levels(0, 30, 45, 55, 60, 64, 67, 70);
    const steady = levels(0, 14, 28, 42, 56, 70, 84, 98);
    const turn = turnOf(aheadOf([fades], [steady]));
    expect(turn?.from).toBeGreaterThan(600);
    expect(turn?.from).toBeLessThan(1500);
    expect(turn?.to).toBeLessThan(2100);
    expect(turnOf(aheadOf([levels(0, 20, 40)], [levels(0, 10, 20)]))).toBeUndefined();
    // A start one percent higher is no lead.
    expect(turnOf(aheadOf([levels(3, 9, 15, 21)], [levels(2, 12, 22, 32)]))).toBeUndefined();
  });
});

describe('are they comparable', () => {
  const runOf = (
    name: string,
    changes: Partial<Header> = {},
    rows: { seconds: number; percent: number; celsius?: number }[] = [],
  ): ReadRun => {
    const header = exampleHeader({ id: `${name}${Math.random()}`, charger: { id: name, name, kind: 'adapter', watts: 20 }, ...changes });
    const jotted =
      rows.length > 0
        ? rows
        : [
            { seconds: 0, percent: 2 },
            { seconds: 1800, percent: 50 },
          ];
    return readRun(foldRun(header, inkOf(header, jotted)));
  };
  const saysOf = (...all: ReadRun[]) => {
    const setups = setupsOf(all);
    return unlikeIn(
      setups,
      setups.map(({ runs }) => runs[0]?.run.header.charger.name ?? ''),
    );
  };

  it('says nothing of runs that were alike', () => {
    expect(saysOf(runOf('a'), runOf('b'))).toEqual([]);
  });

  it('lists every planted difference once, whose it is and what it could explain', () => {
    const condition = (name: string, value: string) => ({ conditions: [{ name, value }] });
    const cases: [what: string, one: ReadRun, other: ReadRun, says: RegExp, explains: RegExp][] = [
      [
        'start',
        runOf('a'),
        runOf('b', {}, [
          { seconds: 0, percent: 12 },
          { seconds: 1800, percent: 55 },
        ]),
        /from 2 to 12 %/,
        /favour the higher start.*6 min/,
      ],
      [
        'screen',
        runOf('a', condition('screen', 'on')),
        runOf('b', condition('screen', 'off')),
        /Screen: on for a and off for b/,
        /screen uses/,
      ],
      ['room', runOf('a', condition('ambient, °C', '20')), runOf('b', condition('ambient, °C', '26')), /20 °C to 26 °C/, /6\.0 °C/],
      [
        'rest',
        runOf('a', condition('minutes left off before', '60')),
        runOf('b', condition('minutes left off before', '0')),
        /0 to 60 min/,
        /warmer/,
      ],
      [
        'meter',
        runOf('a'),
        runOf('b', { meter: { id: 'm', name: 'Tidepole', kind: 'in-line' } as unknown as Header['meter'] }),
        /none for a and Tidepole for b/,
        /each is off/,
      ],
      [
        'checks',
        runOf('a'),
        runOf('b', { cadence: { kind: 'fixed', every: 900 } }),
        /every 5 min for a and every 15 min for b/,
        /wider margin/,
      ],
      ['health', runOf('a'), runOf('b', { device: { ...exampleHeader().device, health: 80 } }), /80 to 100 %/, /20 % of the time/],
      [
        'warm start',
        runOf('a', {}, [
          { seconds: 0, percent: 2, celsius: 22 },
          { seconds: 1800, percent: 50 },
        ]),
        runOf('b', {}, [
          { seconds: 0, percent: 2, celsius: 33 },
          { seconds: 1800, percent: 50 },
        ]),
        /22 °C to 33 °C warm/,
        /limit of heat/,
      ],
    ];
    for (const [what, one, other, says, explains] of cases) {
      const found = saysOf(one, other);
      expect(
        found.map((each) => each.what),
        what,
      ).toEqual([what]);
      expect(found[0]?.says).toMatch(says);
      expect(found[0]?.explains).toMatch(explains);
    }
  });
});

describe('loads', () => {
  const run = foldRun(exampleHeader(), []);
  const load = (source: string, score: number, more: Partial<Workload> = {}): Workload => ({
    ...{ name: 'render', source, from: 0, to: 300, isOver: true, input: 'consumption' },
    scores: [{ name: 'frames', value: score, unit: 'fps', better: 'more' }],
    ...more,
  });
  const placesOf = (...all: Workload[]) => loadsOf([{ run, workloads: all }]).map(({ scores }) => [scores[0]?.place, scores[0]?.isShared]);

  // Common practice, no source (checks.md): under graphics load a 60 W dock scored equal to the full adapter.
  it('ties scores within 3 %, tells those beyond, and lets repeats say otherwise', () => {
    expect(placesOf(load('dock', 98), load('adapter', 100))).toEqual([
      [1, true],
      [1, true],
    ]);
    expect(placesOf(load('dock', 90), load('adapter', 100))).toEqual([
      [2, false],
      [1, false],
    ]);
    expect(placesOf(load('dock', 80), load('dock', 100), load('adapter', 101), load('adapter', 99))).toEqual([
      [1, true],
      [1, true],
    ]);
    const less = { scores: [{ name: 'seconds', value: 50, unit: 's', better: 'less' as const }] };
    expect(
      placesOf(
        load('dock', 0, less),
        load('adapter', 0, { scores: [{ ...less.scores[0], name: 'seconds', value: 60, unit: 's', better: 'less' }] }),
      ),
    ).toEqual([
      [1, false],
      [2, false],
    ]);
  });

  // Common practice, no source (checks.md): rendering at 20 V × 1.8 A for 5 min is about 3 Wh; a 60 W dock gave 2.3 W to the battery under load.
  it('gives power, what the battery did, and time and energy for one piece of work', () => {
    const [found] = loadsOf([
      { run, workloads: [load('dock', 100, { inputWatts: 36, batteryWatts: 2.3, usedWatts: 33.7, inputWattHours: 3 })] },
    ]);
    expect(found).toMatchObject({ battery: 'charges', inputWatts: 36, wattHours: 3, seconds: 300 });
    const doing = (more: Partial<Workload>) => loadsOf([{ run, workloads: [load('dock', 1, more)] }])[0]?.battery;
    expect([doing({ batteryWatts: 0.2 }), doing({ batteryWatts: -4 }), doing({ gain: -2 }), doing({})]).toEqual([
      'holds',
      'drains',
      'drains',
      'unknown',
    ]);
  });
});

describe('over many sittings', () => {
  const trial = (seq: number, name: string, watts: number, more: object): Entry => ({
    ...{ kind: 'trial', seq, id: `t${seq}`, at: exampleHeader().plugInAt + seq * 1000, written: 0, state: 'awake', status: 'fast' },
    source: { charger: { id: name, name, kind: name === 'Puddle' ? 'pad' : 'adapter', watts } },
    ...more,
  });
  const sitting = (device: string, ...entries: Entry[]) =>
    foldRun(exampleHeader({ id: device, device: { id: device, name: device, kind: 'phone' }, list: [] }), entries);

  it('groups what works by rating, strongest first, with the range of watts that was read', () => {
    const groups = gathered([
      sitting('Sedge 5', trial(1, 'Cobble 20', 20, { watts: 17.5 }), trial(2, 'Quern 65', 65, { watts: 25 })),
      sitting('Curlew', trial(1, 'Cobble 20', 20, { watts: 5 }), trial(2, 'Hutch', 20, { watts: 12 })),
    ]);
    expect(groups.map(({ watts, rows, range }) => [watts, rows.length, range])).toEqual([
      [65, 1, { low: 25, high: 25 }],
      [20, 3, { low: 5, high: 17.5 }],
    ]);
  });

  // Common practice, no source (checks.md): 19 W in, 15 W assumed out: 79 % (14 W: 74 %).
  it('lays pads beside each other: their efficiency, and whether they came to full', () => {
    const tried = (out: number) =>
      padsOf([sitting('Sedge 5', trial(1, 'Puddle', 15, { watts: 19, wattsOut: out, wattsOutAssumed: true }))], [])[0];
    expect(tried(15)?.efficiency?.share).toBeCloseTo(0.79, 2);
    expect(tried(14)?.efficiency?.share).toBeCloseTo(0.74, 2);
    const header = exampleHeader({ charger: { id: 'p', name: 'Puddle', kind: 'pad', watts: 15 } });
    const stuck = readRun(
      foldRun(
        header,
        inkOf(header, [
          { seconds: 0, percent: 2 },
          { seconds: 3600, percent: 84 },
          { seconds: 9000, percent: 84 },
        ]),
      ),
    );
    expect(padsOf([], [{ ...stuck, stalls: [{ from: 3600, to: 9000 }] }])).toMatchObject([
      { pad: 'Puddle', stalled: { level: 84, isStall: true } },
    ]);
    expect(padsOf([], [{ ...readRun(foldRun(exampleHeader(), [])), stalls: [] }])).toEqual([]);
  });
});

describe('what differs beside what is compared', () => {
  const at = (id: string, changes: Parameters<typeof exampleHeader>[0], percents: readonly number[], more: readonly Draft[] = []) => {
    const header = exampleHeader({ id, charger: { id, name: id, kind: 'adapter' }, study: undefined, ...changes });
    const ink = inkOf(
      header,
      percents.map((percent, index) => ({ seconds: 900 * index, percent })),
    );
    const events = more.map((draft, index) => ({
      ...draft,
      at: header.plugInAt + draft.at,
      seq: 500 + index,
      id: `e${index}`,
      written: 0,
    }));
    return readRun(foldRun(header, [...ink, ...events]));
  };
  const said = (...runs: ReturnType<typeof readRun>[]) => {
    const setups = setupsOf(runs);
    return unlikeIn(
      setups,
      setups.map(({ runs: [one] }) => one?.run.header.charger.name ?? ''),
    ).map(({ says }) => says);
  };

  it('is what was in force over the time compared, of three setups by name at most', () => {
    const marks = (...seconds: number[]) => ({ cadence: { kind: 'marks' as const, at: seconds } });
    expect(said(at('A', marks(900, 1800), [5, 30, 50]), at('B', marks(900, 1800, 3600), [5, 20, 40])).join(' ')).not.toContain('Checks');
    const five = ['A', 'B', 'C', 'D', 'E'].map((id, index) =>
      at(id, index < 3 ? marks(900, 1800) : { cadence: { kind: 'fixed', every: 600 } }, [5, 30, 50]),
    );
    expect(said(...five).find((each) => each.startsWith('Checks'))).toMatch(/for 3 of them and .* for D and E\.$/);
  });

  it('is told by where answers part, of many marks by how many; the moment at which the first was over is none', () => {
    const marks = (...seconds: number[]) => ({ cadence: { kind: 'marks' as const, at: seconds } });
    const quarters = [900, 1800, 2700, 3600];
    // Full between two checks, and each came to full at another time.
    expect(said(at('A', marks(...quarters, 4200), [5, 30, 50, 70, 100]), at('B', marks(...quarters, 4500), [5, 30, 50, 70, 90]))).toEqual(
      [],
    );
    expect(
      said(at('A', marks(300, 600, ...quarters), [5, 30, 50, 70, 90, 100]), at('B', marks(...quarters), [5, 30, 50, 70, 90, 100])),
    ).toEqual(['Checks: 6 times by 1 h for A and 4 times by 1 h for B.']);
    const finer = (then: number) => ({ cadence: { kind: 'coarse then fine' as const, every: 900, level: 80, then } });
    expect(said(at('A', finer(300), [5, 30, 50]), at('B', finer(120), [5, 30, 50]))).toEqual(['Checks: … 5 min for A and … 2 min for B.']);
  });

  it('counts a dead start as 0 %, and work that was done as a condition', () => {
    const dead: Draft = { kind: 'event', event: 'dead', at: 0 };
    const header = exampleHeader({ id: 'D', charger: { id: 'D', name: 'D', kind: 'adapter' }, study: undefined });
    const flat = readRun(
      foldRun(header, [{ ...dead, at: header.plugInAt, seq: 1, id: 'd', written: 0 }, ...inkOf(header, [{ seconds: 900, percent: 20 }])]),
    );
    expect(said(flat, at('A', {}, [0, 20, 40])).join(' ')).not.toContain('The level at plug-in is not known');
    expect(
      said(at('B', {}, [5, 20, 40], [{ kind: 'event', event: 'work started', remark: 'rendering', at: 60_000 }]), at('A', {}, [5, 20, 40])),
    ).toContain('Work: rendering for B and not said for A.');
  });
});
