import type { Draft } from '../ink/entry';
import type { RunRecord } from '../ink/fold';
import { finerFrom } from '../curve/finer';

/** What a lane of a set has to be told: ink to write on it. */
export interface News {
  runId: string;
  draft: Extract<Draft, { kind: 'event' }>;
}

/**
 * The rule that looks across lanes: once the first of a set shows the level that makes its cadence fine, all of the set are read finely from that
 * moment. It becomes ink of each, so that every run tells for itself when its checks fell due.
 *
 * @param live the live runs
 * @returns what is still to be written, on lanes that neither showed the level before nor were told
 */
export function newsOf(live: readonly RunRecord[]): News[] {
  const shown = live.flatMap((run) => {
    const from = finerFrom(run);
    return from === undefined ? [] : [{ run, at: run.header.plugInAt + Math.round(from * 1000) }];
  });
  return live.flatMap((run): News[] => {
    const { group, id, cadence } = run.header;
    if (group === undefined || cadence?.kind !== 'coarse then fine' || finerFrom(run) !== undefined) return [];
    const [first] = shown.filter((each) => each.run.header.group === group).sort((one, other) => one.at - other.at);
    if (!first) return [];
    const remark = `${first.run.header.device.name} showed ${cadence.level} %`;
    return [{ runId: id, draft: { kind: 'event', at: first.at, event: 'fine', remark } }];
  });
}
