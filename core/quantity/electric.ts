import { requireAtLeast } from './require';

/**
 * Power carried at a point of the circuit.
 *
 * @param volts at the meter, in volts
 * @param amps  through it, in amperes; below zero out of the device
 * @returns watts, below zero out of the device
 * @throws {RangeError} when a figure is not finite
 * @see Joule's law, P = V × I.
 */
export function power(volts: number, amps: number): number {
  requireAtLeast(-Infinity, { volts, amps });
  return volts * amps;
}

/** Below this nothing flows that a meter could show, in A. */
const NO_CURRENT = 1e-6;

/**
 * Load that a device presents to its supply.
 *
 * @param volts VBUS at the meter, in volts, ≥ 0
 * @param amps  current into the device, in amperes, ≥ 0
 * @returns ohms; `undefined` when no current flows (an open circuit has no finite load)
 * @throws {RangeError} when a figure is negative or not finite
 * @see Ohm's law. Common practice to watch it step when a fast-charging handshake completes.
 */
export function apparentLoad(volts: number, amps: number): number | undefined {
  requireAtLeast(0, { volts, amps });
  return amps < NO_CURRENT ? undefined : volts / amps;
}

/**
 * Energy a full battery holds.
 *
 * @param milliampHours rated charge, in mAh, > 0
 * @param nominalVolts  nominal cell voltage, in volts, > 0
 * @param health        share of the rated charge still there, 0–1
 * @returns watt-hours
 * @throws {RangeError} when a figure is negative or not finite
 */
export function batteryEnergy(milliampHours: number, nominalVolts: number, health = 1): number {
  requireAtLeast(0, { milliampHours, nominalVolts, health });
  return (milliampHours / 1000) * nominalVolts * health;
}

/**
 * Power of which an energy is the sum.
 *
 * @param wattHours energy, in Wh; below zero out of the device
 * @param seconds   the time it took, in seconds, ≥ 0
 * @returns watts; `undefined` over no time
 * @throws {RangeError} when a figure is not finite, or the time is negative
 */
export function averagePower(wattHours: number, seconds: number): number | undefined {
  requireAtLeast(-Infinity, { wattHours });
  requireAtLeast(0, { seconds });
  return seconds === 0 ? undefined : (wattHours * 3600) / seconds;
}

/** Fahrenheit to Celsius, exact by definition. */
export function celsiusFromFahrenheit(fahrenheit: number): number {
  return ((fahrenheit - 32) * 5) / 9;
}

/** Celsius to Fahrenheit, exact by definition. */
export function fahrenheitFromCelsius(celsius: number): number {
  return (celsius * 9) / 5 + 32;
}
