import { group } from 'd3-array';
import { nanoid } from 'nanoid';
import type { RunInk } from '@core/ink';
import { NotPlannable, studyToSettle, withSettling, type Settling, type Study } from '@core/plan';
import { useShelf } from './shelf';
import { useStudies } from './studies';

/** A level from which runs are usually taken, where none of those compared says its own, in %. */
const USUAL_START = 1;

/**
 * Puts runs that would settle something into a plan: into the study of the runs that are compared, where most of them are of one, else into a study
 * of its own that is taken as they were. Runs that are to be taken otherwise than those were make a study of their own.
 *
 * @returns the ids of the studies
 * @throws {NotPlannable | StorageTrouble}
 */
export async function planToSettle(
  wanted: readonly Settling[],
  runs: readonly RunInk[],
  startLevel: number | undefined,
): Promise<string[]> {
  const studies = useStudies();
  await studies.load();
  const gear = useShelf().everything();
  const headers = runs.map(({ header }) => header);
  for (const { device, charger } of wanted) {
    const used = [headers.find((each) => each.device.id === device)?.device, headers.find((each) => each.charger.id === charger)?.charger];
    const gone = used.find((each) => each && ![...gear.devices, ...gear.chargers].some(({ id }) => id === each.id));
    if (gone) throw new NotPlannable(`${gone.name} is not on the bench: put it there, then plan the run.`);
  }
  const known = studyOf(runs, studies.all);
  const planned = [...group(wanted, ({ as }) => JSON.stringify(as)).values()].map((alike): Study => {
    const first = runs.find(({ header }) => alike.some(({ device }) => header.device.id === device)) ?? runs[0];
    if (known && alike[0]?.as === undefined) return withSettling(known, alike, studies.made(known.id));
    if (!first) throw new Error('There is no run to take it from. Open a comparison first.');
    return studyToSettle(nanoid(10), `To settle: ${first.header.device.name}`, first.header, startLevel ?? USUAL_START, alike);
  });
  for (const study of planned) await studies.put(study);
  return planned.map(({ id }) => id);
}

/** The study that more than half of some runs are of. */
function studyOf(runs: readonly RunInk[], all: readonly Study[]): Study | undefined {
  return all.find(({ id }) => runs.filter(({ header }) => header.study?.id === id).length > runs.length / 2);
}
