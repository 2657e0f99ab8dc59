import { replay, type Line } from '@core';
import { bookCalled, copiedBooks, shelfBook } from './databases';
import { copied, copyAnew } from './secondCopy';

/** Stands in the shelf for as long as the databases do: where it is missing they are new, or were thrown away. */
const BORN = 'born';
/** Past so many bytes the second copy is written anew, without what has been overwritten since. */
const RENEW = 8_000_000;

/**
 * Brings the logbook back from its second copy when the browser has thrown its databases away.
 *
 * @returns whether it had
 */
export async function mend(): Promise<boolean> {
  if ((await shelfBook.getItem(BORN)) !== null) return false;
  const books = replay((await copied()).lines);
  for (const [name, rows] of books) {
    const book = bookCalled(name);
    await Promise.all([...rows].map(([key, value]) => book?.setItem(key, value)));
  }
  await shelfBook.setItem(BORN, Date.now());
  return [...books.values()].some((rows) => rows.size > 0);
}

/** Keeps the second copy small. Not needed before the first picture. */
export async function thinCopy(): Promise<void> {
  if ((await copied()).bytes < RENEW) return;
  const at = Date.now();
  const lines: Line[] = [];
  for (const [name, book] of await copiedBooks())
    await book.iterate((value, key) => {
      lines.push({ at, book: name, key, value });
    });
  await copyAnew(lines);
}
