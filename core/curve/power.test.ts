import { describe, expect, it } from 'vitest';
import { exampleHeader } from '../ink/example';
import { foldRun } from '../ink/fold';
import { inkOf, type Jotted } from '../ink/build';
import { AMBIENT } from '../method/conditions';
import { cyclesOf } from './cycles';
import { efficiencyOf, oddEfficiency } from './efficiency';
import { energy } from './energy';
import { figuresOf } from './figures';
import { heatOf } from './heat';
import { averagesTo, chargeIn, runningTotal, timeAbove, byLevel } from './power';
import { voltSteps } from './voltSteps';
import { writeFigures } from './words';

/** Read as it pleased the reader: no plan says what a gap is. */
const header = exampleHeader({ cadence: undefined });
const run = (rows: readonly Jotted[]) => foldRun(header, inkOf(header, rows));
const none = { share: 0, watts: 0 };

describe('power over a charge', () => {
  it('is averaged up to a level, by the area under its line', () => {
    // By hand: 20 W for 30 min, falling evenly to 10 W over the next 30, shown 80 % at the end: 17.5 W.
    const falling = run([
      { seconds: 0, percent: 20, watts: 20 },
      { seconds: 1800, percent: 50, watts: 20 },
      { seconds: 3600, percent: 80, watts: 10 },
      { seconds: 5400, percent: 100, watts: 2 },
    ]);
    const [to80, to100] = averagesTo(falling, [80, 100], none);
    expect(to80?.watts).toBeCloseTo(17.5, 6);
    expect(to100?.watts).toBeCloseTo((17.5 * 2 + 6) / 3, 6);
    expect(timeAbove(falling.tracks.watts, 15)).toBeCloseTo(1800 + 900, 6);
    expect(Array.from(runningTotal(falling).values).map((each) => Math.round(each * 1000) / 1000)).toEqual([0, 10, 17.5, 20.5]);
    expect(byLevel(falling, 'watts')).toEqual([
      [20, 20],
      [50, 20],
      [80, 10],
      [100, 2],
    ]);
  });

  it('is counted as charge by the counter, or by amps: 0.5 A for 2 h are 1000 mAh', () => {
    expect(
      chargeIn(
        run([
          { seconds: 0, amps: 0.5 },
          { seconds: 7200, amps: 0.5 },
        ]),
      ),
    ).toEqual({ milliampHours: 1000, isCounted: false });
    expect(
      chargeIn(
        run([
          { seconds: 0, milliampHours: 10 },
          { seconds: 60, milliampHours: 60 },
        ]),
      )?.milliampHours,
    ).toBe(50);
  });
});

describe('what of the energy is stored', () => {
  const energyOf = (wattHours: number) => ({ ...energy({ seconds: [0, 3600], values: [wattHours, wattHours] }, 3600, [], none) });

  it('is the battery by its level over what came in', () => {
    const found = efficiencyOf({ battery: 17.3, startLevel: 0, topLevel: 100, energy: energyOf(21.5) });
    expect(found?.share).toBeCloseTo(17.3 / 21.5, 9);
    expect(found && oddEfficiency(found, 0)).toBeUndefined();
  });

  it('points at the battery or the meter where it cannot be', () => {
    const more = efficiencyOf({ battery: 17.3, startLevel: 0, topLevel: 100, energy: energyOf(12) });
    expect(more && oddEfficiency(more, 0)).toContain('the battery is smaller');
    expect(more && oddEfficiency(more, 2)).toContain('was not seen');
    const less = efficiencyOf({ battery: 17.3, startLevel: 0, topLevel: 100, energy: energyOf(60) });
    expect(less && oddEfficiency(less, 0)).toContain('awake');
    expect(efficiencyOf({ battery: 17.3, startLevel: 80, topLevel: 95, energy: energyOf(3) })).toBeUndefined();
  });
});

describe('the volts at the cable', () => {
  it('step from 5 to 9 V at the handshake and back, on a fixed supply', () => {
    // Common practice, no source: a phone limited to 9 V falls back to 5 V near the end.
    const volts = [5.1, 9.02, 9.01, 9.05, 9.0, 9.03, 5.2, 5.15];
    const found = voltSteps(run(volts.map((each, index) => ({ seconds: index * 60, volts: each }))));
    expect(found.steps.map((step) => step.volts)).toEqual([5.1, 9.02, 5.2]);
    expect(found.supply).toBe('fixed');
  });

  it('follow the battery on a programmable supply', () => {
    const volts = Array.from({ length: 20 }, (_, index) => 7.6 + index * 0.08);
    expect(voltSteps(run(volts.map((each, index) => ({ seconds: index * 60, volts: each })))).supply).toBe('stepping');
  });
});

it('a bank that is on for a minute and off for a minute cycles every 2 min, half of it on', () => {
  // Common practice, no source: a camera from a bank, 1 min on, 1 min off at the end.
  const rows = Array.from({ length: 120 }, (_, index) => ({ seconds: index * 10, watts: index % 12 < 6 ? 5 : 0 }));
  const [cycle] = cyclesOf(run(rows));
  expect(cycle?.period).toBeCloseTo(120, 0);
  expect(cycle?.duty).toBeCloseTo(0.5, 1);
});

it('a cycling is of its own stretch, and of a light where that was seen to go on and off twice', () => {
  // A minute on of three, for 15 min; then off, and on again two hours later: that is none of it.
  const rows = Array.from({ length: 90 }, (_, index) => ({ seconds: index * 10, watts: index % 18 < 6 ? 5 : 0 }));
  const [cycle, ...others] = cyclesOf(run([...rows, { seconds: 9000, watts: 5 }, { seconds: 9060, watts: 5 }]));
  expect(others).toEqual([]);
  expect(cycle).toMatchObject({ by: 'power', from: 180, to: 720, period: 180 });
  expect(cycle?.duty).toBeCloseTo(1 / 3, 9);

  const seen = (...lights: [seconds: number, event: 'light on' | 'light off' | 'light went out' | 'warm'][]) =>
    foldRun(
      header,
      lights.map(([seconds, event], index) => {
        const at = header.plugInAt + seconds * 1000;
        if (event === 'warm') return { kind: 'note', seq: index + 1, id: `n${index}`, at, written: at, text: event };
        return { kind: 'event', seq: index + 1, id: `e${index}`, at, written: at, event };
      }),
    );
  const [lit, ...more] = cyclesOf(seen([0, 'light on'], [30, 'light off'], [60, 'warm'], [120, 'light on'], [150, 'light went out']));
  expect(more).toEqual([]);
  expect(lit).toEqual({ by: 'light', from: 0, to: 120, period: 120, duty: 0.25 });
  expect(cyclesOf(seen([0, 'light on'], [30, 'light off'], [120, 'light on']))).toEqual([]);
});

it('heat is told at the marks, over the room, above the limit and until it is back, front and back apart', () => {
  // Common practice, no source: front 40.5 °C at 10 min, 43.8 at 20, 42.4 at 30.
  const rows = [
    [0, 24, 25],
    [600, 40.5, 40.8],
    [1200, 43.8, 44.2],
    [1800, 42.4, 42.9],
    [3600, 32, 33],
    [7200, 24.8, 25.9],
  ] as const;
  const hot = foldRun(
    { ...header, conditions: [{ name: AMBIENT, value: '22,5' }] },
    inkOf(
      header,
      rows.map(([seconds, frontCelsius, backCelsius]) => ({ seconds, frontCelsius, backCelsius })),
    ),
  );
  const [front, back] = heatOf(hot);
  expect(front?.marks.map(({ celsius }) => celsius)).toEqual([40.5, 43.8, 42.4]);
  expect([front?.of, front?.overRoom?.toFixed(1), front?.backAt]).toEqual(['frontCelsius', '21.3', 7200]);
  expect(back?.of).toBe('backCelsius');
  const says = writeFigures(figuresOf(hot)).find(({ id }) => id === 'hottest-front')?.detail;
  expect(says).toContain('21.3 °C over the room · 40.5 °C at 10 min · 43.8 °C at 20 min');
});

describe('a supply', () => {
  const minutes = Array.from({ length: 60 }, (_, minute) => minute);
  const read = (of: (minute: number) => { volts: number; amps?: number; askedVolts?: number }) =>
    voltSteps(run(minutes.map((minute) => ({ seconds: minute * 60, ...of(minute) }))));

  it('that follows the battery from 8.2 to 9.3 V is programmable, and no step is read into it', () => {
    const found = read((minute) => ({ volts: 8.2 + (1.1 * minute) / 59, amps: 3 - minute / 40 }));
    expect(found.supply).toBe('stepping');
    expect(found.steps.map(({ volts }) => volts)).toEqual([8.2]);
  });

  it('of 9 V whose cable sags with its current is fixed', () => {
    expect(read((minute) => ({ volts: 9.05 - 0.3 * (3 - minute / 25), amps: 3 - minute / 25 })).supply).toBe('fixed');
  });

  it('that was asked for volts no fixed supply has is programmable', () => {
    expect(read((minute) => ({ volts: 9, askedVolts: 8.6 + minute / 200 })).supply).toBe('stepping');
  });
});
