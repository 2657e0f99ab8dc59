import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { answersOf } from './questions';
import { reviewerName, runsOfReviewer } from './reviewers';
import { writeReviewer } from './write';

/** `npm run fleet -- 100`: so many made-up reviewers, 100 runs each with 10,000 values, written as Parquet; then the questions of docs/analysis.md. */
const RUNS = 100;
const count = Number(process.argv[2] ?? 2);
if (!Number.isInteger(count) || count < 1 || count > 1000) {
  console.error('Say how many reviewers, from 1 to 1000: npm run fleet -- 2');
  process.exit(1);
}
const folder = join('.cache', 'fleet');
rmSync(folder, { recursive: true, force: true });
const begin = performance.now();
for (let reviewer = 0; reviewer < count; reviewer += 1) {
  await writeReviewer(folder, reviewer, RUNS);
  if ((reviewer + 1) % 10 === 0) console.log(`${reviewerName(reviewer)} written, ${Math.round((performance.now() - begin) / 1000)} s`);
}
const [first] = runsOfReviewer(0, 1);
const values = Object.values(first?.samples ?? {}).reduce((sum, column) => sum + column.values.length, 0);
console.log(
  `${count} reviewers, ${count * RUNS} runs, ${((count * RUNS * values) / 1e6).toFixed(1)} million values written in ${((performance.now() - begin) / 1000).toFixed(1)} s.`,
);
for (const { title, rows, took } of await answersOf('docs/analysis.md', folder)) {
  console.log(`\n${title}: ${(took / 1000).toFixed(2)} s, ${rows.length} rows`);
  console.table(rows.slice(0, 8));
}
