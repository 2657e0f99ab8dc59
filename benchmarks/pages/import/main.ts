import { wrap } from 'comlink';
import type { Importer } from './worker';

/** Seconds of one import and of Papa Parse alone, and the longest time for which the page did not answer, in milliseconds. */
export interface ImportTimes {
  mine: number;
  papa: number;
  longest: number;
}

async function measure(rows: number, rounds: number): Promise<ImportTimes[]> {
  const parts = ['elapsed (s),percent,volts,amps,watts\n'];
  for (let row = 0; row < rows; row += 1)
    parts.push(
      `${row / 10},${Math.min(100, Math.floor(row / 10_000))},9.0${row % 10},2.${row % 100},${(18 + (row % 97) / 97).toFixed(3)}\n`,
    );
  const file = new Blob(parts);
  const importer = wrap<Importer>(new Worker(new URL('./worker.ts', import.meta.url), { type: 'module' }));
  const times: ImportTimes[] = [];
  for (let round = 0; round < rounds; round += 1) {
    let [longest, last] = [0, performance.now()];
    const watching = setInterval(() => {
      const now = performance.now();
      longest = Math.max(longest, now - last - 4);
      last = now;
    }, 4);
    const mine = await importer.mine(file);
    clearInterval(watching);
    times.push({ mine, papa: await importer.papa(file), longest });
  }
  return times;
}

Object.assign(window, { measure });
