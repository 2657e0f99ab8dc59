import { milestoneOf, displayedLevels } from '../core/curve/milestones';
import { gainAt } from '../core/curve/valueAt';
import { elapsedIn, foldRun, inkOf } from '../core/ink';
import { exampleHeader } from '../core/ink/example';
import { seeded } from '../core/simulate/seeded';
import { levelAt, MODELS, pick, shownAt, timesOf } from './models';

/** How often times and gains that were read off a clip hold what was truly so. */
export interface Clips {
  times: { of: number; held: number; narrow: number };
  gains: { of: number; held: number };
}

/**
 * Charges of models that know nothing of ours, filmed and played faster; levels are read where they first show, at whole seconds of the clip.
 *
 * @returns of so many times and gains, how many lie within what is claimed; `narrow`: times that are claimed better than a second of the clip
 */
export function playClips(count: number, seed: number): Clips {
  const noise = seeded(seed);
  const found: Clips = { times: { of: 0, held: 0, narrow: 0 }, gains: { of: 0, held: 0 } };
  for (let clip = 0; clip < count; clip += 1) {
    const rate = pick(MODELS, noise).device(noise);
    const speed = pick([30, 60, 120, 240], noise);
    const start = Math.round(5 + 30 * noise());
    const times = timesOf(rate, start);
    // Where plug-in lies within its second of the clip is no more known than any other moment.
    const pluggedIn = 10 + noise();
    const footage = { offset: Math.floor(pluggedIn), speed, cuts: [] };
    const every = Math.max(1, Math.round(pick([5, 10, 20], noise) * (60 / speed)));
    const readings = [{ seconds: 0, percent: shownAt(times, 0) }];
    for (let second = footage.offset + every; ; second += every) {
      const minutes = ((second + noise() - pluggedIn) * speed) / 60;
      readings.push({ seconds: elapsedIn(footage, second), percent: shownAt(times, minutes) });
      if ((readings.at(-1)?.percent ?? 0) >= 95 || minutes > 20 * 60) break;
    }
    const header = exampleHeader({ footage });
    const levels = displayedLevels(foldRun(header, inkOf(header, readings)));
    for (const level of [50, 80, 90]) {
      const [milestone, truth] = [milestoneOf(levels, level), (times[level] ?? Infinity) * 60];
      if (milestone.state !== 'reached') continue;
      found.times.of += 1;
      if (milestone.bounds.low <= truth && truth <= milestone.bounds.high) found.times.held += 1;
      if (milestone.bounds.high - milestone.bounds.low < speed) found.times.narrow += 1;
    }
    for (const seconds of [900, 1800, 3600]) {
      const gain = gainAt(levels.percent, seconds, levels);
      if (gain.state !== 'known' || gain.isFull) continue;
      found.gains.of += 1;
      const truth = levelAt(times, seconds / 60) - levelAt(times, 0);
      if (Math.abs(gain.value - truth) <= 2 * gain.uncertainty + 1) found.gains.held += 1;
    }
  }
  return found;
}
