import { align } from '../core/curve/align';
import { inkOf } from '../core/ink/build';
import { exampleHeader } from '../core/ink/example';
import { foldRun } from '../core/ink/fold';
import { seeded } from '../core/simulate/seeded';
import { MODELS, normal, type Model, type Rate } from './models';

/**
 * Logs of a meter laid on runs that were read by hand: whether the run’s own is placed, and where; and whether one of another device, of another charger
 * or of a repeat is taken for it. True power is that of a model, with what comes and goes besides; a log and a reading are each that, as a meter shows it.
 */

/** Whose log was laid on a run. */
export const WHOSE = ['own', 'another device', 'another charger', 'a repeat'] as const;
export type Whose = (typeof WHOSE)[number];

/** A log that was laid on a run, and what became of it. */
export interface Laid {
  whose: Whose;
  /** Minutes between the readings. */
  cadence: number;
  /** Whether the log began before plug-in. */
  isEarly: boolean;
  isSure: boolean;
  /** By how much the place is off, beyond its margin, in seconds: 0 within it. Of the run’s own log. */
  off: number;
  margin: number;
}

/** Minutes between checks. */
const CADENCES = [1, 5, 10];
/** A charge is followed for this long at most, in minutes. */
const LONGEST = 360;
/** How far two meters of one thing differ, as a share. */
const METERS = 0.05;

/** True power by second from plug-in, in W. */
type Power = Float64Array;

/** One charge: a device by its model and size, a charger by the most that it lets through; what comes and goes is its own each time. */
function charge(rate: Rate, wattHours: number, limit: number, from: number, noise: () => number): Power {
  const watts: number[] = [];
  let [level, sway, after] = [from, 0, 0];
  const handshake = 3 + 12 * noise();
  while (watts.length < LONGEST * 60 && after < 900) {
    const asked = level < 100 ? Math.max(0, rate(level, watts.length / 60)) : 0;
    const drawn = Math.min(limit, (asked * wattHours * 0.6) / 0.85);
    // A phone wakes and sleeps: a percent or two, over half a minute or so.
    sway += -sway / 20 + 0.004 * normal(noise);
    const flows = watts.length < handshake ? Math.min(drawn, 4) : drawn;
    watts.push(level < 100 ? flows * (1 + sway) : 0.25 + 0.05 * noise());
    level += ((drawn * 0.85) / (wattHours * 0.6)) * (1 / 60);
    if (level >= 100) after += 1;
  }
  return Float64Array.from(watts);
}

/** What a meter logs of a charge, on a clock of its own. @param zero its clock at plug-in, in seconds: below zero where it was begun later */
function logOf(power: Power, zero: number, noise: () => number) {
  const every = [1, 1, 2, 10][Math.floor(4 * noise())] ?? 1;
  const scale = 1 + METERS * (2 * noise() - 1);
  const end = power.length + zero - Math.floor(600 * noise());
  const seconds: number[] = [];
  const values: number[] = [];
  for (let at = 0; at < end; at += every) {
    const flows = power[Math.round(at - zero)] ?? 0;
    seconds.push(at);
    values.push(Math.max(0, Math.round(100 * scale * flows * (1 + 0.003 * normal(noise))) / 100));
  }
  return { seconds: Float64Array.from(seconds), values: Float64Array.from(values) };
}

/** A run that was read by hand: a few seconds off, as another meter shows it, to a tenth of a watt or to whole ones. */
function readOf(power: Power, cadence: number, noise: () => number) {
  const scale = 1 + METERS * (2 * noise() - 1);
  const digits = noise() < 0.2 ? 1 : 10;
  const checks = Math.floor(power.length / (60 * cadence)) + 1;
  const rows = Array.from({ length: checks }, (_, check) => {
    const seconds = check === 0 ? 30 : check * cadence * 60;
    const seen = Math.min(power.length - 1, Math.max(0, Math.round(seconds + 8 * noise() - 4)));
    return { seconds, watts: Math.round(digits * scale * (power[seen] ?? 0)) / digits };
  });
  return foldRun(exampleHeader(), inkOf(exampleHeader(), rows));
}

/** Plays so many runs of every cadence and every kind of log. */
export function playLogs(runs: number, seed: number, models: readonly Model[] = MODELS): Laid[] {
  const noise = seeded(seed);
  return CADENCES.flatMap((cadence) =>
    Array.from({ length: runs }, () => {
      const mine = deviceOf(models, noise);
      const other = deviceOf(models, noise);
      const [limit, lesser] = [1e3, mine.peak * (0.35 + 0.5 * noise())];
      const from = 1 + 20 * noise();
      const of = (device: typeof mine, max: number) => charge(device.rate, device.wattHours, max, from + 3 * noise(), noise);
      const power = of(mine, limit);
      const run = readOf(power, cadence, noise);
      const isEarly = noise() < 0.5;
      const zero = Math.round(isEarly ? 10 + 600 * noise() : -120 * noise());
      const foreign: Readonly<Record<Whose, Power>> = {
        own: power,
        'another device': of(other, limit),
        'another charger': of(mine, lesser),
        'a repeat': of(mine, limit),
      };
      return WHOSE.map((whose): Laid => {
        const found = align(run, { watts: logOf(foreign[whose], zero, noise) });
        const off = found ? Math.max(0, Math.abs(found.zero + zero) - found.margin) : 0;
        return { whose, cadence, isEarly, isSure: found !== undefined && found.doubt === undefined, off, margin: found?.margin ?? 0 };
      });
    }).flat(),
  );
}

function deviceOf(models: readonly Model[], noise: () => number) {
  const model = models[Math.floor(models.length * noise())];
  if (!model) throw new Error('There is no model to draw a device from.');
  const rate = model.device(noise);
  const wattHours = { phone: 17, tablet: 32, laptop: 60, camera: 12, bank: 37 }[model.kind] * (0.8 + 0.4 * noise());
  return { rate, wattHours, peak: (rate(5, 0) * wattHours * 0.6) / 0.85 };
}
