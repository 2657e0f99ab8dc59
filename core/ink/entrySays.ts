import type { Entry } from './entry';
import { eventSays } from './events';
import { statusSays } from './statuses';

/** An entry as a sentence names it: `42 %`, `the reading`, `“screen woken”`, `the note`, `the trial of Cobble 20`. */
export function entrySays(entry: Entry): string {
  switch (entry.kind) {
    case 'reading':
      return entry.percent === undefined ? 'the reading' : `${entry.percent} %`;
    case 'event':
      return `“${eventSays(entry.event)}”`;
    case 'note':
      return 'the note';
    case 'trial':
      return `the trial of ${entry.source.charger.name} (${statusSays(entry.status)})`;
    case 'picture':
      return 'the picture';
    case 'stop':
      return 'the stop';
    case 'strike':
      return 'the strike';
  }
}
