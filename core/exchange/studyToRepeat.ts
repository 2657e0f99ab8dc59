import type { Study } from '../plan/study';
import { NOTHING_ELSE, type Rest } from './logbook';

/** A study as somebody else can run it: its question, matrix, method and conditions, and the gear that it names; no runs, days or notes. */
export function studyToRepeat(study: Study, rest: Rest): Rest {
  const { calendar, notes, more, ...asked } = study;
  const has = (ids: readonly (string | undefined)[]) => {
    const wanted = new Set(ids);
    return ({ id }: { id: string }) => wanted.has(id);
  };
  const chargers = [...study.chargers, ...(study.feeds ?? []).flatMap(({ charger, by }) => [charger, by])];
  return {
    ...NOTHING_ELSE,
    devices: rest.devices.filter(has(study.devices)),
    chargers: rest.chargers.filter(has(chargers)),
    cables: rest.cables.filter(has(study.cables)),
    meters: rest.meters.filter(has(study.meters)),
    methods: rest.methods.filter(has([study.method])),
    studies: [asked],
  };
}
