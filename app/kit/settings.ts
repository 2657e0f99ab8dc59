import { USUALLY } from '@core/quantity';
import { defineStore } from 'pinia';
import { reactive, toRefs } from 'vue';
import type { Settings as Chosen } from '@core/exchange';

/** Every choice there is (core/exchange/settings.ts says what each means): all of them are made, but for a power that is asked for. */
export type AllSettings = Required<Omit<Chosen, 'watts'>> & { watts: number | undefined };

/** What a person has chosen about the program itself. The logbook of this address keeps it (app/logbook/keepSettings.ts). */
export const useSettings = defineStore('settings', () => {
  const all = reactive<AllSettings>({
    theme: matchMedia('(prefers-color-scheme: dark)').matches ? 'darkRoom' : 'paper',
    singleKeys: true,
    loudness: 'clear',
    notify: false,
    vibrate: true,
    speak: false,
    awake: true,
    quietFrom: '',
    quietTo: '',
    projectTo: 50,
    projectFrom: 0,
    zeroesCounter: false,
    levels: [],
    marks: [],
    watts: undefined,
    countFrom: 'plug-in',
    isCharging: false,
    scale: '°C',
    decimal: 'browser',
    dates: 'browser',
    hours: 'browser',
    currency: '',
    owner: '',
    ...USUALLY,
  });

  return { ...toRefs(all), all };
});
