import type { Pinia } from 'pinia';
import { watch } from 'vue';
import { useSettings, type Settings } from '../kit/settings';
import { shelfBook, store, valueAtStart } from '../ledger/databases';

const KEY = 'settings';

/** Brings back what a person chose about the program, and keeps it from then on. */
export async function keepSettings(pinia: Pinia): Promise<void> {
  const { all } = useSettings(pinia);
  const kept = await valueAtStart<Partial<Settings> & { sound?: boolean }>(shelfBook, KEY);
  // Sound was once on or off.
  const { sound = true, ...chosen } = kept ?? {};
  Object.assign(all, { ...(!sound && { loudness: 'off' }), ...chosen });
  watch(all, () => {
    // A choice that cannot be kept still holds for this visit; losing it costs nothing that was logged.
    store(shelfBook, KEY, { ...all }).catch(() => undefined);
  });
}
