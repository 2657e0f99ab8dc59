import { expect, it } from 'vitest';
import { exampleHeader } from './example';
import { elapsedAt, foldRun, momentOf } from './fold';
import { elapsedIn } from './footage';
import type { ClipTime, Elapsed, WallTime } from '../quantity/times';

it('keeps times that count from different zeros apart', () => {
  const run = foldRun(exampleHeader(), []);
  const wall: WallTime = run.header.plugInAt + 60_000;
  expect(elapsedAt(run, wall)).toBe(60);
  // @ts-expect-error: seconds from plug-in are no wall clock.
  elapsedAt(run, elapsedAt(run, wall));
  // @ts-expect-error: a moment of the run has had the changes of the clock taken off already.
  momentOf(run, momentOf(run, wall));
  const clip: ClipTime = 90;
  const seen: Elapsed = elapsedIn({ offset: 30, speed: 1, cuts: [] }, clip);
  expect(seen).toBe(60);
  // @ts-expect-error: what was seen at a second of the run is no second of the clip.
  elapsedIn({ offset: 30, speed: 1, cuts: [] }, seen);
});
