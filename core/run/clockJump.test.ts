import { expect, it } from 'vitest';
import { dueOf } from './due';
import { clockJump } from './clockJump';
import { exampleHeader } from '../ink/example';
import { inkOf } from '../ink/build';
import { elapsedAt, foldRun, momentOf } from '../ink/fold';
import type { Entry } from '../ink/entry';
import { notices } from '../curve/notices';

const HOUR = 3_600_000;
const tick = (wall: number, steady: number) => ({ wall, steady });

// numbers.md, Clock.
it('tells a clock that was put back or ahead from one that merely goes, and from one that is set in passing', () => {
  expect(clockJump(tick(0, 0), tick(500, 500))).toBe(0);
  expect(clockJump(tick(0, 0), tick(-1000, 500))).toBe(0);
  expect(clockJump(tick(0, 0), tick(500 - HOUR, 500))).toBe(-HOUR);
  expect(clockJump(tick(0, 0), tick(500 + HOUR, 500))).toBe(HOUR);
  expect(clockJump(tick(0, 0), tick(HOUR, HOUR))).toBe(0);
});

const header = exampleHeader();
const at = (minutes: number) => header.plugInAt + minutes * 60_000;
const program = (seq: number, minutes: number, rest: Partial<Extract<Entry, { kind: 'event' }>>): Entry => ({
  ...{ kind: 'event', seq, id: `p${seq}`, at: at(minutes), written: at(minutes), event: 'clock' },
  ...rest,
});

it('counts on from plug-in when the clock was put back by an hour, and ahead again', () => {
  const ink = inkOf(header, [{ seconds: 600, percent: 20 }]);
  const back = foldRun(header, [...ink, program(2, 12, { shift: -HOUR })]);
  expect(elapsedAt(back, at(12) - HOUR)).toBe(720);
  expect(momentOf(back, at(12) - HOUR)).toBe(at(12));
  expect(dueOf(back, at(12) - HOUR)).toMatchObject({ due: 900, wait: 180 });
  const ahead = foldRun(header, [...back.entries, program(3, 13, { shift: HOUR })]);
  expect(elapsedAt(ahead, at(13))).toBe(780);
});

it('keeps the time it was away as a span nobody watched, unless that is struck', () => {
  const gone = program(2, 12, { event: 'away', until: at(42) });
  const run = foldRun(header, [...inkOf(header, [{ seconds: 600, percent: 20 }]), gone]);
  expect(run.unwatched).toEqual([{ from: 720, to: 2520 }]);
  expect(notices(run).map(({ text }) => text)).toContain('Not watched from 12 min to 42 min: nobody knows what happened then');
  const strike: Entry = { kind: 'strike', seq: 3, id: 's', at: at(42), written: at(42), target: gone.id, reason: 'the clock was changed' };
  expect(foldRun(header, [...run.entries, strike]).unwatched).toEqual([]);
});
