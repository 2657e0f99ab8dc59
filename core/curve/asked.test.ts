import { afterEach, describe, expect, it } from 'vitest';
import type { Draft, Entry } from '../ink/entry';
import { exampleHeader } from '../ink/example';
import { foldRun } from '../ink/fold';
import { setAsked } from '../quantity/asked';
import { figuresOf } from './figures';
import { remarksOf } from './remarks';
import { spanOf } from './spanOf';
import { writeFigures } from './words';

const header = exampleHeader({ cadence: undefined });
type Row = Omit<Extract<Draft, { kind: 'reading' }>, 'kind' | 'at'> & { minute: number };
/** A run of readings at minutes, and of events. */
function runOf(
  rows: readonly Row[],
  events: readonly { minute: number; event: 'dead' | 'booted' | 'unplugged' | 'replugged' }[] = [],
  changes = {},
) {
  const drafts: Draft[] = [
    ...rows.map(({ minute, ...values }): Draft => ({ kind: 'reading', at: header.plugInAt + minute * 60_000, ...values })),
    ...events.map(({ minute, event }): Draft => ({ kind: 'event', at: header.plugInAt + minute * 60_000, event })),
  ];
  const entries = drafts.map((draft, index): Entry => ({ ...draft, seq: index + 1, id: `e${index}`, written: draft.at }));
  return foldRun({ ...header, ...changes }, entries);
}
const levels = (pairs: readonly [number, number][]) => pairs.map(([minute, percent]) => ({ minute, percent }));
afterEach(() => {
  setAsked({ levels: [], marks: [] });
});
const written = (run: ReturnType<typeof runOf>, counting: Parameters<typeof writeFigures>[1] = {}) =>
  writeFigures(figuresOf(run), { run, ...counting });
const valueOf = (run: ReturnType<typeof runOf>, id: string, counting: Parameters<typeof writeFigures>[1] = {}) =>
  written(run, counting).find((figure) => figure.id === id)?.value;

describe('figures that were asked for', () => {
  const run = runOf(
    levels([
      [0, 2],
      [5, 12],
      [10, 22],
      [20, 41],
      [30, 60],
      [45, 82],
      [60, 95],
      [75, 100],
    ]),
  );

  it('stand among the usual ones, in order', () => {
    setAsked({ levels: [95], marks: [45 * 60] });
    const ids = written(run).map(({ id }) => id);
    expect(ids.filter((id) => id.startsWith('level'))).toEqual(['level-50', 'level-80', 'level-95', 'level-100']);
    expect(ids).toContain('gain-2700');
    // What comparisons go by stays as it is.
    expect(figuresOf(run).milestones.map(({ level }) => level)).toEqual([50, 80, 100]);
  });

  it('are told in mAh too: 20 % of 4500 mAh is 900 mAh', () => {
    setAsked({ levels: [], marks: [600] });
    expect(written(run).find(({ id }) => id === 'gain-600')?.detail).toContain('900 mAh');
  });
});

it('time above a power that was asked for: 30 of 60 min above 10 W of a ramp from 20 to 0 W', () => {
  setAsked({ levels: [], marks: [], watts: 10 });
  const run = runOf([
    { minute: 0, watts: 20 },
    { minute: 60, watts: 0 },
  ]);
  expect(valueOf(run, 'above-asked')).toBe('30 min');
});

describe('times counted from elsewhere', () => {
  it('begin at the boot of a device that was dead: 5 W needs 2½ min to boot it (common practice, no source)', () => {
    const dead = runOf(
      levels([
        [2.5, 1],
        [10, 12],
        [20, 30],
        [30, 48],
        [32, 52],
      ]),
      [
        { minute: 0, event: 'dead' },
        { minute: 2.5, event: 'booted' },
      ],
    );
    expect(valueOf(dead, 'level-50')).toBe('31 min');
    expect(valueOf(dead, 'level-50', { counting: { from: 'boot', isCharging: false } })).toBe('28 min');
  });

  it('begin at a level, with the bounds of both ends', () => {
    setAsked({ levels: [20], marks: [] });
    const run = runOf(
      levels([
        [0, 10],
        [10, 20],
        [25, 35],
        [40, 50],
      ]),
    );
    const found = written(run, { counting: { from: 20, isCharging: false } }).find(({ id }) => id === 'level-50');
    expect(found?.detail).toBe('between 15 and 40 min');
  });

  it('are void where that level never was, or came later', () => {
    setAsked({ levels: [5, 60], marks: [] });
    const run = runOf(
      levels([
        [0, 10],
        [20, 30],
        [40, 55],
      ]),
    );
    expect(valueOf(run, 'level-50', { counting: { from: 5, isCharging: false } })).toBe('void');
    expect(valueOf(run, 'level-50', { counting: { from: 60, isCharging: false } })).toBe('void');
  });

  it('leave out the time without power where only charging counts', () => {
    const run = runOf(
      levels([
        [0, 10],
        [20, 30],
        [39, 30],
        [60, 50],
      ]),
      [
        { minute: 20, event: 'unplugged' },
        { minute: 40, event: 'replugged' },
      ],
    );
    expect(written(run, { counting: { from: 'plug-in', isCharging: true } }).find(({ id }) => id === 'level-50')?.detail).toBe(
      'between 20 and 40 min',
    );
  });
});

it('a time that a hold made void is given in pencil as if it had not been held', () => {
  const run = runOf([
    ...[0, 10, 20, 30].map((minute) => ({ minute, percent: 20 + 2 * minute, watts: 18 })),
    ...[40, 55, 70, 85, 100].map((minute) => ({ minute, percent: 80, watts: 0.4 })),
    { minute: 101, percent: 80, watts: 12 },
    { minute: 120, percent: 100, watts: 5 },
  ]);
  expect(written(run).find(({ id }) => id === 'level-100')).toMatchObject({
    value: 'void',
    detail: expect.stringMatching(/not held, about 49 min in pencil/) as string,
  });
});

describe('a stretch', () => {
  it('has its mean by area, and its ends on the line: a ramp of 0 to 10 W from 0 to 10 min is 3 W on average from 2 to 4 min', () => {
    const run = runOf([
      { minute: 0, watts: 0 },
      { minute: 10, watts: 10 },
    ]);
    expect(spanOf(run, 120, 240)).toMatchObject([{ quantity: 'watts', min: 2, max: 4, mean: 3, rows: 0 }]);
  });

  it('of the whole run has the mean that its energy tells', () => {
    const run = runOf([0, 5, 10, 15, 20].map((minute) => ({ minute, watts: 20 - minute })));
    const { averageWatts } = figuresOf(run).energy;
    expect(spanOf(run, 0, run.end)[0]?.mean).toBeCloseTo(averageWatts ?? 0, 9);
  });
});

describe('what can hardly have been so', () => {
  const kinds = (run: ReturnType<typeof runOf>) => remarksOf(run).map(({ kind, title }) => `${kind}: ${title}`);

  it('is a bay charger of 1.2 A that counted 1250 mAh in an hour (common practice, no source)', () => {
    const charger = { id: 'bay', name: 'Hutch', kind: 'bay charger' as const, ports: [{ connector: 'bay' as const, label: '8.4V⎓1.2A' }] };
    const counted = (max: number) =>
      runOf(
        [
          { minute: 0, milliampHours: 0 },
          { minute: 60, milliampHours: max },
        ],
        [],
        { charger },
      );
    expect(remarksOf(counted(1280))[0]).toMatchObject({
      kind: 'counter',
      notices: [{ text: expect.stringContaining('can give 1200') as string }],
    });
    expect(kinds(counted(1190))).toEqual([]);
  });

  it('is more power than the charger is rated for, beyond what its meter leaves open', () => {
    const read = (watts: number) =>
      runOf([
        { minute: 0, watts },
        { minute: 5, watts },
      ]);
    expect(kinds(read(22.9))).toEqual(['offset: 1 reading beyond what its charger offers']);
    expect(kinds(read(20.5))).toEqual([]);
  });

  it('is a level that stood while it charged, and then jumped; and one reading far off the rest', () => {
    expect(
      kinds(
        runOf(
          levels([
            [0, 10],
            [5, 16],
            [10, 22],
            [15, 22],
            [20, 22],
            [25, 40],
            [30, 46],
          ]),
        ),
      ),
    ).toContain('stale: 1 level that stood and then jumped');
    expect(
      kinds(
        runOf(
          levels([
            [0, 10],
            [5, 14],
            [10, 18],
            [15, 22],
            [20, 42],
            [25, 45],
            [30, 49],
          ]),
        ),
      ),
    ).toContain('jump: 1 jump');
  });

  it('is told once for each kind, with how many there are and what it does', () => {
    const run = runOf([0, 20, 40, 60].map((minute, index) => ({ minute, wattHours: index % 2 === 0 ? 5 : 1 })));
    expect(remarksOf(run)).toMatchObject([
      { kind: 'reset', title: '2 counters that began anew', effect: 'what it counted before is a least' },
    ]);
  });
});
