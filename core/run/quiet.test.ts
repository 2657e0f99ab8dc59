import { expect, it } from 'vitest';
import { isQuiet } from './quiet';

it('is quiet within the hours, over midnight too, and never where none are set', () => {
  const at = (hours: number, minutes = 0) => hours * 60 + minutes;
  expect([at(21, 59), at(22), at(3), at(6, 59), at(7)].map((now) => isQuiet('22:00', '07:00', now))).toEqual([
    false,
    true,
    true,
    true,
    false,
  ]);
  expect([at(12), at(13), at(14)].map((now) => isQuiet('12:30', '13:30', now))).toEqual([false, true, false]);
  expect([isQuiet('', '', 0), isQuiet('9:00', '9:00', 540), isQuiet('soon', '7:00', 0)]).toEqual([false, false, false]);
});
