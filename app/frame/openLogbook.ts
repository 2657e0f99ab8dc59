import type { Pinia } from 'pinia';
import { ref, type Ref } from 'vue';
import { report } from '../kit/failures';
import { loadEntryCheck } from '../ledger/entries';
import { readNow, type ReadAhead, type RowsReader } from '../ledger/readAhead';
import { isCopied } from '../ledger/copied';
import { beginCopy, beginNew, renewCopy } from '../ledger/secondCopy';
import { isOldDatabase, OLD_COPY } from '../ledger/oldNames';
import { loadBackup } from '../logbook/backupState';
import { keepSettings } from '../logbook/keepSettings';
import { logbookKind } from '../logbook/kind';
import { useLanes } from '../logbook/lanes';
import { useLogbook } from '../logbook/runs';
import { useShelf } from '../logbook/shelf';
import { readyDemo } from './readyDemo';
import { useOffline } from './offline';

/** What came of opening: whether something had to be brought back from the second copy, now or when it was compared. */
export interface OpenedLogbook {
  isMended: Ref<boolean>;
}

/**
 * Opens what this address holds: what is live, the shelf, the list of runs. The demo is laid first where it is missing or stale.
 *
 * @param ahead what was read while the program was being fetched
 */
export async function openLogbook(pinia: Pinia, ahead: ReadAhead): Promise<OpenedLogbook> {
  const load = (reading: RowsReader) =>
    Promise.all([
      keepSettings(pinia, reading),
      useShelf(pinia).load(reading),
      useLogbook(pinia).load(reading),
      useLanes(pinia).load(reading),
    ]);
  const isDemo = logbookKind() === 'demo';
  // All at once, for it nearly always is as it was; else it is read once more.
  const [found] = await Promise.all([findLogbook(ahead), isDemo ? undefined : load(ahead)]);
  const isMended = ref(found === 'brought back');
  const isAsItWas = found === 'as it was';
  const lay = isDemo ? await readyDemo(isAsItWas ? ahead : readNow) : undefined;
  // What was read ahead is what is stored still, unless something was brought back or cleared away since.
  if (isDemo || !isAsItWas) await load(isAsItWas && !lay ? ahead : readNow);
  await lay?.(pinia);
  // An entry before that has it done at once: what a kill left is made good before the first is answered.
  setTimeout(() => {
    compareCopy(pinia, isMended).catch(report);
  }, 1000);
  setTimeout(() => {
    tidyUp(pinia).catch(report);
    if (import.meta.env.PROD) void useOffline(pinia).keep();
    void navigator.storage.persist();
    // Schemas, before the first reading waits for them.
    void loadEntryCheck();
    if (!isDemo) void loadBackup().then(async () => (await import('../exports/backup/byItself')).backUpByItself());
  }, 2000);
  return { isMended };
}

/** Looks whether the logbook is that of before. One that was thrown away is brought back, and what an older program stored is moved, before it is shown. */
async function findLogbook({ settled, names, copies }: ReadAhead): Promise<'as it was' | 'moved' | 'brought back'> {
  const isThere = (await settled) !== undefined;
  const isOld = (await names).some(isOldDatabase);
  const [hasCopy, hasOldCopy] = isThere ? [] : await copies;
  // Once in a blue moon, so it is fetched then.
  if (isOld || hasOldCopy) {
    const { moveOld } = await import('../ledger/moveOld');
    return (await moveOld()) ? 'brought back' : 'moved';
  }
  if (isThere) return 'as it was';
  if (hasCopy) return (await beginCopy()) ? 'brought back' : 'moved';
  beginNew();
  return 'as it was';
}

async function compareCopy(pinia: Pinia, isMended: Ref<boolean>): Promise<void> {
  const before = isMended.value;
  if (!(await beginCopy()) || before) return;
  await readAgain(pinia);
  isMended.value = true;
}

/** What need not be done before the first picture. */
async function tidyUp(pinia: Pinia): Promise<void> {
  await useLanes(pinia).tidyUp();
  await renewCopy();
  if (await isCopied(OLD_COPY)) await (await import('../ledger/moveOld')).dropCopy();
}

async function readAgain(pinia: Pinia): Promise<void> {
  await Promise.all([useShelf(pinia).load(), useLanes(pinia).follow(), useLogbook(pinia).changed()]);
}
