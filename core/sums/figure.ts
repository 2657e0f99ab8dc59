import { readDecimal } from '../quantity/decimal';
import { trimmed, withMargin } from '../quantity/figures';

/** A figure as it was typed, and how far off it can be. */
export interface Typed {
  value: number;
  /** Standard uncertainty, in its unit. */
  uncertainty: number;
}

const MARGIN = /\s*(?:±|\+\/?-)\s*/;
const NUMBER = /^[-−]?\d*[.,]?\d+$|^[-−]?\d+[.,]$/;

/**
 * Reads a figure with the margin it was typed with, `26.1 ± 0.3`; without one, it was rounded to its last digit: all of that digit’s width is equally
 * likely.
 *
 * @param isExact of what is chosen rather than measured: no margin unless one is typed
 * @returns `undefined` of what is no figure
 * @see JCGM 100:2008 (GUM) 4.3.7: width ÷ √12; 6.2: ± two standard uncertainties.
 */
export function readTyped(text: string, isExact = false): Typed | undefined {
  const [typed = '', margin, ...more] = text.trim().split(MARGIN);
  if (more.length > 0 || !NUMBER.test(typed.trim())) return undefined;
  const value = readDecimal(typed.replace('−', '-'));
  if (!Number.isFinite(value)) return undefined;
  if (margin !== undefined) {
    const off = NUMBER.test(margin.trim()) ? readDecimal(margin) : Number.NaN;
    return off >= 0 ? { value, uncertainty: off / 2 } : undefined;
  }
  const decimals = /[.,](\d*)$/.exec(typed.trim())?.[1]?.length ?? 0;
  return { value, uncertainty: isExact ? 0 : 10 ** -decimals / Math.sqrt(12) };
}

/** A figure as it is typed into a field, with its margin where it has one. @param uncertainty standard, in its unit */
export function typeFigure(value: number, uncertainty = 0, max = 2): string {
  if (!(uncertainty > 0)) return trimmed(value, max);
  const told = withMargin(value, 2 * uncertainty, max);
  return `${told.value} ± ${told.margin}`;
}

/**
 * The standard uncertainty of a sum worked out of several figures, each off by its own: by how far the result moves with each, over a step of its
 * uncertainty either way.
 *
 * @param inputs  figures by name, in their units
 * @param work    the sum, of plain values
 * @see JCGM 100:2008 (GUM) 5.1.2 and 5.1.3, note 2.
 */
export function propagated<Key extends string>(
  inputs: Readonly<Record<Key, Typed>>,
  work: (values: Readonly<Record<Key, number>>) => number,
): Typed {
  const keys = Object.keys(inputs) as Key[];
  const values = Object.fromEntries(keys.map((key) => [key, inputs[key].value])) as Record<Key, number>;
  const value = work(values);
  const variance = keys.reduce((sum, key) => {
    const off = inputs[key].uncertainty;
    if (off === 0) return sum;
    const moved = (by: number) => work({ ...values, [key]: values[key] + by });
    const step = (moved(off) - moved(-off)) / 2;
    return Number.isFinite(step) ? sum + step ** 2 : sum;
  }, 0);
  return { value, uncertainty: Math.sqrt(variance) };
}
