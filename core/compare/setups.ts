import type { ReadRun } from '../curve/figures';
import type { RunInk } from '../ink/fold';
import { chargedKey, isSequence, untilSwap } from '../ink/sequence';
import { sourceKey } from '../ink/sourceKey';
import { AMBIENT, REST } from '../method/conditions';

/** Runs of one setup: they repeat each other, and are never ranked against each other. */
export interface SetupRuns {
  key: string;
  runs: ReadRun[];
  /** Several sources fed it, one after another: told with its own figures, and neither ranked nor averaged with any other. */
  isSequence: boolean;
}

/** Conditions that are never quite the same twice: they make no setup of their own. */
const DRIFTS: readonly string[] = [AMBIENT, REST];

/** The work that was done on a device while it was charged, in order. */
export const workOn = ({ events }: RunInk): string[] =>
  events.flatMap(({ event, remark = 'some' }) => (event === 'work started' ? [remark] : []));

/**
 * What makes two runs repeats of each other: the cell of a study where they fill one; else device, charger with its port, cable, and the settings
 * that they were confirmed to have; and whose they are. Units of one device count as one. Work that was done on it is a condition too, and so is every swap.
 */
export function setupKey(run: RunInk): string {
  const { device, charger, port = 0, cable, feed, study, owner, conditions = [] } = run.header;
  const settings = conditions
    .filter(({ name }) => !DRIFTS.includes(name))
    .map(({ name, value }) => `${name}=${value}`)
    .sort();
  const work = workOn(run);
  return JSON.stringify([
    ...(study ? [study.id, study.cell] : [device.id, sourceKey({ charger, port, cable, feed }), settings]),
    ...(owner ? [`of ${owner}`] : []),
    ...(work.length > 0 ? [work] : []),
    ...(isSequence(run) ? [chargedKey(run)] : []),
  ]);
}

/** A run as it is compared: of a sequence what came before its first swap, as its first source's, where anything did; and the whole of it, by itself. */
const partsOf = (one: ReadRun): ReadRun[] =>
  one.figures.first ? [{ run: { ...one.run, ...untilSwap(one.run) }, figures: one.figures.first }, one] : [one];

/** Runs by their setup, in the order in which setups are first met; sequences last. */
export function setupsOf(all: readonly ReadRun[]): SetupRuns[] {
  const setups = new Map<string, ReadRun[]>();
  for (const one of all.flatMap(partsOf)) {
    const key = setupKey(one.run);
    setups.set(key, [...(setups.get(key) ?? []), one]);
  }
  const found = [...setups].map(([key, runs]): SetupRuns => ({ key, runs, isSequence: runs.some(({ run }) => isSequence(run)) }));
  return [...withoutSequences(found), ...found.filter((each) => each.isSequence)];
}

/** Those that are set against each other: one source fed each. */
export const withoutSequences = <Each extends Pick<SetupRuns, 'isSequence'>>(all: readonly Each[]): Each[] =>
  all.filter(({ isSequence: isOne }) => !isOne);

/**
 * Setups that are judged against each other, and whose repeats show together how runs vary: those of one device, for another shows its levels otherwise;
 * all of them where every device was run with one source alone. Sequences stand among them.
 *
 * @param deviceOf the id of what is charged
 * @param isAlone  whether it is a sequence
 * @returns their places
 */
export function placesTogether<Each>(
  setups: readonly Each[],
  deviceOf: (setup: Each) => string | undefined,
  isAlone: (setup: Each) => boolean = () => false,
): number[][] {
  const devices = new Map<string | undefined, number[]>();
  for (const [place, setup] of setups.entries()) devices.set(deviceOf(setup), [...(devices.get(deviceOf(setup)) ?? []), place]);
  const each = [...devices.values()];
  const counts = each.map((places) => places.filter((place) => !isAlone(setups[place] as Each)).length).filter((count) => count > 0);
  return counts.length > 1 && counts.every((count) => count === 1) ? [each.flat()] : each;
}

/** Places of the setups that are judged together, of those that were run. */
export const judgedTogether = (setups: readonly SetupRuns[]): number[][] =>
  placesTogether(
    setups,
    ({ runs }) => runs[0]?.run.header.device.id,
    ({ isSequence: isOne }) => isOne,
  );

/** The place of the setup that the others are set against: that of a run, which no sequence is; else the first. −1 where there is none. */
export function baselineOf(setups: readonly SetupRuns[], run: string | undefined): number {
  const asked = setups.findIndex(({ runs, isSequence: isOne }) => !isOne && runs.some((one) => one.run.header.id === run));
  return asked >= 0 ? asked : setups.findIndex((each) => !each.isSequence);
}

/** What the others are usually set against: the run on the charger that came in its device’s box, through the cable from there if one was noted. */
export function usualBaseline(runs: readonly RunInk[]): string | undefined {
  const boxed = runs.filter(({ header: { device, charger } }) => device.boxCharger !== undefined && charger.id === device.boxCharger);
  return (boxed.find(({ header: { device, cable } }) => cable !== undefined && cable.id === device.boxCable) ?? boxed[0])?.header.id;
}
