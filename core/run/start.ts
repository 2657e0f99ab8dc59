import type { Draft } from '../ink/entry';
import { readDecimal } from '../quantity/decimal';

/** What the display showed at plug-in: a level, nothing because it was dead, or nothing that was noted. */
export type Start = { percent: number } | 'dead' | 'unknown';

/** Reads what is typed of the level at plug-in: `2`, `2,5 %`, `dead`; nothing is unknown. */
export function readStart(text: string): Start | { error: string } {
  const typed = text.trim().toLowerCase();
  if (typed === '') return 'unknown';
  if (typed === 'dead') return 'dead';
  const percent = readDecimal(typed.replace(/\s*%$/, ''));
  if (!Number.isFinite(percent)) return { error: 'Write a level from 0 to 100, dead if the display shows nothing, or leave it empty.' };
  return percent < 0 || percent > 100 ? { error: 'Displays show 0 to 100 %.' } : { percent };
}

/** How a start is said beside its run: `, from 2 %`. */
export const startSays = (start: Start): string =>
  start === 'unknown' ? ', level unknown' : start === 'dead' ? ', dead: gains are counted from 0 %, assumed' : `, from ${start.percent} %`;

/**
 * The ink of a start. Of a level that nobody saw there is none.
 *
 * @param at       the instant of plug-in, epoch milliseconds
 * @param isZeroed whether the Wh counter of the meter is set to zero then, so that one reading of it is an energy sample
 */
export function inkOfStart(start: Start, at: number, isZeroed = false): Draft[] {
  const shown = { ...(typeof start === 'object' && start), ...(isZeroed && { wattHours: 0 }) };
  return [
    ...(start === 'dead' ? [{ kind: 'event', at, event: 'dead' } as const] : []),
    ...(Object.keys(shown).length > 0 ? [{ kind: 'reading', at, ...shown } as const] : []),
  ];
}
