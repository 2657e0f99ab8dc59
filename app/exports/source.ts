import { belongingTo, namesIn, NOTHING_ELSE, runMisfit, settingsFit, type Rest, type StoredRun } from '@core/exchange';
import type { Progress } from '../kit/work';
import { everyRun } from '../ledger/filed';
import type { SetAside } from '../ledger/live';
import { everyPicture } from '../ledger/pictures';
import { readNow } from '../ledger/readAhead';
import type { Target } from './target';

/** How much was written. */
export interface Count {
  runs: number;
  entries: number;
  /** Values that meters gave. */
  values: number;
}

/** What a writer makes a file of: runs come first, for what belongs to them is known when they have gone by. */
export interface ExportSource {
  target: Target;
  runs: () => AsyncIterable<StoredRun>;
  rest: () => Promise<Rest>;
  pictures: () => AsyncIterable<[id: string, address: string]>;
  /** Ids of the runs of comparisons that may be in it. */
  compared: () => Promise<ReadonlySet<string>>;
  count: Count;
  /** Runs that are not in it, for they could not be read or would not be read back; and whatever else was left out, in sentences. */
  aside: SetAside[];
  leftOut: string[];
}

const valuesIn = (samples: StoredRun['samples'] = {}): number => Object.values(samples).reduce((sum, { values }) => sum + values.length, 0);

/**
 * @param rest     everything but runs and pictures
 * @param progress how many runs were read
 */
export function exportSourceOf(target: Target, rest: () => Promise<Rest>, progress: Progress): ExportSource {
  const only =
    target.of === 'shelf' || target.of === 'calendar' || target.of === 'piece' ? new Set<string>() : target.runs && new Set(target.runs);
  const [named, shown] = [new Set(target.study ? [target.study] : []), new Set<string>()];
  const count: Count = { runs: 0, entries: 0, values: 0 };
  const aside: SetAside[] = [];
  async function* runs() {
    for await (const run of everyRun(aside, progress, only)) {
      const { header } = run;
      const found = runMisfit(run);
      if (found) {
        aside.push({ id: header.id, name: `${header.device.name} on ${header.charger.name}`, why: `At ${found.path} it ${found.says}.` });
        continue;
      }
      count.runs += 1;
      count.entries += run.entries.length;
      count.values += valuesIn(run.samples) + Object.values(run.logs ?? {}).reduce((sum, log) => sum + valuesIn(log), 0);
      if (only) namesIn([header, run.entries], named);
      for (const entry of run.entries) if (entry.kind === 'picture') shown.add(entry.picture);
      yield target.isWithoutSamples ? { header, entries: run.entries } : run;
    }
  }
  const belonging = async (): Promise<Rest> => {
    const whole = await rest();
    if (target.of !== 'shelf') return settingsFit(only ? belongingTo(only, named, whole) : whole);
    const { devices, chargers, cables, meters } = whole;
    return { ...NOTHING_ELSE, devices, chargers, cables, meters };
  };
  return {
    target,
    runs,
    rest: belonging,
    pictures: () => everyPicture((id) => (!only && target.of === 'logbook') || shown.has(id)),
    compared: async () => new Set((await readNow.rows('comparison')).flatMap(([, stored]) => (stored as { runs?: string[] }).runs ?? [])),
    count,
    aside,
    leftOut: [],
  };
}
