import { END_OF_LOG } from '../ink/endings';
import type { Entry, Header } from '../ink/entry';
import { MOMENTS } from '../ink/ranges';
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
    at: momentOf(header, seconds),
    seq: 1,
    id: nextId(),
    written: now,
  }));
  const stopped = dated.some(({ kind }) => kind === 'stop');
  if (!stopped) {
    const at = momentOf(header, csv.length);
    dated.push({ kind: 'stop', because: 'other', remark: END_OF_LOG, at, seq: 1, id: nextId(), written: now });
  }
  const entries = dated.map((entry, index) => ({ ...entry, seq: index + 1 }));
  return { header, entries, ...(Object.keys(csv.samples).length > 0 && { samples: csv.samples }) };
}

/** A moment of a run, within what is kept: the last rows of a log may lie past it. */
const momentOf = ({ plugInAt }: Header, seconds: number): number =>
  Math.min(MOMENTS.max, Math.max(MOMENTS.min, plugInAt + Math.round(seconds * 1000)));
