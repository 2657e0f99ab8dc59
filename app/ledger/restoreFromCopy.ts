import { replay } from '@core/exchange';
import { COPIED_NAMES, isCopiedBook, liveBook, nameOf, runBook, shelfBook, storeMissing } from './databases';
import { allInk } from './ink';
import { BORN } from './isWhole';
import { exclusively } from './locks';
import { compared, copied } from './secondCopy';

/**
 * Brings the logbook back from its second copy: for databases that the browser has thrown away. What stands is left as it is: somebody may have
 * written since.
 *
 * @returns whether there was anything to bring back
 */
export const mend = (): Promise<boolean> =>
  exclusively('mend', async () => {
    const brought = await putBack([...replay(await copied())].map(([book, rows]) => [book, [...rows]]));
    await shelfBook.setItem(BORN, Date.now());
    return brought > 0;
  });

/**
 * Compares the second copy with every database there is, and mends either by the other: the databases may have lost ink that the copy has, and
 * a page that was left or killed as it wrote may have copied nothing of its last moments.
 *
 * @returns whether anything was brought back
 */
export const compareCopy = (): Promise<boolean> =>
  exclusively('mend', async () => {
    const { lost } = await compared(COPIED_NAMES);
    return (await putBack(lost)) > 0;
  });

type Rows = [key: string, value: unknown][];

async function putBack(books: readonly [name: string, rows: Rows][]): Promise<number> {
  let brought = 0;
  const isLive = (name: string) => name === nameOf(liveBook);
  // Headers come last, once the ink and the filed runs stand that they are looked at with.
  for (const [name, rows] of [...books.filter(([each]) => !isLive(each)), ...books.filter(([each]) => isLive(each))]) {
    if (!isCopiedBook(name)) continue;
    brought += await storeMissing(name, isLive(name) ? await stillLive(rows) : rows);
  }
  return brought;
}

/** Of headers those whose run is not over: one that was filed meanwhile has no ink of its own any more. */
async function stillLive(rows: Rows): Promise<Rows> {
  const kept: Rows = [];
  for (const [key, value] of rows) {
    const isHeader = typeof value === 'object' && value !== null && 'plugInAt' in value;
    const isOver = isHeader && (await allInk(key)).length === 0 && (await runBook.getItem(key)) !== null;
    if (!isOver) kept.push([key, value]);
  }
  return kept;
}
