import { wrap } from 'comlink';
import type { Found, Problem } from '@core/plan';
import type { Planner } from '../../../app/workers/planner';

/** A plan, and how long the program's own worker searched for it, in seconds. */
export interface PlanTimes {
  found: Found;
  seconds: number;
}

async function measure(problem: Problem, order: string[]): Promise<PlanTimes> {
  const worker = new Worker(new URL('../../../app/workers/planner.ts', import.meta.url), { type: 'module' });
  const began = performance.now();
  const found = await wrap<Planner>(worker).plan({ ...problem, pins: new Map() }, order, new Map());
  return { found, seconds: (performance.now() - began) / 1000 };
}

Object.assign(window, { measure });
