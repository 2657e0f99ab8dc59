import { joinInk, splitRun, type StoredRun } from '@core/exchange';
import { foldRun, SCHEMA, type Entry, type Header } from '@core/ink';
import localforage from 'localforage';
import { ARRIVING, inkOfRun, isArriving, liveBook, nameOf, pictureBook, runBook, sampleBook, storeMissing } from './databases';
import { filedRun, pack, unpack } from './filing';
import { entryOf } from './ledger';
import { allInk, keyOf } from './ink';
import { exclusively } from './locks';
import { sampleKeys, sampleRoot, sampleRows, streamsOf } from './samples';
import { StorageTrouble, troubleFrom, whyOf } from './storageTrouble';
import { answer, within } from './transactions';

/**
 * What is imported lies in a database of its own until all of it is there; then one value says so, and it is laid into the others. A crash before
 * that value leaves nothing of it, a crash after it is made good at the next start.
 */
const READY = 'ready';
/** What stands between the name of a database and the key that a value will have in it. */
const IN = '\n';

/** Told how much has been stored, as a share. */
type Progress = (share: number) => void;

/** Something to be imported beside runs: a value and the key it gets in a database, unless that key is taken. */
export type Arriving = [book: LocalForage, key: string, value: unknown];

/**
 * Imports runs, joined with copies already here, live ones too, and whatever else: all of it or nothing.
 *
 * @param progress how much of it has been stored, as a share
 * @throws {ImportError | StorageTrouble} saying so, with nothing stored
 */
export function importAll(
  runs: readonly StoredRun[],
  others: readonly Arriving[] = [],
  progress: Progress = () => undefined,
): Promise<void> {
  return exclusively('arriving', async () => {
    const { requireRun } = await import('./door');
    for (const run of runs) {
      requireRun(run);
      // What contradicts what is here is refused before anything is stored.
      joinInk(await inkHere(run.header.id), run.entries, `run ${run.header.id}`);
    }
    await importFile(runs, others, progress);
  });
}

/** Imports runs that the program made itself: the demo's. @throws {StorageTrouble} */
export const importOwn = (runs: readonly StoredRun[]): Promise<void> =>
  exclusively('arriving', () => importFile(runs, [], () => undefined));

async function importFile(runs: readonly StoredRun[], others: readonly Arriving[], progress: Progress): Promise<void> {
  await drop();
  try {
    await stage(runs, others, progress);
  } catch (cause) {
    await drop().catch(() => undefined);
    throw new StorageTrouble(whyOf(troubleFrom(cause)), 'Nothing was imported.', { cause });
  }
  try {
    await layOut();
  } catch (cause) {
    throw new StorageTrouble(
      `${whyOf(troubleFrom(cause))} It goes on at the next start.`,
      'The import is stored whole, but not all of it is in its place yet.',
      { cause },
    );
  }
}

/** Splits a filed run in two, at a moment in seconds from plug-in: both are stored, or nothing is. @returns the id of the second @throws {StorageTrouble} */
export async function splitFiled(id: string, seconds: number, half: string): Promise<string> {
  const stored = await filedRun(id);
  const { second, trim } = splitRun(stored, seconds, half);
  const { header, entries } = stored;
  await importAll([second, { header, entries: [...entries, entryOf(trim, (entries.at(-1)?.seq ?? 0) + 1)] }]);
  return half;
}

/** Ends an import that a crash came into: it is laid out when all of it was there, else nothing of it is left. @returns whether there was one to lay out */
export function endArrival(): Promise<boolean> {
  return exclusively('arriving', async () => {
    if (!(await isArriving())) return false;
    const isReady = (await keysHere()).includes(READY);
    if (isReady) await layOut();
    else await drop();
    return isReady;
  });
}

/** All ink of a run that is here, filed or live. */
async function inkHere(runId: string): Promise<Entry[]> {
  const [packed, live] = [await unpack(runId), await allInk(runId)];
  return joinInk(packed?.entries ?? [], live, 'this run');
}

async function stage(runs: readonly StoredRun[], others: readonly Arriving[], progress: Progress): Promise<void> {
  const steps = runs.length + others.length + 1;
  let done = 0;
  for (const [book, key, value] of others) {
    await put(nameOf(book), key, value);
    progress((done += 1) / steps);
  }
  for (const { header, entries, samples, logs = {} } of runs) {
    const here = await sampleKeys(header.id);
    for (const [log, columns] of [[undefined, samples], ...Object.entries(logs)] as const) {
      // A copy that has its samples keeps them.
      const root = sampleRoot(header.id, log);
      const isHere = here.some((key) => key.startsWith(`${root}/`) && (log !== undefined || !key.startsWith(`${root}/@`)));
      if (columns && !isHere) for (const [key, value] of sampleRows(root, columns)) await put(nameOf(sampleBook), key, value);
    }
    await put(nameOf(runBook), header.id, { header, entries });
    progress((done += 1) / steps);
  }
  await storeMissing(ARRIVING, [[READY, true]]);
}

/** One value at a time: what is logged meanwhile is never kept waiting for long. */
const put = async (book: string, key: string, value: unknown) => {
  await storeMissing(ARRIVING, [[book + IN + key, value]]);
};

async function layOut(): Promise<void> {
  const runs: string[] = [];
  for (const staged of await keysHere()) {
    const [book = '', key] = staged.split(IN);
    if (key === undefined) continue;
    if (book === nameOf(runBook)) runs.push(staged);
    else await storeMissing(book, [[key, await valueHere(staged)]]);
  }
  // Last, so that a run finds its samples.
  for (const staged of runs) await layRun((await valueHere(staged)) as { header: Header; entries: Entry[] });
  await drop();
}

/** Lays a run into the logbook: into the ink of one that is live, which stays live, else among the filed. */
function layRun({ header, entries }: { header: Header; entries: Entry[] }): Promise<void> {
  return exclusively(`file/${header.id}`, async () => {
    if (await liveBook.getItem(header.id)) {
      await storeMissing(
        nameOf(inkOfRun(header.id)),
        entries.map((entry) => [keyOf(entry), entry]),
      );
      return;
    }
    const packed = await unpack(header.id);
    const whole = joinInk(packed?.entries ?? [], entries, `run ${header.id}`);
    const first = packed?.header ?? header;
    const { samples, logs } = await streamsOf(header.id);
    await pack({ schema: SCHEMA, header: first, entries: whole }, foldRun(first, whole, samples, logs));
  });
}

const keysHere = (): Promise<string[]> =>
  within<string[]>(ARRIVING, 'readonly', [], (store, settle) => {
    answer(store.getAllKeys(), (keys) => {
      settle(keys as string[]);
    });
  });
const valueHere = (key: string): Promise<unknown> =>
  within<unknown>(ARRIVING, 'readonly', undefined, (store, settle) => {
    answer(store.get(key), settle);
  });
const drop = (): Promise<void> => localforage.dropInstance({ name: ARRIVING });

/** Pictures of a logbook as they are stored. @param pictures data addresses by id */
export function picturesOf(pictures: Readonly<Record<string, string>>): Arriving[] {
  return Object.entries(pictures).map(([id, address]) => {
    const [head = '', body = ''] = address.split(',');
    const bytes = Uint8Array.from(atob(body), (letter) => letter.charCodeAt(0));
    return [pictureBook, id, new Blob([bytes], { type: /data:(.+);base64/.exec(head)?.[1] ?? 'image/jpeg' })];
  });
}
