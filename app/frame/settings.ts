import { defineStore } from 'pinia';
import { ref, watch } from 'vue';
import { shelfBook, store } from '../ledger/databases';
import type { ThemeName } from './theme';

interface Settings {
  theme: ThemeName;
  singleKeys: boolean;
  sound: boolean;
}

const KEY = 'settings';

/** What a person has chosen about the program itself; kept in the logbook of this address. */
export const useSettings = defineStore('settings', () => {
  const theme = ref<ThemeName>(matchMedia('(prefers-color-scheme: dark)').matches ? 'darkRoom' : 'paper');
  const singleKeys = ref(true);
  const sound = ref(true);

  async function load(): Promise<void> {
    const kept = await shelfBook.getItem<Partial<Settings>>(KEY);
    theme.value = kept?.theme ?? theme.value;
    singleKeys.value = kept?.singleKeys ?? true;
    sound.value = kept?.sound ?? true;
    watch([theme, singleKeys, sound], () => {
      // A choice that cannot be kept still holds for this visit; losing it costs nothing that was logged.
      store(shelfBook, KEY, { theme: theme.value, singleKeys: singleKeys.value, sound: sound.value } satisfies Settings).catch(
        () => undefined,
      );
    });
  }

  return { theme, singleKeys, sound, load };
});
