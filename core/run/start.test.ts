import { expect, it } from 'vitest';
import { inkOfStart, readStart } from './start';

it('reads a level, dead, or nothing, and keeps no level that nobody saw', () => {
  expect(readStart(' 2,5 % ')).toEqual({ percent: 2.5 });
  expect(readStart('0')).toEqual({ percent: 0 });
  expect(readStart('Dead')).toBe('dead');
  expect(readStart('')).toBe('unknown');
  expect(inkOfStart('unknown', 5)).toEqual([]);
  expect(inkOfStart('dead', 5)).toEqual([{ kind: 'event', at: 5, event: 'dead' }]);
  expect(inkOfStart({ percent: 0 }, 5)).toEqual([{ kind: 'reading', at: 5, percent: 0 }]);
  // A counter that is set to zero at plug-in shows nothing there, whatever the level.
  expect(inkOfStart({ percent: 40 }, 5, true)).toEqual([{ kind: 'reading', at: 5, percent: 40, wattHours: 0 }]);
  expect(inkOfStart('unknown', 5, true)).toEqual([{ kind: 'reading', at: 5, wattHours: 0 }]);
  expect(inkOfStart('dead', 5, true)).toHaveLength(2);
});

it('says what is wrong and what to write', () => {
  expect(JSON.stringify(readStart('deadish'))).toContain('dead if the display shows nothing');
  expect(readStart('101')).toEqual({ error: 'Displays show 0 to 100 %.' });
  expect(readStart('-1')).toEqual({ error: 'Displays show 0 to 100 %.' });
});
