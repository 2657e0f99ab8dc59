import { compareRuns } from '../core/compare';
import { changeOf, evenly, KEEPABLE, type Change } from '../core/plan/tell';
import { seeded } from '../core/simulate/seeded';
import { MODELS, timesOf } from './models';
import { runOf, type Cell, type Truth } from './studies';

/**
 * What the plan says would tell a difference apart, tried out: studies of two setups that truly differ by what was wanted, read as the plan asks
 * for. Every cheaper change is played too, and the cheapest that does it is found by trying them all.
 */

/** One claim of the plan, and what became of it. */
export interface Claim {
  /** The kind of change that was offered. */
  kind: Change['kind'];
  /** Share of studies in which the change that was offered told the difference. */
  told: number;
  /** Of the dearest of the changes cheaper than that by two steps or more; `undefined` where there is none. */
  cheaper: number | undefined;
}

const SIGMA = 0.03;
const LEVEL = 80;

/** Plays so many claims. @param studies of each change, to see how often it tells */
export function playClaims(claims: number, studies: number, seed: number): Claim[] {
  const noise = seeded(seed);
  return Array.from({ length: claims }, () => {
    const model = MODELS[Math.floor(noise() * MODELS.length)] ?? MODELS[0];
    const slow = { times: timesOf(model?.device(noise) ?? (() => 1), 2 + 8 * noise()) };
    const cadence = [5, 10, 15][Math.floor(noise() * 3)] ?? 5;
    const goal = (slow.times[LEVEL] ?? 0) * 60;
    // Between what single runs can tell at all and what wide checks tell.
    const wanted = goal * (0.06 + 0.14 * noise());
    const quick = { times: slow.times.map((time) => time * (1 - wanted / goal)) };
    const change = changeOf({ kind: 'fixed', every: cadence * 60 }, evenly(1), LEVEL, wanted, (level) => reachedAt(slow, level));
    const play = (cell: Cell) => shareTold(quick, slow, cell, studies, noise);
    const cells = cheaperThan(change, cadence);
    return { kind: change.kind, told: play(cellOf(change, cadence)), cheaper: cells.length > 0 ? Math.max(...cells.map(play)) : undefined };
  });
}

/** Seconds at which a level is reached, between the moments of whole percents. */
function reachedAt({ times }: Truth, level: number): number | undefined {
  const [below, above] = [times[Math.floor(level)], times[Math.ceil(level)]];
  return below === undefined || above === undefined ? undefined : 60 * (below + (level % 1) * (above - below));
}

const cellOf = (change: Change, cadence: number): Cell => ({
  cadence,
  sigma: SIGMA,
  repeats: change.kind === 'repeats' ? change.repeats : 1,
  finer: change.kind === 'finer' ? { every: change.every / 60, from: change.from, to: change.to } : undefined,
});

/** Changes cheaper than one by two steps or more: of one step, the share told is too near to be told from it by so few studies. */
function cheaperThan(change: Change, cadence: number): Cell[] {
  if (change.kind === 'finer')
    return KEEPABLE.filter((every) => every / 60 <= cadence && every > change.every)
      .slice(0, -1)
      .map((every) => cellOf({ ...change, every }, cadence));
  if (change.kind !== 'repeats') return [];
  return Array.from({ length: Math.max(0, change.repeats - 2) }, (_, more) => ({ cadence, sigma: SIGMA, repeats: 1 + more }));
}

function shareTold(quick: Truth, slow: Truth, cell: Cell, studies: number, noise: () => number): number {
  let told = 0;
  for (let study = 0; study < studies; study += 1) {
    const runs = Array.from({ length: cell.repeats }, (_, repeat) => [
      runOf(`slow-${repeat}`, 'slow', slow, cell, noise),
      runOf(`quick-${repeat}`, 'quick', quick, cell, noise),
    ]).flat();
    const standing = compareRuns(runs, 'slow-0', LEVEL)[1]?.standing;
    if (standing?.state === 'told apart' && standing.saved.value > 0) told += 1;
  }
  return told / studies;
}
