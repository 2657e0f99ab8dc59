import { expose } from 'comlink';
import { search, type Found, type Problem } from '@core/plan';

/** Plans are searched for here, so that a long search never stops the clock. Ended with its worker when it is called off. */
const planner = {
  /** @param before times of an earlier plan; @param report called now and then with the best so far */
  plan(problem: Problem, order: readonly string[], before: ReadonlyMap<string, number>, report?: (found: Found) => void): Found {
    const steps = search(problem, order, before);
    for (let step = steps.next(); ; step = steps.next()) {
      if (step.done) return step.value;
      report?.(step.value);
    }
  },
};
export type Planner = typeof planner;

expose(planner);
