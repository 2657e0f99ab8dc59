import { afterEach, describe, expect, it } from 'vitest';
import { parseEntryLine } from './entryLine';
import { fixed, price, temperature, temperatureRise, trimmed } from './figures';
import { drawnRise, inManner, keptFrom, setManner, shownIn } from './manner';
import { writeEntryLine } from './writeLine';

const PLAIN = { decimal: '.', scale: '°C', currency: '' } as const;
afterEach(() => {
  setManner(PLAIN);
});

describe('figures as a person chose to read them', () => {
  it('have a comma where one was chosen, and what was stored with points is shown with one', () => {
    setManner({ ...PLAIN, decimal: ',' });
    expect([fixed(-3.14159, 2), trimmed(26.1), trimmed(9), inManner('18.9–26.1 W'), inManner('at 5.')]).toEqual([
      ...['−3,14', '26,1', '9', '18,9–26,1 W'],
      'at 5.',
    ]);
  });

  // The fixed points of the two scales are exact by definition: 0 °C is 32 °F, 100 °C is 212 °F, and both meet at −40.
  it.each([
    [0, 32],
    [100, 212],
    [-40, -40],
    [37, 98.6],
  ])('show %d °C as %d °F, and keep it as °C', (celsius, fahrenheit) => {
    setManner({ ...PLAIN, scale: '°F' });
    expect(shownIn('°C', celsius)).toBeCloseTo(fahrenheit, 9);
    expect(keptFrom('°C', fahrenheit)).toBeCloseTo(celsius, 9);
    expect(shownIn('W', celsius)).toBe(celsius);
  });

  it('write a rise of 10 °C as one of 18 °F, not of 50', () => {
    setManner({ ...PLAIN, scale: '°F' });
    expect([temperatureRise(10), temperature(10)]).toEqual(['18.0 °F', '50.0 °F']);
  });

  // By definition: a kelvin is 1.8 degrees Fahrenheit.
  it('draw a rise of 10 °C at 18 °F, and none at 0', () => {
    for (const [scale, ten] of [
      ['°C', 10],
      ['°F', 18],
    ] as const) {
      setManner({ decimal: '.', scale, currency: '' });
      expect(shownIn('°C', drawnRise('°C', 10))).toBeCloseTo(ten, 9);
      expect(shownIn('°C', drawnRise('°C', 0))).toBeCloseTo(0, 9);
      expect(shownIn('W', drawnRise('W', 10))).toBe(10);
    }
  });

  it('write an entry line that says the same when it is read again', () => {
    const line = { percent: 42, watts: 26.1, celsius: 31.5, seen: 880 };
    setManner({ decimal: ',', scale: '°F', currency: '' });
    const written = writeEntryLine(line);
    expect(written).toBe('42 26,1w 88,7f @14:40');
    const read = parseEntryLine(written);
    if (!read.ok) throw new Error('It is not read again.');
    expect(read.values).toMatchObject({ percent: 42, watts: 26.1, seen: 880 });
    expect(read.values.celsius).toBeCloseTo(31.5, 6);
  });

  it('put the sign of the currency before a price', () => {
    setManner({ ...PLAIN, currency: '€' });
    expect([price(19), price(19.5)]).toEqual(['€19', '€19.50']);
  });
});
