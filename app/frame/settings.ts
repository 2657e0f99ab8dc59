import { defineStore } from 'pinia';
import { reactive, toRefs, watch } from 'vue';
import { shelfBook, store, valueAtStart } from '../ledger/databases';
import type { Loudness } from './chime';
import type { ThemeName } from './theme';

interface Settings {
  theme: ThemeName;
  singleKeys: boolean;
  /** How a reading that falls due calls. */
  loudness: Loudness;
  notify: boolean;
  vibrate: boolean;
  /** Whether the name of its lane is spoken. */
  speak: boolean;
  /** Whether the screen is kept on while a run is live. */
  awake: boolean;
  /** Quiet hours, `22:00` to `07:00`: it calls by title and icon alone. Empty: none. */
  quietFrom: string;
  quietTo: string;
}

const KEY = 'settings';

/** What a person has chosen about the program itself; kept in the logbook of this address. */
export const useSettings = defineStore('settings', () => {
  const all = reactive<Settings>({
    theme: matchMedia('(prefers-color-scheme: dark)').matches ? 'darkRoom' : 'paper',
    singleKeys: true,
    loudness: 'clear',
    notify: false,
    vibrate: true,
    speak: false,
    awake: true,
    quietFrom: '',
    quietTo: '',
  });

  async function load(): Promise<void> {
    const kept = await valueAtStart<Partial<Settings> & { sound?: boolean }>(shelfBook, KEY);
    // Sound was once on or off.
    const { sound = true, ...chosen } = kept ?? {};
    Object.assign(all, { ...(!sound && { loudness: 'off' }), ...chosen });
    watch(all, () => {
      // A choice that cannot be kept still holds for this visit; losing it costs nothing that was logged.
      store(shelfBook, KEY, { ...all }).catch(() => undefined);
    });
  }

  return { ...toRefs(all), load };
});
