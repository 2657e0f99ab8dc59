import { entryMisfit, runMisfit, short, type StoredRun } from '@core/exchange';
import { type Entry } from '@core/ink';
import { StorageTrouble } from './storageTrouble';

/** What is stored must be what its schema lets in: whatever reads it back relies on that. Loaded after the first picture, for schemas take long to build. */

/** @throws {StorageTrouble} saying what is wrong with it */
export function requireEntry(entry: Entry): void {
  const found = entryMisfit(entry);
  if (found)
    throw new StorageTrouble(`It cannot be stored: ${found.path || 'it'} ${found.says}. Correct it, and log it again.`, 'Not logged.');
}

/** @throws {StorageTrouble} saying which run, and what is wrong with it */
export function requireRun(run: StoredRun): void {
  const found = runMisfit(run);
  if (found)
    throw new StorageTrouble(`Run ${short(run.header.id)} cannot be stored: at ${found.path} it ${found.says}.`, 'Nothing was imported.');
}
