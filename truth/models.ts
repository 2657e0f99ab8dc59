/**
 * Charge models to test against. They know nothing of core/simulate: each is a rate of charge by level and time, in percent a minute, written down
 * from how such devices are said to behave (common practice, no source).
 */
export interface Model {
  name: string;
  kind: 'phone' | 'tablet' | 'laptop' | 'camera' | 'bank';
  /** What differs from device to device, drawn once for each. */
  device: (noise: () => number) => Rate;
}

/** Percent a minute at a level (0–100) and a time (minutes). */
export type Rate = (level: number, minutes: number) => number;

/** A number from the normal distribution, by Box and Muller. */
export const normal = (noise: () => number) => Math.sqrt(-2 * Math.log(1 - noise())) * Math.cos(2 * Math.PI * noise());

/** One of several, each as likely. */
export const pick = <Each>(all: readonly Each[], noise: () => number): Each => all[Math.floor(noise() * all.length)] as Each;

const between = (noise: () => number, low: number, high: number) => low + (high - low) * noise();

export const MODELS: readonly Model[] = [
  {
    // An ideal cell behind a resistance: constant current to the knee, then a current that falls exponentially with what is missing.
    name: 'constant current, constant voltage',
    kind: 'camera',
    device: (noise) => {
      const [rate, knee, end] = [between(noise, 0.6, 1.4), between(noise, 65, 85), between(noise, 102, 104)];
      return (level) => (level < knee ? rate : (rate * (end - level)) / (end - knee));
    },
  },
  {
    // Constant power into a voltage that rises: the current falls a little all the way, then tapers.
    name: 'power taper',
    kind: 'tablet',
    device: (noise) => {
      const [rate, knee] = [between(noise, 0.4, 1), between(noise, 75, 88)];
      return (level) => {
        const base = rate * (1 - 0.0015 * level);
        return level < knee ? base : base * Math.max(0.08, (103 - level) / (103 - knee)) ** 1.2;
      };
    },
  },
  {
    name: 'linear taper',
    kind: 'phone',
    device: (noise) => {
      const [rate, from, last] = [between(noise, 1.2, 3), between(noise, 20, 50), between(noise, 0.08, 0.2)];
      return (level) => (level < from ? rate : rate * (1 - ((1 - last) * (level - from)) / (100 - from)));
    },
  },
  {
    name: 'steps',
    kind: 'phone',
    device: (noise) => {
      const rate = between(noise, 1.5, 3.5);
      const [one, two, three] = [between(noise, 30, 50), between(noise, 55, 70), between(noise, 76, 86)];
      const shares = [1, between(noise, 0.6, 0.85), between(noise, 0.4, 0.58), between(noise, 0.18, 0.35)];
      return (level) => rate * (shares[level < one ? 0 : level < two ? 1 : level < three ? 2 : 3] ?? 1) * (level > 95 ? 0.6 : 1);
    },
  },
  {
    // Warm after a while: what it takes falls, and comes back in part.
    name: 'throttling',
    kind: 'phone',
    device: (noise) => {
      const [rate, hot, cool, knee] = [between(noise, 1.2, 2.4), between(noise, 12, 25), between(noise, 30, 50), between(noise, 70, 85)];
      const share = between(noise, 0.55, 0.8);
      return (level, minutes) => {
        const warm = minutes < hot ? 1 : minutes < cool ? share : (1 + share) / 2;
        return rate * warm * (level < knee ? 1 : Math.max(0.1, (102 - level) / (102 - knee)));
      };
    },
  },
  {
    name: 'slow after 80',
    kind: 'phone',
    device: (noise) => {
      const [rate, after] = [between(noise, 0.8, 2.2), between(noise, 0.25, 0.5)];
      return (level) => rate * (level < 80 ? 1 : after * (level < 97 ? 1 : 0.6));
    },
  },
  {
    name: 'burst',
    kind: 'phone',
    device: (noise) => {
      const [burst, rate, until, knee] = [between(noise, 3, 5), between(noise, 1, 1.8), between(noise, 25, 50), between(noise, 75, 88)];
      return (level) => (level < until ? burst : level < knee ? rate : rate * Math.max(0.12, (101 - level) / (101 - knee)));
    },
  },
  {
    // A laptop in use: what is left for the battery comes and goes with its load.
    name: 'changing load',
    kind: 'laptop',
    device: (noise) => {
      const [rate, knee, period, phase] = [between(noise, 0.8, 1.8), between(noise, 70, 85), between(noise, 15, 40), between(noise, 0, 6)];
      const depth = between(noise, 0.1, 0.3);
      return (level, minutes) =>
        rate *
        (1 - depth * (1 + Math.sin((2 * Math.PI * minutes) / period + phase))) *
        (level < knee ? 1 : Math.max(0.1, (102 - level) / (102 - knee)));
    },
  },
  {
    name: 'bank',
    kind: 'bank',
    device: (noise) => {
      const [rate, knee] = [between(noise, 0.3, 0.8), between(noise, 85, 94)];
      return (level) => (level < knee ? rate : rate * Math.max(0.15, (101 - level) / (101 - knee)));
    },
  },
];

/** Minutes at which the true level reaches each whole percent from 0 to 100, from a start. */
export function timesOf(rate: Rate, from: number): number[] {
  const step = 1 / 30;
  const times: number[] = Array.from({ length: 101 }, (_, level) => (level <= from ? 0 : Number.NaN));
  let [level, minutes] = [from, 0];
  while (level < 100 && minutes < 3000) {
    const gain = rate(level, minutes) * step;
    for (let next = Math.floor(level) + 1; next <= 100 && next <= level + gain; next += 1)
      times[next] = minutes + (step * (next - level)) / gain;
    level += gain;
    minutes += step;
  }
  return times;
}

/** The level displayed after so many minutes: whole percents, each as soon as it is reached. */
export function shownAt(times: readonly number[], minutes: number): number {
  let [low, high] = [0, 100];
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if ((times[middle] ?? Infinity) <= minutes) low = middle;
    else high = middle - 1;
  }
  return low;
}

/** The true level after so many minutes, between the moments at which whole percents are reached. */
export function levelAt(times: readonly number[], minutes: number): number {
  const shown = shownAt(times, minutes);
  if (shown >= 100) return 100;
  const [begin, end] = [times[shown] ?? 0, times[shown + 1] ?? Infinity];
  return Number.isFinite(end) && end > begin ? shown + Math.min(1, (minutes - begin) / (end - begin)) : shown;
}
