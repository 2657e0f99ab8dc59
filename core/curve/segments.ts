/** A piece of a series that is described as one: a constant, or a straight line. */
export interface Segment {
  /** First bin, and the one after the last. */
  from: number;
  to: number;
  /** At its two ends: the same for a constant. */
  first: number;
  last: number;
  isLine: boolean;
}

/** A series in even bins, each with its weight: 0 where nothing was seen. */
export interface Series {
  values: ArrayLike<number>;
  weights: ArrayLike<number>;
}

/** What a piece of each kind costs beside its squared misfit. */
export interface Penalty {
  constant: number;
  line: number;
}

/** Squared misfit of constants and straight lines over any stretch, from sums: a few subtractions a question. */
function misfits({ values, weights }: Series) {
  const count = values.length;
  const sums = Array.from({ length: 6 }, () => new Float64Array(count + 1));
  const [w, wx, wxx, wy, wxy, wyy] = sums as [Float64Array, Float64Array, Float64Array, Float64Array, Float64Array, Float64Array];
  for (let bin = 0; bin < count; bin += 1) {
    const [weight, value] = [weights[bin] ?? 0, values[bin] ?? 0];
    w[bin + 1] = (w[bin] ?? 0) + weight;
    wx[bin + 1] = (wx[bin] ?? 0) + weight * bin;
    wxx[bin + 1] = (wxx[bin] ?? 0) + weight * bin * bin;
    wy[bin + 1] = (wy[bin] ?? 0) + weight * value;
    wxy[bin + 1] = (wxy[bin] ?? 0) + weight * bin * value;
    wyy[bin + 1] = (wyy[bin] ?? 0) + weight * value * value;
  }
  const between = (of: Float64Array, from: number, to: number) => (of[to] ?? 0) - (of[from] ?? 0);
  /** Misfit of the mean, and by how much a slope lessens it. */
  const of = (from: number, to: number) => {
    const mass = between(w, from, to);
    if (mass <= 0) return { constant: 0, line: 0, mean: 0, slope: 0, middle: (from + to - 1) / 2 };
    const [x, y] = [between(wx, from, to) / mass, between(wy, from, to) / mass];
    const sxx = between(wxx, from, to) - mass * x * x;
    const sxy = between(wxy, from, to) - mass * x * y;
    const constant = Math.max(0, between(wyy, from, to) - mass * y * y);
    const slope = sxx > 1e-9 * mass ? sxy / sxx : 0;
    return { constant, line: Math.max(0, constant - slope * sxy), mean: y, slope, middle: x };
  };
  return of;
}

/**
 * The cheapest description of a series as pieces that are constant or straight lines: an exact dynamic programme over all borders. Borders that can
 * begin no cheapest piece any more are left out (Killick, Fearnhead and Eckley 2012, *Optimal detection of changepoints with a linear computational cost*).
 *
 * @returns the pieces in order; they cover every bin
 */
export function segmentsOf(series: Series, { constant, line }: Penalty): Segment[] {
  const count = series.values.length;
  const misfit = misfits(series);
  const cheapest = new Float64Array(count + 1);
  const begins = new Int32Array(count + 1);
  const isLine = new Uint8Array(count + 1);
  let open = [0];
  for (let to = 1; to <= count; to += 1) {
    let best = Infinity;
    const still: [from: number, least: number][] = [];
    for (const from of open) {
      const found = misfit(from, to);
      const spent = cheapest[from] ?? 0;
      still.push([from, spent + found.line]);
      const isStraight = found.line + line < found.constant + constant;
      const total = spent + (isStraight ? found.line + line : found.constant + constant);
      if (total >= best) continue;
      best = total;
      begins[to] = from;
      isLine[to] = isStraight ? 1 : 0;
    }
    cheapest[to] = best;
    // What is dearer before it has paid for its piece stays dearer, however the series goes on.
    open = [...still.flatMap(([from, min]) => (min < best ? [from] : [])), to];
  }
  const pieces: Segment[] = [];
  for (let to = count; to > 0; to = begins[to] ?? 0) {
    const from = begins[to] ?? 0;
    const { mean, slope, middle } = misfit(from, to);
    const at = (bin: number) => (isLine[to] ? mean + slope * (bin - middle) : mean);
    // At the outer edges of its first and last bin.
    pieces.push({ from, to, first: at(from - 0.5), last: at(to - 0.5), isLine: isLine[to] === 1 });
  }
  return pieces.reverse();
}
