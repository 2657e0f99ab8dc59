import type { Pinia } from 'pinia';
import { watch } from 'vue';
import { followSettings } from '../kit/manner';
import { useSettings, type Settings } from '../kit/settings';
import { shelfBook, store } from '../ledger/databases';
import type { Reading } from '../ledger/readAhead';

const KEY = 'settings';

/** Brings back what a person chose about the program, and keeps it from then on. */
export async function keepSettings(pinia: Pinia, { rows }: Pick<Reading, 'rows'>): Promise<void> {
  const { all } = useSettings(pinia);
  const kept = (await rows<unknown>(shelfBook)).find(([key]) => key === KEY)?.[1] as (Partial<Settings> & { sound?: boolean }) | undefined;
  // Sound was once on or off.
  const { sound = true, ...chosen } = kept ?? {};
  Object.assign(all, { ...(!sound && { loudness: 'off' }), ...chosen });
  followSettings(all);
  watch(all, () => {
    // As plain values: lists among them are proxies, which no database takes. A choice that cannot be kept still holds for this visit; losing it costs nothing that was logged.
    store(shelfBook, KEY, JSON.parse(JSON.stringify(all))).catch(() => undefined);
  });
}
