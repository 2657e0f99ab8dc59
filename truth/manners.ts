import { compareRuns } from '../core/compare';
import { readRun, type ReadRun } from '../core/curve';
import { foldRun, inkOf } from '../core/ink';
import { exampleHeader } from '../core/ink/example';
import { difference } from '../core/margin';
import type { Cadence } from '../core/method';
import { seeded } from '../core/simulate/seeded';
import { levelAt, normal, shownAt } from './models';
import { truthsOf, type Truth } from './studies';

/** How else studies are read than check by check from a low level to full: each has cases in which figures met badly. */
export interface Manner {
  name: string;
  cadence: Cadence;
  /** Minutes of the checks, as far as a run goes; without an end it goes on to full. */
  marks: readonly number[];
  then?: number;
  /** How far a reading is off its check, in seconds, at most. */
  off: readonly [from: number, to: number];
  repeats: readonly number[];
  /** What is compared: levels in %, and gains at minutes. */
  levels: readonly number[];
  gains: readonly number[];
  /** The steps of a display, in %; 1 where it shows each. */
  lumps?: readonly number[];
  /** Some setups are held at 80 % for so many minutes, most of the time. */
  held?: number;
}

const minutes = (...all: number[]) => all.map((each) => each * 60);
const every = (each: number): Pick<Manner, 'cadence' | 'marks' | 'then'> => ({
  cadence: { kind: 'fixed', every: each * 60 },
  marks: [],
  then: each,
});

export const MANNERS: readonly Manner[] = [
  {
    name: 'windows, read up to 30 s off',
    cadence: { kind: 'marks', at: minutes(15, 30, 60) },
    marks: [15, 30, 60],
    off: [-30, 30],
    repeats: [1, 2, 3],
    levels: [],
    gains: [15, 30, 60],
  },
  {
    name: 'fixed times, some full before the mark',
    cadence: { kind: 'marks', at: minutes(30, 60, 90, 120) },
    marks: [30, 60, 90, 120],
    off: [0, 10],
    repeats: [1, 2],
    levels: [],
    gains: [60, 90, 120],
  },
  {
    name: 'milestone checks',
    cadence: { kind: 'marks', at: minutes(15, 30, 45, 60), then: 900 },
    marks: [15, 30, 45, 60],
    then: 15,
    off: [0, 20],
    repeats: [1, 2],
    levels: [80, 100],
    gains: [15, 30, 60],
  },
  ...[5, 10, 15].map((each): Manner => ({
    name: `repeats at equal marks, every ${each} min`,
    ...every(each),
    off: [0, 5],
    repeats: [2, 3],
    levels: [80, 100],
    gains: [],
  })),
  { name: 'held at 80 % in some runs', ...every(5), off: [0, 5], repeats: [1, 2], levels: [80, 100], gains: [], held: 60 },
  {
    name: 'a display that moves by 2, 3 or 5 %',
    ...every(5),
    off: [0, 5],
    repeats: [1, 2],
    levels: [80, 100],
    gains: [15],
    lumps: [2, 3, 5],
  },
];

/** What became of the pairs of setups that were read in one manner. */
export interface Dealt {
  manner: string;
  pairs: number;
  falseWinners: number;
  clear: number;
  misses: number;
  studies: number;
  falseFirsts: number;
  /** Differences that lie within the margin that was told of them. */
  within: number;
  margins: number[];
}

const SIGMAS = [0.01, 0.02, 0.03];
const ASSUMED = 0.03;
const CLEAR = 2;

/** Plays so many studies of each manner, by every spread and number of repeats. */
export function playManners(studies: number, seed: number): Dealt[] {
  const noise = seeded(seed);
  return MANNERS.map((manner) => {
    const dealt: Dealt = {
      manner: manner.name,
      pairs: 0,
      falseWinners: 0,
      clear: 0,
      misses: 0,
      studies: 0,
      falseFirsts: 0,
      within: 0,
      margins: [],
    };
    for (const sigma of SIGMAS)
      for (const repeats of manner.repeats) for (let study = 0; study < studies; study += 1) playOne(manner, sigma, repeats, noise, dealt);
    return dealt;
  });
}

function playOne(manner: Manner, sigma: number, repeats: number, noise: () => number, dealt: Dealt): void {
  const truths = truthsOf(noise);
  const lump = manner.lumps?.[Math.floor(noise() * manner.lumps.length)] ?? 1;
  const holds = truths.map(() => (manner.held !== undefined && noise() < 0.5 ? manner.held * (0.5 + noise()) : 0));
  const runs = truths.flatMap((truth, index) =>
    Array.from({ length: repeats }, (_, repeat) =>
      readAs(manner, `${index}-${repeat}`, `setup ${index}`, truth, { sigma, lump, hold: holds[index] ?? 0 }, noise),
    ),
  );
  const rows = compareRuns(runs, '0-0', 80);
  const figures = [
    ...manner.levels.map((level, at) => ({
      better: -1,
      of: rows.map(({ milestones }) => milestones[at]),
      truth: (one: Truth) => reachedAt(one, level, lump),
    })),
    ...manner.gains.map((mark, at) => ({
      better: 1,
      of: rows.map(({ gains }) => gains[at]),
      truth: ({ times }: Truth) => levelAt(times, mark) - levelAt(times, 0),
    })),
  ];
  for (const { better, of, truth } of figures) {
    const true_ = truths.map(truth);
    const worth = (index: number) => better * (true_[index] ?? 0);
    dealt.studies += 1;
    const firsts = of.flatMap((each, index) => (each?.rank?.place === 1 ? [index] : []));
    const ranked = of.flatMap((each, index) => (each?.rank ? [index] : []));
    if (firsts.length === 1 && ranked.some((index) => index !== firsts[0] && worth(index) >= worth(firsts[0] ?? 0) - 1e-9))
      dealt.falseFirsts += 1;
    for (const one of ranked)
      for (const other of ranked) {
        const [mine, theirs] = [of[one]?.mean, of[other]?.mean];
        if (other <= one || !mine || !theirs) continue;
        const { told, value, margin } = difference(mine, theirs);
        const apart = (true_[other] ?? 0) - (true_[one] ?? 0);
        dealt.pairs += 1;
        if (told !== 'tie' && (Math.abs(apart) < 1e-9 || told !== (apart > 0 ? 'below' : 'above'))) dealt.falseWinners += 1;
        if (Math.abs(value - apart) <= margin) dealt.within += 1;
        const own = (of_: number) =>
          Math.hypot(Math.max(sigma, ASSUMED) * of_, better < 0 ? (60 * (manner.then ?? 5)) / Math.sqrt(12) : lump / Math.sqrt(6));
        const u = 2 * Math.sqrt((own(true_[one] ?? 0) ** 2 + own(true_[other] ?? 0) ** 2) / repeats);
        dealt.margins.push(margin / u);
        if (Math.abs(apart) <= CLEAR * u) continue;
        dealt.clear += 1;
        if (told === 'tie') dealt.misses += 1;
      }
  }
}

/** Seconds at which a display first shows a level, or the first step of it above. */
const reachedAt = ({ times }: Truth, level: number, lump: number) =>
  60 * (times[Math.min(100, Math.ceil(level / lump) * lump)] ?? Number.NaN);

/** A run of a setup as it is read in a manner. */
function readAs(
  manner: Manner,
  id: string,
  charger: string,
  { times }: Truth,
  { sigma, lump, hold }: { sigma: number; lump: number; hold: number },
  noise: () => number,
): ReadRun {
  const factor = Math.max(0.5, 1 + sigma * normal(noise));
  const mine = times.map((time, level) => time * factor + (level > 80 ? hold : 0));
  const header = exampleHeader({ id, charger: { id: charger, name: charger, kind: 'adapter', watts: 30 }, cadence: manner.cadence });
  const shows = (at: number) => {
    const level = shownAt(mine, at);
    return level >= 100 ? 100 : lump * Math.floor(level / lump);
  };
  const isHeld = (at: number) => hold > 0 && at > (mine[80] ?? Infinity) + 1 && at < (mine[81] ?? 0) - 1;
  const rows = [{ seconds: 0, percent: shows(0), watts: 20 }];
  const due = (check: number) =>
    manner.marks[check] ?? (manner.marks.at(-1) ?? 0) + (check - manner.marks.length + 1) * (manner.then ?? Infinity);
  for (let check = 0; Number.isFinite(due(check)) && rows.length < 400; check += 1) {
    const seconds = Math.max(1, 60 * due(check) + manner.off[0] + (manner.off[1] - manner.off[0]) * noise());
    const percent = shows(seconds / 60);
    rows.push({ seconds, percent, watts: percent >= 100 || isHeld(seconds / 60) ? 0.4 : 20 });
    if (percent >= 100 && manner.then !== undefined) break;
  }
  return readRun(foldRun(header, inkOf(header, rows)), { levels: [...manner.levels], marks: minutes(...manner.gains) });
}
