import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { foldRun } from '../ink/fold';
import { inkOf } from '../ink/build';
import { exampleHeader } from '../ink/example';
import type { SampleColumn, Samples } from '../samples/column';
import { align } from './align';

/** The power of an invented charge in steps, which then dies away; and one that goes on and off at its end. */
const power = (at: number) => (at < 600 ? 26 : at < 1500 ? 19 : at < 2100 ? 14 : 14 * Math.exp((2100 - at) / 500));
const onOff = (at: number) => (at < 2100 ? power(at) : Math.floor(at / 90) % 2 < 1 ? 9 : 3.5);
const noise = (at: number, seed: number) => 0.3 * Math.sin(12.9898 * (at + seed)) * Math.cos(78.233 * (at + seed));

const columns = (seconds: readonly number[], value: (at: number) => number) => ({
  seconds: Float64Array.from(seconds),
  values: Float64Array.from(seconds.map(value)),
});
const every = (step: number, length: number) => Array.from({ length: Math.floor(length / step) + 1 }, (_, row) => row * step);
const readWith = (watts: SampleColumn) => ({ tracks: { ...foldRun(exampleHeader(), []).tracks, watts } });

describe('a log laid on what was read', () => {
  it('lies where the cross-correlation of two streams is highest: 137 s in (scipy.signal.correlate 1.17.1)', () => {
    const read = columns(every(1, 2999), (at) => onOff(at) + noise(at, 1));
    const log = columns(every(1, 2999), (at) => onOff(at + 137) + noise(at, 2));
    const found = align(readWith(read), { watts: log });
    expect(Math.abs((found?.zero ?? 0) - 137)).toBeLessThan(1);
    expect(found).toMatchObject({ by: 'watts', doubt: undefined, drift: 0 });
  });

  it('is found by readings every five minutes, wherever it began and whatever its meter says too much', () => {
    fc.assert(
      fc.property(fc.integer({ min: -900, max: 900 }), fc.double({ min: 0.85, max: 1.2, noNaN: true }), (zero, scale) => {
        const readings = [20, 320, 580, 640, 900, 1230, 1480, 1530, 1800, 2080, 2130, 2200, 2300, 2400, 2500, 2600];
        const run = foldRun(
          exampleHeader(),
          inkOf(
            exampleHeader(),
            readings.map((seconds) => ({ seconds, watts: power(seconds) })),
          ),
        );
        const own = every(2, 4200).filter((at) => at + zero >= 0);
        const samples: Samples = { watts: columns(own, (at) => scale * power(at + zero) + noise(at, 3)) };
        const found = align(run, samples);
        // Steps lie up to 60 s from the readings beside them: no place between those can be told apart.
        expect(Math.abs((found?.zero ?? Infinity) - zero)).toBeLessThanOrEqual((found?.margin ?? 0) + 8);
        expect(found?.doubt).toBeUndefined();
      }),
      { numRuns: 25 },
    );
  });

  it('has its clock set right where it is slow: 400 parts in a million over four hours', () => {
    const steps = (at: number) => 5 + 20 * Math.abs(Math.sin(at / 517)) + (Math.floor(at / 700) % 3) * 4;
    const log = columns(every(1, 14_000), (at) => steps(60 + at * 1.0004));
    const found = align(readWith(columns(every(20, 14_000), steps)), { watts: log });
    expect(found?.drift).toBeGreaterThan(350);
    expect(found?.drift).toBeLessThan(450);
    expect(Math.abs((found?.zero ?? 0) - 60)).toBeLessThan(2);
  });

  it('is matched by volts and amps where it tells no watts', () => {
    const seconds = every(1, 2999);
    const samples: Samples = { volts: columns(seconds, () => 9), amps: columns(seconds, (at) => power(at + 50) / 9) };
    const found = align(readWith(columns(every(15, 2990), power)), samples);
    expect(Math.abs((found?.zero ?? 0) - 50)).toBeLessThan(8);
  });

  it('is not said to lie anywhere where power is steady, or where nothing of it was read', () => {
    const flat = columns(every(1, 2000), () => 15);
    expect(align(readWith(columns(every(60, 2000), () => 15)), { watts: flat })).toBeUndefined();
    expect(align(readWith(columns([], () => 0)), { watts: flat })).toBeUndefined();
  });

  it('is unsure where power goes on and off evenly, for every beat fits', () => {
    const even = (at: number) => (Math.floor(at / 60) % 2 === 0 ? 10 : 1);
    const found = align(readWith(columns(every(5, 3000), even)), { watts: columns(every(1, 3000), even) });
    // Read from the tenth minute on: the log can have begun at any beat before.
    const later = every(5, 600).map((at) => at + 600);
    const long = align(readWith(columns(later, even)), { watts: columns(every(1, 3000), even) });
    expect(found?.explained).toBeGreaterThan(0.9);
    expect(long?.doubt).toMatch(/another place/);
  });

  it('is laid by the rise of power at plug-in where little else rises or falls', () => {
    const slow = (at: number) => (at < 0 ? 0 : 18 - at / 1500);
    const read = columns([30, ...every(600, 6000).slice(1)], (at) => Math.round(10 * slow(at)) / 10);
    const found = align(readWith(read), { watts: columns(every(1, 7000), (at) => 1.03 * slow(at - 200) + (at < 200 ? 0.01 : 0)) });
    expect(Math.abs((found?.zero ?? 0) + 200)).toBeLessThanOrEqual(found?.margin ?? 0);
    expect(found?.margin).toBeLessThan(8);
    expect(found?.doubt).toBeUndefined();
  });

  // The log of another device was taken for the run’s own in 22 of 85, before.
  it('is not taken for the run’s own where it is of another charge, or of a meter that reads a third more', () => {
    const read = columns(every(300, 6000), (at) => Math.round(10 * (25 - at / 400)) / 10);
    const log = (value: (at: number) => number) => ({ watts: columns(every(2, 6600), value) });
    const other = align(
      readWith(read),
      log((at) => (at < 2400 ? 24 : 24 * Math.exp((2400 - at) / 2500))),
    );
    expect(other?.explained).toBeGreaterThan(0.6);
    expect(other?.doubt).toMatch(/another charge/);
    expect(
      align(
        readWith(read),
        log((at) => 1.33 * (25 - at / 400)),
      )?.doubt,
    ).toMatch(/differ by 2\d %|differ by 3\d %/);
  });
});
