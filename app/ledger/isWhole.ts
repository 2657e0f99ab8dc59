import { shelfBook } from './databases';
import type { Reading } from './readAhead';
import { isCopied } from './secondCopy';

/** Stands in the shelf for as long as the databases do: where it is missing they are new, or were thrown away. */
export const BORN = 'born';

/** Whether the databases are those of before, or the first there are. */
export async function isWhole({ rows }: Pick<Reading, 'rows'>): Promise<boolean> {
  if ((await rows(shelfBook)).some(([key]) => key === BORN)) return true;
  if (await isCopied()) return false;
  // A start waits for nothing that it can do without; should this not be stored, all would be brought back once more.
  shelfBook.setItem(BORN, Date.now()).catch(() => undefined);
  return true;
}
