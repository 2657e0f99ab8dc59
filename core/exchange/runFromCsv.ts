import { END_OF_LOG } from '../ink/endings';
import type { Entry, Header } from '../ink/entry';
import type { CsvRun } from './csvIn';
import type { StoredRun } from './logbook';

/**
 * Makes a run of what was read from a CSV. A meter's log that does not say how it ended is stopped at its last row.
 *
 * @param header the run's header; its plug-in instant dates every row
 * @param nextId makes an id for each entry
 * @param now    epoch milliseconds: when it was written here
 */
export function runFromCsv(csv: CsvRun, header: Header, nextId: () => string, now: number): StoredRun {
  const dated = csv.entries.map(({ seconds, draft }): Entry => ({
    ...draft,
    at: header.plugInAt + Math.round(seconds * 1000),
    seq: 1,
    id: nextId(),
    written: now,
  }));
  const stopped = dated.some(({ kind }) => kind === 'stop');
  if (!stopped) {
    const at = header.plugInAt + Math.round(csv.length * 1000);
    dated.push({ kind: 'stop', because: 'other', remark: END_OF_LOG, at, seq: 1, id: nextId(), written: now });
  }
  const entries = dated.map((entry, index) => ({ ...entry, seq: index + 1 }));
  return { header, entries, ...(Object.keys(csv.samples).length > 0 && { samples: csv.samples }) };
}
