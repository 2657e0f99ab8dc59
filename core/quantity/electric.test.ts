import { describe, expect, it } from 'vitest';
import { apparentLoad, averagePower, batteryEnergy, celsiusFromFahrenheit, power } from './electric';

describe('power and apparent load at a meter', () => {
  // Common practice, no source: a phone at 5 V; its meter cuts the last digits off.
  it('is 4.75 W and 5.26 Ω for 0.95 A at 5 V', () => {
    expect(power(5, 0.95)).toBeCloseTo(4.75, 10);
    expect(apparentLoad(5, 0.95)).toBeCloseTo(5.26, 2);
  });

  // Common practice, no source.
  it('is 12.4 W and 2.26 Ω for 2.34 A at 5.3 V, and 12.6 W for 1.4 A at 9 V', () => {
    expect(power(5.3, 2.34)).toBeCloseTo(12.4, 1);
    expect(apparentLoad(5.3, 2.34)).toBeCloseTo(2.26, 2);
    expect(power(9, 1.4)).toBeCloseTo(12.6, 10);
  });

  it('has no finite load while nothing flows, and none for a negative current', () => {
    expect(apparentLoad(5, 0)).toBeUndefined();
    expect(apparentLoad(500, 5e-324)).toBeUndefined();
    expect(() => apparentLoad(5, -1)).toThrow(/amps must be a number of at least 0/);
    expect(() => power(Number.NaN, 1)).toThrow(/volts/);
  });
});

describe('energy and average power', () => {
  // Common practice, no source: light work draws 3 Wh in 10 min.
  it('is 18 W when 3 Wh pass in 10 minutes', () => {
    expect(averagePower(3, 600)).toBeCloseTo(18, 10);
    expect(averagePower(3, 0)).toBeUndefined();
  });

  // Common practice, no source: a render at 20 V × 1.8 A for 5 min takes about 3 Wh.
  it('is about 3 Wh for 20 V and 1.8 A over 5 minutes', () => {
    expect((power(20, 1.8) * 300) / 3600).toBeCloseTo(3, 5);
  });

  it('is capacity × nominal voltage × health', () => {
    expect(batteryEnergy(4000, 3.85)).toBeCloseTo(15.4, 10);
    expect(batteryEnergy(4000, 3.85, 0.85)).toBeCloseTo(13.09, 10);
  });
});

it('turns the fixed points of water from Fahrenheit to Celsius', () => {
  expect(celsiusFromFahrenheit(32)).toBe(0);
  expect(celsiusFromFahrenheit(212)).toBe(100);
});
