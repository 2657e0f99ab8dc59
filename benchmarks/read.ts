import { byLevel, readRun, remarksOf } from '../core/curve';
import { foldRun } from '../core/ink';
import { exampleHeader } from '../core/ink/example';
import { atMost, median, type Figure } from './harness';
import type { Samples } from '../core/samples';

const ROWS = 1_000_000;
const ROUNDS = 5;

/** A charge of 28 hours, ten rows a second: steps, a taper, and a display that rises. */
function charge(): Samples {
  const seconds = Float64Array.from({ length: ROWS }, (_, row) => row / 10);
  const share = (at: number) => Math.min(1, at / 90_000);
  const power = (at: number) => (share(at) < 0.4 ? 26 : share(at) < 0.6 ? 19 : 19 * Math.exp(-(at - 54_000) / 20_000)) + 0.1 * Math.sin(at);
  return {
    percent: { seconds, values: seconds.map((at) => Math.floor(100 * share(at))) },
    watts: { seconds, values: seconds.map(power) },
    volts: { seconds, values: seconds.map((at) => (at < 60 ? 5.1 : 9 + 0.01 * Math.sin(at))) },
    celsius: { seconds, values: seconds.map((at) => 24 + 15 * Math.exp(-(((at - 20_000) / 20_000) ** 2))) },
  };
}

/** Every figure and remark of a run of a million samples, from its columns, beside one pass of the trapezoid rule over them. */
export function readFigure(): Promise<Figure[]> {
  const samples = charge();
  const header = exampleHeader({ cadence: undefined });
  const all = () => {
    const run = foldRun(header, [], { ...samples });
    return [readRun(run), remarksOf(run), byLevel(run, 'watts')];
  };
  const pass = () => {
    let sum = 0;
    for (const { seconds, values } of Object.values(samples))
      for (let row = 1; row < seconds.length; row += 1)
        sum += (((values[row] ?? 0) + (values[row - 1] ?? 0)) / 2) * ((seconds[row] ?? 0) - (seconds[row - 1] ?? 0));
    return sum;
  };
  const timed = (work: () => unknown) => {
    const began = performance.now();
    work();
    return performance.now() - began;
  };
  pass();
  const pairs = Array.from({ length: ROUNDS }, () => {
    // What is known of columns is kept by them: new ones each time.
    const seconds = samples.watts?.seconds.slice() ?? new Float64Array();
    for (const column of Object.values(samples)) column.seconds = seconds;
    return [timed(all), timed(pass)] as const;
  });
  const [mine, bare] = [median(pairs.map(([one]) => one)), median(pairs.map(([, other]) => other))];
  const worst = `${ROWS} rows of ${Object.keys(samples).length} quantities ${mine.toFixed(0)} ms beside ${bare.toFixed(1)} ms, medians of ${ROUNDS}`;
  return Promise.resolve([atMost(40, { name: 'read', value: median(pairs.map(([one, other]) => one / other)), unit: 'ratio', worst })]);
}
