import { seeded } from '../simulate/seeded';
import type { PlannedRun } from './matrix';

/** How many identical units of a device there are, by its id. */
export type UnitsOf = (device: string) => number;

/** Orders of a study’s runs that are tried for the fewest races. */
const TRIES = 40;

/**
 * Runs put together into races: runs of one repeat that share no gear and can start from one strip at the same instant.
 *
 * @param max how many can charge at once: sockets, and meters where each needs one
 * @param unitsOf how many identical units of a device there are
 * @returns races in the order of their first runs; as few as were found
 */
export function racesOf(runs: readonly PlannedRun[], max: number, unitsOf: UnitsOf = () => 1): PlannedRun[][] {
  const noise = seeded(1);
  const devices = [...new Set(runs.map(({ cell }) => cell.device))];
  const chargers = [...new Set(runs.map(({ cell }) => cell.charger))];
  // Along the diagonals of a full matrix no two cells share gear.
  const diagonal = ({ cell }: PlannedRun) =>
    (chargers.indexOf(cell.charger) + chargers.length - devices.indexOf(cell.device)) % chargers.length;
  let fewest = firstFit(runs, max, unitsOf);
  for (let count = 0; count < TRIES; count += 1) {
    const weight = new Map(runs.map((run) => [run, count === 0 ? diagonal(run) : noise()]));
    const found = firstFit(
      [...runs].sort((one, other) => (weight.get(one) ?? 0) - (weight.get(other) ?? 0)),
      max,
      unitsOf,
    );
    if (found.length < fewest.length) fewest = found;
  }
  const place = new Map(runs.map((run, index) => [run, index]));
  const placeOf = (run: PlannedRun | undefined) => (run && place.get(run)) ?? 0;
  for (const race of fewest) race.sort((one, other) => placeOf(one) - placeOf(other));
  return fewest.sort(([one], [other]) => placeOf(one) - placeOf(other));
}

function firstFit(runs: readonly PlannedRun[], max: number, unitsOf: UnitsOf): PlannedRun[][] {
  const races: PlannedRun[][] = [];
  for (const run of runs) {
    const { device } = run.cell;
    const isRoom = (race: PlannedRun[]) => race.length < max && race.filter(({ cell }) => cell.device === device).length < unitsOf(device);
    const fitting = races.find((race) => isRoom(race) && race.every((other) => other.repeat === run.repeat && isApart(run, other)));
    if (fitting) fitting.push(run);
    else races.push([run]);
  }
  return races;
}

/** Whether two runs share no gear beside the device, of which there may be several units. */
const isApart = ({ cell: one }: PlannedRun, { cell: other }: PlannedRun) =>
  one.charger !== other.charger &&
  (one.feed === undefined || (one.feed !== other.feed && one.feed !== other.charger)) &&
  (other.feed === undefined || other.feed !== one.charger) &&
  (one.cable === undefined || one.cable !== other.cable);
