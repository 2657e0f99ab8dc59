import { strToU8, Zip, ZipDeflate, ZipPassThrough } from 'fflate';
import type { TakeBytes } from './parquet';

/** No archive is larger: beyond, its offsets would need the 64-bit form, which our packer does not write. */
const MOST_BYTES = 4_000_000_000;
const MOST_FILES = 65_000;

/** A file of an archive that is being written. */
export interface Part {
  text: (text: string) => void;
  bytes: TakeBytes;
  end: () => void;
}

/** Writes a zip (PKZIP APPNOTE 6.3.3, by fflate), part by part. @throws {Error} where it would be larger than a zip may be */
export class Archive {
  private readonly zip: Zip;
  private size = 0;
  private files = 0;

  constructor(take: TakeBytes) {
    this.zip = new Zip((error, bytes) => {
      if (error) throw error;
      this.size += bytes.length;
      if (this.size > MOST_BYTES) throw new Error('It would be over 4 GB, more than an archive holds: export fewer runs at once.');
      take(bytes);
    });
  }

  /** Begins a file. Those begun later wait in memory until it ends, packed. @param isPacked whether it is packed already */
  begin(path: string, isPacked = false): Part {
    this.files += 1;
    if (this.files > MOST_FILES)
      throw new Error(`It would be over ${MOST_FILES} files, more than an archive holds: export fewer runs at once.`);
    const file = isPacked ? new ZipPassThrough(path) : new ZipDeflate(path, { level: 6 });
    this.zip.add(file);
    return {
      text: (text) => {
        if (text !== '') file.push(strToU8(text));
      },
      bytes: (bytes) => {
        file.push(bytes);
      },
      end: () => {
        file.push(new Uint8Array(0), true);
      },
    };
  }

  add(path: string, text: string): void {
    const file = this.begin(path);
    file.text(text);
    file.end();
  }

  end(): void {
    this.zip.end();
  }
}
