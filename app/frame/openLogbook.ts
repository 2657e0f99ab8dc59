import type { Pinia } from 'pinia';
import { useShelf } from '../bench/shelf';
import { useLogbook } from '../curve/logbook';
import { mend, thinCopy } from '../ledger/mend';
import { useLanes } from '../run/lanes';
import { readyDemo } from './layDemo';
import { useOffline } from './offline';
import { useSettings } from './settings';

/** Which logbook this address holds: the server writes it into the page. */
export const logbookKind = (): 'own' | 'demo' =>
  document.querySelector<HTMLMetaElement>('meta[name="inkpath"]')?.content === 'demo' ? 'demo' : 'own';

/** Opens what this address holds: what is live, the shelf, the list of runs. The demo is laid first where it is missing or stale. @returns whether it had to be brought back from its second copy */
export async function openLogbook(pinia: Pinia): Promise<{ wasMended: boolean }> {
  const lanes = useLanes(pinia);
  const wasMended = await mend();
  const lay = logbookKind() === 'demo' ? await readyDemo() : undefined;
  await Promise.all([useSettings(pinia).load(), useShelf(pinia).load(), useLogbook(pinia).load(), lanes.load()]);
  await lay?.(pinia);
  setTimeout(() => {
    void lanes.tidyUp().then(thinCopy);
    if (import.meta.env.PROD) void useOffline(pinia).keep();
    void navigator.storage.persist();
  }, 2000);
  return { wasMended };
}
