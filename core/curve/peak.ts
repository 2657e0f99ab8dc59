import { sighting, type Sighting, type Track } from '../ink/track';
import { gapsOf } from '../samples/gaps';

/** The highest power, and how it was taken: the label must say which. */
export type Peak =
  | { kind: 'single reading'; watts: number; seconds: number; uses: Sighting[] }
  | { kind: '60-second mean'; watts: number; seconds: number; uses: Sighting[] };

/** Length of the mean that counts as a peak of a meter's stream, in seconds. */
const HELD = 60;

/**
 * Peak power: the highest single reading, or of a meter's stream the highest mean over 60 seconds.
 *
 * @param watts   power, in W
 * @param sampled whether a meter streamed it
 * @returns `undefined` without watts, or when a stream is shorter than a minute. `seconds` is when it was read, or when the
 *          minute began.
 * @see numbers.md, *Peak*.
 */
export function peak(watts: Track, sampled: boolean): Peak | undefined {
  if (sampled && !knownPeaks.has(watts)) knownPeaks.set(watts, heldPeak(watts));
  const found = sampled ? knownPeaks.get(watts) : highestReading(watts);
  return found && { kind: sampled ? '60-second mean' : 'single reading', ...found };
}

/** Of streams that were looked through. */
const knownPeaks = new WeakMap<Track, Omit<Peak, 'kind'> | undefined>();

function highestReading(watts: Track): Omit<Peak, 'kind'> | undefined {
  let best = 0;
  for (let index = 1; index < watts.values.length; index += 1) {
    if ((watts.values[index] ?? 0) > (watts.values[best] ?? 0)) best = index;
  }
  const top = sighting(watts, best);
  return top && { watts: top.value, seconds: top.seconds, uses: [top] };
}

/** Mean by area over every window that begins at a sample and holds no unseen time; its end lies on the line between samples. */
function heldPeak(watts: Track): Omit<Peak, 'kind'> | undefined {
  const { seconds, values } = watts;
  const unseen = gapsOf(watts);
  const isSeen = (from: number) => !unseen.some((gap) => gap.from < from + HELD && gap.to > from);
  let [end, joules] = [0, 0];
  let best: Omit<Peak, 'kind'> | undefined;
  const area = (index: number) => {
    const step = (seconds[index + 1] ?? 0) - (seconds[index] ?? 0);
    return (step * ((values[index] ?? 0) + (values[index + 1] ?? 0))) / 2;
  };
  for (let start = 0; start < seconds.length; start += 1) {
    const from = seconds[start] ?? 0;
    while (end + 1 < seconds.length && (seconds[end + 1] ?? 0) <= from + HELD) {
      joules += area(end);
      end += 1;
    }
    const left = from + HELD - (seconds[end] ?? 0);
    if (end + 1 >= seconds.length && left > 0) break;
    const mean = (joules + tail(watts, end, left)) / HELD;
    if ((!best || mean > best.watts) && isSeen(from)) {
      const uses = [sighting(watts, start), sighting(watts, end)].filter((each) => each !== undefined);
      best = { watts: mean, seconds: from, uses };
    }
    if (end > start) joules -= area(start);
    else end = start + 1;
  }
  return best;
}

/** Area from row `index` on, for `left` seconds, along the line to the next row. */
function tail({ seconds, values }: Track, index: number, left: number): number {
  if (left <= 0) return 0;
  const value = values[index] ?? 0;
  const slope = ((values[index + 1] ?? 0) - value) / ((seconds[index + 1] ?? 0) - (seconds[index] ?? 0));
  return left * (value + (slope * left) / 2);
}
