/** A piece of a series that is described as one: a constant, or the taper that may come last. */
export interface Segment {
  /** First bin, and the one after the last. */
  from: number;
  to: number;
  /** At its two ends: the same for a constant. */
  first: number;
  last: number;
  isTaper: boolean;
}

/** A series in even bins, each with its weight: 0 where nothing was seen. */
export interface Series {
  values: ArrayLike<number>;
  weights: ArrayLike<number>;
}

/** What a description costs beside its squared misfit. */
export interface Penalty {
  /** Of each constant, and of the taper. */
  each: number;
  taper: number;
  /** Fewest bins of a constant, and of the taper. */
  least: number;
}

/** Shares of its height that a taper may lose from one bin to the next: from a day to a few bins, evenly on a scale of ratios. */
const RATES = Array.from({ length: 120 }, (_, index) => Math.exp(-(10 ** (-3.6 + index * 0.028))));

/** Squared misfit of a constant over any stretch, from sums: two subtractions a question. */
function constants({ values, weights }: Series) {
  const count = values.length;
  const [mass, sum, square] = [new Float64Array(count + 1), new Float64Array(count + 1), new Float64Array(count + 1)];
  for (let bin = 0; bin < count; bin += 1) {
    const weight = weights[bin] ?? 0;
    const value = values[bin] ?? 0;
    mass[bin + 1] = (mass[bin] ?? 0) + weight;
    sum[bin + 1] = (sum[bin] ?? 0) + weight * value;
    square[bin + 1] = (square[bin] ?? 0) + weight * value * value;
  }
  const between = (of: Float64Array, from: number, to: number) => (of[to] ?? 0) - (of[from] ?? 0);
  return {
    mean: (from: number, to: number) => between(sum, from, to) / Math.max(between(mass, from, to), 1e-12),
    cost: (from: number, to: number) => {
      const weight = between(mass, from, to);
      return weight <= 0 ? 0 : Math.max(0, between(square, from, to) - between(sum, from, to) ** 2 / weight);
    },
  };
}

/** The taper that ends a series. */
interface Taper {
  /** Its first bin. */
  from: number;
  /** Height above what it falls to, at its first bin; what it falls to; share kept from bin to bin. */
  height: number;
  floor: number;
  rate: number;
  /** What the whole description costs with it. */
  total: number;
}

/** A few rates of the whole scale come first: once a good one is found, little of the others is weighed. */
const FIRST = 8;
const IN_TURN = [0, 1].flatMap((turn) => RATES.filter((_, index) => (index % FIRST === 0) === (turn === 0)));

/**
 * The falling exponential to the end, its floor at zero or above, with which a series is described most cheaply: weighted least squares for each of
 * the rates from each bin.
 *
 * @param before what is spent before a taper that begins at each bin; `Infinity` where none may
 * @param most   what it has to be cheaper than
 */
export function taperOf({ values, weights }: Series, before: ArrayLike<number>, most: number): Taper | undefined {
  const count = values.length;
  // From each bin to the end, whatever the rate: weight, and the weighted sums of values and of their squares.
  const [mass, sum, square] = [new Float64Array(count + 1), new Float64Array(count + 1), new Float64Array(count + 1)];
  for (let bin = count - 1; bin >= 0; bin -= 1) {
    const weight = weights[bin] ?? 0;
    const value = values[bin] ?? 0;
    mass[bin] = (mass[bin + 1] ?? 0) + weight;
    sum[bin] = (sum[bin + 1] ?? 0) + weight * value;
    square[bin] = (square[bin + 1] ?? 0) + weight * value * value;
  }
  let best: Taper | undefined;
  let total = most;
  for (const rate of IN_TURN) {
    let u = 0;
    let uu = 0;
    let uy = 0;
    for (let bin = count - 1; bin >= 0; bin -= 1) {
      const weight = weights[bin] ?? 0;
      u = weight + rate * u;
      uu = weight + rate * rate * uu;
      uy = weight * (values[bin] ?? 0) + rate * uy;
      const spent = before[bin] ?? Infinity;
      if (spent >= total) continue;
      const m = mass[bin] ?? 0;
      const y = sum[bin] ?? 0;
      const spread = m * uu - u * u;
      const isTold = spread > 1e-9 * m * uu;
      let height = isTold ? (m * uy - u * y) / spread : 0;
      let floor = isTold ? (uu * y - u * uy) / spread : 0;
      if (floor < 0) {
        height = uu > 0 ? uy / uu : 0;
        floor = 0;
      }
      // At least squares, what is left is what the fit does not explain.
      const cost = spent + Math.max(0, (square[bin] ?? 0) - height * uy - floor * y);
      if (height <= 0 || cost >= total) continue;
      total = cost;
      best = { from: bin, height, floor, rate, total };
    }
  }
  return best;
}

/**
 * The cheapest constants up to each bin: what they cost, and where the last of them begins. A beginning that costs no less than another border put here
 * is never cheaper later on, for two constants fit no worse than one; but the one from here must be long enough first.
 */
function partition(cost: (from: number, to: number) => number, { count, each, least }: { count: number; each: number; least: number }) {
  const cheapest = new Float64Array(count + 1).fill(Infinity);
  const before = new Int32Array(count + 1).fill(-1);
  cheapest[0] = 0;
  // Beginnings that are still weighed, in order; until which bin each is; and what each costs up to here.
  const [begins, until, costs] = [new Int32Array(count + 1), new Int32Array(count + 1).fill(count), new Float64Array(count + 1)];
  let weighed = 0;
  for (let to = least; to <= count; to += 1) {
    if (Number.isFinite(cheapest[to - least])) begins[weighed++] = to - least;
    let best = Infinity;
    let at = -1;
    let kept = 0;
    for (let index = 0; index < weighed; index += 1) {
      const from = begins[index] ?? 0;
      if ((until[from] ?? 0) < to) continue;
      begins[kept++] = from;
      // A misfit is never below zero: what costs as much without one is no cheaper with it.
      const known = (cheapest[from] ?? Infinity) + each;
      const total = known >= best ? -Infinity : known + cost(from, to);
      costs[from] = total;
      if (known >= best || total >= best) continue;
      best = total;
      at = from;
    }
    weighed = kept;
    cheapest[to] = best;
    before[to] = at;
    for (let index = 0; index < weighed; index += 1) {
      const from = begins[index] ?? 0;
      if ((costs[from] ?? 0) - each >= best) until[from] = Math.min(until[from] ?? 0, to + least - 1);
    }
  }
  return { cheapest, before };
}

/**
 * The cheapest description of a series as constants, followed by at most one falling exponential that goes on to its end. Exact for its cost and
 * penalty: every place of every border is weighed, but those that can no longer be part of the cheapest.
 *
 * @returns the pieces in order; together they cover the series
 * @see Killick, Fearnhead & Eckley 2012, for optimal partitioning by dynamic programming and for what is left out of it.
 */
export function segmentsOf(series: Series, { each, taper, least }: Penalty): Segment[] {
  const count = series.values.length;
  if (count === 0) return [];
  const { cost, mean } = constants(series);
  const { cheapest, before } = partition(cost, { count, each, least: Math.min(least, count) });
  const spent = cheapest.map((constant, from) => (from <= count - least ? constant + taper : Infinity));
  const last = taperOf(series, spent, cheapest[count] ?? Infinity);
  const pieces: Segment[] = [];
  for (let to = last?.from ?? count; to > 0;) {
    const from = before[to] ?? 0;
    const level = mean(from, to);
    pieces.unshift({ from, to, first: level, last: level, isTaper: false });
    to = from;
  }
  if (last) {
    const at = (bin: number) => last.floor + last.height * last.rate ** bin;
    pieces.push({ from: last.from, to: count, first: at(0), last: at(count - last.from - 1), isTaper: true });
  }
  return pieces;
}
