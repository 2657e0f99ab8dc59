import { compareRuns, type Row } from '../core/compare';
import { readRun, type ReadRun } from '../core/curve';
import { exampleHeader } from '../core/ink/example';
import { foldRun, inkOf } from '../core/ink';
import { difference } from '../core/margin';
import { seeded } from '../core/simulate/seeded';
import { levelAt, MODELS, normal, shownAt, timesOf } from './models';

/** The truth test of docs/numbers.md: studies whose truth is known, read and compared as the product does it. */

/** What a study is made with. */
export interface Cell {
  /** Minutes between checks. */
  cadence: number;
  /** How runs of one setup truly vary: relative standard deviation. */
  sigma: number;
  repeats: number;
  /** Checks that lie closer between two levels. */
  finer?: { every: number; from: number; to: number } | undefined;
}

/** What became of the pairs of setups of a cell, at one figure. */
export interface Tally {
  figure: string;
  pairs: number;
  /** A winner named where the truth is equal or reversed. */
  falseWinners: number;
  /** Pairs whose true difference exceeds twice what noise and cadence leave open. */
  clear: number;
  /** Of those, called a tie. */
  misses: number;
  studies: number;
  /** A sole first named where another is equal or better. */
  falseFirsts: number;
  /** The margin shown, beside that of the generator: one for each pair that has both. */
  margins: number[];
  /** The smaller number taken for the winner: false winners of that rule. */
  naive: number;
}

export const CADENCES = [0.5, 1, 2, 5, 10, 15];
export const SIGMAS = [0.01, 0.02, 0.03, 0.04];
export const REPEATS = [1, 2, 3];

const SETUPS = 3;
/** Off the checks of most cadences, and early enough that none is near full. */
export const MARK = 14.4;
export const LEVELS = [80, 100];
const FIGURES = ['80 %', '100 %', 'gain'];
const CLEAR = 2;
/** How often a setup is another over again: a fifth of all pairs are then truly equal. */
const EQUAL = 0.26;
/** What is assumed of how runs vary: a miss is counted beside the larger of this and the truth. */
const ASSUMED = 0.03;

/** A setup as it truly is: minutes to each level when nothing varies. */
export interface Truth {
  times: number[];
}

/** Three setups of one device: a fifth of the pairs truly equal, the others up to two fifths apart. */
export function truthsOf(noise: () => number): Truth[] {
  const model = MODELS[Math.floor(noise() * MODELS.length)] ?? MODELS[0];
  const rate = model?.device(noise) ?? (() => 1);
  const start = 2 + Math.floor(noise() * 8) + noise();
  const times = timesOf(rate, start);
  const factors = [1];
  while (factors.length < SETUPS) {
    const base = factors[Math.floor(noise() * factors.length)] ?? 1;
    factors.push(noise() < EQUAL ? base : base * (1 + (noise() < 0.5 ? -1 : 1) * (0.005 + 0.4 * noise() ** 2)));
  }
  return factors.map((factor) => ({ times: times.map((time) => time * factor) }));
}

/** A run of a setup, read at every check until its display was seen at 100 %, each a few seconds late. */
export function runOf(id: string, charger: string, { times }: Truth, { cadence, sigma, finer }: Cell, noise: () => number): ReadRun {
  const factor = Math.max(0.5, 1 + sigma * normal(noise));
  const mine = times.map((time) => time * factor);
  const header = exampleHeader({
    id,
    charger: { id: charger, name: charger, kind: 'adapter', watts: 30 },
    cadence: { kind: 'fixed', every: cadence * 60 },
  });
  const readings = [{ seconds: 0, percent: shownAt(mine, 0) }];
  for (let due = 0, shown = 0; shown < 100 && readings.length < 4000;) {
    const every = finer && shown >= finer.from && shown < finer.to ? finer.every : cadence;
    due += every * 60;
    const seconds = due + Math.min(every * 6, 5) * noise();
    shown = shownAt(mine, seconds / 60);
    readings.push({ seconds, percent: shown });
  }
  return readRun(foldRun(header, inkOf(header, readings)), { levels: LEVELS, marks: [MARK * 60] });
}

const truthOf = ({ times }: Truth, figure: number): number =>
  figure < LEVELS.length ? (times[LEVELS[figure] ?? 100] ?? Number.NaN) * 60 : levelAt(times, MARK) - levelAt(times, 0);

/** Standard uncertainty that the generator's own noise and cadence leave of a figure of one run. */
function ownUncertainty({ times }: Truth, figure: number, { cadence, sigma }: Cell): number {
  const value = truthOf({ times }, figure);
  if (figure < LEVELS.length) return Math.hypot(sigma * value, (cadence * 60) / Math.sqrt(12));
  const slope = levelAt(times, MARK + 0.5) - levelAt(times, MARK - 0.5);
  return Math.hypot(sigma * value, 1 / Math.sqrt(6), (slope * cadence) / 4 / Math.sqrt(3) / 2);
}

const emptyTallies = (): Tally[] =>
  FIGURES.map((figure) => ({ figure, pairs: 0, falseWinners: 0, clear: 0, misses: 0, studies: 0, falseFirsts: 0, margins: [], naive: 0 }));

/** Plays so many studies of a cell. */
export function play(cell: Cell, studies: number, seed: number): Tally[] {
  const tallies = emptyTallies();
  const noise = seeded(seed);
  for (let study = 0; study < studies; study += 1) {
    const truths = truthsOf(noise);
    const runs = truths.flatMap((truth, index) =>
      Array.from({ length: cell.repeats }, (_, repeat) => runOf(`${index}-${repeat}`, `setup ${index}`, truth, cell, noise)),
    );
    // Each as the baseline in turn, so that every pair is set against each other at every level.
    const rows = LEVELS.map((level) => truths.map((_, base) => compareRuns(runs, `${base}-0`, level)));
    for (const [figure, tally] of tallies.entries()) judge(tally, figure, truths, rows, cell);
  }
  return tallies;
}

function judge(tally: Tally, figure: number, truths: readonly Truth[], rows: readonly Row[][][], cell: Cell): void {
  const all = rows[0]?.[0] ?? [];
  const found = all.map((row) => (figure < LEVELS.length ? row.milestones[figure] : row.gains[0]));
  const better = (one: number, other: number) => (figure < LEVELS.length ? one < other : one > other);
  tally.studies += 1;
  const firsts = found.flatMap((each, index) => (each?.rank?.place === 1 ? [index] : []));
  if (firsts.length === 1) {
    const first = firsts[0] ?? 0;
    const mine = truthOf(truths[first] ?? truths[0] ?? { times: [] }, figure);
    if (truths.some((other, index) => index !== first && !better(mine, truthOf(other, figure)))) tally.falseFirsts += 1;
  }
  for (let one = 0; one < truths.length; one += 1)
    for (let other = one + 1; other < truths.length; other += 1) {
      const [left, right] = [truths[one], truths[other]];
      const [mine, theirs] = [found[one]?.mean, found[other]?.mean];
      if (!left || !right || !mine || !theirs) continue;
      const [a, b] = [truthOf(left, figure), truthOf(right, figure)];
      const { told, margin } = toldOf(figure, one, other, rows, all);
      tally.pairs += 1;
      const isFalse = told !== 0 && (a === b || Math.sign(told) !== (better(a, b) ? -1 : 1));
      if (isFalse) tally.falseWinners += 1;
      if (mine.value !== theirs.value && (a === b || better(mine.value, theirs.value) !== better(a, b))) tally.naive += 1;
      const assumed = { ...cell, sigma: Math.max(cell.sigma, ASSUMED) };
      const own = 2 * Math.sqrt((ownUncertainty(left, figure, assumed) ** 2 + ownUncertainty(right, figure, assumed) ** 2) / cell.repeats);
      if (margin !== undefined) tally.margins.push(margin / own);
      if (Math.abs(a - b) > CLEAR * own) {
        tally.clear += 1;
        if (told === 0) tally.misses += 1;
      }
    }
}

/** −1: the one is said to be better; 1: the other; 0: a tie. With the margin that is shown of the difference. */
function toldOf(
  figure: number,
  one: number,
  other: number,
  rows: readonly Row[][][],
  all: readonly Row[],
): { told: number; margin: number | undefined } {
  if (figure < LEVELS.length) {
    const standing = rows[figure]?.[other]?.[one]?.standing;
    if (standing?.state === 'told apart') return { told: standing.saved.value > 0 ? -1 : 1, margin: standing.saved.margin };
    if (standing?.state === 'only this one') return { told: -1, margin: undefined };
    if (standing?.state === 'only the baseline') return { told: 1, margin: undefined };
    return { told: 0, margin: standing?.state === 'tie' ? standing.saved?.margin : undefined };
  }
  return gainTold(all[one], all[other]);
}

function gainTold(one: Row | undefined, other: Row | undefined): { told: number; margin: number | undefined } {
  const [mine, theirs] = [one?.gains[0], other?.gains[0]];
  if (!mine?.mean || !theirs?.mean) return { told: 0, margin: undefined };
  const { told, margin } = difference(mine.mean, theirs.mean);
  return { told: told === 'tie' ? 0 : told === 'above' ? -1 : 1, margin };
}
