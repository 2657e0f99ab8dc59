import type { Samples } from '@core/samples';
import { QUANTITIES, type Quantity } from '@core/quantity';
import { nameOf, sampleBook } from './databases';
import { answer, within } from './transactions';

/** A meter's columns lie beside the ink, in chunks of typed arrays: a key each, `<run id>/<quantity>/<chunk>`. */

const CHUNK = 65_536;

/** Columns as they are stored: rows of `inkpath-samples`. */
export function* sampleRows(runId: string, samples: Samples): Generator<[key: string, value: unknown]> {
  for (const quantity of QUANTITIES) {
    const column = samples[quantity];
    for (let from = 0; column && from < column.seconds.length; from += CHUNK) {
      const rows = [from, from + CHUNK] as const;
      const key = `${runId}/${quantity}/${String(from / CHUNK).padStart(6, '0')}`;
      yield [key, { seconds: column.seconds.slice(...rows), values: column.values.slice(...rows) }];
    }
  }
}

/** The keys of a run's columns. Most runs have none. */
export const sampleKeys = (runId: string): Promise<string[]> =>
  within<string[]>(nameOf(sampleBook), 'readonly', [], (store, settle) => {
    // "0" is the character after the stroke.
    answer(store.getAllKeys(IDBKeyRange.bound(`${runId}/`, `${runId}0`, true, true)), (keys) => {
      settle(keys as string[]);
    });
  });

/** A run's samples, its chunks joined; of those quantities that are wanted. */
export async function samplesOf(runId: string, wanted: readonly Quantity[] = QUANTITIES): Promise<Samples | undefined> {
  const keys = await sampleKeys(runId);
  if (keys.length === 0) return undefined;
  const samples: Samples = {};
  for (const quantity of wanted) {
    const mine = keys.filter((key) => key.startsWith(`${runId}/${quantity}/`));
    if (mine.length === 0) continue;
    const chunks = await Promise.all(mine.map((key) => sampleBook.getItem<NonNullable<Samples['watts']>>(key)));
    samples[quantity] = { seconds: joined(chunks.map((chunk) => chunk?.seconds)), values: joined(chunks.map((chunk) => chunk?.values)) };
  }
  return samples;
}

function joined(parts: (Float64Array | undefined)[]): Float64Array<ArrayBuffer> {
  const whole = new Float64Array(parts.reduce((sum, part) => sum + (part?.length ?? 0), 0));
  let at = 0;
  for (const part of parts) {
    if (!part) continue;
    whole.set(part, at);
    at += part.length;
  }
  return whole;
}
