import { USUALLY } from '@core/quantity';
import { defineStore } from 'pinia';
import { reactive, toRefs } from 'vue';
import type { Loudness } from './chime';
import type { ThemeName } from './theme';

export interface Settings {
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
  /** To which level energy samples are carried on, in %. */
  projectTo: number;
  /** Levels in % and marks in seconds at which figures are worked out beside the usual ones. */
  levels: number[];
  marks: number[];
  /** A power above which time is asked for, in W. */
  watts: number | undefined;
  /** From when times are counted, and whether only the time with power counts. */
  countFrom: 'plug-in' | 'boot' | number;
  isCharging: boolean;
  /** How figures and dates are written; by the browser where nothing was chosen. */
  scale: '°C' | '°F';
  decimal: 'browser' | '.' | ',';
  dates: 'browser' | 'day' | 'month' | 'year';
  hours: 'browser' | '24' | '12';
  currency: string;
  /** What is assumed: the spread between repeats, and the share of its claimed hours that a device lasts in real use. */
  spread: number;
  realUse: number;
}

/** What a person has chosen about the program itself. The logbook of this address keeps it (app/logbook/keepSettings.ts). */
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
    projectTo: 50,
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
    ...USUALLY,
  });

  return { ...toRefs(all), all };
});
