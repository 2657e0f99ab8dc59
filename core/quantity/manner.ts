import { celsiusFromFahrenheit, fahrenheitFromCelsius } from './electric';

/** How figures are written for a person: inside, they are SI, with a point. */
export interface Manner {
  decimal: '.' | ',';
  /** The scale of temperatures. */
  scale: '°C' | '°F';
  /** The sign before a price; empty where none was chosen. */
  currency: string;
}

let manner: Manner = { decimal: '.', scale: '°C', currency: '' };

/** Chooses how figures are written from now on. What is handed over is kept, not copied: an interface hands over a value that tells who reads it. */
export function setManner(chosen: Manner): void {
  manner = chosen;
}

/** How figures are written now, as a value that can be sent to a worker. */
export const mannerNow = (): Manner => ({ ...manner });

/** Puts the chosen sign where a number has its point: for what was written before the sign was chosen. */
export const inManner = (text: string): string => (manner.decimal === '.' ? text : text.replace(/(?<=\d)\.(?=\d)/g, manner.decimal));

/** The unit in which a figure kept in `unit` is shown. */
export const shownUnit = (unit: string): string => (unit === '°C' ? manner.scale : unit);

/** A figure kept in `unit` as it is shown: temperatures in the chosen scale, all else as it is. */
export const shownIn = (unit: string, value: number): number =>
  unit === '°C' && manner.scale === '°F' ? fahrenheitFromCelsius(value) : value;

/** A figure as it was typed in the shown unit, in the kept one: `shownIn` the other way round. */
export const keptFrom = (unit: string, shown: number): number =>
  unit === '°C' && manner.scale === '°F' ? celsiusFromFahrenheit(shown) : shown;

/** A difference of two figures kept in `unit`, as it is shown: a rise of 10 °C is one of 18 °F. */
export const shownDifference = (unit: string, value: number): number => (unit === '°C' && manner.scale === '°F' ? value * 1.8 : value);

/** A rise as a figure that is shown as one, where figures kept in `unit` are drawn: 10 °C of it stand at 18 °F. */
export const drawnRise = (unit: string, value: number): number => keptFrom(unit, shownDifference(unit, value));

/** The sign of the chosen currency, or nothing: one of letters stands apart. */
export const currencySign = (): string => manner.currency + (/\p{L}$/u.test(manner.currency) ? '\u00a0' : '');
