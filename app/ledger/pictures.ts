import { addressOf, bytesIn } from '../kit/dataAddress';
import localforage from 'localforage';
import { nanoid } from 'nanoid';
import { ImportError } from '@core/exchange';
import { act } from './act';
import { keyOf, PICTURES } from './keys';
import { sharing } from './locks';
import { troubleFrom } from './storageTrouble';
import { STORE, type StoredRow } from './transactions';
import { TAKING } from './unnamed';

/** Pictures taken as evidence are kept beside the ink, each under an id of its own, small enough that a hundred of them weigh little. */

/** IndexedDB or nothing: a silent fallback would hold less and lose more. */
const book = localforage.createInstance({ name: PICTURES, storeName: STORE, driver: localforage.INDEXEDDB });

/** Longest side kept, in pixels: a display or a meter can be read off it. */
const LONGEST_SIDE = 1600;
const QUALITY = 0.82;

/**
 * Keeps a picture, and then the ink that names it. A picture whose ink was never written is swept at a later start (sweep.ts).
 *
 * @throws {StorageTrouble} when either cannot be stored; {ImportError} when the file is no picture
 */
export const keepPicture = (file: Blob, write: (picture: string) => Promise<unknown>): Promise<void> =>
  sharing(TAKING, async () => {
    const id = nanoid(12);
    const small = await shrink(file);
    await act((changes) => {
      changes.add(keyOf('unnamed', 'picture', id), { pictures: [id] });
      return Promise.resolve();
    });
    await book.setItem(id, small).catch((cause: unknown) => {
      throw troubleFrom(cause);
    });
    await write(id);
  });

async function shrink(file: Blob): Promise<Blob> {
  const picture = await createImageBitmap(file).catch(() => {
    throw new ImportError('This file is not a picture that the browser can read. Take it as JPEG or PNG.');
  });
  const scale = Math.min(1, LONGEST_SIDE / Math.max(picture.width, picture.height));
  const canvas = new OffscreenCanvas(Math.round(picture.width * scale), Math.round(picture.height * scale));
  canvas.getContext('2d')?.drawImage(picture, 0, 0, canvas.width, canvas.height);
  picture.close();
  return canvas.convertToBlob({ type: 'image/jpeg', quality: QUALITY });
}

/** A picture; `undefined` where it is no longer there. */
export const pictureOf = async (id: string): Promise<Blob | undefined> => (await book.getItem<Blob>(id)) ?? undefined;

/** Every picture as a data address, one after another, for the export of the logbook. @param isWanted which of them, by their ids */
export async function* everyPicture(isWanted: (id: string) => boolean): AsyncGenerator<[id: string, address: string]> {
  for (const id of (await book.keys()).filter(isWanted)) {
    const picture = await pictureOf(id);
    if (picture) yield [id, await addressOf(picture)];
  }
}

/** Pictures of a logbook as they are stored. @param pictures data addresses by id */
export function picturesOf(pictures: Readonly<Record<string, string>>): StoredRow<Blob>[] {
  return Object.entries(pictures).map(([id, address]) => {
    const [head = ''] = address.split(',');
    return [id, new Blob([bytesIn(address)], { type: /data:(.+);base64/.exec(head)?.[1] ?? 'image/jpeg' })];
  });
}
