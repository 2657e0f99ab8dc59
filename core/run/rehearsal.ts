import type { Charger } from '../bench/charger';
import type { Device } from '../bench/device';
import { checksOf } from '../curve/notices';
import type { Header } from '../ink/entry';
import { valueIn, type RunRecord } from '../ink/fold';
import { SCHEMA } from '../ink/version';
import { negotiate } from '../power/negotiate';
import type { LineValues } from '../quantity/entryLine';
import { simulate } from '../simulate/charge';
import { displayed, parametersOf, vary } from '../simulate/expected';
import { seeded } from '../simulate/seeded';

/** Simulated charges to practise on, without gear. Nothing of it is ever a run: it is played, read and scored, and kept nowhere. */

/** What can be read off a stand-in at one instant: its display, its surface, and the meter in its line. */
export interface Sight {
  percent: number;
  volts: number;
  amps: number;
  watts: number;
  celsius: number;
}

/** A made-up device on a made-up charger, charging as the simulator has it. */
export interface Actor {
  header: Header;
  sight: (elapsed: number) => Sight;
}

export const MOST_ACTORS = 6;
const STEP = 10;
const LONGEST_REHEARSAL = 12 * 3600;

const DEVICES: readonly Omit<Device, 'id'>[] = [
  { name: 'Redshank 3', kind: 'phone', milliampHours: 4300, nominalVolts: 3.85, inputLimit: 25, connectors: ['USB-C'], deliveryVolts: 9 },
  { name: 'Knot 8', kind: 'phone', milliampHours: 3400, nominalVolts: 3.85, inputLimit: 18, connectors: ['USB-C'], deliveryVolts: 9 },
  { name: 'Godwit 10', kind: 'tablet', wattHours: 29, inputLimit: 30, connectors: ['USB-C'], deliveryVolts: 15 },
  { name: 'Turnstone 4', kind: 'phone', milliampHours: 5000, nominalVolts: 3.85, inputLimit: 30, connectors: ['USB-C'], deliveryVolts: 9 },
  { name: 'Dunlin 7', kind: 'phone', milliampHours: 3900, nominalVolts: 3.85, inputLimit: 20, connectors: ['USB-C'], deliveryVolts: 9 },
  { name: 'Whimbrel 13', kind: 'laptop', wattHours: 52, inputLimit: 60, connectors: ['USB-C'], deliveryVolts: 20 },
];
const CHARGERS: readonly Omit<Charger, 'id'>[] = [
  { name: 'Shingle 20', kind: 'adapter', watts: 20 },
  { name: 'Marl 12', kind: 'adapter', watts: 12 },
  { name: 'Oolite 30', kind: 'adapter', watts: 30 },
  { name: 'Shingle 25', kind: 'adapter', watts: 25 },
  { name: 'Marl 18', kind: 'adapter', watts: 18 },
  { name: 'Oolite 65', kind: 'adapter', watts: 65 },
];

/**
 * One to six stand-ins, plugged in at one instant.
 *
 * @param seed the same seed gives the same charges
 * @param every seconds between readings
 */
export function castOf(count: number, seed: number, plugInAt: number, every: number): Actor[] {
  const noise = seeded(seed);
  return DEVICES.slice(0, Math.max(1, Math.min(MOST_ACTORS, count))).flatMap((made, index): Actor[] => {
    const [device, charger] = [{ ...made, id: `rehearsed-${index}` }, { id: `rehearsed-charger-${index}`, ...CHARGERS[index] } as Charger];
    const negotiated = negotiate({ device, charger });
    const usual = parametersOf(negotiated, { ambient: 20 + 6 * noise() });
    const from = Math.floor(noise() * 25);
    if (!usual) return [];
    const { share, watts, celsius, rows } = simulate(
      vary(usual, Math.floor(noise() * 1e9)),
      ((from + 0.5) / 100) * 0.99,
      LONGEST_REHEARSAL,
      STEP,
    );
    const volts = negotiated.volts ?? 5;
    const header: Header = {
      ...{ schema: SCHEMA, id: `rehearsal-${index}`, device, charger, plugInAt, pen: index },
      cadence: { kind: 'fixed', every },
    };
    const sight = (elapsed: number): Sight => {
      const row = Math.max(0, Math.min(rows - 1, Math.floor(elapsed / STEP)));
      const now = watts[row] ?? 0;
      return { percent: displayed(share[row] ?? 0), volts, amps: now / volts, watts: now, celsius: celsius[row] ?? 22 };
    };
    return [{ header, sight }];
  });
}

/** How a stand-in reads: after so many seconds, with what slip, if any. */
export interface StandIn {
  /** Seconds after a check fell due; `undefined` where it is missed. */
  after: number | undefined;
  read: (sight: Sight) => LineValues;
}

/** Chances of a stand-in, as shares of its checks, and how long it takes, in seconds. */
const HABITS = { misses: 0.04, slips: 0.05, soonest: 4, latest: 40 };

/** A person who reads in your place: mostly in time, sometimes late, now and then wrong. Repeatable from its noise. */
export function standIn(noise: () => number): StandIn {
  const misses = noise() < HABITS.misses;
  const slip = noise() < HABITS.slips ? (noise() < 0.5 ? 10 : -10) : 0;
  const after = HABITS.soonest + (HABITS.latest - HABITS.soonest) * noise() ** 2;
  return {
    after: misses ? undefined : after,
    read: ({ percent, watts, celsius }) => ({
      percent: Math.max(0, Math.min(100, percent + slip)),
      watts: Number(watts.toFixed(1)),
      celsius: Number(celsius.toFixed(1)),
    }),
  };
}

/** How well a rehearsal was read. */
export interface ReadingScore {
  checks: number;
  onTime: number;
  late: number;
  missed: number;
  /** Mean time from a check to its reading, in seconds, early ones counted as none. */
  lateness: number | undefined;
  /** Readings that stand and say something else than was shown when they were seen. */
  slips: number;
  /** Slips that were found and struck. */
  mended: number;
}

/** A display may turn over while it is being read; a meter flickers. */
const ALLOWED = { percent: 1, watts: (shown: number) => 0.5 + 0.1 * shown };

/** Scores what was read of a stand-in against what it showed at the moments at which the readings were seen. */
export function scoreOf(run: RunRecord, { sight }: Actor, elapsed: number): ReadingScore {
  const isSlip = (reading: RunRecord['readings'][number]['reading'], seconds: number) => {
    const shown = sight(seconds);
    const watts = valueIn(reading, 'watts');
    const isLevelOff = reading.percent !== undefined && Math.abs(reading.percent - shown.percent) > ALLOWED.percent;
    return isLevelOff || (watts !== undefined && Math.abs(watts - shown.watts) > ALLOWED.watts(shown.watts));
  };
  const checks = checksOf(run, elapsed).filter(({ state }) => state !== 'waiting');
  const waits = checks.flatMap(({ due, seen }) => (seen === undefined ? [] : [Math.max(0, seen - due)]));
  const counted = (all: typeof checks) => all.reduce((sum, each) => sum + each.count, 0);
  const count = (state: string) => counted(checks.filter((check) => check.state === state));
  return {
    checks: counted(checks),
    onTime: count('on time'),
    late: count('late'),
    missed: count('missed'),
    lateness: waits.length > 0 ? waits.reduce((sum, wait) => sum + wait, 0) / waits.length : undefined,
    slips: run.readings.filter(({ reading, seconds }) => isSlip(reading, seconds)).length,
    mended: run.struck.filter(({ reading, seconds }) => isSlip(reading, seconds)).length,
  };
}
