import type { Condition } from '../method/conditionSchema';
import { shownCondition } from '../method/conditions';
import { parseClock, spell } from '../quantity/duration';
import type { Entry } from './entry';
import type { RunInk } from './fold';

/** What was said of a whole run after it was taken: its logs, its plug-in, its ends and its settings. */
export type Reshaping = Extract<Entry, { kind: 'log' | 'place' | 'plug-in' | 'trim' | 'conditions' }>;

/** When a log begins: `4 min after plug-in`. @param seconds from plug-in */
export const fromPlugIn = (seconds: number): string => `${spell(Math.abs(seconds), 1)} ${seconds < 0 ? 'before' : 'after'} plug-in`;

/** A moment from plug-in as it is typed: `2:30`, or `-2:30` before it. @returns seconds; `undefined` where the text is no such time */
export function readPlace(text: string): number | undefined {
  const [, sign, clock = ''] = /^([-−+]?)\s*(.*)$/.exec(text.trim()) ?? [];
  const seconds = parseClock(clock);
  return seconds !== undefined && sign && sign !== '+' ? -seconds : seconds;
}

/** By how much the clock of a log is wrong, to go on a sentence; nothing where it is right. @param drift parts in a million, slow above zero */
export const clockSays = (drift: number | undefined): string =>
  drift ? `, its clock ${Math.abs(Math.round(drift))} parts in a million ${drift > 0 ? 'slow' : 'fast'}` : '';

/**
 * Such an entry in words: `plug-in set 40 s earlier than at first`.
 *
 * @param run as its entries tell it
 */
export function reshapingSays(entry: Reshaping, { asStarted, header, logs }: Pick<RunInk, 'asStarted' | 'header' | 'logs'>): string {
  const elapsed = (at: number) => (at - header.plugInAt) / 1000;
  switch (entry.kind) {
    case 'log':
      return `log ${entry.name} added: it begins ${fromPlugIn(elapsed(entry.at))}${clockSays(entry.drift)}`;
    case 'place':
      return `log ${logs.find(({ log }) => log === entry.log)?.name ?? ''} moved: it begins ${fromPlugIn(elapsed(entry.at))}${clockSays(entry.drift)}`;
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
