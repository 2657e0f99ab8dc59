import { ref } from 'vue';
import { save } from '../ledger/acts';
import { keyOf } from '../ledger/keys';

/** Under which name the logbook remembers that the demo was shown round in. */
export const TOURED = 'toured';
/** Whether the demo has said what it is for: it does so once. */
export const isToured = ref(true);
export function endTour(): void {
  isToured.value = true;
  // Losing it costs nothing: it is said once more.
  save([[keyOf('setting', TOURED), true]]).catch(() => undefined);
}
