import { nanoid } from 'nanoid';
import { ImportError } from '@core/exchange';
import { pictureBook, store } from './databases';

/** Pictures taken as evidence are kept beside the ink, each under an id of its own, small enough that a hundred of them weigh little. */

/** Longest side kept, in pixels: a display or a meter can be read off it. */
const LONGEST = 1600;
const QUALITY = 0.82;

/** Keeps a picture. @returns its id, once it is stored @throws {StorageTrouble} when it cannot be; {ImportError} when the file is no picture */
export async function keepPicture(file: Blob): Promise<string> {
  const id = nanoid(12);
  await store(pictureBook, id, await shrink(file));
  return id;
}

async function shrink(file: Blob): Promise<Blob> {
  const picture = await createImageBitmap(file).catch(() => {
    throw new ImportError('This file is not a picture that the browser can read. Take it as JPEG or PNG.');
  });
  const scale = Math.min(1, LONGEST / Math.max(picture.width, picture.height));
  const canvas = new OffscreenCanvas(Math.round(picture.width * scale), Math.round(picture.height * scale));
  canvas.getContext('2d')?.drawImage(picture, 0, 0, canvas.width, canvas.height);
  picture.close();
  return canvas.convertToBlob({ type: 'image/jpeg', quality: QUALITY });
}

/** A picture; `undefined` where it is no longer there. */
export const pictureOf = async (id: string): Promise<Blob | undefined> => (await pictureBook.getItem<Blob>(id)) ?? undefined;

/** Every picture as a data address, one after another, for the export of the logbook. */
export async function* everyPicture(): AsyncGenerator<[id: string, address: string]> {
  for (const id of await pictureBook.keys()) {
    const picture = await pictureOf(id);
    if (picture) yield [id, await addressOf(picture)];
  }
}

function addressOf(picture: Blob): Promise<string> {
  return new Promise((resolve, reject) => {
    const reader = new FileReader();
    reader.onload = () => {
      resolve(typeof reader.result === 'string' ? reader.result : '');
    };
    reader.onerror = () => {
      reject(reader.error ?? new Error('A picture could not be read.'));
    };
    reader.readAsDataURL(picture);
  });
}
