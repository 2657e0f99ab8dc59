import { misfit } from './fits';
import type { Rest } from './logbook';
import { settingsSchema } from './settings';

/** Adds to a set every id that stands anywhere in a value: of gear, of the study, of whatever else a run is about. */
export function namesIn(value: unknown, names: Set<string>): void {
  if (typeof value !== 'object' || value === null) return;
  if ('id' in value && typeof value.id === 'string') names.add(value.id);
  for (const each of Object.values(value) as unknown[]) namesIn(each, names);
}

/** Without settings that no file may hold: a slip among them is no reason to save nothing. */
export const settingsFit = ({ settings, ...rest }: Rest): Rest =>
  settings && !misfit(settingsSchema, settings) ? { ...rest, settings } : rest;

/**
 * What belongs to some runs: their studies; the methods of these; the gear of both; and comparisons and pieces of nothing but these runs. What was chosen goes
 * with them, for figures go by it; how logs of meters were read does not.
 *
 * @param runs  ids of the runs
 * @param names every id that stands in them (`namesIn`)
 */
export function belongingTo(runs: ReadonlySet<string>, names: ReadonlySet<string>, rest: Rest): Rest {
  const isNamed = ({ id }: { id: string }) => names.has(id);
  const studies = rest.studies.filter(isNamed);
  const ofStudies = new Set(
    studies.flatMap(({ method, devices, chargers, cables, meters }) => [method, ...devices, ...chargers, ...cables, ...meters]),
  );
  const belongs = ({ id }: { id: string }) => names.has(id) || ofStudies.has(id);
  return {
    ...rest,
    devices: rest.devices.filter(belongs),
    chargers: rest.chargers.filter(belongs),
    cables: rest.cables.filter(belongs),
    meters: rest.meters.filter(belongs),
    methods: rest.methods.filter(belongs),
    studies,
    comparisons: rest.comparisons.filter(({ runs: compared }) => compared.every((id) => runs.has(id))),
    pieces: rest.pieces.filter(({ runs: written }) => written.every((id) => runs.has(id))),
    remembered: [],
  };
}
