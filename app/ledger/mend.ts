import { replay, type Line } from '@core';
import { bookCalled, copiedBooks, forgetAhead, shelfBook, valueAtStart } from './databases';
import { isSheaf } from './ink';
import { copied, copyAnew, copySize, isCopied } from './secondCopy';

/** Stands in the shelf for as long as the databases do: where it is missing they are new, or were thrown away. */
const BORN = 'born';
/** Past so many bytes the second copy is written anew, without what has been overwritten since. */
const RENEW = 8_000_000;

/** Whether the databases are those of before, or the first there are. */
export async function isWhole(): Promise<boolean> {
  if ((await valueAtStart(shelfBook, BORN)) !== null) return true;
  if (await isCopied()) return false;
  // A start waits for nothing that it can do without; should this not be stored, all would be brought back once more.
  shelfBook.setItem(BORN, Date.now()).catch(() => undefined);
  return true;
}

/**
 * Brings the logbook back from its second copy: for databases that the browser has thrown away.
 *
 * @returns whether there was anything to bring back
 */
export async function mend(): Promise<boolean> {
  forgetAhead();
  const books = replay(await copied());
  for (const [name, rows] of books) {
    const book = bookCalled(name);
    if (book) await Promise.all(Array.from(rows, ([key, value]) => book.setItem(key, value)));
  }
  await shelfBook.setItem(BORN, Date.now());
  return [...books.values()].some((rows) => rows.size > 0);
}

/** Keeps the second copy small. Not needed before the first picture. */
export async function thinCopy(): Promise<void> {
  if ((await copySize()) < RENEW) return;
  const at = Date.now();
  const lines: Line[] = [];
  for (const [name, book] of await copiedBooks())
    await book.iterate((value, key) => {
      if (!isSheaf(key)) lines.push({ at, book: name, key, value });
    });
  await copyAnew(lines);
}
