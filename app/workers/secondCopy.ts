import { expose } from 'comlink';

/**
 * The second copy of the logbook: lines appended to files in the origin's private file system, which is kept apart from the databases. A page's
 * lines go to a file of its own, for a file has one writer.
 */

/** Its folder goes by the name that the worker was given. */
const folder = async () => (await navigator.storage.getDirectory()).getDirectoryHandle(self.name, { create: true });

let writing: Promise<FileSystemSyncAccessHandle> | undefined;
const encoder = new TextEncoder();

async function begin(): Promise<FileSystemSyncAccessHandle> {
  const file = await (await folder()).getFileHandle(`${Date.now()}-${crypto.randomUUID()}.ndjson`, { create: true });
  return file.createSyncAccessHandle();
}

async function files(): Promise<File[]> {
  const found: File[] = [];
  for await (const file of (await folder()).values()) if (file.kind === 'file') found.push(await file.getFile());
  return found;
}

const secondCopy = {
  /** Appends lines; they are with the system once this resolves, and outlive a killed browser. */
  async append(lines: readonly string[]): Promise<void> {
    writing ??= begin();
    const file = await writing;
    file.write(encoder.encode(lines.map((line) => `${line}\n`).join('')), { at: file.getSize() });
  },

  /** Every line of every file. */
  async read(): Promise<string[]> {
    const lines: string[] = [];
    // A last line that was cut off in the middle has no end.
    for (const file of await files()) lines.push(...(await file.text()).split('\n').slice(0, -1));
    return lines;
  },

  /** How many bytes all files are. */
  async size(): Promise<number> {
    return (await files()).reduce((sum, { size }) => sum + size, 0);
  },

  /** Writes everything anew as one file, then takes away those it stands for; one that another page is writing to stays. */
  async renew(lines: readonly string[]): Promise<void> {
    const all = await folder();
    const old: string[] = [];
    for await (const name of all.keys()) old.push(name);
    const mine = await begin();
    mine.write(encoder.encode(lines.map((line) => `${line}\n`).join('')));
    mine.flush();
    const before = writing;
    writing = Promise.resolve(mine);
    (await before)?.close();
    for (const name of old) await all.removeEntry(name).catch(() => undefined);
  },
};
export type SecondCopy = typeof secondCopy;

expose(secondCopy);
