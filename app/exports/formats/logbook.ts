import { LogbookReader, logbookOf, logbookParts, studyToRepeat, writeLogbook } from '@core/exchange';
import type { FileMaker } from '../fileMaker';
import type { ExportSource } from '../source';

/**
 * Writes a logbook, and reads it back before it is called written: runs, pictures and what else there is, one after another.
 *
 * @throws {ImportError} when it does not read back as it was written
 */
export async function writeLogbookFile({ runs, pictures, rest, count }: ExportSource, file: FileMaker): Promise<void> {
  for await (const part of logbookParts(runs(), lateIn(pictures), rest)) file.add(part);
  let back = 0;
  const reader = new LogbookReader('The file', (one) => {
    back += one.entries.length;
    return undefined;
  });
  const text = file
    .end()
    .stream()
    .pipeThrough(new TextDecoderStream() as ReadableWritablePair<string, Uint8Array<ArrayBuffer>>)
    .getReader();
  for (let next = await text.read(); !next.done; next = await text.read()) reader.push(next.value);
  reader.end();
  if (back !== count.entries)
    throw new Error(`The file holds ${back} entries of ink and not ${count.entries}: it was not saved. Try again.`);
}

/** Which pictures are shown is known when the runs have gone by. */
async function* lateIn<Item>(late: () => AsyncIterable<Item>): AsyncGenerator<Item> {
  yield* late();
}

/** A study without its runs, with its gear and its method. */
export async function writeStudyToRepeat({ target, rest }: ExportSource, file: FileMaker): Promise<void> {
  const whole = await rest();
  const study = whole.studies.find(({ id }) => id === target.study);
  if (!study) throw new Error('There is no such study any more: nothing was written.');
  file.add(writeLogbook(logbookOf(studyToRepeat(study, whole))));
}
