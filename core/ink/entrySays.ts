import { sourceName } from '../bench/feed';
import { portName } from '../bench/portName';
import { portsOf } from '../bench/ports';
import { spell } from '../quantity/duration';
import type { Draft, Entry, Event, Source } from './entry';
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

/** A source in words: `Puddle fed by Cobble 20`, `Quern 30 held to 9 V`. */
export const sourceSays = (source: Source): string => sourceName(source) + (source.held === undefined ? '' : ` held to ${source.held} V`);

/** What of a source is another after a swap: `cable Long one`, `port 2`, `fed by Quern 30`; of another charger its name alone. */
export function whatChanged(before: Source, after: Source): string[] {
  if (before.charger.id !== after.charger.id) return [sourceSays(after)];
  const found: string[] = [];
  if (before.cable?.id !== after.cable?.id) found.push(after.cable ? `cable ${after.cable.name}` : 'without the cable');
  if ((before.port ?? 0) !== (after.port ?? 0)) found.push(portName(portsOf(after.charger)[after.port ?? 0] ?? {}, after.port ?? 0));
  if (before.feed?.charger.id !== after.feed?.charger.id) found.push(after.feed ? `fed by ${after.feed.charger.name}` : 'fed by nothing');
  return found;
}

/** An event in words with all that it carries: `the clock was changed, by 2 min ahead`. */
export function eventInWords(entry: Event): string {
  return [eventSays(entry.event), entry.remark, ...carried(entry)].filter(Boolean).join(', ');
}

function carried(entry: Event): string[] {
  switch (entry.event) {
    case 'swapped':
      // What of the same charger changed stands in its remark; another is named.
      return entry.source && !entry.remark ? [`to ${sourceSays(entry.source)}`] : [];
    case 'clock':
      return entry.shift ? [`by ${spell(Math.abs(entry.shift) / 1000)} ${entry.shift > 0 ? 'ahead' : 'back'}`] : [];
    case 'work ended':
      return (entry.scores ?? []).map(({ name, value, unit }) => `${name} ${value} ${unit}`.trim());
    default:
      return [];
  }
}
