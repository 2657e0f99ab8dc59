import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { median } from 'd3-array';
import { expect, it } from 'vitest';
import { readRun } from '../core/curve';
import { foldStored } from '../core/exchange';
import { answersOf, questionsIn } from './questions';
import { reviewerName, runsOfReviewer } from './reviewers';
import { writeReviewer } from './write';

const PAGE = fileURLToPath(new URL('../docs/analysis.md', import.meta.url));
const RUNS = 30;
const REVIEWERS = [0, 1];

it('the five questions of docs/analysis.md are answered by DuckDB over what our export writes, as our own figures have it', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'inkpath-fleet-'));
  try {
    for (const reviewer of REVIEWERS) await writeReviewer(folder, reviewer, RUNS);
    expect(questionsIn(PAGE)).toHaveLength(5);
    const [full, repeats, heat, ageing, back] = await answersOf(PAGE, folder);

    const all = REVIEWERS.flatMap((reviewer) => [...runsOfReviewer(reviewer, RUNS)].map((run) => readRun(foldStored(run))));
    expect(reviewerName(0)).toBe('reviewer-001');
    for (const { charger, runs, minutes } of full?.rows ?? []) {
      const times = all
        .filter(({ run }) => run.header.charger.name === charger)
        .flatMap(({ figures }) => {
          const found = figures.milestones.find(({ level }) => level === 100);
          return found?.state === 'reached' ? [found.bounds.high / 60] : [];
        });
      expect([charger, runs]).toEqual([charger, times.length]);
      expect(Math.abs(Number(minutes) - (median(times) ?? 0))).toBeLessThan(0.2);
    }
    expect(full?.rows.length).toBeGreaterThan(1);
    // Specimens vary by a few per cent.
    expect(Number(repeats?.rows[0]?.percent)).toBeGreaterThan(0);
    expect(Number(repeats?.rows[0]?.percent)).toBeLessThan(20);
    expect(Number(heat?.rows[0]?.degrees_per_watt)).toBeGreaterThan(0);
    // 0.15 % a run, a run each 3.7 days: some 15 % a year, and less of what the meter sees.
    expect(ageing?.rows.length).toBeGreaterThan(0);
    for (const { percent_a_year } of ageing?.rows ?? []) expect(Number(percent_a_year)).toBeLessThan(0);
    for (const { peak_watts, allowed } of back?.rows ?? []) expect(Number(peak_watts)).toBeLessThan(0.67 * Number(allowed));
  } finally {
    rmSync(folder, { recursive: true });
  }
});
