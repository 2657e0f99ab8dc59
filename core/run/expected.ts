import type { RunRecord } from '../ink/fold';
import { firstAfter, sighting } from '../ink/track';
import { settle } from '../power/settle';
import { expectedCharge, type Expected } from '../simulate/expected';

/**
 * The charge to expect of a run, from the first level that was seen on the source it now charges from, in pencil. Readings do not bend it: it is what the gear
 * alone lets one expect.
 *
 * @returns `undefined` where its battery is unknown, no level was seen, or it should not charge at all
 */
export function expectedRun({ header, tracks, sources }: RunRecord): Expected | undefined {
  const source = sources.at(-1);
  const first = sighting(tracks.percent, source ? Math.max(0, firstAfter(tracks.percent, source.from - 1e-6)) : 0);
  return first && expectedCharge(settle({ ...header, ...source }), first.value, {}, first.seconds);
}
