import type { CadenceText } from '@core/method';

/** How a run is taken: by a school of the trade, or at the check times of an earlier run, each adjusted at will. */
export interface MethodChoice {
  /** Id of the school; without one, the times of the run `earlier`. */
  school?: string | undefined;
  earlier?: string | undefined;
  timing: CadenceText;
}
