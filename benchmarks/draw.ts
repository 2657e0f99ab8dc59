import { quantile } from 'd3-array';
import { atMost, inColdBrowser, median, type Figure } from './harness';
import type { DrawTimes } from './pages/draw/main';

const RUNS = 10;
const SAMPLES = 86_400;
const FRAMES = 300;

/** Ten runs of 86,400 samples, one track, looked at closer and along: script a frame, beside a bare canvas that strokes as many points. */
export function draw({ draw: address }: { draw: string }): Promise<Figure[]> {
  return inColdBrowser(async (context) => {
    const page = context.pages()[0] ?? (await context.newPage());
    await page.goto(address);
    const { mine, bare, gaps, points } = await page.evaluate(
      ([runs = 0, samples = 0, frames = 0]) =>
        (window as unknown as { measure: (...sizes: number[]) => Promise<DrawTimes> }).measure(runs, samples, frames),
      [RUNS, SAMPLES, FRAMES],
    );
    const late = (times: number[]) => quantile(times, 0.95) ?? Number.NaN;
    const worst = `${RUNS} runs of ${SAMPLES} samples, ${points} points: ${late(mine).toFixed(1)} ms beside ${late(bare).toFixed(1)} ms, 95 % of ${FRAMES} frames; frames ${median(gaps).toFixed(0)} ms apart, 95 % within ${late(gaps).toFixed(0)} ms`;
    return [atMost(3, { name: 'draw', value: late(mine) / late(bare), unit: 'ratio', worst })];
  });
}
