import { foldRun, type Track } from '@core/ink';
import { rangeOf } from '@core/samples';
import { filedInk } from '../ledger/filed';
import { streamsOf } from '../ledger/samples';

/** Rows of a streamed track that are kept where no figure is worked out of it. */
const MOST_ROWS = 1500;

/** A track as many rows long as a strip draws. */
export function thinned(track: Track): Track {
  const rows = rangeOf(track, { max: MOST_ROWS });
  const [seconds, values] = [new Float64Array(rows.length), new Float64Array(rows.length)];
  for (let row = 0; row < rows.length; row += 1) [seconds[row], values[row]] = [rows[row]?.[0] ?? 0, rows[row]?.[1] ?? 0];
  return { seconds, values };
}

/** The levels of a filed run, without opening the rest of it. @throws {StorageTrouble} when there is none of that id */
export async function levelsOfFiled(id: string): Promise<Track> {
  const { header, entries } = await filedInk(id);
  const { samples, logs } = await streamsOf(id, ['percent']);
  const run = foldRun(header, entries, samples, logs);
  return run.sampled.has('percent') ? thinned(run.tracks.percent) : run.tracks.percent;
}
