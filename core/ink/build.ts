import type { Entry, Header } from './entry';
import type { Quantity } from '../quantity/quantity';

/** Values of a reading as a test or the demo writes them, with the seconds from plug-in at which they were seen. */
export type Jotted = { seconds: number } & Partial<Record<Quantity, number>>;

/**
 * Readings as ink, in the order given, each written down the moment it was seen.
 *
 * @example foldRun(header, inkOf(header, [{ seconds: 0, percent: 2 }, { seconds: 300, percent: 12, watts: 18 }]))
 */
export function inkOf(header: Header, jotted: readonly Jotted[]): Entry[] {
  return jotted.map(({ seconds, ...values }, index) => {
    const at = header.plugInAt + Math.round(seconds * 1000);
    return { kind: 'reading', seq: index + 1, id: `${header.id}-${index + 1}`, at, written: at, ...values };
  });
}
