import { foldStored } from '@core/exchange';
import { fitCase, fitDevice, type Fit } from '@core/run';
import { expose } from 'comlink';
import { filedRun } from '../ledger/filed';

/** A device is fitted to its runs here: a few thousand charges are gone through. */
const fitter = {
  /** @param ids of its runs; those that tell nothing of it are left out */
  async fit(ids: readonly string[], progress: (share: number) => void): Promise<Fit | undefined> {
    const runs = await Promise.allSettled(ids.map(async (id) => fitCase(foldStored(await filedRun(id)))));
    const cases = runs.flatMap((each) => (each.status === 'fulfilled' && each.value ? [each.value] : []));
    return fitDevice(cases, progress);
  },
};
export type Fitter = typeof fitter;

expose(fitter);
