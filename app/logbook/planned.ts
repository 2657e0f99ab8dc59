import { type Header } from '@core/ink';
import { writeCadence } from '@core/method';
import { cellsOf } from '@core/plan';
import type { MethodChoice } from './methodChoice';
import type { useShelf } from './shelf';
import type { useStudies } from './studies';

/** A run as its study plans it: everything that the start of a run asks for. */
export interface PlannedStart {
  title: string;
  device: string;
  charger: string;
  /** What feeds the charger, where the study says so. */
  feed: string | undefined;
  cable: string | undefined;
  /** The only meter of the study. */
  meter: string | undefined;
  state: string;
  /** As it is typed; empty where the plan begins at nothing, for what the display shows then is still to be seen. */
  level: string;
  method: MethodChoice;
  study: NonNullable<Header['study']>;
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
    title: study.name,
    device: cell.device,
    charger: cell.charger,
    feed: cell.feed,
    cable: cell.cable,
    meter: study.meters.length === 1 ? study.meters[0] : undefined,
    state: cell.state,
    level: study.startLevel > 0 ? String(study.startLevel) : '',
    method: { school: study.method, timing: writeCadence(study.cadence) },
    study: { id: study.id, cell: cell.key },
    conditions: [{ name: 'state', value: cell.state }, ...study.conditions],
  };
}
