import { sourceName } from '../bench/feed';
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
