import { expect, it } from 'vitest';
import { readCadence, writeCadence, type CadenceText } from './cadenceText';
import { SCHOOLS } from './schools';

const typed = (text: Partial<CadenceText>) => readCadence({ kind: 'fixed', every: '', at: '', level: '', then: '', ...text });

it('reads back every cadence of the trade as a person would have typed it', () => {
  for (const { cadence } of SCHOOLS) expect(readCadence(writeCadence(cadence))).toEqual({ cadence });
  expect(writeCadence({ kind: 'marks', at: [90, 300], then: 600 })).toMatchObject({ at: '1.5, 5', then: '10' });
});

it('takes minutes with a decimal comma or point, and marks however they are split', () => {
  expect(typed({ every: ' 2,5 ' })).toEqual({ cadence: { kind: 'fixed', every: 150 } });
  expect(typed({ kind: 'marks', at: '5 10;15,  20' })).toEqual({ cadence: { kind: 'marks', at: [300, 600, 900, 1200] } });
  expect(readCadence({ kind: 'marks', every: '', at: '5', level: '', then: '' }, 'run-1')).toEqual({
    cadence: { kind: 'marks', at: [300], of: 'run-1' },
  });
});

it.each([
  [{ every: '' }, /Say how often/],
  [{ every: 'often' }, /Write the minutes between readings/],
  [{ every: '0' }, /Half a minute is the shortest/],
  [{ every: '800' }, /Twelve hours/],
  [{ kind: 'marks' as const, at: '10, 5' }, /in order/],
  [{ kind: 'marks' as const, at: '' }, /at least one time/],
  [{ kind: 'coarse then fine' as const, every: '10', level: '120', then: '5' }, /1 to 99 %/],
])('says what is wrong with %j', (text, sentence) => {
  const read = typed(text);
  expect('error' in read ? read.error : '').toMatch(sentence);
});
