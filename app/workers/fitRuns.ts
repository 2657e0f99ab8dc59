import type { Fit } from '@core/run';
import { proxy } from 'comlink';
import type { Fitter } from './fitter';
import { wrappedWorker } from './wrapped';

/**
 * Fits a device to its runs in a worker. Called off by the signal: it then never resolves.
 *
 * @param ids      of the runs
 * @param progress how far it is, as a share
 * @returns `undefined` where none of them tells anything
 */
export async function fitRuns(ids: readonly string[], progress: (share: number) => void, signal: AbortSignal): Promise<Fit | undefined> {
  const worker = new Worker(new URL('./fitter.ts', import.meta.url), { type: 'module' });
  const end = () => {
    worker.terminate();
  };
  signal.addEventListener('abort', end);
  try {
    return await wrappedWorker<Fitter>(worker).fit([...ids], proxy(progress));
  } finally {
    end();
  }
}
