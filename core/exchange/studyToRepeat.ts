import type { Study } from '../plan/study';
import { NOTHING_ELSE, type Rest } from './logbook';

/** A study as somebody else can run it: its question, matrix, method and conditions, and the gear that it names, with what usually feeds it; no runs, days or notes. */
export function studyToRepeat(study: Study, rest: Rest): Rest {
  const has = (ids: readonly (string | undefined)[]) => {
    const wanted = new Set(ids);
    return ({ id }: { id: string }) => wanted.has(id);
  };
  const named = new Set([...study.chargers, ...(study.feeds ?? []).flatMap(({ charger, by }) => [charger, by])]);
  const fed = rest.chargers.filter(({ id }) => named.has(id));
  const chargers = [...named, ...fed.map(({ fedBy }) => fedBy)];
  const cables = [...study.cables, ...fed.map(({ fedThrough }) => fedThrough)];
  return {
    ...NOTHING_ELSE,
    devices: rest.devices.filter(has(study.devices)),
    chargers: rest.chargers.filter(has(chargers)),
    cables: rest.cables.filter(has(cables)),
    meters: rest.meters.filter(has(study.meters)),
    methods: rest.methods.filter(has([study.method])),
    studies: [{ ...study, calendar: undefined, notes: undefined, more: undefined }],
  };
}

/** A study in a file that is there to be repeated: one study, without any runs. `undefined` of every other file. */
export function studyIn(rest: Pick<Rest, 'studies'>, runs: readonly unknown[]): Study | undefined {
  const [study] = rest.studies;
  return runs.length === 0 && rest.studies.length === 1 ? study : undefined;
}

/**
 * A study as it is run here, under an id of its own: a piece of gear that another stands in for goes by that one’s id, and does not come with it.
 *
 * @param standIns ids of one’s own gear, by the ids of the file
 */
export function studyRepeated(rest: Rest, standIns: Readonly<Record<string, string | undefined>>, id: string): Rest {
  const mine = (theirs: string) => standIns[theirs] ?? theirs;
  const all = (ids: readonly string[]) => [...new Set(ids.map(mine))];
  // The key of a cell names its gear.
  const cellOf = (key: string) => key.replaceAll(/[\w-]+/g, mine);
  const comes = (piece: { id: string }) => standIns[piece.id] === undefined;
  return {
    ...rest,
    devices: rest.devices.filter(comes),
    chargers: rest.chargers.filter(comes),
    cables: rest.cables.filter(comes),
    meters: rest.meters.filter(comes),
    studies: rest.studies.map((study) => ({
      ...study,
      id,
      devices: all(study.devices),
      chargers: all(study.chargers),
      cables: all(study.cables),
      meters: all(study.meters),
      crossed: study.crossed.map(({ cell, reason }) => ({ cell: cellOf(cell), reason })),
      ...(study.feeds && { feeds: study.feeds.map(({ charger, by }) => ({ charger: mine(charger), by: mine(by) })) }),
    })),
  };
}
