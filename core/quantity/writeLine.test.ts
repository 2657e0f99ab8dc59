import fc from 'fast-check';
import { expect, it } from 'vitest';
import { parseEntryLine } from './entryLine';
import { writeEntryLine } from './writeLine';

it('writes a reading as a person would type it', () => {
  expect(writeEntryLine({ percent: 42, watts: 26.1, seen: 880, note: 'warm' })).toBe('42 26.1w @14:40 # warm');
});

it('reads back as it was written', () => {
  const size = fc.integer({ min: 0, max: 100_000 }).map((thousandths) => thousandths / 1000);
  const values = fc.record(
    { percent: size, volts: size, watts: size, wattHours: size, celsius: size, seen: fc.nat({ max: 90_000 }), note: fc.constant('a b') },
    { requiredKeys: ['percent'] },
  );
  fc.assert(
    fc.property(values, (given) => {
      expect(parseEntryLine(writeEntryLine(given))).toEqual({ ok: true, values: given });
    }),
  );
});
