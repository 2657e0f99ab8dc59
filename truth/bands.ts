import { exampleHeader } from '../core/ink/example';
import { foldRun, inkOf, type Entry } from '../core/ink';
import { forecasts } from '../core/run';
import { seeded } from '../core/simulate/seeded';
import { MODELS, normal, shownAt, timesOf, type Model, type Rate } from './models';

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
const CADENCES = [1, 5, 10, 15];
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

const pick = <Each>(all: readonly Each[], noise: () => number): Each => all[Math.floor(noise() * all.length)] as Each;

/** Plays so many devices of each model. */
export function playBands(devices: number, seed: number): BandTable {
  const table: BandTable = { all: none(), parts: {}, earliest: none() };
  const noise = seeded(seed);
  for (const model of MODELS) for (let device = 0; device < devices; device += 1) playDevice(model, table, noise);
  return table;
}

function playDevice(model: Model, table: BandTable, noise: () => number): void {
  const rate = model.device(noise);
  const start = () => Math.floor(noise() * 25) + noise();
  const [runs, cadence] = [pick(EARLIER, noise), pick(CADENCES, noise)];
  // One at least on a charger that gives all it takes.
  const charger = () => pick([1, 0.8, 0.55], noise);
  const before = Array.from({ length: runs }, (_, index) => charge(rate, index === 0 ? 1 : charger(), start(), cadence, noise));
  const header = exampleHeader();
  const earlier = before.map(({ entries }) => foldRun(header, entries).tracks.percent);
  const live = charge(rate, charger(), start(), cadence, noise);
  for (let read = 2; read <= live.entries.length; read += 1) {
    const run = foldRun(header, live.entries.slice(0, read));
    const level = run.tracks.percent.values[read - 1] ?? 0;
    for (const known of [earlier, []]) {
      for (const { level: to, low, high } of forecasts(run, known, LEVELS)) {
        const truth = (live.times[to] ?? Infinity) * 60;
        const stage =
          level < 40 ? 'under 40' : level < 60 ? '40–59' : level < 80 ? '60–79' : level < 90 ? '80–89' : level < 95 ? '90–94' : 'from 95';
        const parts = [
          `to ${to} %, ${stage}`,
          `${model.kind}s, to ${to} %`,
          `${model.name}, to ${to} %`,
          `after ${runs} earlier ${runs === 1 ? 'run' : 'runs'}`,
          `read every ${cadence} min`,
        ];
        if (high === undefined) count(table.earliest, truth, low, Infinity);
        else {
          count(table.all, truth, low, high);
          for (const part of parts) count((table.parts[part] ??= none()), truth, low, high);
        }
      }
    }
  }
}

function count(tally: BandTally, truth: number, low: number, high: number): void {
  tally.cases += 1;
  if (truth < low) tally.early += 1;
  else if (truth <= high) tally.within += 1;
}
