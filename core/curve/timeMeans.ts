import { gapsOf, gapWalk, type Span } from '../samples/gaps';
import type { SampleColumn } from '../samples/column';

/** A track in even bins: the mean of each by its area, and the share of it in which something was seen. */
export interface TimeMeans {
  /** When the first bin begins, in seconds from plug-in. */
  from: number;
  /** Length of a bin, in seconds. */
  width: number;
  /** Mean of each bin; 0 where nothing was seen. */
  means: Float64Array;
  /** Share of each bin that was seen, 0 to 1. */
  seen: Float64Array;
}

/** Bins at most: a longer run has wider ones. */
const MOST_BINS = 1000;
/** The shortest bin, in seconds. */
const SHORTEST = 10;

/** The interval between rows that half of them keep, in seconds. */
function usualInterval({ seconds }: SampleColumn): number {
  const steps: number[] = [];
  const stride = Math.max(1, Math.floor(seconds.length / MOST_BINS));
  for (let row = stride; row < seconds.length; row += stride) steps.push(((seconds[row] ?? 0) - (seconds[row - stride] ?? 0)) / stride);
  return steps.sort((one, other) => one - other)[Math.floor(steps.length / 2)] ?? SHORTEST;
}

/**
 * Means over even bins of ten seconds, or so wide that there are at most a thousand, and none narrower than the usual interval between rows.
 * Each is the area under the line from row to row; gaps count as unseen.
 *
 * @param unseen spans without values
 */
export function timeMeans(column: SampleColumn, unseen: readonly Span[] = gapsOf(column)): TimeMeans {
  const { seconds, values } = column;
  const [first, to] = [seconds[0] ?? 0, seconds[seconds.length - 1] ?? 0];
  const [finest, interval] = [Math.max(SHORTEST, (to - first) / MOST_BINS), usualInterval(column)];
  const width = Math.max(finest, interval);
  // Where a bin holds one row, that row stands in its middle.
  const from = interval > finest ? first - width / 2 : first;
  const count = Math.max(1, Math.ceil((to - from) / width - 1e-9));
  const [area, covered] = [new Float64Array(count), new Float64Array(count)];
  const isUnseen = gapWalk(unseen);
  for (let row = 1; row < seconds.length; row += 1) {
    const start = seconds[row - 1] ?? 0;
    const end = seconds[row] ?? 0;
    if (end <= start || isUnseen(start, end)) continue;
    const slope = ((values[row] ?? 0) - (values[row - 1] ?? 0)) / (end - start);
    for (let at = start; at < end - 1e-9;) {
      const bin = Math.min(count - 1, Math.floor((at - from) / width + 1e-9));
      const next = bin === count - 1 ? end : Math.min(end, from + (bin + 1) * width);
      const middle = (values[row - 1] ?? 0) + slope * ((at + next) / 2 - start);
      area[bin] = (area[bin] ?? 0) + middle * (next - at);
      covered[bin] = (covered[bin] ?? 0) + next - at;
      at = next;
    }
  }
  return {
    from,
    width,
    means: area.map((each, bin) => ((covered[bin] ?? 0) > 0 ? each / (covered[bin] ?? 1) : 0)),
    seen: covered.map((each) => Math.min(1, each / width)),
  };
}

/** The same of rows that lie further apart than ten seconds: each is a bin of its own, and what lies between two of them is nobody's. */
export function binned(column: SampleColumn, unseen: readonly Span[] = gapsOf(column)): TimeMeans {
  const { seconds, values } = column;
  const found = timeMeans(column, unseen);
  const { from, width, means } = found;
  if (from === seconds[0]) return found;
  const [total, rows] = [new Float64Array(means.length), new Float64Array(means.length)];
  for (let row = 0; row < seconds.length; row += 1) {
    const bin = Math.min(means.length - 1, Math.max(0, Math.floor(((seconds[row] ?? 0) - from) / width + 1e-9)));
    total[bin] = (total[bin] ?? 0) + (values[row] ?? 0);
    rows[bin] = (rows[bin] ?? 0) + 1;
  }
  return {
    from,
    width,
    means: total.map((each, bin) => each / Math.max(1, rows[bin] ?? 0)),
    seen: rows.map((count) => Math.min(1, count)),
  };
}
