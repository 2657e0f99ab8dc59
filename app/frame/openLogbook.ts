import type { Pinia } from 'pinia';
import { ref, type Ref } from 'vue';
import { report } from '../kit/failures';
import { isArriving } from '../ledger/databases';
import { isWhole } from '../ledger/isWhole';
import { openDoor } from '../ledger/ledger';
import { readNow, type Reading } from '../ledger/readAhead';
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

/**
 * Opens what this address holds: what is live, the shelf, the list of runs. The demo is laid first where it is missing or stale.
 *
 * @param ahead what was read while the program was being fetched
 */
export async function openLogbook(pinia: Pinia, ahead: Reading): Promise<Opened> {
  const load = (reading: Reading) =>
    Promise.all([
      keepSettings(pinia, reading),
      useShelf(pinia).load(reading),
      useLogbook(pinia).load(reading),
      useLanes(pinia).load(reading),
    ]);
  const isDemo = logbookKind() === 'demo';
  // All at once, for it is there nearly always; where it had been thrown away, once more from the beginning.
  const [isFound, asFound] = await Promise.all([isWhole(ahead), isDemo ? readyDemo(ahead) : undefined, isDemo ? undefined : load(ahead)]);
  const isMended = ref(!isFound && (await bringBack()));
  const lay = isMended.value && isDemo ? await readyDemo(readNow) : asFound;
  // What was read ahead is what is stored still, unless something was brought back or cleared away since.
  if (isMended.value || isDemo) await load(isMended.value || lay ? readNow : ahead);
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

/** Once in a blue moon, so it is fetched then. */
async function bringBack(): Promise<boolean> {
  const { mend } = await import('../ledger/restoreFromCopy');
  return mend();
}

async function endArrival(pinia: Pinia): Promise<void> {
  if (!(await isArriving())) return;
  const arrivals = await import('../ledger/arrivals');
  if (await arrivals.endArrival()) await readAgain(pinia);
}

/** What need not be done before the first picture: crashes are mended, the list made whole, the second copy compared. */
async function tidyUp(pinia: Pinia, isMended: Ref<boolean>): Promise<void> {
  await useLanes(pinia).tidyUp();
  const { compareCopy } = await import('../ledger/restoreFromCopy');
  if (!(await compareCopy())) return;
  await readAgain(pinia);
  isMended.value = true;
}

async function readAgain(pinia: Pinia): Promise<void> {
  await Promise.all([useShelf(pinia).load(), useLanes(pinia).follow()]);
  await useLanes(pinia).tidyUp();
  await useLogbook(pinia).changed();
}
