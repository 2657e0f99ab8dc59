import { askAhead, catalogueBook, liveBook, nameOf, rowsOf, runsWithInk, shelfBook } from './databases';
import { INK } from './transactions';
import { inkBySnapshots } from './ink';
import { isCopied } from './secondCopy';

/** Asks for what every start reads, while the program is still being fetched. */
export function readAhead(): void {
  for (const book of [liveBook, shelfBook, catalogueBook]) askAhead(nameOf(book), rowsOf(book));
  const ink = runsWithInk().then((ids) => {
    for (const id of ids) askAhead(INK + id, inkBySnapshots(id));
  });
  // Whatever fails here fails again, and is told, where it is wanted.
  for (const begun of [ink, isCopied()]) begun.catch(() => undefined);
}
