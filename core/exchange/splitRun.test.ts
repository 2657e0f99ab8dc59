import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { energy } from '../curve/energy';
import { inkOf } from '../ink/build';
import type { Entry } from '../ink/entry';
import { exampleHeader } from '../ink/example';
import { separateLog, foldStored, logbookOf, streamedOf, writeLogbook, type StoredRun } from './logbook';
import { readLogbook } from './readLogbook';
import { runMisfit } from './runMisfit';
import { splitRun } from './splitRun';

const header = exampleHeader({ cadence: undefined, study: { id: 's', cell: 'sedge/cobble//asleep' } });
const seconds = Float64Array.from({ length: 601 }, (_, row) => row);
const samples = { watts: { seconds, values: seconds.map((at) => 10 + Math.sin(at / 50)) } };
const log: Entry = {
  kind: 'log',
  seq: 9,
  id: 'e9',
  at: header.plugInAt + 700_000,
  written: header.plugInAt,
  log: 'late',
  name: 'late.csv',
};
const whole: StoredRun = {
  header,
  entries: [
    ...inkOf(
      header,
      [0, 200, 400, 600].map((at) => ({ seconds: at, percent: 10 + at / 20 })),
    ),
    log,
  ],
  samples,
  logs: { late: { celsius: { seconds, values: seconds.map(() => 31) } } },
};
const trimmed = ({ entries, ...rest }: StoredRun, trim: ReturnType<typeof splitRun>['trim']): StoredRun => ({
  ...rest,
  entries: [...entries, { ...trim, seq: 20, id: 'trim', written: trim.at }],
});

describe('a run split in two', () => {
  it('gives halves whose readings and energy are those of the whole, wherever it is split on a sample', () => {
    const energyOf = (run: StoredRun) => {
      const { tracks, end } = foldStored(run);
      return energy(tracks.watts, end).wattHours;
    };
    fc.assert(
      fc.property(fc.integer({ min: 5, max: 595 }), (at) => {
        const { second, trim } = splitRun(whole, at, 'half');
        const first = trimmed(whole, trim);
        expect(energyOf(first) + energyOf(second)).toBeCloseTo(energyOf(whole), 9);
        const readings = [first, second].map((run) => foldStored(run).readings.length);
        expect(readings.reduce((sum, each) => sum + each)).toBe(at % 200 === 0 ? 5 : 4);
      }),
    );
  });

  it('is a run of its own that can be stored, of no study, with what its logs told from there on', () => {
    const { second } = splitRun(whole, 300, 'half');
    expect(runMisfit(second)).toBeUndefined();
    expect(second.header).toMatchObject({ id: 'half', plugInAt: header.plugInAt + 300_000, study: undefined });
    expect(foldStored(second).tracks.celsius.seconds[0]).toBe(400);
  });
});

describe('logs of a run', () => {
  it('come out of a logbook as they went in, each by its own clock', () => {
    const back = readLogbook(writeLogbook(logbookOf({}, [whole])), 'x.json');
    expect(back.runs[0]).toEqual(whole);
    expect(runMisfit({ ...whole, logs: { 'no id!': {} } })?.path).toContain('no id!');
  });

  it('are taken apart and put together as they were', () => {
    const { rest, own } = separateLog(whole, 'late');
    expect(own.celsius?.seconds[0]).toBe(0);
    expect(foldStored(rest).logs.map(({ name }) => name)).toEqual(['the meter']);
    expect(foldStored(separateLog(whole, undefined).rest).tracks.watts.seconds).toHaveLength(0);
    expect(streamedOf(whole).celsius?.seconds[0]).toBe(700);
  });
});
