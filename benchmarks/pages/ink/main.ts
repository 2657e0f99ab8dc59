import { createPinia } from 'pinia';
import { SCHEMA, type Draft, type Header } from '@core/ink';
import { parseEntryLine } from '@core/quantity';
import { assessLine } from '@core/run';
import { useLanes } from '../../../app/logbook/lanes';

/** Milliseconds of logging a reading the way the due line does, and of a bare put of the same value and a bare line of a private file, both at once, right beside it. */
export interface Pair {
  logged: number;
  bare: number;
}

export interface InkTimes {
  all: Pair[];
  /** Around the 10th entry of the run, and around its 10,000th. */
  early: Pair[];
  late: Pair[];
}

const LAST = 10_000;
const AROUND_TENTH = { from: 5, to: 85 };
const AROUND_LAST = 40;
const LANES = 12;

async function bareDatabase(): Promise<(key: string, value: unknown) => Promise<void>> {
  const database = await new Promise<IDBDatabase>((resolve, reject) => {
    const request = indexedDB.open('bare', 1);
    request.onupgradeneeded = () => request.result.createObjectStore('kept');
    request.onsuccess = () => {
      resolve(request.result);
    };
    request.onerror = () => {
      reject(new Error('no database'));
    };
  });
  return (key, value) =>
    new Promise((resolve, reject) => {
      const transaction = database.transaction('kept', 'readwrite');
      transaction.objectStore('kept').put(value, key);
      transaction.oncomplete = () => {
        resolve();
      };
      transaction.onerror = () => {
        reject(new Error('not stored'));
      };
    });
}

/** A line of a private file, written by a worker of its own. */
function bareFile(): (line: string) => Promise<void> {
  const worker = new Worker(new URL('./line.ts', import.meta.url), { type: 'module' });
  return (line) =>
    new Promise((resolve) => {
      worker.onmessage = () => {
        resolve();
      };
      worker.postMessage(line);
    });
}

const rest = (milliseconds: number) => new Promise((resolve) => setTimeout(resolve, milliseconds));

/** Each is timed from rest: between two readings there are seconds, in which the board has long been drawn. */
async function timed(work: () => Promise<unknown>): Promise<number> {
  await rest(8);
  const start = performance.now();
  await work();
  return performance.now() - start;
}

export async function measure(): Promise<InkTimes> {
  const lanes = useLanes(createPinia());
  const put = await bareDatabase();
  const write = bareFile();
  const plugInAt = Date.now() - 4 * 3600 * 1000;
  const device = { id: 'd', name: 'Sedge 5', kind: 'phone' as const };
  const charger = { id: 'c', name: 'Quern 30', kind: 'adapter' as const, watts: 30 };
  const header: Header = { schema: SCHEMA, id: 'benchmark', device, charger, plugInAt, cadence: { kind: 'fixed', every: 300 }, pen: 0 };
  await lanes.start(header, []);
  // Eleven lanes more are live beside it, each with a day of readings.
  for (let index = 1; index < LANES; index += 1) {
    const other: Header = { ...header, id: `beside-${index}`, plugInAt: plugInAt + index, pen: index };
    await lanes.start(
      other,
      Array.from({ length: 288 }, (_, row) => ({ kind: 'reading', at: plugInAt + row * 50_000, percent: Math.floor(row / 3), watts: 18 })),
    );
  }

  // What the due line does between Enter and “logged”. The record is folded beforehand, as the board has it on screen.
  const log = async (index: number) => {
    const record = lanes.records.find(({ header: { id } }) => id === header.id);
    if (!record) throw new Error('no lane');
    return timed(async () => {
      const line = parseEntryLine(`${Math.floor(index / 200)} 26.1w 31.5c`);
      if (!line.ok) throw new Error(line.error);
      const weighed = assessLine(line.values, record, plugInAt + index * 1000);
      if (weighed.verdict !== 'log') throw new Error(weighed.verdict);
      await lanes.write(header.id, weighed.draft);
    });
  };
  const times: InkTimes = { all: [], early: [], late: [] };
  const bare = (index: number) => {
    const value = lanes.inOrder.find((lane) => lane.header.id === header.id)?.entries.value.at(-1);
    return timed(() => Promise.all([put(String(index).padStart(9, '0'), value), write(`${JSON.stringify(value)}\n`)]));
  };
  /** Now the one goes first, now the other. */
  const pair = async (index: number): Promise<Pair> => {
    if (index % 2 === 0) return { logged: await log(index), bare: await bare(index) };
    const first = await bare(index);
    return { logged: await log(index), bare: first };
  };
  await rest(2000);
  for (let index = 1; index <= 400; index += 1) {
    const each = await pair(index);
    if (index > AROUND_TENTH.from && index <= AROUND_TENTH.to) times.early.push(each);
    if (index > AROUND_TENTH.to) times.all.push(each);
  }
  for (let index = 401; index <= LAST - AROUND_LAST; index += 1) {
    const draft: Draft = { kind: 'reading', at: plugInAt + index * 1000, percent: Math.floor(index / 200), watts: 26.1 };
    await lanes.write(header.id, draft);
  }
  await rest(2000);
  for (let index = LAST - AROUND_LAST + 1; index <= LAST + AROUND_LAST; index += 1) times.late.push(await pair(index));
  return times;
}

Object.assign(window, { measure });
