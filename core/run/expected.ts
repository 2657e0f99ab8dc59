import type { RunRecord } from '../ink/fold';
import { sighting } from '../ink/track';
import { settle } from '../power/settle';
import { expectedCharge, type Expected } from '../simulate/expected';

/**
 * The charge to expect of a run, from the first level that was seen, in pencil. Readings do not bend it: it is what the gear
 * alone lets one expect.
 *
 * @returns `undefined` where its battery is unknown, no level was seen, or it should not charge at all
 */
export function expectedRun({ header, tracks }: RunRecord): Expected | undefined {
  const first = sighting(tracks.percent, 0);
  return first && expectedCharge(settle(header), first.value, {}, first.seconds);
}
