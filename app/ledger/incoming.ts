import { nanoid } from 'nanoid';
import { summarise } from '@core/curve';
import {
  conflictsIn,
  ImportError,
  joinInk,
  settleInk,
  splitRun,
  type Choice,
  type Conflict,
  type CsvRun,
  type StoredRun,
} from '@core/exchange';
import { foldRun, SCHEMA, type Draft, type Entry, type Log } from '@core/ink';
import { prepare, type Filing, type Prepared } from './acts';
import { entryOf } from './entries';
import { filedInk, filedRun, migrated, packedRuns } from './filed';
import { idIn, keysOf, LOGBOOK, PICTURES } from './keys';
import { liveRun } from './live';
import { sampleKeys, sampleRoot, sampleRows, SAMPLES, spanOfStream, type KeySpan } from './samples';
import { reading, storeMissing, type StoredRow } from './transactions';

/**
 * Runs that are to be imported. They are looked through, worked out, and what is large of them is stored, wherever they were read: in a worker, where
 * they came from a file, so that the clock goes on. What lists them is an act of the page (importing.ts).
 */
export interface Incoming {
  /** @throws {ImportError | StorageTrouble} where one cannot be stored, or contradicts what is here */
  look: () => Promise<Look>;
  /** Stores pictures and columns that are not here yet. @param step told after each */
  storeApart: (step: () => void) => Promise<void>;
  /** The next of those that are new, about a megabyte of them; `undefined` when all have gone by. */
  next: () => Promise<Filing[] | undefined>;
  /** One that is here already: as it will be filed, or the ink to be added while it is live. */
  join: (id: string) => Promise<Prepared | Entry[]>;
}

/** What an import is of. */
export interface Look {
  /** Ids of runs that are not here yet, and of those that are. */
  fresh: string[];
  here: string[];
  /** What of them is stored apart and not here yet. */
  samples: KeySpan[];
  pictures: string[];
  /** Of those that are here: runs that something streamed is added to. */
  streamed: string[];
}

/** What a person chose where a file contradicts what is here. */
export interface Settlement {
  /** By the id of the entry. */
  choices: Readonly<Record<string, Choice>>;
  /** Where the file comes from, in words. */
  origin: string;
}
const UNSETTLED: Settlement = { choices: {}, origin: 'the file' };

/** Where a run of a file contradicts its copy here. */
export interface RunConflicts {
  id: string;
  name: string;
  /** Whether it is live here: then nothing of it can be put in the place of another. */
  isLive: boolean;
  conflicts: Conflict[];
}

/** Where runs contradict their copies here. */
export async function conflictsHere(runs: readonly StoredRun[]): Promise<RunConflicts[]> {
  const found: RunConflicts[] = [];
  for (const { header, entries } of runs) {
    const { entries: mine, isLive } = await copyHere(header.id);
    const conflicts = conflictsIn(mine, entries);
    const name = `${header.device.name} on ${header.charger.name}`;
    if (conflicts.length > 0) found.push({ id: header.id, name, isLive, conflicts });
  }
  return found;
}

/** Entries that are handed over at once: no more than an instant of the page’s time. */
const ENTRIES_AT_ONCE = 2500;

/**
 * @param pictures  that come with them
 * @param isChecked whether they were found to fit already, or were made by the program itself
 */
export function incomingOf(
  runs: readonly StoredRun[],
  {
    pictures = [],
    isChecked = false,
    settled = UNSETTLED,
  }: { pictures?: readonly StoredRow<Blob>[]; isChecked?: boolean; settled?: Settlement } = {},
): Incoming {
  let fresh: StoredRun[] = [];
  let streams: NewStream[] = [];
  let missing: readonly StoredRow<Blob>[] = [];
  let at = 0;
  return {
    async look() {
      fresh = await freshOf(runs);
      at = 0;
      const isFresh = new Set(fresh);
      if (!isChecked) await requireAll(runs);
      await checkJoining(
        runs.filter((run) => !isFresh.has(run)),
        settled,
      );
      [streams, missing] = [await newStreams(runs), await missingPictures(pictures)];
      const ids = fresh.map(({ header }) => header.id);
      const streamed = streams.map(({ runId }) => runId).filter((id) => !ids.includes(id));
      return {
        fresh: ids,
        here: runs.flatMap((run) => (isFresh.has(run) ? [] : [run.header.id])),
        samples: streams.map(({ span }) => span),
        pictures: missing.map(([id]) => id),
        streamed,
      };
    },
    async storeApart(step) {
      // One value at a time: what is logged meanwhile is never kept waiting for long.
      for (const row of missing) {
        await storeMissing(PICTURES, [row]);
        step();
      }
      for (const { columns } of streams) {
        for (const row of columns()) await storeMissing(SAMPLES, [row]);
        step();
      }
    },
    next() {
      const handful: Filing[] = [];
      for (let size = 0; size < ENTRIES_AT_ONCE && at < fresh.length; at += 1) {
        const { header, entries, samples, logs } = fresh[at] as StoredRun;
        const whole = joinInk(entries, [], 'this run');
        size += whole.length;
        handful.push({
          packed: { schema: SCHEMA, header, entries: whole },
          summary: summarise(foldRun(header, whole, samples, logs)),
        });
      }
      return Promise.resolve(handful.length > 0 ? handful : undefined);
    },
    async join(id) {
      const theirs = runs.find(({ header }) => header.id === id)?.entries ?? [];
      const { entries, instead } = settledWith((await copyHere(id)).entries, theirs, settled);
      const prepared = await prepare(id, entries, instead);
      if (!prepared && instead.size > 0)
        throw new ImportError('A run that is live here differs from the file. Stop it first; nothing was imported.');
      return prepared ?? entries;
    },
  };
}

/** @throws {StorageTrouble} where one is no run that can be stored */
async function requireAll(runs: readonly StoredRun[]): Promise<void> {
  const { requireRun } = await import('./entryCheck');
  for (const run of runs) requireRun(run);
}

/** What contradicts what is here. @throws {ImportError} */
async function checkJoining(runs: readonly StoredRun[], settled: Settlement): Promise<void> {
  for (const { header, entries } of runs) settledWith((await copyHere(header.id)).entries, entries, settled);
}

const settledWith = (mine: readonly Entry[], theirs: readonly Entry[], { choices, origin }: Settlement) =>
  settleInk(mine, theirs, choices, origin, Date.now());

/** A run’s copy here: its ink, and whether it is live; no ink where there is none. */
async function copyHere(runId: string): Promise<{ entries: Entry[]; isLive: boolean }> {
  const [packed] = await packedRuns([runId]);
  return packed ? { entries: migrated(packed).entries, isLive: false } : { entries: (await liveRun(runId))?.entries ?? [], isLive: true };
}

/** Runs that are not here yet. */
async function freshOf(runs: readonly StoredRun[]): Promise<StoredRun[]> {
  const keys = await reading(LOGBOOK, (store) => Promise.all((['live', 'listed'] as const).map((kind) => store.getAllKeys(keysOf(kind)))));
  const here = new Set(keys.flat().map((key) => idIn(key as string)));
  return runs.filter(({ header }) => !here.has(header.id));
}

/** Columns that are to be stored. */
interface NewStream {
  runId: string;
  span: KeySpan;
  columns: () => Iterable<StoredRow>;
}

/** The columns of runs and of their logs that are not here yet: a copy that has its samples keeps them. */
async function newStreams(runs: readonly StoredRun[]): Promise<NewStream[]> {
  const found: NewStream[] = [];
  for (const { header, samples, logs = {} } of runs) {
    const here = samples || Object.keys(logs).length > 0 ? await sampleKeys(header.id) : [];
    for (const [log, columns] of [[undefined, samples] as const, ...Object.entries(logs)]) {
      const [from, to] = spanOfStream(header.id, log);
      if (!columns || here.some((key) => key >= from && key < to)) continue;
      found.push({ runId: header.id, span: [from, to], columns: () => sampleRows(sampleRoot(header.id, log), columns) });
    }
  }
  return found;
}

const missingPictures = async (pictures: readonly StoredRow<Blob>[]): Promise<StoredRow<Blob>[]> => {
  const here = await reading(PICTURES, (store) => Promise.all(pictures.map(([id]) => store.getKey(id))));
  return pictures.filter((_, index) => here[index] === undefined);
};

/** How a log is laid into a run: when its clock stood at zero, epoch milliseconds; and by how many parts in a million it goes slow. */
export type Laying = Pick<Log, 'name' | 'at' | 'drift'>;

/** A filed run with a log laid into it: its columns, and the entries that its words say. @throws {StorageTrouble} */
export async function laidInto(id: string, csv: Pick<CsvRun, 'samples' | 'entries'>, { name, at, drift }: Laying): Promise<StoredRun> {
  const { header, entries } = await filedInk(id);
  const [log, first] = [nanoid(12), (entries.at(-1)?.seq ?? 0) + 1];
  const said: Draft[] = csv.entries.map(({ seconds, draft }) => ({
    ...draft,
    at: at + Math.round(seconds * 1000),
    // What its words say lies where it lies.
    ...((draft.kind === 'note' || draft.kind === 'event') && { log }),
  }));
  const laid: Draft = { kind: 'log', at, log, name, ...(drift && { drift }) };
  const added = [laid, ...said].map((draft, index) => entryOf(draft, first + index));
  return { header, entries: [...entries, ...added], logs: { [log]: csv.samples } };
}

/** The two runs of which a filed one is made when it is split, at a moment in seconds from plug-in. @param half the id of the second @throws {StorageTrouble} */
export async function halvesOf(id: string, seconds: number, half: string): Promise<StoredRun[]> {
  const stored = await filedRun(id);
  const { second, trim } = splitRun(stored, seconds, half);
  const { header, entries } = stored;
  return [second, { header, entries: [...entries, entryOf(trim, (entries.at(-1)?.seq ?? 0) + 1)] }];
}
