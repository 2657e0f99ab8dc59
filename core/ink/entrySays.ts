import { sourceName } from '../bench/feed';
import { spell } from '../quantity/duration';
import type { Condition } from '../method/conditionSchema';
import { shownCondition } from '../method/conditions';
import type { Draft, Entry, Event, Source } from './entry';
import type { RunInk } from './fold';
import { eventSays } from './events';
import { statusSays } from './statuses';

/** An entry as a sentence names it: `42 %`, `the reading`, `“screen woken”`, `the note`, `the trial of Cobble 20`. */
export function entrySays(entry: Entry | Draft): string {
  switch (entry.kind) {
    case 'reading':
      return entry.percent === undefined ? 'the reading' : `${entry.percent} %`;
    case 'event':
      return `“${eventSays(entry.event)}”`;
    case 'note':
      return 'the note';
    case 'trial':
      return `the trial of ${sourceSays(entry.source)} (${statusSays(entry.status)})`;
    case 'list':
      return 'the list of what is tried';
    case 'label':
      return 'the tags';
    case 'discard':
      return 'the discarding';
    case 'correction':
      return `the correction of the ${entry.shelf}`;
    case 'picture':
      return 'the picture';
    case 'log':
      return `the log ${entry.name}`;
    case 'place':
      return 'the place of a log';
    case 'plug-in':
      return 'the time of plug-in';
    case 'trim':
      return 'the trimming';
    case 'conditions':
      return 'the settings';
    case 'stop':
      return 'the stop';
    case 'strike':
      return 'the strike';
  }
}

/** A source in words: `Puddle, fed by Cobble 20`, `Quern 30, held to 9 V`. */
export const sourceSays = (source: Source): string => sourceName(source) + (source.held === undefined ? '' : `, held to ${source.held} V`);

/** An event in words with all that it carries: `the clock was changed, by 2 min ahead`. */
export function eventInWords(entry: Event): string {
  return [eventSays(entry.event), entry.remark, ...carried(entry)].filter(Boolean).join(', ');
}

function carried(entry: Event): string[] {
  switch (entry.event) {
    case 'swapped':
      return entry.source ? [`to ${sourceSays(entry.source)}`] : [];
    case 'clock':
      return entry.shift ? [`by ${spell(Math.abs(entry.shift) / 1000)} ${entry.shift > 0 ? 'ahead' : 'back'}`] : [];
    case 'work ended':
      return (entry.scores ?? []).map(({ name, value, unit }) => `${name} ${value} ${unit}`.trim());
    default:
      return [];
  }
}

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
