import { proxy } from 'comlink';
import { onScopeDispose, ref, shallowRef } from 'vue';
import type { Found, Problem } from '@core/plan';
import type { Planner } from '../workers/planner';
import { wrappedWorker } from '../workers/wrapped';

/** Searches for a plan in a worker. One search at a time: a new one calls the last off. */
export function usePlanner() {
  /** The best so far. */
  const found = shallowRef<Found>();
  const isBusy = ref(false);
  let worker: Worker | undefined;

  /** Calls the search off; the best so far stays. */
  function stop(): void {
    worker?.terminate();
    worker = undefined;
    isBusy.value = false;
  }

  function plan(problem: Problem, order: readonly string[], before: ReadonlyMap<string, number>): void {
    stop();
    const mine = new Worker(new URL('../workers/planner.ts', import.meta.url), { type: 'module' });
    worker = mine;
    isBusy.value = true;
    const take = (each: Found) => {
      if (worker === mine) found.value = each;
    };
    void wrappedWorker<Planner>(mine)
      .plan(problem, order, before, proxy(take))
      .then(take)
      .finally(() => {
        if (worker === mine) stop();
      });
  }

  onScopeDispose(stop);
  return { found, isBusy, plan, stop };
}
