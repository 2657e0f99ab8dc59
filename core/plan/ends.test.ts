import { expect, it } from 'vitest';
import { endsAttended } from './ends';
import { usualCalendar } from './calendar';

// A Wednesday at two in the afternoon; the usual hours are nine to five on weekdays.
const now = new Date(2026, 9, 7, 14, 0).getTime();
const full = (low: number, high: number) => ({ level: 100, low: low * 3600, high: high * 3600 });
const said = (low: number, high: number, at = now) => endsAttended(usualCalendar('2026-10-05'), full(low, high), now, at);

it('says whether a run will be full while somebody is there', () => {
  expect(said(2, 2.9)).toBe('ends within your hours, before 17:00');
  expect(said(2.8, 3.4)).toBe('may not be full by 17:00, when your hours end');
  expect(said(3.1, 4)).toBe('will not be full by 17:00, when your hours end');
  expect(said(2, 3, now + 4 * 3600_000)).toBeUndefined();
});
