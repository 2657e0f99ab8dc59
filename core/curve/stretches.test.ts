import { expect, it } from 'vitest';
import { inkOf } from '../ink/build';
import type { Entry } from '../ink/entry';
import { exampleHeader } from '../ink/example';
import { foldRun } from '../ink/fold';
import { checksOf } from './notices';
import { stretchesOf } from './stretches';

const header = exampleHeader({ method: 'consumption', cadence: { kind: 'marks', at: [300, 600] }, rule: undefined });
const work = (seq: number, event: 'work started' | 'work ended', minutes: number): Entry => {
  const at = header.plugInAt + minutes * 60_000;
  return { kind: 'event', seq, id: `w${seq}`, at, written: at, event };
};

it('counts the checks of a method that goes by workloads from the start of each', () => {
  const readings = inkOf(header, [{ seconds: 23 * 60, watts: 30 }]);
  const events = [work(10, 'work started', 18), work(11, 'work ended', 28), work(12, 'work started', 30)];
  const run = foldRun(header, [...readings, ...events]);
  expect(stretchesOf(run)).toEqual([
    { from: 1080, to: 1680 },
    { from: 1800, to: Infinity },
  ]);
  expect(checksOf(run, 36 * 60).map(({ due, state }) => [due / 60, state])).toEqual([
    [23, 'on time'],
    [28, 'missed'],
    [35, 'waiting'],
  ]);
});

it('counts from plug-in while no workload has begun, and of every other method', () => {
  expect(stretchesOf(foldRun(header, []))).toEqual([{ from: 0, to: Infinity }]);
  expect(stretchesOf(foldRun({ ...header, method: 'fixed-interval' }, [work(10, 'work started', 18)]))).toHaveLength(1);
});
