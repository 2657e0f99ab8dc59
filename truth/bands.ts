import { cross, group, range } from 'd3-array';
import { exampleHeader } from '../core/ink/example';
import { foldRun, inkOf, type Entry, type Track } from '../core/ink';
import { forecasts } from '../core/run';
import { seeded } from '../core/simulate/seeded';
import { MODELS, normal, pick, shownAt, timesOf, type Model, type Rate } from './models';

/** The forecast test of docs/numbers.md: bands given during runs of devices whose earlier runs are known, and of devices met for the first time. */

/** What became of the forecasts of one sort. A case is a run, a reading from 10 min and 5 % gained on, and a level not yet reached. */
export interface BandTally {
  cases: number;
  /** The truth lay within the band. */
  within: number;
  /** The truth came before the earliest that was said. */
  early: number;
}

export interface BandTable {
  /** Bands, with an earlier run; by kind of device, by model and by stage of the charge. */
  all: BandTally;
  parts: Record<string, BandTally>;
  /** Where only the earliest was said. */
  earliest: BandTally;
}

const LEVELS = [80, 100];
/** Earlier runs of a device. */
const EARLIER = [1, 2, 3, 5, 8];
/** Minutes between checks, of all runs of a device. */
const EVERY = [1, 5, 10, 15];
const SIGMA = 0.03;

const none = (): BandTally => ({ cases: 0, within: 0, early: 0 });

interface Charge {
  times: number[];
  entries: Entry[];
}

/** A charge of a device from a level on, by a charger that gives a share of the most it takes. */
function charge(rate: Rate, charger: number, start: number, cadence: number, noise: () => number): Charge {
  const factor = Math.max(0.6, 1 + SIGMA * normal(noise));
  // What a weaker charger gives caps the pace; where the device takes less, it changes nothing.
  let most = 0;
  for (let level = 0; level < 100; level += 1) most = Math.max(most, rate(level, 5));
  const times = timesOf((level, minutes) => Math.min(charger * most, rate(level, minutes)) / factor, start);
  const header = exampleHeader();
  const readings = [{ seconds: 0, percent: shownAt(times, 0) }];
  for (let check = 1; readings.at(-1)?.percent !== 100 && check < 2000; check += 1) {
    const seconds = check * cadence * 60 + 4 * noise();
    readings.push({ seconds, percent: shownAt(times, seconds / 60) });
  }
  return { times, entries: inkOf(header, readings) };
}

/** What was said of a level at a reading of a live run, and when it came. Seconds from plug-in. */
interface Said {
  to: number;
  stage: string;
  low: number;
  high: number | undefined;
  truth: number;
}

const STAGES = [
  [40, 'under 40'],
  [60, '40–59'],
  [80, '60–79'],
  [90, '80–89'],
  [95, '90–94'],
] as const;

/** A device with so many earlier runs, all read every so many minutes, and a live run of it. */
interface Known {
  earlier: readonly Track[];
  live: Charge;
}

function device(model: Model, runs: number, cadence: number, noise: () => number): Known {
  const rate = model.device(noise);
  const start = () => Math.floor(noise() * 25) + noise();
  const charger = () => pick([1, 0.8, 0.55], noise);
  // One at least on a charger that gives all it takes.
  const before = Array.from({ length: runs }, (_, index) => charge(rate, index === 0 ? 1 : charger(), start(), cadence, noise));
  const earlier = before.map(({ entries }) => foldRun(exampleHeader(), entries).tracks.percent);
  return { earlier, live: charge(rate, charger(), start(), cadence, noise) };
}

/** All that is said during a live run. @param max readings at which it is asked, evenly over the run */
function saidDuring({ entries, times }: Charge, earlier: readonly Track[], max = Infinity): Said[] {
  const step = Math.max(1, Math.ceil(entries.length / max));
  return range(2, entries.length + 1, step).flatMap((read) => {
    const run = foldRun(exampleHeader(), entries.slice(0, read));
    const level = run.tracks.percent.values[read - 1] ?? 0;
    const stage = STAGES.find(([below]) => level < below)?.[1] ?? 'from 95';
    return forecasts(run, earlier, LEVELS).map(({ level: to, low, high }) => ({
      to,
      stage,
      low,
      high,
      truth: (times[to] ?? Infinity) * 60,
    }));
  });
}

/** Plays so many devices of each model. */
export function playBands(devices: number, seed: number): BandTable {
  const table: BandTable = { all: none(), parts: {}, earliest: none() };
  const noise = seeded(seed);
  for (const model of MODELS)
    for (let count = 0; count < devices; count += 1) {
      const [runs, cadence] = [pick(EARLIER, noise), pick(EVERY, noise)];
      const { earlier, live } = device(model, runs, cadence, noise);
      for (const said of [...saidDuring(live, earlier), ...saidDuring(live, [])]) {
        if (said.high === undefined) {
          tally(table.earliest, said);
          continue;
        }
        tally(table.all, said);
        for (const part of [
          `to ${said.to} %, ${said.stage}`,
          `${model.kind}s, to ${said.to} %`,
          `${model.name}, to ${said.to} %`,
          `after ${runs} earlier ${runs === 1 ? 'run' : 'runs'}`,
          `read every ${cadence} min`,
        ])
          tally((table.parts[part] ??= none()), said);
      }
    }
  return table;
}

function tally(to: BandTally, { truth, low, high = Infinity }: Said): void {
  to.cases += 1;
  if (truth < low) to.early += 1;
  else if (truth <= high) to.within += 1;
}

/** Live runs of one kind: a shape of charge, a level and the stage it is said from, how often and how many earlier runs were read. */
export interface BandKind {
  kind: string;
  /** Of each run, the share of its readings whose band held: the readings of one run go together. */
  held: number[];
}

/** Readings of a run that are asked: of one that is read each minute, not all. */
const ASKED = 40;

/** Plays so many devices of each kind, by the bands that earlier runs allow. */
export function playKinds(devices: number, seed: number, runs: readonly number[] = EARLIER, every: readonly number[] = EVERY): BandKind[] {
  const noise = seeded(seed);
  const kinds = new Map<string, number[]>();
  for (const [model, count, cadence] of cross(MODELS, runs).flatMap(([model, count]) => every.map((each) => [model, count, each] as const)))
    for (let played = 0; played < devices; played += 1) {
      const { earlier, live } = device(model, count, cadence, noise);
      const bands = saidDuring(live, earlier, ASKED).filter(({ high }) => high !== undefined);
      for (const [kind, said] of group(bands, ({ to, stage }) => `${model.name}, to ${to} % from ${stage}`)) {
        const held = said.filter(({ truth, low, high = Infinity }) => truth >= low && truth <= high).length / said.length;
        const name = `${kind}, ${count} earlier, every ${cadence} min`;
        kinds.set(name, [...(kinds.get(name) ?? []), held]);
      }
    }
  return [...kinds].map(([kind, held]) => ({ kind, held }));
}
