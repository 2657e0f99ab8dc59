import { describe, expect, it } from 'vitest';
import type { Cable } from '../bench/cable';
import type { Charger } from '../bench/charger';
import type { Device } from '../bench/device';
import { columnsOf, type GainUnit } from '../compare/measures';
import { setupsOf } from '../compare/setups';
import { workloads } from '../curve/workloads';
import { readRun } from '../curve/figures';
import { exampleHeader } from '../ink/example';
import { inkOf } from '../ink/build';
import type { Header } from '../ink/entry';
import { foldRun, type RunRecord } from '../ink/fold';
import { judge } from './judge';
import { USUAL_WISHES, usualWindow, type Finding, type Wishes } from './question';

type Row = [minutes: number, percent: number, celsius?: number];
const chargerOf = (name: string, watts: number, more: Partial<Charger> = {}): Charger => ({
  id: name.replaceAll(' ', '-'),
  name,
  kind: 'adapter',
  watts,
  ...more,
});

let count = 0;
function runOf(charger: Charger, rows: readonly Row[], changes: Partial<Header> = {}): RunRecord {
  count += 1;
  const header = exampleHeader({ id: `run-${count}`, charger, cable: undefined, study: undefined, ...changes });
  return foldRun(
    header,
    inkOf(
      header,
      rows.map(([minutes, percent, celsius]) => ({ seconds: minutes * 60, percent, ...(celsius !== undefined && { celsius }) })),
    ),
  );
}
/** A charge that gains evenly to 100 % and is read every five minutes; the last percent was watched. */
const even = (full: number, from = 0): Row[] => {
  const rows: Row[] = [];
  for (let minutes = 0; minutes < full; minutes += 5)
    rows.push([minutes, Math.min(99, Math.floor(from + ((100 - from) * minutes) / full))]);
  return [...rows, [full, 100]];
};
function verdictOn(
  records: readonly RunRecord[],
  wishes: Partial<Wishes> = {},
  shelf: { chargers?: Charger[]; cables?: Cable[]; devices?: Device[] } = {},
  unit: GainUnit = '%',
) {
  const findings = judge({
    setups: setupsOf(records.map((record) => readRun(record))),
    tracks: new Map(records.map(({ header, tracks }) => [header.id, tracks.percent])),
    baseline: records[0]?.header.id,
    unit,
    wishes: { ...USUAL_WISHES, ...wishes },
    shelf: { devices: [], chargers: [], cables: [], ...shelf },
    worked: records.map((run) => ({ run, workloads: workloads(run) })),
    sittings: records.filter(({ trials }) => trials.length > 0),
  });
  return (need: string): Finding | undefined => findings.find((each) => each.need === need);
}

describe('who is best', () => {
  // Common practice, no source (checks.md): 5 / 12 / 20 / 30 / 35 W full at 215, 115, 95, 90, 95 min, checks every 10 then 5 min: the last three tie.
  const five = [
    [5, 215],
    [12, 115],
    [20, 95],
    [30, 90],
    [35, 95],
  ].map(([watts = 0, full = 0]) => runOf(chargerOf(`W${watts}`, watts), even(full)));

  it('names all that tie, and who is surely slower', () => {
    const full = verdictOn(five)('to-full');
    expect(full?.says).toBe('W20, W30 or W35');
    expect(full?.why).toMatch(
      /cannot tell them apart; up to \d+ min could hide\. Surely slower than the best: W5 by 2 h 05 \(1 h \d\d to 2 h \d\d\); W12 by 25 min \(\d+ to \d+ min\)\./,
    );
  });

  it('says from what wattage on nothing changes, and claims none where nothing below is slower', () => {
    expect(verdictOn(five)('ceiling')?.says).toBe('Nothing changes above 20 W');
    expect(verdictOn(five.slice(2))('ceiling')).toBeUndefined();
  });

  it('goes by what ties with the best: a rating above it that is surely slower is named, and more of them are no ceiling', () => {
    const of = (...all: [watts: number, full: number][]) =>
      verdictOn(all.map(([watts, full]) => runOf(chargerOf(`W${watts}`, watts), even(full))))('ceiling');
    // The 30 W and the 45 W are surely slower than the 20 W, and tie with each other: it was said that nothing changes above 30 W.
    expect(of([12, 180], [20, 90], [30, 120], [45, 120])).toBeUndefined();
    const found = of([12, 180], [20, 90], [30, 120], [45, 90], [65, 95]);
    expect([found?.says, found?.why]).toEqual(['Nothing changes above 20 W', expect.stringContaining('Not so W30.') as string]);
  });

  // Common practice, no source (checks.md): 90–95 and 85–90 min touch.
  it('calls no difference a difference, and says what would tell', () => {
    const near = verdictOn([runOf(chargerOf('A', 20), even(90)), runOf(chargerOf('B', 30), even(95))])('to-full');
    expect(near?.says).toBe('No difference that these readings can show');
    // Less than a tenth is not worth more runs.
    expect(near?.settle).toBeUndefined();
    const every15: Partial<Header> = { cadence: { kind: 'fixed', every: 900 } };
    const quarters = (full: number) => Array.from({ length: full / 15 + 1 }, (_, at): Row => [15 * at, Math.floor((1500 * at) / full)]);
    const found = verdictOn([
      runOf(chargerOf('A', 20), quarters(45), every15),
      runOf(chargerOf('B', 30), quarters(60).toSpliced(1, 1), every15),
    ]);
    // The check that they share hides it, however often they are run: finer checks tell.
    const { settle } = found('to-full') ?? {};
    expect(settle?.says).toMatch(
      /^If they truly differ by the \d+ min that was seen, one more run of each, with checks every \d+ min from \d+ % on, would tell\.$/,
    );
    expect(settle?.runs.map(({ charger, runs }) => [charger, runs]).sort()).toEqual([
      ['A', 1],
      ['B', 1],
    ]);
    // What the plan is given is read as the sentence says: finely before the quicker of them is there.
    const [, every, from] = /every (\d+) min from (\d+) %/.exec(settle?.says ?? '') ?? [];
    expect(settle?.runs[0]?.as?.cadence).toEqual({ kind: 'coarse then fine', every: 900, level: Number(from), then: Number(every) * 60 });
  });

  it('asks for runs that are taken as its sentence says: on to full, or under the conditions of the others', () => {
    const window: Partial<Header> = { cadence: { kind: 'marks', at: [900, 1800] }, rule: { ends: 'window', wants: ['level'] } };
    const toFull = runOf(chargerOf('quick', 60), even(40), window);
    const found = verdictOn([
      toFull,
      runOf(
        chargerOf('slow', 10),
        even(200).filter(([minutes]) => minutes <= 30),
        window,
      ),
    ]);
    const unseen = found('open')?.settle;
    expect(unseen?.says).toBe('One run of slow to 100 % would settle it.');
    expect(unseen?.runs).toMatchObject([
      { charger: 'slow', runs: 1, as: { method: 'milestone-checks', cadence: { at: [900, 1800], then: 900 } } },
    ]);
    const lit = (name: string, screen: string) => runOf(chargerOf(name, 20), even(90), { conditions: [{ name: 'screen', value: screen }] });
    const unfair = verdictOn([lit('A', 'off'), lit('B', 'off'), lit('C', 'on')])('fair')?.settle;
    expect(unfair?.says).toBe('One more run of C, under the conditions of the others, would settle it.');
    expect(unfair?.runs).toMatchObject([{ charger: 'C', as: { conditions: [{ name: 'screen', value: 'off' }] } }]);
  });

  it('asks for the runs that bring the two to the same number, of each what it lacks', () => {
    const streamed = (full: number) => Array.from({ length: 2 * full + 1 }, (_, half): Row => [half / 2, Math.floor((50 * half) / full)]);
    const runs = (name: string, fulls: number[]) => fulls.map((full) => runOf(chargerOf(name, 20), streamed(full)));
    const settle = verdictOn([...runs('A', [100, 88, 112]), ...runs('B', [117])])('to-full')?.settle;
    expect(settle?.says).toMatch(/ that was seen, (\d|one) more runs? of A and \d more runs of B, read as these were, would tell\.$/);
    const [, ofA, ofB] = /(\w+) more runs? of A and (\d) more runs of B/.exec(settle?.says ?? '') ?? [];
    const counted = Object.fromEntries(settle?.runs.map(({ charger, runs: more }) => [charger, more]) ?? []);
    expect(counted).toEqual({ A: ofA === 'one' ? 1 : Number(ofA), B: Number(ofB) });
    expect(3 + (counted.A ?? 0)).toBe(1 + (counted.B ?? 0));
  });

  it('says of what ties that it is as good as equal, or what could hide; and of what is told, whether it is hardly so', () => {
    const streamed = (full: number) => Array.from({ length: 2 * full + 1 }, (_, half): Row => [half / 2, Math.floor((50 * half) / full)]);
    const three = (name: string, full: number) => [0, 1, 2].map(() => runOf(chargerOf(name, 20), streamed(full)));
    const equal = verdictOn([...three('A', 100), ...three('B', 100.5)])('to-full');
    expect(equal?.why).toMatch(/as good as equal, within \d min/);
    const hardly = verdictOn([...three('A', 100), ...three('B', 108)])('to-full');
    expect(hardly?.why).toMatch(/B by 8 min \(\d to 1\d min\), which is little\./);
  });

  it('gives the difference from the baseline with its margin, and none that rounding contradicts', () => {
    const found = verdictOn([runOf(chargerOf('slow', 18), even(200)), runOf(chargerOf('fast', 60), even(155))]);
    // Common practice, no source (checks.md): 3 h 21 against 2 h 37, 44 min saved.
    expect(found('to-full')?.says).toMatch(/^fast: 2 h 35, 45 min \(\d+ min to 1 h 0\d\) sooner than slow$/);
    for (let full = 100; full < 130; full += 1) {
      const why = verdictOn([runOf(chargerOf('one', 20), even(100)), runOf(chargerOf('other', 20), even(full))])('to-full')?.why ?? '';
      if (!why.includes('Surely slower')) continue;
      const [, value, low, high] = /by (\d+) min(?: \((\d+) to (\d+) min\)|, just told apart)/.exec(why) ?? [];
      expect(Number(value)).toBe(full - 100);
      if (low === undefined) continue;
      expect(Number(low)).toBeGreaterThan(0);
      expect(Number(low) <= Number(value) && Number(value) <= Number(high)).toBe(true);
    }
  });

  it('says the same whatever the order of the runs', () => {
    const names = (records: readonly RunRecord[]) =>
      verdictOn(records)('to-full')
        ?.says.split(/, | or /)
        .sort();
    expect(names([...five].reverse())).toEqual(names(five));
  });

  it('says nothing of one setup, and of repeats of one nothing of who is best', () => {
    const charger = chargerOf('A', 20);
    expect(verdictOn([runOf(charger, even(90)), runOf(charger, even(95))])('to-full')).toBeUndefined();
  });

  it('says of several devices for which it holds', () => {
    const other = { device: { id: 'd2', name: 'Heron 3', kind: 'phone' as const, milliampHours: 3000, nominalVolts: 3.85 } };
    const [a, b] = [chargerOf('A', 10), chargerOf('B', 30)];
    const found = verdictOn([runOf(a, even(200)), runOf(b, even(100)), runOf(a, even(100), other), runOf(b, even(100), other)]);
    expect(found('to-full')?.says).toBe('B for Sedge 5; no difference that these readings can show for Heron 3');
    expect(found('one-for-all')?.says).toBe('B');
  });

  it('says of a device what it says of it alone, however another varies beside it; and of each what the table of all has', () => {
    const other = { device: { id: 'd2', name: 'Heron 3', kind: 'camera' as const, milliampHours: 3000, nominalVolts: 3.85 } };
    const [slow, fast] = [chargerOf('slow', 5), chargerOf('fast', 20)];
    const phone = [runOf(fast, even(90)), runOf(fast, even(92)), runOf(slow, even(200)), runOf(slow, even(206))];
    const quarters = (full: number) => [0, 15, 30, 45, 60, 75, 90].map((at): Row => [at, Math.min(100, Math.floor((100 * at) / full))]);
    const alone = verdictOn(phone);
    const wide = verdictOn([
      ...phone,
      runOf(slow, quarters(62), other),
      runOf(slow, quarters(89), other),
      runOf(fast, quarters(60), other),
    ]);
    for (const need of ['to-80', 'to-full']) expect(wide(need)?.why).toContain(alone(need)?.why);
    // A phone run twice on each, a camera once: that was told by its latest in the sentence, and by its middle in the table.
    const all = [...phone, runOf(slow, quarters(74), other), runOf(fast, quarters(75), other)];
    const table = columnsOf(setupsOf(all.map((record) => readRun(record))), '%').find(({ measure }) => measure.id === 'level-100');
    const said = verdictOn(all)('to-full')?.claims.filter(({ figure, says }) => figure === 'level-100' && says === 'is');
    expect(said?.map(({ of, who, value }) => [of, who, value])).toEqual([
      ['Sedge 5', 'fast', table?.cells[0]?.value],
      ['Heron 3', 'slow', table?.cells[2]?.value],
      ['Heron 3', 'fast', table?.cells[3]?.value],
    ]);
    expect(table?.cells[3]).toMatchObject({ isByLatest: false });
  });

  it('says the same of several devices once', () => {
    const other = { device: { id: 'd2', name: 'Heron 3', kind: 'phone' as const, milliampHours: 3000, nominalVolts: 3.85 } };
    const [a, b] = [chargerOf('A', 10), chargerOf('B', 30)];
    const found = verdictOn([runOf(a, even(200)), runOf(b, even(100)), runOf(a, even(200), other), runOf(b, even(100), other)]);
    expect(found('to-full')?.says).toBe('B for Sedge 5 and Heron 3');
    expect(found('keep')?.why).toMatch(/^Sedge 5 and Heron 3: A takes 3 h 20 to full, within a night\.[^\n]*$/);
    expect(found('keep')?.says).toBe('Sedge 5 and Heron 3: Keep A for nights; not for top-ups');
  });

  it('goes of all devices by one level where each has as many times to it', () => {
    const other = { device: { id: 'd2', name: 'Heron 3', kind: 'phone' as const, milliampHours: 3000, nominalVolts: 3.85 } };
    const [a, b, c] = [chargerOf('A', 10), chargerOf('B', 30), chargerOf('C', 5)];
    // On C it was not seen at 80 %, and the other device was not run on it.
    const found = verdictOn([
      ...[runOf(a, even(200)), runOf(b, even(100)), runOf(c, even(400).slice(0, 50))],
      ...[runOf(a, even(120), other), runOf(b, even(90), other)],
    ])('one-for-all');
    expect(found?.why).toMatch(/^Of Sedge 5 and Heron 3\. By the time to 50 %\./);
  });

  it('names no one for all with which a device was never seen there; a loss of more than all is said as times', () => {
    const other = { device: { id: 'd2', name: 'Heron 3', kind: 'phone' as const, milliampHours: 3000, nominalVolts: 3.85 } };
    const [a, b, c] = [chargerOf('A', 10), chargerOf('B', 30), chargerOf('C', 60)];
    const short = even(100).slice(0, 8);
    const all = [runOf(a, even(300)), runOf(b, even(100)), runOf(c, even(100)), runOf(a, even(120), other), runOf(b, even(100), other)];
    const found = verdictOn([...all, runOf(c, short, other)])('one-for-all');
    expect(found?.says).toBe('B');
    expect(found?.why).toMatch(/With A, Sedge 5 loses most: it takes 3\.0 times as long as with its best\./);
    expect(found?.why).toMatch(/With C, Heron 3 loses most: it never gets there\./);
  });
});

describe('runs that did not start alike', () => {
  const [weak, strong] = [chargerOf('weak', 12), chargerOf('strong', 30)];
  const from = (start: number) => verdictOn([runOf(weak, even(60, start)), runOf(strong, even(90, 2))]);

  it('are not told apart by times from plug-in, and that is said where such a time stands', () => {
    const uneven = from(50);
    expect(uneven('to-full')?.why).toMatch(
      /^They did not start alike, from 2 to 50 %: the higher start is ahead by that\. Surely slower than weak/,
    );
    for (const need of ['worth', 'travel', 'lead', 'ceiling', 'order']) expect(uneven(need)).toBeUndefined();
  });

  it('are as others where they began within five points', () => {
    for (const start of [2, 7]) expect(from(start)('to-full')?.why).toMatch(/^Surely slower/);
    expect(from(8)('to-full')?.why).toMatch(/^They did not start alike, from 2 to 8 %/);
  });

  it('asks for all of them once more where most are unlike the middle one', () => {
    const three = verdictOn([runOf(weak, even(60, 50)), runOf(strong, even(90, 2)), runOf(chargerOf('third', 20), even(90, 20))]);
    expect(three('fair')?.says).toBe('Whether the start cost some of them time, or gave it');
    expect(three('fair')?.settle?.says).toBe('One more run of each, all of them alike, would settle it.');
    expect(three('fair')?.settle?.runs.map(({ charger }) => charger)).toEqual(['weak', 'strong', 'third']);
  });
});

describe('devices that were each run on a charger of their own', () => {
  // Common practice, no source (checks.md): phones of 3400, 3500, 3700 mAh on 10 / 20 / 50 W from 0 %, at 5, 10, 14:25, 20, 30 min.
  const times = [0, 5, 10, 14 + 25 / 60, 20, 30];
  const phones = (
    [
      [3400, 10, [0, 5, 8, 13, 18, 28]],
      [3500, 20, [0, 8, 16, 24, 33, 50]],
      [3700, 50, [0, 11, 33, 50, 67, 93]],
    ] as const
  ).map(([milliampHours, watts, levels]) => {
    const device = { id: `p${watts}`, name: `Phone ${watts}`, kind: 'phone' as const, milliampHours, nominalVolts: 3.85 };
    return runOf(
      chargerOf(`W${watts}`, watts),
      levels.map((percent, index): Row => [times[index] ?? 0, percent]),
      { device },
    );
  });

  it('are judged against each other, by Wh where their batteries differ, whatever the order of the runs', () => {
    for (const order of [phones, [...phones].reverse()]) {
      const found = verdictOn(order, { window: 1800 }, {}, 'Wh');
      expect(found('top-up')?.says).toMatch(/^Phone 50 on W50: 13\.\d Wh/);
      expect(found('top-up')?.why).toMatch(/Phone 20 on W20 by \d\.\d ± 0?\.?\d+ Wh/);
    }
    // In percent of unlike batteries nothing is ranked.
    expect(verdictOn(phones, { window: 1800 })('top-up')).toBeUndefined();
    // Chargers are not judged by what devices of their own did with them.
    for (const need of ['worth', 'travel', 'ceiling', 'keep', 'balance']) expect(verdictOn(phones, {}, {}, 'Wh')(need)).toBeUndefined();
  });
});

describe('what it is worth', () => {
  const slow = chargerOf('slow', 12, { price: 9, owned: true, weight: 48 });
  const middle = chargerOf('middle', 20, { price: 19, cableIncluded: true, weight: 61, traits: ['folding pins'] });
  const dear = chargerOf('dear', 65, { price: 59, cableIncluded: true, weight: 130 });
  const cable: Cable = { id: 'l1', name: 'short', chargerEnd: 'USB-A', deviceEnd: 'USB-C', marker: 'none', price: 6 };
  const runs = [runOf(slow, even(200), { cable }), runOf(middle, even(100)), runOf(dear, even(95))];

  it('counts the cable, and nothing for what is at home; what shows no gain is not worth more', () => {
    const found = verdictOn(runs, {}, { chargers: [slow, middle, dear], cables: [cable] });
    expect(found('worth')?.says).toBe('middle: 19, and nothing surely saves more');
    expect(found('worth')?.why).toMatch(
      /middle saves time over slow: 1 h 19 \(1 h \d\d to 1 h \d\d\) for 13 more, 0\.\d+ ± 0\.\d+ a minute\./,
    );
    expect(found('worth')?.why).toContain('dear costs more and shows no gain');
    // Once the cable is at home too, the step costs all of the dearer one.
    const athome = verdictOn(runs, {}, { chargers: [slow, middle, dear], cables: [{ ...cable, owned: true }] });
    expect(athome('worth')?.why).toMatch(/for 19 more/);
  });

  it('names the pair that fast charging of a maker’s own needs, and what replacing it costs', () => {
    const own = chargerOf('own', 60, { price: 35, ports: [{ connector: 'USB-A', label: 'Surge: 11V⎓6A' }] });
    const path: Cable = { ...cable, id: 'l2', name: 'red', family: 'Surge', price: 9 };
    const device = { ...exampleHeader().device, families: ['Surge'], inputLimit: 66 };
    const found = verdictOn(
      [runOf(slow, even(200), { device, cable }), runOf(own, even(60), { device, cable: path })],
      {},
      {
        chargers: [slow, own],
        cables: [cable, path],
      },
    );
    expect(found('worth')?.why).toContain('own charges fast by Surge, which needs its own cable, red: to replace the pair costs 44.');
  });

  it('travels with the lightest that is enough, and with the best where nothing may be lost', () => {
    expect(verdictOn(runs, { loss: 0.1 })('travel')?.says).toMatch(/^middle: 61 g/);
    expect(verdictOn(runs, { loss: 2 })('travel')?.says).toMatch(/^slow: 48 g/);
    expect(verdictOn(runs, { loss: 0.1 })('travel')?.why).toContain('folding pins');
  });

  it('keeps an old charger by how its owner charges', () => {
    expect(verdictOn(runs, { habit: 'overnight' })('keep')?.says).toBe('Keep slow for nights');
    expect(verdictOn(runs, { habit: 'top-ups' })('keep')?.says).toMatch(/slow/);
    expect(verdictOn(runs, { habit: 'overnight', night: 3 * 3600 })('keep')?.says).toMatch(/can go/);
  });

  it('says which fill it overnight', () => {
    expect(verdictOn(runs)('overnight')?.says).toMatch(/^Any of them/);
    expect(verdictOn(runs, { night: 2 * 3600 })('overnight')?.says).toMatch(/^middle or dear/);
  });
});

describe('heat', () => {
  const warm = (full: number, rise: number) =>
    even(full).map(([minutes, percent]): Row => [minutes, percent, 22 + (rise * Math.min(minutes, 30)) / 30]);
  it('is set against speed: faster and no hotter is said where it is so', () => {
    const found = verdictOn([runOf(chargerOf('old', 12), warm(200, 12)), runOf(chargerOf('new', 30), warm(100, 12))]);
    expect(found('balance')?.says).toMatch(/^new/);
    expect(found('balance')?.why).toContain('new is faster than old, and no hotter that these readings can show');
  });

  it('goes to the cooler, and balance to none, where faster is hotter', () => {
    const found = verdictOn([runOf(chargerOf('old', 12), warm(200, 4)), runOf(chargerOf('new', 30), warm(100, 18))]);
    expect(found('coolest')?.says).toMatch(/^old: rise 4/);
    expect(found('balance')?.says).toBe('None wins both: what is faster gets hotter');
  });
});

describe('what is to be looked into', () => {
  it('tells a lead that turns', () => {
    const fades: Row[] = [0, 30, 45, 55, 60, 64, 67, 70, 73, 76, 79, 82, 85, 88, 91, 94, 97, 100].map((percent, index) => [
      index * 5,
      percent,
    ]);
    const found = verdictOn([runOf(chargerOf('early', 30), fades), runOf(chargerOf('steady', 20), even(50))]);
    expect(found('lead')?.says).toMatch(/^early is ahead of steady until \d+ min, and behind from \d+ min on$/);
    expect(verdictOn([runOf(chargerOf('a', 30), even(50)), runOf(chargerOf('b', 20), even(100))])('lead')).toBeUndefined();
  });

  // Common practice, no source (trade.md): from 50 %, at 30 and 60 min; both may be nearly full at the end, which hides a real difference.
  it('sees through a full window, by the marks before its end, and claims no ceiling from it', () => {
    const window: Partial<Header> = {
      cadence: { kind: 'marks', at: [1800, 3600] },
      rule: { ends: 'window', after: 3600 } as unknown as Header['rule'],
    };
    const rows = (half: number, end: number): Row[] => [
      [0, 50],
      [30, half],
      [60, end],
    ];
    const found = verdictOn([runOf(chargerOf('A', 45), rows(72, 97), window), runOf(chargerOf('B', 65), rows(90, 98), window)], {
      window: 3600,
    });
    expect(found('window')?.says).toMatch(/hides what A and B differ by/);
    expect(found('window')?.why).toMatch(/At 30 min B had gained \d+ ± \d+ points more than A/);
    expect(found('ceiling')).toBeUndefined();
    // With one below that gains surely less, the end of a window that is not full tells a ceiling.
    const told = verdictOn(
      [
        runOf(chargerOf('X', 20), rows(55, 60), window),
        runOf(chargerOf('A', 45), rows(65, 80), window),
        runOf(chargerOf('B', 65), rows(66, 81), window),
      ],
      { window: 3600 },
    );
    expect(told('ceiling')?.says).toBe('Nothing changes above 45 W');
    const none = verdictOn([runOf(chargerOf('A', 45), rows(60, 70), window), runOf(chargerOf('B', 65), rows(61, 71), window)], {
      window: 3600,
    });
    expect(none('window')).toBeUndefined();
  });

  it('doubts a charger that should give more and is slower', () => {
    const found = verdictOn([runOf(chargerOf('weak', 10), even(100)), runOf(chargerOf('strong', 60), even(200))]);
    expect(found('order')?.says).toBe('strong is slower than weak, though it should give more');
    expect(found('order')?.settle?.runs).toHaveLength(2);
    expect(verdictOn([runOf(chargerOf('weak', 10), even(200)), runOf(chargerOf('strong', 60), even(100))])('order')).toBeUndefined();
  });

  it('asks whether conditions made the difference, and for the run that would settle it', () => {
    const room = (celsius: string): Partial<Header> => ({ conditions: [{ name: 'ambient, °C', value: celsius }] });
    const found = verdictOn([
      runOf(chargerOf('A', 20), even(100), room('21')),
      runOf(chargerOf('B', 20), even(110), room('21')),
      runOf(chargerOf('C', 20), even(150), room('29')),
    ]);
    expect(found('fair')?.says).toBe('Whether the room cost C time, or gave it');
    expect(found('fair')?.settle?.runs).toEqual([expect.objectContaining({ charger: 'C', runs: 1 })]);
  });

  it('asks for the run of what was not seen to the end', () => {
    const found = verdictOn([runOf(chargerOf('A', 20), even(100)), runOf(chargerOf('B', 20), even(100).slice(0, 10))]);
    expect(found('open')?.says).toBe('When B is at 100 %');
    expect(found('open')?.settle?.runs).toEqual([expect.objectContaining({ charger: 'B', runs: 1 })]);
  });

  it('expects in pencil what was not run', () => {
    const other = chargerOf('other', 65, { ports: [{ connector: 'USB-C', label: '5V⎓3A 9V⎓3A 20V⎓3.25A' }] });
    const found = verdictOn([runOf(chargerOf('A', 10), even(200)), runOf(chargerOf('B', 20), even(100))], {}, { chargers: [other] });
    expect(found('untested')?.says).toMatch(/^other should take about/);
    expect(found('untested')?.why).toContain('no reading is behind it');
  });
});

it('takes for a top-up the mark of the study that is nearest to 15 min, where all its runs were read at it', () => {
  const read = (...at: number[]) => runOf(chargerOf(`at ${at.join()}`, 20), [[0, 5]], { cadence: { kind: 'marks', at } });
  expect(usualWindow([read(600, 1800, 3600), read(600, 3600)])).toBe(600);
  expect(usualWindow([read(600, 1800), read(3600)])).toBe(900);
  // As many times as long or as short: 10 min are nearer to 15 than 30 are. A start is no top-up.
  expect(usualWindow([read(60, 600, 1800), read(60, 600, 1800)])).toBe(600);
  expect(usualWindow([read(0, 300), read(0, 300)])).toBe(300);
  // What one of three was not read at is no mark of the study.
  expect(usualWindow([read(600, 3600), read(600, 3600), read(1200, 3600)])).toBe(3600);
  expect(usualWindow([runOf(chargerOf('every', 20), [[0, 5]])])).toBe(900);
});
