import { createPinia } from 'pinia';
import { parseEntryLine, SCHEMA, weigh, type Draft, type Header } from '@core';
import { useLanes } from '../../../app/run/lanes';

/** Times, in milliseconds, of logging a reading the way the due line does, and of a bare put of the same value. */
export interface InkTimes {
  logged: number[];
  bare: number[];
  /** Around the 10th entry of the run, and around its 10,000th. */
  early: number[];
  late: number[];
  /** The bare puts beside those, which tell how the storage itself has drifted. */
  earlyBare: number[];
  lateBare: number[];
}

const LAST = 10_000;
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
      const weighed = weigh(line.values, record, plugInAt + index * 1000);
      if (weighed.verdict !== 'log') throw new Error(weighed.verdict);
      await lanes.write(header.id, weighed.draft);
    });
  };
  const times: InkTimes = { logged: [], bare: [], early: [], late: [], earlyBare: [], lateBare: [] };
  await rest(2000);
  const beside = (index: number) =>
    timed(() => put(String(index).padStart(9, '0'), lanes.inOrder.find((lane) => lane.header.id === header.id)?.entries.value.at(-1)));
  for (let index = 1; index <= 300; index += 1) {
    const [logged, bare] = [await log(index), await beside(index)];
    if (index > 5 && index <= 45) {
      times.early.push(logged);
      times.earlyBare.push(bare);
    }
    if (index > 50) {
      times.logged.push(logged);
      times.bare.push(bare);
    }
  }
  for (let index = 301; index <= LAST - 20; index += 1) {
    const draft: Draft = { kind: 'reading', at: plugInAt + index * 1000, percent: Math.floor(index / 200), watts: 26.1 };
    await lanes.write(header.id, draft);
  }
  await rest(2000);
  for (let index = LAST - 19; index <= LAST + 20; index += 1) {
    times.late.push(await log(index));
    times.lateBare.push(await beside(index));
  }
  return times;
}

Object.assign(window, { measure });
