import { currencySign, inManner, shownDifference, shownIn, shownUnit } from './manner';

/**
 * A figure written with a fixed number of decimals, the chosen sign before them and a real minus sign.
 *
 * @param value    the figure
 * @param decimals digits after the point; a negative zero loses its sign
 */
export function fixed(value: number, decimals = 0): string {
  const text = Math.abs(value).toFixed(decimals);
  return inManner(value < 0 && Number(text) !== 0 ? `−${text}` : text);
}

/** A figure with as few decimals as it needs, at most so many: `9`, `26.1`. */
export function trimmed(value: number, max = 2): string {
  const rounded = Number(value.toFixed(max));
  return inManner(`${rounded < 0 ? '−' : ''}${Math.abs(rounded)}`);
}

/** A figure kept in `unit`, as short as it can be, with the unit in which it is shown: `26.1 W`, `98.6 °F`. */
export const inUnit = (value: number, unit: string, max = 2): string => `${trimmed(shownIn(unit, value), max)} ${shownUnit(unit)}`;

/** A temperature in the chosen scale: `37.0 °C`. @param celsius as it is kept */
export const temperature = (celsius: number, decimals = 1): string => `${fixed(shownIn('°C', celsius), decimals)} ${shownUnit('°C')}`;

/** A rise of temperature in the chosen scale: `9.5 °C`. */
export const temperatureRise = (celsius: number): string => `${fixed(shownDifference('°C', celsius), 1)} ${shownUnit('°C')}`;

/** A price with the sign of the chosen currency: `19`, `€19`, `CHF 19.50`. */
export const price = (value: number): string => priced(Number.isInteger(value) ? fixed(value) : fixed(value, 2));

/** What is written of a price already, with the sign: `€0.23 ± 0.02`. */
export const priced = (figure: string): string => `${currencySign()}${figure}`;

/**
 * Digits after the point that a margin supports: the last one written is never smaller than the margin.
 *
 * @param margin in the unit of the figure, ≥ 0
 * @param max   decimals to use when the margin is smaller than any of them
 */
export function decimalsFor(margin: number, max: number): number {
  if (margin <= 0) return max;
  return Math.min(max, Math.max(0, Math.floor(-Math.log10(margin))));
}

/** `p` as a share of a hundred, signed: `−30 %`, `+12 %`. */
export function signedShare(share: number): string {
  const text = fixed(share * 100);
  return `${share > 0 && text !== '0' ? '+' : ''}${text} %`;
}

/** Digits after the point to which a figure with this margin is written: to the first digit of the margin. @param max decimals at most */
export const placesFor = (margin: number, max: number): number =>
  margin > 0 ? Math.min(max, Math.max(0, Math.ceil(-Math.log10(margin)))) : max;

/**
 * A figure and its margin: to the first digit of the margin, and the margin rounded up: `27`, `2`; `13.2`, `0.3`.
 *
 * @param max decimals at most
 * @example withMargin(13.17, 0.21, 1) // { value: '13.2', margin: '0.3' }
 * @see JCGM 100:2008 (GUM) 7.2.6: an uncertainty has one or two significant digits, and its figure as many places.
 */
export function withMargin(value: number, margin: number, max: number): { value: string; margin: string } {
  const decimals = placesFor(margin, max);
  const step = 10 ** -decimals;
  // A margin that is a whole step but for the last bit of its number is not rounded up to two.
  return { value: fixed(value, decimals), margin: fixed(Math.ceil(margin / step - 1e-9) * step, decimals) };
}

/** Decimals at most of percents: displays show whole ones, so tenths are written only where the margin is finer than half of one. */
export const percentDecimals = (margin: number): number => (margin < 0.5 ? 1 : 0);

/** Points of a percentage: what a level rose by, which is no share of it. @param figure as it is written */
export const inPoints = (figure: string): string => `${figure} ${/^[−+]?1$/.test(figure) ? 'point' : 'points'}`;

/** Percents and their margin, as `withMargin`. */
export const percentWithMargin = (value: number, margin: number): { value: string; margin: string } =>
  withMargin(value, margin, percentDecimals(margin));
