import type { Condition } from '../method/conditionSchema';
import { shownCondition } from '../method/conditions';
import { spell } from '../quantity/duration';
import type { Entry } from './entry';
import type { RunInk } from './fold';

/** What was said of a whole run after it was taken: its logs, its plug-in, its ends and its settings. */
export type Reshaping = Extract<Entry, { kind: 'log' | 'place' | 'plug-in' | 'trim' | 'conditions' }>;

/**
 * Such an entry in words: `plugged in at 0 s really, 40 s earlier than was said`.
 *
 * @param run as its entries tell it
 */
export function reshapingSays(entry: Reshaping, { asStarted, header, logs }: Pick<RunInk, 'asStarted' | 'header' | 'logs'>): string {
  const elapsed = (at: number) => (at - header.plugInAt) / 1000;
  const moved = (seconds: number) => `${spell(Math.abs(seconds), 1)} ${seconds < 0 ? 'before' : 'after'} plug-in`;
  const slow = (drift: number | undefined) =>
    drift ? `, its clock ${Math.abs(drift)} parts in a million ${drift > 0 ? 'slow' : 'fast'}` : '';
  switch (entry.kind) {
    case 'log':
      return `log ${entry.name} added: it begins ${moved(elapsed(entry.at))}${slow(entry.drift)}`;
    case 'place':
      return `log ${logs.find(({ log }) => log === entry.log)?.name ?? ''} moved: it begins ${moved(elapsed(entry.at))}${slow(entry.drift)}`;
    case 'plug-in': {
      const by = (entry.at - asStarted.plugInAt) / 1000;
      return `plug-in set ${spell(Math.abs(by), 1)} ${by < 0 ? 'earlier' : 'later'} than at first`;
    }
    case 'trim':
      return `trimmed to what lies between ${spell(Math.max(0, elapsed(entry.at)), 1)} and ${spell(elapsed(entry.until), 1)}`;
    case 'conditions':
      return `settings: ${changedSettings(asStarted.conditions ?? [], entry.conditions).join('; ') || 'as at the start'}`;
  }
}

/** Settings that differ, each as it is and as it was: `Wi-Fi off, not on`. */
function changedSettings(before: readonly Condition[], now: readonly Condition[]): string[] {
  const was = new Map(before.map(({ name, value }) => [name, value]));
  const changed = now.flatMap((condition) => {
    const old = was.get(condition.name);
    was.delete(condition.name);
    const { name, value } = shownCondition(condition);
    if (old === condition.value) return [];
    return [
      `${name} ${value || 'not said'}${old === undefined ? '' : `, not ${shownCondition({ name: condition.name, value: old }).value}`}`,
    ];
  });
  return [...changed, ...[...was.keys()].map((name) => `${name} not said`)];
}
