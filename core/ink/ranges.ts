import type { Quantity } from './track';

/** The least and the most that is kept of a quantity, in its unit. Beyond it lies a slip or a broken file, not a charge. */
export interface Range {
  least: number;
  most: number;
}

const either = (most: number): Range => ({ least: -most, most });
const temperature: Range = { least: -100, most: 300 };

/**
 * What is kept of each quantity, by hand or from a meter. Currents and powers below zero flow out of the device; a meter plugged in the other
 * way round tells volts and counters below zero too.
 */
export const RANGES: Readonly<Record<Quantity, Range>> = {
  percent: { least: 0, most: 100 },
  volts: either(500),
  amps: either(200),
  watts: either(5_000),
  wattHours: either(1_000_000),
  milliampHours: either(1e9),
  celsius: temperature,
  frontCelsius: temperature,
  backCelsius: temperature,
  batteryCelsius: temperature,
  batteryVolts: either(500),
  batteryAmps: either(200),
  batteryWatts: either(5_000),
};

/** Whether a value is one that is kept of a quantity. What is not a number is not. */
export function isKept(quantity: Quantity, value: number): boolean {
  const { least, most } = RANGES[quantity];
  return value >= least && value <= most;
}

/** The first and the last moment that is kept, epoch milliseconds: 1970, and the end of 2199. */
export const MOMENTS: Range = { least: 0, most: Date.UTC(2200, 0, 1) - 1 };
/** The longest that is kept from plug-in on, in seconds: as long as moments reach. */
export const LONGEST_RUN = MOMENTS.most / 1000;
