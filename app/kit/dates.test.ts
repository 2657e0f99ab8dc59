import { USUALLY } from '@core/quantity';
import { afterEach, expect, it } from 'vitest';
import { reactive } from 'vue';
import { wallTime } from './clock';
import { dayText, momentText, readDate, typedDate, typedPattern } from './dates';
import { askBrowser, dateManner, followSettings } from './manner';
import type { AllSettings } from './settings';

const AT = new Date(2026, 10, 6, 14, 5).getTime();
afterEach(() => {
  Object.assign(dateManner, { order: 'day', separator: '/', twelve: false });
});

it('writes a moment in the order that was chosen', () => {
  expect(momentText(AT, { year: true, weekday: true })).toBe('Fri 6 Nov 2026, 14:05');
  Object.assign(dateManner, { order: 'month', twelve: true });
  expect([momentText(AT, { year: true }), dayText(AT), wallTime(AT, true)]).toEqual(['Nov 6, 2026, 2:05 pm', 'Nov 6', 'Nov 6, 2:05 pm']);
  Object.assign(dateManner, { order: 'year', twelve: false });
  expect(momentText(AT, { year: true })).toBe('2026-11-06, 14:05');
});

it('reads a date as it asks for it, and as files have it; 13 is no month', () => {
  Object.assign(dateManner, { order: 'month', separator: '/', twelve: true });
  expect(typedPattern('datetime-local')).toBe('MM/dd/yyyy h:mm a');
  expect(typedDate('2026-11-06T14:05', 'datetime-local')).toBe('11/06/2026 2:05 PM');
  expect(readDate('11/6/2026 2:05 pm', 'datetime-local')).toBe('2026-11-06T14:05');
  expect(readDate('2026-11-06', 'date')).toBe('2026-11-06');
  expect(
    ['11.6.2026 14:05', '11-06-2026 2:05 pm', 'Nov 6, 2026 14:05', '2026-11-06 14:05'].map((typed) => readDate(typed, 'datetime-local')),
  ).toEqual(Array.from({ length: 4 }, () => '2026-11-06T14:05'));
  for (const typed of ['6 Nov 2026', '6. Nov. 2026', 'Nov 6, 2026', 'november 6 2026', '6 November 2026'])
    expect([typed, readDate(typed, 'date'), readDate(`${typed}, 2:05 pm`, 'datetime-local')]).toEqual([
      typed,
      '2026-11-06',
      '2026-11-06T14:05',
    ]);
  expect([readDate('13/01/2026', 'date'), readDate('soon', 'time'), readDate(' ', 'date')]).toEqual([undefined, undefined, '']);
});

it('follows the browser until something is chosen, and what is chosen from then on', async () => {
  const all = reactive({
    ...{
      decimal: 'browser',
      scale: '°C',
      dates: 'browser',
      hours: 'browser',
      currency: '',
      owner: '',
      levels: [] as number[],
      marks: [] as number[],
      countFrom: 'plug-in' as const,
      isCharging: false,
    },
    ...USUALLY,
  } as unknown as AllSettings);
  followSettings(all);
  askBrowser('de-DE');
  await Promise.resolve();
  expect({ ...dateManner }).toEqual({ order: 'day', separator: '.', twelve: false });
  askBrowser('en-US');
  await Promise.resolve();
  expect({ ...dateManner }).toEqual({ order: 'month', separator: '/', twelve: true });
  all.dates = 'year';
  await Promise.resolve();
  expect({ ...dateManner }).toEqual({ order: 'year', separator: '-', twelve: true });
});
