import { setAsked, setAssumed, setManner, type AskedFigures, type Assumed, type Manner } from '@core/quantity';
import { reactive, shallowRef, watchEffect } from 'vue';
import type { AllSettings } from './settings';

/** How dates are written: what comes first, what stands between numbers, and whether the clock has twelve hours. */
export interface DateManner {
  order: 'day' | 'month' | 'year';
  separator: string;
  twelve: boolean;
}

/** What the browser of this person does, until it was asked: that takes as long as a tenth of a start, so it waits until the page is painted. */
const browser = shallowRef<DateManner & Pick<Manner, 'decimal'>>({ order: 'day', separator: '/', twelve: false, decimal: '.' });

/** The sign of the currency where this person is, once it was looked up: the table of countries is not needed before. */
const currency = shallowRef('');

async function lookUpCurrency(language: string): Promise<void> {
  const { default: currencyOf } = await import('country-to-currency');
  const { region = '' } = new Intl.Locale(language).maximize();
  const code = (currencyOf as Readonly<Record<string, string>>)[region];
  const parts = code
    ? new Intl.NumberFormat(language, { style: 'currency', currency: code, currencyDisplay: 'narrowSymbol' }).formatToParts(1)
    : [];
  currency.value = parts.find(({ type }) => type === 'currency')?.value ?? '';
}

/** Asks the browser how it writes numbers and dates. */
export function askBrowser(language = navigator.language): void {
  const parts = new Intl.DateTimeFormat(language, { day: '2-digit', month: '2-digit', year: 'numeric' }).formatToParts();
  const order = parts.find(({ type }) => type === 'day' || type === 'month' || type === 'year')?.type;
  browser.value = {
    order: order === 'month' || order === 'year' ? order : 'day',
    separator: parts.find(({ type }) => type === 'literal')?.value.trim() ?? '/',
    twelve: new Intl.DateTimeFormat(language, { hour: 'numeric' }).resolvedOptions().hour12 ?? false,
    decimal: new Intl.NumberFormat(language).format(0.5).includes(',') ? ',' : '.',
  };
  // Prices stand without a sign where it cannot be had.
  lookUpCurrency(language).catch(() => undefined);
}

/** How dates are written now. */
export const dateManner = reactive<DateManner>({ order: 'day', separator: '/', twelve: false });

/** Has core and the screens write as a person chose: whatever is shown of it changes with the choice. */
export function followSettings(all: AllSettings): void {
  const manner = reactive<Manner>({ decimal: '.', scale: '°C', currency: '' });
  const assumed = reactive<Assumed>({ spread: all.spread, realUse: all.realUse });
  const asked = reactive<AskedFigures>({ levels: [], marks: [] });
  watchEffect(() => {
    // A level that times are counted from is worked out too.
    const from = typeof all.countFrom === 'number' ? [all.countFrom] : [];
    Object.assign(asked, { levels: [...new Set([...all.levels, ...from])], marks: [...all.marks], watts: all.watts });
  });
  watchEffect(() => {
    const found = browser.value;
    const separators = { day: '/', month: '/', year: '-' };
    Object.assign(manner, {
      decimal: all.decimal === 'browser' ? found.decimal : all.decimal,
      scale: all.scale,
      currency: all.currency.trim() || currency.value,
    });
    Object.assign(assumed, { spread: all.spread, realUse: all.realUse });
    Object.assign(dateManner, {
      order: all.dates === 'browser' ? found.order : all.dates,
      separator: all.dates === 'browser' ? found.separator : separators[all.dates],
      twelve: all.hours === 'browser' ? found.twelve : all.hours === '12',
    });
  });
  setManner(manner);
  setAssumed(assumed);
  setAsked(asked);
}
