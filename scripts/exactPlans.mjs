import { execFileSync } from 'node:child_process';
import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { cacheFolder, ROOT } from './setup.mjs';

/**
 * Makes core/plan/fixtures/exact.json anew: small plans, with the soonest finish that MiniZinc with Gecode proves for each.
 * Needs Debian's `minizinc`. Nothing of core/ is used here, so that the two can disagree.
 */
const MOST_JOBS = 8;
const CASES = 24;
const MINUTE = 60;
const DAY = 1440;
const SOLVER = ['--solver', 'gecode', '--time-limit', '60000'];

/** Numerical Recipes’ linear congruential generator: repeatable, and not the program’s own. */
function randomFrom(seed) {
  let state = seed;
  return (below) => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return Math.floor((state / 2 ** 32) * below);
  };
}

/** A plan in minutes, but for visits, which are in seconds. */
function problemOf(seed) {
  const pick = randomFrom(seed);
  const count = 3 + (seed % (MOST_JOBS - 2));
  const every = [5, 10, 15][pick(3)];
  const reading = [20, 45, 60][pick(3)];
  const meters = 1 + pick(2);
  const [devices, chargers] = [2 + pick(2), 2 + pick(3)];
  const prepare = [0, 30, 75][pick(3)];
  const jobs = Array.from({ length: count }, (_, index) => {
    const checks = 2 + pick(Math.floor(170 / every));
    const setUp = 2;
    const visits = Array.from({ length: checks + 1 }, (_, check) => ({
      from: check === 0 ? 0 : (setUp + check * every) * MINUTE,
      to: (setUp + check * every) * MINUTE + reading + (check === checks ? MINUTE : 0),
    }));
    const length = Math.ceil(visits.at(-1).to / MINUTE);
    const spans = [
      { resource: `device/${pick(devices)}`, from: -prepare, to: length },
      { resource: `charger/${pick(chargers)}`, from: 0, to: length },
      { resource: 'meter', from: 0, to: length },
    ];
    return { key: `run ${index + 1}`, spans, visits, length };
  });
  const windows = Array.from({ length: count + 2 }, (_, index) => {
    const day = Math.floor(index / 2);
    return index % 2 === 0 ? { from: day * DAY + 540, to: day * DAY + 540 + 200 } : { from: day * DAY + 800, to: day * DAY + 800 + 240 };
  });
  return { jobs, capacity: { meter: meters }, windows, earliest: 0 };
}

/** Differences of two starts, in minutes, at which the two jobs get in each other’s way. */
function forbidden(one, other, capacity) {
  const bad = new Set();
  const clash = (mine, theirs, unit) => {
    // Theirs begins `shift` minutes after mine: they overlap when theirs.from + shift < mine.to and theirs.to + shift > mine.from.
    for (let shift = -2 * DAY; shift <= 2 * DAY; shift += 1)
      if (theirs.from + shift * unit < mine.to && theirs.to + shift * unit > mine.from) bad.add(shift);
  };
  for (const mine of one.spans)
    for (const theirs of other.spans) if (mine.resource === theirs.resource && (capacity[mine.resource] ?? 1) === 1) clash(mine, theirs, 1);
  for (const mine of one.visits) for (const theirs of other.visits) clash(mine, theirs, MINUTE);
  return [...bad].sort((a, b) => a - b);
}

/** Ascending numbers as a set of MiniZinc. */
const setOf = (numbers) => `{${numbers.join(', ')}}`;

function modelOf({ jobs, capacity, windows, earliest }) {
  const horizon = windows.at(-1).to;
  const lines = [`include "cumulative.mzn";`, `array[1..${jobs.length}] of var 0..${horizon}: s;`, `var 0..${horizon}: finish;`];
  jobs.forEach(({ spans, length }, index) => {
    const ready = earliest - Math.min(0, ...spans.map(({ from }) => from));
    const domain = windows
      .filter(({ from, to }) => Math.max(from, ready) + length <= to)
      .map(({ from, to }) => `${Math.max(from, ready)}..${to - length}`);
    lines.push(`constraint s[${index + 1}] in ${domain.join(' union ')};`, `constraint finish >= s[${index + 1}] + ${length};`);
  });
  for (let one = 0; one < jobs.length; one += 1)
    for (let other = one + 1; other < jobs.length; other += 1)
      lines.push(`constraint not ((s[${other + 1}] - s[${one + 1}]) in ${setOf(forbidden(jobs[one], jobs[other], capacity))});`);
  // Said twice, so that proofs come sooner: which window each is in, and that no window holds more of a resource than goes into it.
  lines.push(`array[1..${jobs.length}] of var 1..${windows.length}: w;`);
  jobs.forEach(({ length }, index) => {
    lines.push(
      `constraint s[${index + 1}] >= [${windows.map(({ from }) => from)}][w[${index + 1}]];`,
      `constraint s[${index + 1}] + ${length} <= [${windows.map(({ to }) => to)}][w[${index + 1}]];`,
    );
  });
  for (const resource of new Set(jobs.flatMap(({ spans }) => spans.map((span) => span.resource)))) {
    const spans = jobs.flatMap((job, index) =>
      job.spans.filter((span) => span.resource === resource).map((span) => ({ ...span, job: index + 1 })),
    );
    const before = Math.max(...spans.map(({ from }) => -from));
    windows.forEach(({ from, to }, index) => {
      const load = spans.map((span) => `bool2int(w[${span.job}] = ${index + 1}) * ${span.to - span.from}`).join(' + ');
      lines.push(`constraint ${load} <= ${(capacity[resource] ?? 1) * (to - from + before)};`);
    });
    const begin = spans.map(({ job, from }) => `s[${job}] + ${from}`);
    lines.push(
      `constraint cumulative([${begin}], [${spans.map(({ from, to }) => to - from)}], [${spans.map(() => 1)}], ${capacity[resource] ?? 1});`,
    );
  }
  lines.push(
    'solve :: seq_search([int_search(w, first_fail, indomain_min), int_search(s, smallest, indomain_min)]) minimize finish;',
    'output ["\\(finish)"];',
  );
  return lines.join('\n');
}

/** In seconds, as core/plan takes it. */
const inSeconds = ({ jobs, capacity, windows, earliest }) => ({
  jobs: jobs.map((job) => ({
    ...job,
    length: job.length * MINUTE,
    spans: job.spans.map(({ resource, from, to }) => ({ resource, from: from * MINUTE, to: to * MINUTE })),
    overnight: false,
  })),
  capacity,
  windows: windows.map(({ from, to }) => ({ from: from * MINUTE, to: to * MINUTE })),
  earliest,
});

const file = join(cacheFolder(), 'plan.mzn');
const cases = [];
for (let seed = 1; seed <= CASES; seed += 1) {
  const problem = problemOf(seed);
  writeFileSync(file, modelOf(problem));
  const said = execFileSync('minizinc', [...SOLVER, file], { encoding: 'utf8', stdio: ['ignore', 'pipe', 'ignore'] });
  const isProven = said.includes('==========');
  const finish = Number(
    said
      .split('\n')
      .filter((line) => /^\d+$/.test(line))
      .at(-1),
  );
  console.log(`case ${seed}: ${problem.jobs.length} runs, ${isProven ? `finish at ${finish} min` : 'not proven in time, left out'}`);
  if (isProven) cases.push({ problem: inSeconds(problem), finish: finish * MINUTE });
}
const version = execFileSync('minizinc', ['--version'], { encoding: 'utf8' }).split('\n')[0];
const folder = join(ROOT, 'core', 'plan', 'fixtures');
mkdirSync(folder, { recursive: true });
const about = { made: 'node scripts/exactPlans.mjs', solver: `${version}; minizinc ${SOLVER.join(' ')}` };
writeFileSync(join(folder, 'exact.json'), `${JSON.stringify({ ...about, cases })}\n`);
console.log(`core/plan/fixtures/exact.json: ${cases.length} of ${CASES} cases`);
