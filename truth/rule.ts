import { student } from '../core/margin/student';

/** The rule of docs/numbers.md, *Two setups*, written a second time from its text: what the sentences of a verdict are held against. */

/** A figure of one run. */
export interface Seen {
  value: number;
  /** Standard uncertainty of reading it. */
  u: number;
  low: number;
  high: number;
  /** What repeats vary in proportion to. */
  scale: number;
}

const PRIOR = { sigma: 0.03, freedom: 8 };
const meanOf = (values: readonly number[]) => values.reduce((sum, each) => sum + each, 0) / values.length;

/** d: the number of different checks that repeats answered; two are alike where the middles of their bounds lie within half a width. */
function checks(runs: readonly Seen[]): number {
  const firsts: Seen[] = [];
  for (const run of runs) if (run.high <= run.low || !firsts.some((each) => each.high > each.low && alike(each, run))) firsts.push(run);
  return firsts.length;
}
const alike = (one: Seen, other: Seen) =>
  Math.abs((one.low + one.high) / 2 - (other.low + other.high) / 2) <= 0.5 * ((one.high - one.low + other.high - other.low) / 2);

/** σ² = (8 · 0.03² + Σ νᵢ λᵢ² (sᵢ² − uᵢ² (dᵢ − 1) ÷ (nᵢ − 1)) ÷ mᵢ²) ÷ (8 + Σ νᵢ λᵢ²). */
function spread(setups: readonly (readonly Seen[])[]): { sigma: number; freedom: number } {
  let [top, bottom] = [PRIOR.freedom * PRIOR.sigma ** 2, PRIOR.freedom];
  for (const runs of setups.filter((each) => each.length > 1)) {
    const m = meanOf(runs.map(({ scale }) => scale));
    if (m === 0) continue;
    const own = meanOf(runs.map(({ u }) => u ** 2));
    const s2 = runs.reduce((sum, { scale }) => sum + (scale - m) ** 2, 0) / (runs.length - 1);
    const lambda = (PRIOR.sigma * m) ** 2 / ((PRIOR.sigma * m) ** 2 + own);
    const weight = (runs.length - 1) * lambda ** 2;
    top += (weight * (s2 - (own * (checks(runs) - 1)) / (runs.length - 1))) / m ** 2;
    bottom += weight;
  }
  return bottom === PRIOR.freedom
    ? { sigma: PRIOR.sigma, freedom: Infinity }
    : { sigma: Math.max(0.01, Math.sqrt(Math.max(0, top / bottom))), freedom: bottom };
}

/** Whether the first of two setups is surely below, above, or neither, given all setups of the study. */
export function tells(setups: readonly (readonly Seen[])[], one: number, other: number): 'below' | 'above' | 'tie' {
  const { sigma, freedom } = spread(setups);
  const of = (index: number) => {
    const runs = setups[index] ?? [];
    const varies = (sigma * meanOf(runs.map(({ scale }) => scale))) ** 2 / runs.length;
    return { mean: meanOf(runs.map(({ value }) => value)), varies, u2: varies + meanOf(runs.map(({ u }) => u ** 2)) / checks(runs), runs };
  };
  const [a, b] = [of(one), of(other)];
  const d = b.mean - a.mean;
  const [u2, varies] = [a.u2 + b.u2, a.varies + b.varies];
  const k = student(Number.isFinite(freedom) ? (freedom * u2 ** 2) / varies ** 2 : Infinity);
  if (Math.abs(d) <= k * Math.sqrt(u2)) return 'tie';
  const [x, y] = [a.runs[0], b.runs[0]];
  if (a.runs.length === 1 && b.runs.length === 1 && x && y) {
    const gap = Math.max(y.low - x.high, x.low - y.high);
    if (gap <= 0.5 * sigma * Math.hypot(x.scale, y.scale)) return 'tie';
  }
  return d > 0 ? 'below' : 'above';
}
