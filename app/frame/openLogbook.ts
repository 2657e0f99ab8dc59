import type { Pinia } from 'pinia';
import { useShelf } from '../bench/shelf';
import { useLogbook } from '../curve/logbook';
import { forgetAhead } from '../ledger/databases';
import { isWhole, mend, thinCopy } from '../ledger/mend';
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
  const load = () => Promise.all([useSettings(pinia).load(), useShelf(pinia).load(), useLogbook(pinia).load(), lanes.load()]);
  const ready = () => (logbookKind() === 'demo' ? readyDemo() : undefined);
  // All at once, for it is there nearly always; where it had been thrown away, once more from the beginning.
  const [isFound, asFound] = await Promise.all([isWhole(), ready(), ...(logbookKind() === 'demo' ? [] : [load()])]);
  const wasMended = !isFound && (await mend());
  const lay = wasMended ? await ready() : asFound;
  if (wasMended || logbookKind() === 'demo') await load();
  forgetAhead();
  await lay?.(pinia);
  setTimeout(() => {
    void lanes.tidyUp().then(thinCopy);
    if (import.meta.env.PROD) void useOffline(pinia).keep();
    void navigator.storage.persist();
  }, 2000);
  return { wasMended };
}
