import { quantile } from 'd3-array';
import type { Page } from '@playwright/test';
import { atMost, inColdBrowser, median, type Figure } from './harness';
import type { DrawTimes } from './pages/draw/main';

const FRAMES = 300;

interface Drawn {
  name: string;
  runs: number;
  samples: number;
  /** Runs of one setup share its name and its pen. */
  setups?: number;
  /** Rows that are drawn of one run. */
  max?: number;
}
const CASES: readonly Drawn[] = [
  { name: 'draw', runs: 10, samples: 86_400 },
  // Twenty setups of three runs, as a comparison draws them.
  { name: 'draw, compared', runs: 60, samples: 3600, setups: 20, max: 400 },
];

/** Runs over each other, one track, looked at closer and along: script a frame, beside a bare canvas that strokes as many points. */
export function draw({ draw: address }: { draw: string }): Promise<Figure[]> {
  return inColdBrowser(async (context) => {
    const page = context.pages()[0] ?? (await context.newPage());
    const figures: Figure[] = [];
    for (const each of CASES) figures.push(await drawn(page, address, each));
    return figures;
  });
}

async function drawn(page: Page, address: string, { name, runs, samples, setups = runs, max }: Drawn): Promise<Figure> {
  await page.goto(new URL('/live', address).href);
  const { mine, bare, gaps, points } = await page.evaluate(
    ([ofRuns = 0, ofSamples = 0, frames = 0, ofSetups, rows]) =>
      (window as unknown as { measure: (...sizes: (number | undefined)[]) => Promise<DrawTimes> }).measure(
        ofRuns,
        ofSamples,
        frames,
        ofSetups,
        rows,
      ),
    [runs, samples, FRAMES, setups, max] as (number | undefined)[],
  );
  const late = (times: number[]) => quantile(times, 0.95) ?? Number.NaN;
  const worst = `${runs} runs of ${samples} samples, ${points} points: ${late(mine).toFixed(1)} ms beside ${late(bare).toFixed(1)} ms, 95 % of ${FRAMES} frames; frames ${median(gaps).toFixed(0)} ms apart, 95 % within ${late(gaps).toFixed(0)} ms`;
  return atMost(3, { name, value: late(mine) / late(bare), unit: 'ratio', worst });
}
