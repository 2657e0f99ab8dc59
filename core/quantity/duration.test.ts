import fc from 'fast-check';
import { expect, it } from 'vitest';
import { clock, countdown, nominal, parseClock, spell } from './duration';

it('writes colons on ticking clocks only', () => {
  expect(clock(258)).toBe('4:18');
  expect(clock(3725.9)).toBe('1:02:05');
  expect(clock(-42)).toBe('0:42');
  expect([0.2, 0, -0.9, -61].map(countdown)).toEqual(['0:01', '0:00', '0:00', '1:01']);
});

it('writes a time no finer than it is known', () => {
  expect(spell(27.4 * 60)).toBe('27 min');
  expect(spell(6720)).toBe('1 h 52');
  expect(spell(3599)).toBe('1 h 00');
  expect(spell(3294, 1)).toBe('54 min 54 s');
  expect(spell(3600, 1)).toBe('1 h');
  expect(spell(0, 1)).toBe('0 s');
  expect(spell(-2640)).toBe('−44 min');
});

it('writes round times without their noughts', () => {
  expect([900, 3600, 5400].map(nominal)).toEqual(['15 min', '1 h', '1 h 30']);
});

it('reads what a clock shows, and nothing else', () => {
  expect(parseClock('14:40')).toBe(880);
  expect(parseClock('1:02:05')).toBe(3725);
  expect(parseClock('90:00')).toBe(5400);
  for (const wrong of ['14', '1:2', '1:75', '1:75:00', '-1:00', 'a:bc', '']) expect(parseClock(wrong)).toBeUndefined();
});

it('reads back every clock it writes', () => {
  fc.assert(fc.property(fc.integer({ min: 0, max: 400_000 }), (seconds) => parseClock(clock(seconds)) === seconds));
});
