import { shallowRef } from 'vue';
import { ImportError } from '@core/exchange';
import { save } from '../../ledger/acts';
import { keyOf } from '../../ledger/keys';
import { remembered } from '../../ledger/readAhead';
import { sampleKeysOf } from '../../ledger/samples';
import { backupTrouble, noteBackup } from '../../logbook/backupState';
import { useLogbook } from '../../logbook/runs';
import { readFile } from '../../workers/readFile';
import { makeFile } from '../exportFile';
import { WHOLE } from '../target';
import { backupName, BACKUPS_KEPT, isDatedBackup, newestSamples, outdated, samplesName, SAMPLES_FOLDER } from './names';

/**
 * A folder that a person chose once: after each finished run a dated backup is written there by itself. A run's samples are written once, in a file of
 * their own; dated files are read together with these (docs/formats.md).
 */
type Folder = FileSystemDirectoryHandle & {
  queryPermission?: (how: { mode: 'readwrite' }) => Promise<PermissionState>;
  requestPermission?: (how: { mode: 'readwrite' }) => Promise<PermissionState>;
};
type Picker = (how: { id: string; mode: 'readwrite' }) => Promise<Folder>;

const NAME = 'backup folder';
/** Where one tab writes, no other does. */
const LOCK = 'inkpath-backup';

const pickerHere = () => (window as { showDirectoryPicker?: Picker }).showDirectoryPicker;
/** Whether this browser lets a person choose a folder (File System Access). */
export const canChooseFolder = (): boolean => typeof pickerHere() === 'function';

/** The folder that was chosen. */
export const folder = shallowRef<Folder>();

export async function loadFolder(): Promise<void> {
  const kept = await remembered<{ handle?: unknown }>(NAME).catch(() => undefined);
  // Brought back from the second copy, which is text, it is no folder any more.
  folder.value = kept?.handle instanceof FileSystemDirectoryHandle ? kept.handle : undefined;
}

const keep = (handle: Folder | undefined) => save([[keyOf('setting', NAME), { handle }]]);

/** Asks for a folder, and writes the first backup there. Nothing where the person thinks better of it. */
export async function chooseFolder(): Promise<void> {
  const chosen = await pickerHere()?.({ id: 'inkpath', mode: 'readwrite' }).catch(() => undefined);
  if (!chosen) return;
  folder.value = chosen;
  await keep(chosen);
  await backUpTo(chosen);
}

export async function forgetFolder(): Promise<void> {
  [folder.value, backupTrouble.value] = [undefined, ''];
  await keep(undefined);
}

/** Asks for leave again, which a browser takes back now and then; then writes. */
export async function allowAgain(): Promise<void> {
  const { value: chosen } = folder;
  if (!chosen) return;
  if ((await chosen.requestPermission?.({ mode: 'readwrite' })) === 'denied') backupTrouble.value = lost(chosen);
  else await backUpTo(chosen);
}

const lost = ({ name }: Folder) => `The browser no longer lets backups be written to ${name}. Allow it again, or choose another folder.`;

async function writeTo(directory: FileSystemDirectoryHandle, name: string, file: Blob): Promise<void> {
  const writable = await (await directory.getFileHandle(name, { create: true })).createWritable();
  await file.stream().pipeTo(writable);
}

async function namesIn(directory: FileSystemDirectoryHandle): Promise<string[]> {
  const names: string[] = [];
  for await (const name of directory.keys()) names.push(name);
  return names;
}

/** Writes samples that are in no file of the folder yet, each run's in one. */
async function writeSamples(directory: Folder): Promise<void> {
  const ids = useLogbook().summaries.map(({ id }) => id);
  const keys = await sampleKeysOf(ids);
  const streamed = ids.flatMap((id, index) => (keys[index]?.length ? [[id, samplesName(id, keys[index])] as const] : []));
  if (streamed.length === 0) return;
  const samples = await directory.getDirectoryHandle(SAMPLES_FOLDER, { create: true });
  const there = new Set(await namesIn(samples));
  for (const [id, name] of streamed) {
    if (there.has(name)) continue;
    const { file } = await makeFile('logbook', { of: 'run', says: '', name: id, runs: [id] });
    await writeTo(samples, name, file);
  }
}

/** Writes a dated backup, reads it back, and removes those beyond the last ten. What stands in the way is said where backups are. */
export const backUpTo = (directory: Folder): Promise<void> =>
  navigator.locks.request(LOCK, async () => {
    try {
      if ((await directory.queryPermission?.({ mode: 'readwrite' })) === 'prompt') throw new Error(lost(directory));
      const now = Date.now();
      await writeSamples(directory);
      const { file } = await makeFile('logbook', { ...WHOLE, isWithoutSamples: true });
      const name = backupName(now);
      await writeTo(directory, name, file);
      const end = new AbortController();
      await readFile(
        await (await directory.getFileHandle(name)).getFile(),
        { decimal: 'auto', skipBadRows: false },
        () => undefined,
        end.signal,
      );
      end.abort();
      for (const old of outdated(await namesIn(directory), BACKUPS_KEPT)) await directory.removeEntry(old);
      await noteBackup(now);
    } catch (error) {
      backupTrouble.value = whyNot(directory, error);
    }
  });

/** The newest backup of a folder that is chosen; nothing where the person thinks better of it. @throws {ImportError} where there is none in it */
export async function newestBackup(): Promise<{ folder: FileSystemDirectoryHandle; file: File } | undefined> {
  const chosen = await pickerHere()?.({ id: 'inkpath', mode: 'readwrite' }).catch(() => undefined);
  if (!chosen) return undefined;
  const newest = (await namesIn(chosen)).filter(isDatedBackup).sort().at(-1);
  if (newest === undefined)
    throw new ImportError(
      `There is no backup in ${chosen.name}. Choose the folder that backups were written to: they are called inkpath-backup-….`,
    );
  return { folder: chosen, file: await (await chosen.getFileHandle(newest)).getFile() };
}

/** Where the samples of runs lie in a folder of backups, and the newest file of each. */
export async function samplesOf(
  chosen: FileSystemDirectoryHandle,
  runs: readonly string[],
): Promise<{ directory: FileSystemDirectoryHandle | undefined; newest: Record<string, string> }> {
  const directory = await chosen.getDirectoryHandle(SAMPLES_FOLDER).catch(() => undefined);
  const names = directory ? await namesIn(directory) : [];
  const newest = runs.flatMap((id) => {
    const name = newestSamples(id, names);
    return name === undefined ? [] : [[id, name] as const];
  });
  return { directory, newest: Object.fromEntries(newest) };
}

function whyNot(directory: Folder, error: unknown): string {
  const name = error instanceof Error ? error.name : '';
  if (name === 'NotAllowedError' || name === 'SecurityError') return lost(directory);
  if (name === 'NotFoundError') return `The folder ${directory.name} is gone: no backup was written. Choose another folder.`;
  if (name === 'QuotaExceededError') return `There is no room left in ${directory.name}: no backup was written.`;
  return `No backup was written to ${directory.name}: ${error instanceof Error ? error.message : String(error)}`;
}

/** Backs up by itself: some seconds after a run was finished, so that several that end together are one backup. */
const SOON = 5_000;
let soon: ReturnType<typeof setTimeout> | undefined;
export function backUpSoon(): void {
  clearTimeout(soon);
  soon = setTimeout(() => {
    if (folder.value) void backUpTo(folder.value);
  }, SOON);
}
