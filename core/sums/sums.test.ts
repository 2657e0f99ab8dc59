import { describe, expect, it } from 'vitest';
import { readRun } from '../curve/figures';
import { exampleHeader } from '../ink/example';
import { inkOf } from '../ink/build';
import { foldRun } from '../ink/fold';
import { propagated, readTyped, typeFigure } from './figure';
import { fieldError, noteOf, SUMS, tapered, usualTexts, workOut, type SumLine } from './sums';

const sumOf = (id: string) => {
  const sum = SUMS.find((each) => each.id === id);
  if (!sum) throw new Error(`There is no sum ${id}.`);
  return sum;
};
const work = (id: string, texts: Record<string, string>) => workOut(sumOf(id), { ...usualTexts(sumOf(id)), ...texts });
/** A line of a sum: its value with its margin. */
const told = (id: string, texts: Record<string, string>, label: string) => {
  const lines = work(id, texts);
  const found = Array.isArray(lines) ? lines.find((each) => each.label === label) : undefined;
  return found && [found.value, found.margin].filter(Boolean).join(' ');
};

describe('a figure as it is typed', () => {
  it('has the margin it is typed with, else that of its last digit', () => {
    expect(readTyped('26.1 ± 0.3')).toEqual({ value: 26.1, uncertainty: 0.15 });
    expect(readTyped('26,1 +- 0,3')).toEqual({ value: 26.1, uncertainty: 0.15 });
    // JCGM 100:2008 (GUM) 4.3.7, from memory: width ÷ √12.
    expect(readTyped('0.95')?.uncertainty).toBeCloseTo(0.01 / Math.sqrt(12), 12);
    expect(readTyped('55')?.uncertainty).toBeCloseTo(1 / Math.sqrt(12), 12);
    expect(readTyped('55', true)?.uncertainty).toBe(0);
    expect(readTyped('−2.3')?.value).toBe(-2.3);
  });

  it.each(['', 'x', '1 2', '0x10', '1e5', '3 ± ', '3 ± -1', '3 ± 1 ± 1', '.', '±'])('is none: %j', (text) => {
    expect(readTyped(text)).toBeUndefined();
  });

  it('reads back as it was filled in', () => {
    expect(typeFigure(26.13, 0.15)).toBe('26.1 ± 0.3');
    expect(readTyped(typeFigure(26.13, 0.15))).toEqual({ value: 26.1, uncertainty: 0.15 });
    expect(typeFigure(15.4)).toBe('15.4');
  });
});

describe('margins of sums', () => {
  it('add as squares, by how far the result moves with each', () => {
    const x = { value: 3, uncertainty: 0.3 };
    const y = { value: 4, uncertainty: 0.4 };
    // JCGM 100:2008 (GUM) 5.1.2, from memory: of a sum the squares add; 5.1.6: of a product the relative squares.
    expect(propagated({ x, y }, (values) => values.x + values.y).uncertainty).toBeCloseTo(0.5, 9);
    expect(propagated({ x, y }, (values) => values.x * values.y).uncertainty / 12).toBeCloseTo(Math.hypot(0.1, 0.1), 6);
    expect(propagated({ x, y: { value: 4, uncertainty: 0 } }, (values) => values.x / values.y).uncertainty).toBeCloseTo(0.075, 9);
  });
});

describe('the sums', () => {
  // Common practice, no source (checks.md).
  it.each([
    ['load', { volts: '5.00', amps: '0.95' }, 'Power', /^4\.75 W/],
    ['load', { volts: '5.00', amps: '0.95' }, 'Apparent load', /^5\.26 Ω/],
    ['load', { volts: '5.30', amps: '2.34' }, 'Power', /^12\.40 W/],
    ['load', { volts: '5.30', amps: '2.34' }, 'Apparent load', /^2\.26 Ω/],
    ['pad', { in: '19', out: '15' }, 'Efficiency', /^79 % ± \d+ %$/],
    ['pad', { in: '19', out: '14' }, 'Efficiency', /^74 % ± \d+ %$/],
    ['hours', { claimed: '100', gain: '58' }, 'Gained', /^23\.2 h ± 0\.3 h$/],
    ['hours', { claimed: '100', gain: '1' }, 'For each percent', /^0\.40 h$/],
    ['split', { in: '55', battery: '29' }, 'Used by the device', /^26\.0 W/],
    ['time-to-level', { battery: '54', energy: '3.00', minutes: '10', to: '100' }, 'Mean power', /^18\.0/],
  ] as const)('%s of %j: %s', (id, texts, label, expected) => {
    expect(told(id, texts, label)).toMatch(expected);
  });

  it('sizes a pack and a panel', () => {
    // Worked by hand: 18 W × 8 h = 144 Wh; ÷ (0.85 × 0.9) = 188 Wh; 144 ÷ 0.85 ÷ (4 × 0.7) = 60.5 W.
    const texts = { watts: '18 ± 0', hours: '8' };
    expect(told('pack', texts, 'Pack')).toBe('188 Wh');
    expect(told('pack', texts, 'Panel, to make it up in a day')).toBe('61 W');
  });

  it('counts the charges of a bank and the loss of a cable', () => {
    // Worked by hand: 74 × 0.85 ÷ (15.4 ÷ 0.85) = 3.47; (9.02 − 8.81) × 2.2 = 0.462 W, 0.0955 Ω.
    expect(told('bank', { bank: '74 ± 0', battery: '15.4 ± 0' }, 'Full charges')).toBe('3.5');
    expect(told('cable', { near: '9.02 ± 0', far: '8.81 ± 0', amps: '2.2 ± 0' }, 'Lost')).toBe('0.46 W');
    expect(told('cable', { near: '9.02 ± 0', far: '8.81 ± 0', amps: '2.2 ± 0' }, 'Resistance')).toMatch(/^0\.09[56] Ω$/);
  });

  it('turns mAh and Wh into each other, at their health', () => {
    // A phone of 4005 mAh (checks.md) at 3.85 V: 15.42 Wh; and back.
    expect(told('charge-energy', { charge: '4005', volts: '3.85 ± 0' }, 'Energy now')).toMatch(/^15\.4\d* Wh/);
    expect(told('charge-energy', { energy: '15.42', volts: '3.85 ± 0', health: '85' }, 'Charge now')).toMatch(/^3404 mAh/);
  });

  // IATA dangerous goods rules for passengers, from memory: to 100 Wh free, to 160 with approval.
  it.each([
    ['99.9 ± 0', 'carried freely'],
    ['100 ± 0', 'carried freely'],
    ['100.1 ± 0', 'carried with the airline’s approval'],
    ['160 ± 0', 'carried with the airline’s approval'],
    ['160.1 ± 0', 'not carried in a cabin'],
    ['99 ± 2', 'too close to 100 Wh to tell: what is printed on it counts'],
  ])('a pack of %s Wh is %s', (energy, expected) => {
    expect(told('air', { energy }, 'In the air')).toBe(expected);
  });

  it('take longer with loss, and longer still with the taper, which is that of its definition', () => {
    const lines = work('time-to-level', { battery: '15.4', energy: '1.5', minutes: '5', to: '100' }) as SumLine[];
    expect(lines.map(({ value }) => value)).toEqual([expect.stringMatching(/^18\.0/), '51 min', '1 h 00', '1 h 19']);
    // By many small steps.
    const steps = Array.from({ length: 20_000 }, (_, index) => 80 + (index + 0.5) / 1000);
    const time = steps.reduce((sum, level) => sum + 0.001 / (1 - (0.9 * (level - 80)) / 20), 0);
    expect(tapered(80, 100)).toBeCloseTo(time, 3);
    expect(tapered(10, 60)).toBe(50);
    expect(tapered(90, 95) + tapered(80, 90)).toBeCloseTo(tapered(80, 95), 9);
  });

  it('tell no price for a minute where what is saved is no more than its margin', () => {
    expect(work('worth', { charger: '19', minutes: '60 ± 5', before: '64 ± 5' })).toMatch(/no more than its margin/);
    expect(told('worth', { charger: '19', minutes: '60 ± 3', before: '90 ± 3' }, 'A minute saved')).toBe('0.63 ± 0.09');
    expect(work('worth', { charger: '19', minutes: '90', before: '60' })).toBe('It saves no time.');
  });

  it('refuse what has no meaning, and wait for what is missing', () => {
    expect(work('pad', { in: '10', out: '12' })).toMatch(/cannot give out more/);
    expect(work('cable', { near: '5', far: '9', amps: '1' })).toMatch(/fall along a cable/);
    expect(work('time-to-level', { battery: '15', energy: '1', minutes: '5', from: '80', to: '50' })).toMatch(/above/);
    expect(work('load', { volts: '5' })).toBeUndefined();
    expect(work('load', { volts: '5', amps: '0' })).toBeUndefined();
    const [volts] = sumOf('load').fields;
    expect(volts && fieldError(volts, 'five')).toMatch(/Write a number/);
    expect(volts && fieldError(volts, '-5')).toMatch(/at least/);
    expect(volts && fieldError(volts, '')).toBeUndefined();
  });

  it('never come to what is no figure, whatever is typed', () => {
    const odd = ['0', '-1', '1e9', '999999999', '0.0000001', '100', '50 ± 50', '∞', 'NaN'];
    for (const sum of SUMS)
      for (const text of odd) {
        const lines = workOut(sum, Object.fromEntries(sum.fields.map(({ key }) => [key, text])));
        expect(JSON.stringify(lines ?? '')).not.toMatch(/NaN|Infinity|undefined/);
      }
  });

  it('are filled in from a run, each by what it knows', () => {
    const header = exampleHeader();
    const rows = Array.from({ length: 21 }, (_, index) => ({
      seconds: index * 300,
      percent: Math.min(100, index * 5),
      volts: 9,
      amps: 2,
      watts: 18,
    }));
    const run = { ...readRun(foldRun(header, inkOf(header, rows))), workloads: [] };
    const known = (id: string) => Object.fromEntries(Object.entries(sumOf(id).prefill(run)).filter(([, text]) => text !== undefined));
    expect(known('load')).toEqual({ volts: '9', amps: '2' });
    expect(known('hours')).toHaveProperty('gain');
    expect(known('time-to-level')).toMatchObject({ from: '0', minutes: '5' });
    expect(known('time-to-level').energy).toMatch(/^1\.50? ± 0\.0\d+$/);
    for (const sum of SUMS)
      for (const [key, text] of Object.entries(known(sum.id))) {
        const asked = sum.fields.find((each) => each.key === key);
        expect(asked && fieldError(asked, text ?? ''), `${sum.id} ${key}: ${text ?? ''}`).toBeUndefined();
      }
  });

  it('are kept in a sentence with what they were made from', () => {
    const texts = { ...usualTexts(sumOf('load')), volts: '5.3', amps: '2.34' };
    expect(noteOf(sumOf('load'), texts, workOut(sumOf('load'), texts) as SumLine[])).toBe(
      'Power and apparent load: power 12.4 W ± 0.2 W; apparent load 2.26 Ω ± 0.03 Ω. From volts 5.3 V, amps 2.34 A.',
    );
  });
});
