import { describe, expect, it } from 'vitest';
import { compareRuns } from '../compare/compare';
import { aboutOf, columnsOf, usualGainUnit, usualMeasures } from '../compare/measures';
import { namesOf } from '../compare/names';
import { setupsOf } from '../compare/setups';
import { standingsOf } from '../compare/words';
import { usualYardstick, yardsticksOf } from '../compare/yardstick';
import { readRun, type ReadRun } from '../curve/figures';
import { workloads } from '../curve/workloads';
import { inkOf } from '../ink/build';
import type { Entry, Header } from '../ink/entry';
import { exampleHeader } from '../ink/example';
import { foldRun } from '../ink/fold';
import { EMPTY_TRACK } from '../ink/track';
import { headlineOf } from './headline';
import { questionOf, type AdviceGear } from './question';

const HOUR: Header['rule'] = { ends: 'window', wants: ['level'] };

function runOf(name: string, levels: readonly (readonly [minutes: number, percent: number])[], changes: Partial<Header> = {}): ReadRun {
  const header = exampleHeader({
    id: `${name} ${changes.device?.id ?? ''}`,
    charger: { id: name, name, kind: 'adapter', watts: 20 },
    ...changes,
  });
  return readRun(
    foldRun(
      header,
      inkOf(
        header,
        levels.map(([minutes, percent]) => ({ seconds: minutes * 60, percent })),
      ),
    ),
  );
}
const EMPTY: AdviceGear = { devices: [], chargers: [], cables: [] };
/** A comparison as its page shows it: what it goes by at first, its headline by that or another yardstick, and how each stands to the first. */
function compared(all: readonly ReadRun[], by?: string, shelf = EMPTY) {
  const [setups, unit] = [setupsOf(all), usualGainUnit(all)];
  const baseline = all[0]?.run.header.id ?? '';
  const columns = columnsOf(setups, unit);
  const yardstick = by ?? usualYardstick(columns, aboutOf(all));
  const rows = compareRuns(all, baseline, Number(yardstick) || 100);
  const column = columns.find(({ measure }) => measure.id === yardstick);
  return {
    yardstick,
    columns: columns.map(({ measure }) => measure),
    ...headlineOf(
      questionOf(
        all.map((one) => ({ ...one, workloads: [], percent: EMPTY_TRACK })),
        shelf,
        { baseline, unit },
      ),
      { yardstick, about: by ? undefined : aboutOf(all) },
    ),
    standings: standingsOf(rows, namesOf(rows), 0, column).map(({ first, rest }) => [first, ...rest].join(' · ')),
  };
}

describe('a comparison of windows', () => {
  // Common practice, no source (checks.md, trade.md): a fixed hour from half, read at 30 and 60 min; what the strongest three gain is one result.
  const hour = [62, 68, 77, 83, 84, 84].map((level, index) =>
    runOf(
      `Quern ${[20, 30, 45, 60, 65, 100][index] ?? 0}`,
      [
        [0, 50],
        [30, level - 8],
        [60, level],
      ],
      {
        cadence: { kind: 'marks', at: [1800, 3600] },
        rule: HOUR,
      },
    ),
  );

  it('goes by what was gained at its end, and says who gained most, by how much, and who ties', () => {
    const { yardstick, says, sure, standings, columns } = compared(hour);
    expect(yardstick).toBe('gain-3600');
    expect(says).toEqual(['Most in 1 h: Quern 60, Quern 65 or Quern 100; these readings cannot tell them apart.']);
    expect(sure).toMatch(/^Sure to at least 19 in 20, .* By what was gained in 1 h, of 6 runs\.$/);
    expect(standings[0]).toBe('baseline');
    // 34 % against 12 %: 22 of the battery more, and 183 % more in the same time.
    expect(standings[4]).toMatch(/^\+22 points · ± \d(\.\d)? points · gained in 1 h · rate \+18\d ± \d+ % in 1 h$/);
    expect(usualMeasures(columns, 'gains', yardstick)).toContain('gain-3600');
  });

  it('can be set by a level all the same, and says that none reached it', () => {
    const { says, standings } = compared(hour, '100');
    expect(says).toEqual([
      'Too few were seen at 100 %. Most in 1 h: Quern 60, Quern 65 or Quern 100; these readings cannot tell them apart.',
    ]);
    expect(standings[1]).toContain('no times to 100 % to compare');
  });

  it('calls a tie a tie, whichever of the two is the baseline', () => {
    const [, , , one, other] = hour;
    for (const pair of [
      [one, other],
      [other, one],
    ]) {
      const { says, sure, standings } = compared(pair.flatMap((each) => each ?? []));
      expect(says?.[0]).toMatch(/^In 1 h these readings show no difference between Quern \d+ and Quern \d+\.$/);
      expect(sure).toMatch(/^Nothing is told apart here\./);
      expect(standings[1]).toMatch(/^a tie · differs by 1 ± 4 points · gained in 1 h$/);
    }
  });

  it('goes by the last mark that most of them have where windows differ', () => {
    const short = runOf(
      'Cobble 12',
      [
        [0, 50],
        [15, 52],
        [30, 55],
      ],
      { cadence: { kind: 'marks', at: [900, 1800] }, rule: HOUR },
    );
    expect(compared([short, ...hour.slice(0, 2)]).yardstick).toBe('gain-1800');
  });
});

// Common practice, no source (checks.md): three phones of 3400, 3500 and 3700 mAh on 10, 20 and 50 W gain 28, 50 and 93 % in 30 min.
it('ranks unlike batteries by Wh, and in percent tells no difference', () => {
  const phone = (name: string, milliampHours: number, percent: number) =>
    runOf(
      name,
      [
        [0, 0],
        [10, percent / 3],
        [20, (2 * percent) / 3],
        [30, percent],
      ],
      {
        device: { id: name, name, kind: 'phone', milliampHours, nominalVolts: 3.85 },
        rule: HOUR,
      },
    );
  const race = [phone('ten', 3400, 28), phone('twenty', 3500, 50), phone('fifty', 3700, 93)];
  const { yardstick, says, standings } = compared(race);
  expect(yardstick).toBe('gain-1800');
  expect(says?.[0]).toMatch(/^Most: fifty.*, 13\.2 Wh in 30 min, 9\.5 ± \d\.\d Wh more than ten/);
  expect(standings[2]).toMatch(/^\+9\.5 Wh/);
  const setups = setupsOf(race);
  const percent = columnsOf(setups, '%').find(({ measure }) => measure.id === 'gain-1800');
  const [, told] = standingsOf(compareRuns(race, '', 100), [], 0, percent);
  expect(told).toEqual({ first: '—', rest: ['a percent of one battery is not a percent of another: take Wh'] });
});

it('speaks of each device by itself, at the level that is asked for', () => {
  const on = (device: string, name: string, half: number) =>
    runOf(
      name,
      [
        [0, 10],
        [half - 5, 48],
        [half, 52],
        [2 * half, 90],
      ],
      {
        device: { id: device, name: device, kind: 'phone', milliampHours: 4500, nominalVolts: 3.85 },
      },
    );
  const all = [on('Sedge 5', 'slow', 60), on('Sedge 5', 'fast', 30), on('Heron 3', 'slow', 80), on('Heron 3', 'fast', 40)];
  const { says } = compared(all, '50');
  expect(says?.[0]).toMatch(/^Sedge 5: Fastest: fast, \d+ min to 50 %, .* sooner than slow\.$/);
  expect(says?.[1]).toMatch(/^Heron 3: Fastest: fast, \d+ min to 50 %\.$/);
  // One for all goes by 80 %, whatever level is asked for: it says so.
  expect(says?.[2]).toMatch(/^One for all: .*, by the time to 80 %\.$/);
  expect(compared(all, '80').says?.[2]).not.toMatch(/, by /);
  // One setup alone has nobody to be set against; repeats of it are its mean.
  expect(compared(all.slice(0, 1)).says).toBeUndefined();
});

// Common practice, no source (checks.md): a camera took 3 h 26 on its own charger until the light went out, 3 h 46 from a bank.
it('goes by the light where a device shows no level', () => {
  const camera = (name: string, minutes: number) => {
    const header = exampleHeader({ id: name, charger: { id: name, name, kind: 'adapter', watts: 5 } });
    const events = [minutes - 4, minutes].map((at, index): Entry => {
      const seen = header.plugInAt + at * 60_000;
      return {
        kind: 'event',
        seq: index + 1,
        id: `${name}${index}`,
        at: seen,
        written: seen,
        event: index === 0 ? 'light on' : 'light off',
      };
    });
    return readRun(foldRun(header, events));
  };
  const { yardstick, columns, says, standings } = compared([camera('own charger', 206), camera('bank', 226)]);
  expect(yardstick).toBe('100');
  expect(yardsticksOf(columns).map(({ title }) => title)).toEqual(['light out']);
  expect(says?.[0]).toMatch(/^Fastest: own charger, 3 h 26 to full\.$/);
  expect(standings[1]).toMatch(/^20 min lost · between \d+ and 3\d min · .* by the light/);
});

// Common practice, no source (checks.md): 20 V × 1.8 A for 5 min is about 3 Wh.
it('goes by the power of energy samples where that is what was taken', () => {
  const sample = (name: string, wattHours: number) => {
    const header = exampleHeader({
      id: name,
      charger: { id: name, name, kind: 'adapter', watts: 60 },
      rule: { ends: 'window', wants: ['watt-hours'] },
    });
    const rows = [
      { seconds: 0, percent: 40, wattHours: 0 },
      { seconds: 300, wattHours },
    ];
    return readRun(foldRun(header, inkOf(header, rows)));
  };
  const { yardstick, says, standings, columns } = compared([sample('Quern 30', 2), sample('Quern 45', 3)]);
  expect(yardstick).toBe('sampled');
  expect(says?.[0]).toMatch(/^Best: Quern 45, 36(\.0)? W by energy sample, 12(\.\d)? ± \d(\.\d)? W more than Quern 30\.$/);
  expect(standings[1]).toMatch(/^\+12(\.0)? W · ± .* · by energy sample · rate \+50 ± \d+ % by energy sample$/);
  expect(yardsticksOf(columns).map(({ title }) => title)).toContain('by energy sample');
});

// Common practice, no source (checks.md): a laptop on a 60 W dock scored as on the full adapter, and its battery still filled, slowly.
describe('work under load', () => {
  const load = (name: string, watts: number, batteryWatts: number, value: number) => {
    const header = exampleHeader({
      id: name,
      charger: { id: name, name, kind: 'adapter', watts: 60 },
      rule: { ends: 'window', wants: ['watts', 'battery watts'], from: 'workload' },
    });
    const event = (seq: number, seconds: number, rest: object) => {
      const at = header.plugInAt + seconds * 1000;
      return { kind: 'event', seq, id: `${name}${seq}`, at, written: at, remark: 'render', ...rest } as Entry;
    };
    const score = { name: 'frames', value, unit: 'fps', better: 'more' };
    const record = foldRun(header, [
      ...inkOf(
        header,
        [0, 300, 590].map((seconds) => ({ seconds, percent: 30, watts, batteryWatts })),
      ),
      event(8, 0, { event: 'work started' }),
      event(9, 600, { event: 'work ended', scores: [score] }),
    ]);
    return { ...readRun(record), workloads: workloads(record) };
  };
  const all = [load('dock', 57, 2.3, 40.8), load('adapter', 90, 30, 41)];
  const asked = (about: 'work' | undefined) =>
    headlineOf(
      questionOf(
        all.map((one) => ({ ...one, percent: EMPTY_TRACK })),
        EMPTY,
        { baseline: 'dock' },
      ),
      { yardstick: '100', about },
    )?.says;

  it('is led by whether it slows the machine down and the battery still fills, unless something else is asked', () => {
    expect(aboutOf(all)).toBe('work');
    expect(asked('work')).toEqual([
      'Does it slow it down? No: no source scores worse in render.',
      'Does the battery still fill? Yes, under every load.',
    ]);
    expect(asked(undefined)?.join()).not.toMatch(/slow it down/);
  });
});
