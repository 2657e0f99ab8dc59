import { describe, expect, it } from 'vitest';
import { compareRuns } from '../compare/compare';
import { readRun } from '../curve/figures';
import { exampleHeader } from '../ink/example';
import { foldRun } from '../ink/fold';
import { listed } from '../quantity/listed';
import { inkOf } from '../ink/build';
import type { Header } from '../ink/entry';
import { namesOf } from '../compare/names';
import { verdict } from './verdict';

const runOf = (charger: string, rows: [minutes: number, percent: number][], changes: Partial<Header> = {}) => {
  const header = exampleHeader({
    id: `${charger}${rows.length}`,
    charger: { id: charger, name: charger, kind: 'adapter', watts: 30 },
    ...changes,
  });
  return foldRun(
    header,
    inkOf(
      header,
      rows.map(([minutes, percent]) => ({ seconds: minutes * 60, percent })),
    ),
  );
};
const compared = (...runs: ReturnType<typeof runOf>[]) =>
  compareRuns(
    runs.map((run) => readRun(run)),
    runs[0]?.header.id ?? '',
    100,
  );

// Common practice, no source (checks.md): a camera without a percentage took 3 h 26 on its own charger until the light went out, 3 h 46 from a bank.
it('goes by the light where a device shows no level', () => {
  const camera = (charger: string, out: number) => {
    const run = runOf(charger, []);
    const at = (minutes: number) => run.header.plugInAt + minutes * 60_000;
    return foldRun(run.header, [
      { kind: 'event', seq: 1, id: `${charger}1`, at: at(out - 4), written: 0, event: 'light on' },
      { kind: 'event', seq: 2, id: `${charger}2`, at: at(out), written: 0, event: 'light off' },
    ]);
  };
  const rows = compared(camera('own charger', 206), camera('bank', 226));
  expect(verdict(rows, 100)[0]).toBe('own charger is first by the light.');
  expect(rows[1]?.standing).toMatchObject({ state: 'told apart', level: 'light out', saved: { value: -20 * 60 } });
});

describe('a comparison in words', () => {
  // Common practice, no source: 85–90 and 90–95 min touch, so they tie.
  it('calls touching bounds a tie, and a clear lead a lead', () => {
    const tie = compared(
      runOf('Quern 30', [
        [0, 1],
        [85, 99],
        [90, 100],
      ]),
      runOf('Quern 65', [
        [0, 1],
        [90, 99],
        [95, 100],
      ]),
    );
    expect(verdict(tie, 100)[0]).toBe('Quern 30 and Quern 65 tie to 100 %: these readings cannot tell them apart.');
    const lead = compared(
      runOf('Quern 30', [
        [0, 1],
        [85, 99],
        [90, 100],
      ]),
      runOf('Cobble 12', [
        [0, 1],
        [110, 99],
        [115, 100],
      ]),
    );
    expect(verdict(lead, 100)[0]).toBe('Quern 30 is first to 100 %.');
  });

  // Common practice, no source: a charger that wins at 30 min need not win at 100 %.
  it('notices an early leader that did not last', () => {
    const rows = compared(
      runOf('Early', [
        [0, 1],
        [30, 70],
        [110, 99],
        [115, 100],
      ]),
      runOf('Steady', [
        [0, 1],
        [30, 55],
        [85, 99],
        [90, 100],
      ]),
    );
    expect(verdict(rows, 100)).toContain('Early gained most in 30 min, and was still not first to 100 %.');
  });

  it('says when nobody got there', () => {
    expect(
      verdict(
        compared(
          runOf('a', [
            [0, 1],
            [30, 50],
          ]),
          runOf('b', [
            [0, 1],
            [30, 60],
          ]),
        ),
        100,
      ),
    ).toEqual(['None of them reached 100 %.']);
  });
});

it('tells setups of one name apart by number, and lists names as people do', () => {
  const cable = { id: 'k', name: 'thin', ends: ['USB-C', 'USB-C'], marker: 'none' } as unknown as Header['cable'];
  expect(namesOf(compared(runOf('a', [[0, 1]]), runOf('a', [[0, 1]], { cable })))).toEqual(['a (1)', 'a (2)']);
  expect(listed(['a', 'b', 'c'])).toBe('a, b and c');
});

it('says of repeats alone that their mean is given', () => {
  const rows = compared(
    runOf('a', [[0, 1]]),
    runOf('a', [
      [0, 1],
      [9, 9],
    ]),
  );
  expect(namesOf(rows)).toEqual(['a']);
  expect(verdict(rows, 80)).toEqual(['2 runs of one setup: their mean is given, for they repeat each other.']);
});
