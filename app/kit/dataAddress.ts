/** A file as a data address (RFC 2397). Works in workers too. */
export function addressOf(file: Blob): Promise<string> {
  return new Promise((resolve, reject) => {
    const reader = new FileReader();
    reader.onload = () => {
      resolve(typeof reader.result === 'string' ? reader.result : '');
    };
    reader.onerror = () => {
      reject(reader.error ?? new Error('A picture could not be read.'));
    };
    reader.readAsDataURL(file);
  });
}

/** The bytes that are in a data address. */
export const bytesIn = (address: string): Uint8Array<ArrayBuffer> =>
  Uint8Array.from(atob(address.slice(address.indexOf(',') + 1)), (letter) => letter.charCodeAt(0));
