import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Samples } from '../samples/column';
import type { Draft, Entry } from './entry';
import { endingSays } from './endings';
import { fromPlugIn, readPlace, reshapingSays, type Reshaping } from './reshapingSays';
import { exampleHeader } from './example';
import { foldRun } from './fold';

const header = exampleHeader();
const at = (seconds: number) => header.plugInAt + seconds * 1000;
const written = (drafts: readonly Draft[]): Entry[] =>
  drafts.map((draft, index) => ({ ...draft, seq: index + 1, id: `e${index + 1}`, written: draft.at }));
const reading = (seconds: number, percent: number): Draft => ({ kind: 'reading', at: at(seconds), percent });
const levels: Draft[] = [
  reading(0, 5),
  reading(300, 12),
  reading(600, 20),
  { kind: 'note', at: at(700), text: 'moved' },
  reading(900, 27),
  { kind: 'stop', at: at(1000), because: 'full' },
];
const watts = (from: number, to: number, value: number): Samples => {
  const seconds = Float64Array.from({ length: to - from + 1 }, (_, row) => from + row);
  return { watts: { seconds, values: seconds.map(() => value) } };
};

describe('a run reshaped as ink', () => {
  it('counts from the plug-in that was set, and what was seen before it counts for nothing', () => {
    const run = foldRun(header, written([...levels, { kind: 'plug-in', at: at(100) }]));
    expect(run.readings.map(({ seconds }) => seconds)).toEqual([200, 500, 800]);
    expect(run.outside.map(({ id }) => id)).toEqual(['e1']);
    expect(run.stop?.seconds).toBe(900);
    expect(run.asStarted.plugInAt).toBe(header.plugInAt);
  });

  it('is as it was once that is struck', () => {
    const undone: Draft = { kind: 'strike', at: at(1200), target: 'e7', reason: 'as it was' };
    const run = foldRun(header, written([...levels, { kind: 'plug-in', at: at(100) }, undone]));
    expect(run.readings).toEqual(foldRun(header, written(levels)).readings);
    expect(run.kept).toEqual({ from: -Infinity, to: Infinity });
  });

  it('ends where its end was trimmed off, and is not called full for what came later', () => {
    const run = foldRun(header, written([...levels, { kind: 'trim', at: at(250), until: at(650) }]));
    expect(run.readings.map(({ reading: { percent } }) => percent)).toEqual([12, 20]);
    expect(run.notes).toEqual([]);
    expect(run.end).toBe(650);
    expect(run.stop && endingSays(run.stop)).toBe('cut off');
  });

  it('has its settings as they were corrected, old beside new', () => {
    const conditions = [{ name: 'Wi-Fi', value: 'on' }];
    const run = foldRun(
      { ...header, conditions: [{ name: 'Wi-Fi', value: 'off' }] },
      written([{ kind: 'conditions', at: at(0), conditions }]),
    );
    expect(run.header.conditions).toEqual(conditions);
    expect(reshapingSays(run.entries[0] as Reshaping, run)).toBe('settings: Wi-Fi on, not off');
  });
});

describe('logs of a run', () => {
  const log: Draft = { kind: 'log', at: at(120), log: 'a', name: 'a.csv' };

  it('lie where they were laid, whatever is said of them later, and are gone once struck', () => {
    const own = watts(0, 100, 9);
    const placed = (...more: Draft[]) => foldRun(header, written([...levels, log, ...more]), {}, { a: own });
    expect(placed().tracks.watts.seconds[0]).toBe(120);
    expect(placed({ kind: 'place', at: at(60), log: 'a', drift: 10_000 }).tracks.watts.seconds[100]).toBeCloseTo(60 + 101, 9);
    expect(placed({ kind: 'strike', at: at(0), target: 'e7', reason: 'another run' }).tracks.watts.seconds).toEqual([]);
    expect(own.watts?.seconds[0]).toBe(0);
    expect(placed().logs).toMatchObject([{ log: 'a', name: 'a.csv', zero: 120, from: 120, to: 220, quantities: ['watts'] }]);
  });

  it('keep the first of two that tell the same for as long as it lasts, and the other beside it', () => {
    const run = foldRun(header, written([log]), watts(100, 200, 5), { a: watts(0, 300, 9) });
    const { seconds, values } = run.tracks.watts;
    expect(seconds.length).toBe(101 + 220);
    expect(Array.from(seconds)).toEqual(Array.from(seconds).sort((one, other) => one - other));
    expect(Array.from(values).filter((value) => value === 5)).toHaveLength(101);
  });

  it('take along what their words say, and nothing else', () => {
    const log: Draft = { kind: 'log', at: at(100), log: 'later', name: 'later.csv' };
    const said: Draft[] = [
      { kind: 'note', at: at(150), text: 'its own', log: 'later' },
      { kind: 'event', at: at(200), event: 'moved', log: 'later' },
      { kind: 'note', at: at(160), text: 'by hand' },
    ];
    const told = (...more: Draft[]) => {
      const run = foldRun(header, written([...levels.slice(0, 3), log, ...said, ...more]), {}, { later: watts(0, 300, 9) });
      return [...run.notes, ...run.events].map(({ seconds }) => seconds);
    };
    expect(told()).toEqual([150, 160, 200]);
    const place: Draft = { kind: 'place', at: at(400), log: 'later', drift: 10_000 };
    expect(told(place)).toEqual([450.5, 160, 501]);
    expect(told(place, { kind: 'strike', at: at(500), target: 'e8', reason: 'it fitted before' })).toEqual([150, 160, 200]);
  });

  it('are moved with the plug-in, and nothing measured before it counts', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 90 }), (later) => {
        const run = foldRun(header, written([{ kind: 'plug-in', at: at(later) }]), watts(0, 100, 9));
        expect(run.tracks.watts.seconds[0]).toBe(0);
        expect(run.tracks.watts.seconds.length).toBe(101 - later);
      }),
    );
  });
});

it('reads where a log begins as it is typed, and says it', () => {
  expect(['2:30', '+2:30', '-2:30', '−1:02:00', ' - 0:05 '].map(readPlace)).toEqual([150, 150, -150, -3720, -5]);
  expect(['', '-', '5', 'five', '2:75'].map(readPlace)).toEqual([undefined, undefined, undefined, undefined, undefined]);
  expect(fromPlugIn(readPlace('-1:30') ?? 0)).toBe('1 min 30 s before plug-in');
});
