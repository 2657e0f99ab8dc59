import { StorageTrouble } from '../ledger/storageTrouble';

/**
 * What to tell a person of something that storage refused. Anything else is not told here: it is thrown on to where failures are shown.
 *
 * @param what a sentence on what did not happen, where it was not a reading: `The study was not saved.`
 */
export function troubleOf(error: unknown, what?: string): string {
  if (!(error instanceof StorageTrouble)) throw error;
  return what === undefined ? error.message : error.saying(what);
}
