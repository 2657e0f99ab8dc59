import type { Pinia } from 'pinia';
import { ref, type Ref } from 'vue';
import { report } from '../kit/failures';
import { forgetAhead, isArriving } from '../ledger/databases';
import { openDoor } from '../ledger/ledger';
import { compareCopy, isWhole, mend } from '../ledger/restoreFromCopy';
import { keepSettings } from '../logbook/keepSettings';
import { logbookKind } from '../logbook/kind';
import { useLanes } from '../logbook/lanes';
import { useLogbook } from '../logbook/runs';
import { useShelf } from '../logbook/shelf';
import { readyDemo } from './layDemo';
import { useOffline } from './offline';

/** What came of opening: whether something had to be brought back from the second copy, now or when it was compared. */
export interface Opened {
  isMended: Ref<boolean>;
}

/** Opens what this address holds: what is live, the shelf, the list of runs. The demo is laid first where it is missing or stale. */
export async function openLogbook(pinia: Pinia): Promise<Opened> {
  const lanes = useLanes(pinia);
  const load = () => Promise.all([keepSettings(pinia), useShelf(pinia).load(), useLogbook(pinia).load(), lanes.load()]);
  const ready = () => (logbookKind() === 'demo' ? readyDemo() : undefined);
  // All at once, for it is there nearly always; where it had been thrown away, once more from the beginning.
  const [isFound, asFound] = await Promise.all([isWhole(), ready(), ...(logbookKind() === 'demo' ? [] : [load()])]);
  const isMended = ref(!isFound && (await mend()));
  const lay = isMended.value ? await ready() : asFound;
  if (isMended.value || logbookKind() === 'demo') await load();
  forgetAhead();
  await lay?.(pinia);
  // An import that a crash came into is ended at once: the list shows all of it or nothing.
  endArrival(pinia).catch(report);
  setTimeout(() => {
    tidyUp(pinia, isMended).catch(report);
    if (import.meta.env.PROD) void useOffline(pinia).keep();
    void navigator.storage.persist();
    // Schemas, before the first reading waits for them.
    void openDoor();
  }, 2000);
  return { isMended };
}

async function endArrival(pinia: Pinia): Promise<void> {
  if (!(await isArriving())) return;
  const arrivals = await import('../ledger/arrivals');
  if (await arrivals.endArrival()) await readAgain(pinia);
}

/** What need not be done before the first picture: crashes are mended, the list made whole, the second copy compared. */
async function tidyUp(pinia: Pinia, isMended: Ref<boolean>): Promise<void> {
  await useLanes(pinia).tidyUp();
  if (!(await compareCopy())) return;
  await readAgain(pinia);
  isMended.value = true;
}

async function readAgain(pinia: Pinia): Promise<void> {
  await Promise.all([useShelf(pinia).load(), useLanes(pinia).follow()]);
  await useLanes(pinia).tidyUp();
  await useLogbook(pinia).changed();
}
