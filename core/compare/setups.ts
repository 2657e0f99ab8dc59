import type { ReadRun } from '../curve/figures';
import type { RunInk } from '../ink/fold';
import { sourceKey } from '../ink/sourceKey';
import { AMBIENT, REST } from '../method/conditions';

/** Runs of one setup: they repeat each other, and are never ranked against each other. */
export interface SetupRuns {
  key: string;
  runs: ReadRun[];
}

/** Conditions that are never quite the same twice: they make no setup of their own. */
const DRIFTS: readonly string[] = [AMBIENT, REST];

/**
 * What makes two runs repeats of each other: the cell of a study where they fill one; else device, charger with its port, cable, and the settings
 * that they were confirmed to have. Units of one device count as one.
 */
export function setupKey({ header: { device, charger, port = 0, cable, feed, study, conditions = [] } }: RunInk): string {
  const settings = conditions
    .filter(({ name }) => !DRIFTS.includes(name))
    .map(({ name, value }) => `${name}=${value}`)
    .sort();
  return JSON.stringify(study ? [study.id, study.cell] : [device.id, sourceKey({ charger, port, cable, feed }), settings]);
}

/** Runs by their setup, in the order in which setups are first met. */
export function setupsOf(all: readonly ReadRun[]): SetupRuns[] {
  const setups = new Map<string, ReadRun[]>();
  for (const one of all) {
    const key = setupKey(one.run);
    setups.set(key, [...(setups.get(key) ?? []), one]);
  }
  return [...setups].map(([key, runs]) => ({ key, runs }));
}

/** What the others are usually set against: the run on the charger that came in its device’s box, through the cable from there if one was noted. */
export function usualBaseline(runs: readonly RunInk[]): string | undefined {
  const boxed = runs.filter(({ header: { device, charger } }) => device.boxCharger !== undefined && charger.id === device.boxCharger);
  return (boxed.find(({ header: { device, cable } }) => cable !== undefined && cable.id === device.boxCable) ?? boxed[0])?.header.id;
}
