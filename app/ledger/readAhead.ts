import { askAhead, catalogueBook, INK, liveBook, nameOf, runsWithInk, shelfBook, valuesOf } from './databases';
import { inkBySheaves } from './ink';
import { isCopied } from './secondCopy';

/** Asks for what every start reads, while the program is still being fetched. */
export function readAhead(): void {
  for (const book of [liveBook, shelfBook, catalogueBook]) askAhead(nameOf(book), valuesOf(book));
  const ink = runsWithInk().then((ids) => {
    for (const id of ids) askAhead(INK + id, inkBySheaves(id));
  });
  // The shelf is also asked one by one, and opening is what takes long. Whatever fails here fails again, and is told, where it is wanted.
  for (const begun of [ink, shelfBook.ready(), isCopied()]) begun.catch(() => undefined);
}
