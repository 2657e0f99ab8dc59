/**
 * A figure written with a fixed number of decimals and a real minus sign.
 *
 * @param value    the figure
 * @param decimals digits after the point; a negative zero loses its sign
 */
export function fixed(value: number, decimals = 0): string {
  const text = Math.abs(value).toFixed(decimals);
  return value < 0 && Number(text) !== 0 ? `−${text}` : text;
}

/**
 * Digits after the point that a margin supports: the last one written is never smaller than the margin.
 *
 * @param margin in the unit of the figure, ≥ 0
 * @param most   decimals to use when the margin is smaller than any of them
 */
export function decimalsFor(margin: number, most: number): number {
  if (margin <= 0) return most;
  return Math.min(most, Math.max(0, Math.floor(-Math.log10(margin))));
}

/** `p` as a share of a hundred, signed: `−30 %`, `+12 %`. */
export function signedShare(share: number): string {
  const text = fixed(share * 100);
  return `${share > 0 && text !== '0' ? '+' : ''}${text} %`;
}
