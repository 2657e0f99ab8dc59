import { type Header } from '@core/ink';
import { writeCadence } from '@core/method';
import { cellsOf } from '@core/plan';
import type { MethodChoice } from './methodChoice';
import type { useShelf } from './shelf';
import type { useStudies } from './studies';

/** A run as its study, or an earlier run, has it: everything that the start of a run asks for. */
export interface PlannedStart {
  /** What it follows: `As planned in Vans`. */
  title: string;
  device: string;
  charger: string;
  /** What feeds the charger, where the study says so. */
  feed: string | undefined;
  cable: string | undefined;
  /** The only meter of the study. */
  meter: string | undefined;
  /** As it is typed; empty where the plan begins at nothing, for what the display shows then is still to be seen. */
  level: string;
  /** As it is usually taken, where it is not known. */
  method: MethodChoice | undefined;
  study: Header['study'];
  conditions: NonNullable<Header['conditions']>;
}

/** The run that a cell of a study asks for; `undefined` when there is no such study or cell, or its gear is not on the shelf. */
export function plannedStart(
  ids: { study: string; cell: string },
  studies: ReturnType<typeof useStudies>,
  shelf: ReturnType<typeof useShelf>,
): PlannedStart | undefined {
  const study = studies.all.find(({ id }) => id === ids.study);
  const cell = study && cellsOf(study).find(({ key }) => key === ids.cell);
  if (!cell) return undefined;
  const isThere = (all: readonly { id: string }[], id: string) => all.some((gear) => gear.id === id);
  if (!isThere(shelf.devices, cell.device) || !isThere(shelf.chargers, cell.charger)) return undefined;
  return {
    title: `As planned in ${study.name}`,
    device: cell.device,
    charger: cell.charger,
    feed: cell.feed,
    cable: cell.cable,
    meter: study.meters.length === 1 ? study.meters[0] : undefined,
    level: study.startLevel > 0 ? String(study.startLevel) : '',
    method: { school: study.method, timing: writeCadence(study.cadence) },
    study: { id: study.id, cell: cell.key },
    conditions: [{ name: 'state', value: cell.state }, ...study.conditions],
  };
}

/** A run once more, as an earlier one was taken. Its gear is that of the shelf by now; what is not there any more is left open. */
export function startAgain(
  header: Header,
  name: string,
  shelf: ReturnType<typeof useShelf>,
  methods: readonly { id: string; name: string }[],
): PlannedStart {
  // A run keeps a method of one’s own by its name.
  const school = methods.find((each) => each.id === header.method || each.name === header.method)?.id;
  const there = (all: readonly { id: string }[], id: string | undefined) => all.find((gear) => gear.id === id)?.id;
  return {
    title: `As in ${name}`,
    device: there(shelf.devices, header.device.id) ?? '',
    charger: there(shelf.chargers, header.charger.id) ?? '',
    feed: there(shelf.chargers, header.feed?.charger.id),
    cable: there(shelf.cables, header.cable?.id),
    meter: there(shelf.meters, header.meter?.id),
    level: '',
    method: header.cadence && { school, timing: writeCadence(header.cadence) },
    study: header.study,
    conditions: header.conditions ?? [],
  };
}
