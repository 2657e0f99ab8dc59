import { assumedNow, mannerNow } from '@core/quantity';
import { sampleKeys } from '../ledger/samples';
import { openFiled, type Opened } from './opened';
import type { Opener } from './opener';
import { wrapped } from './wrapped';

/** Opens a filed run: one that was read by hand here, for that takes no longer than a worker takes to begin. @throws {StorageTrouble} when there is none of that id */
export async function openRun(id: string): Promise<Opened> {
  if ((await sampleKeys(id)).length === 0) return openFiled(id);
  const worker = new Worker(new URL('./opener.ts', import.meta.url), { type: 'module' });
  try {
    return await wrapped<Opener>(worker).open(id, mannerNow(), assumedNow());
  } finally {
    worker.terminate();
  }
}
