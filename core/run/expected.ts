import type { RunRecord } from '../ink/fold';
import { sighting } from '../ink/track';
import { firstAfter } from '../samples/column';
import { feedOf } from '../power/feed';
import { negotiate } from '../power/negotiate';
import { expectedCharge, type Expected } from '../simulate/expected';

/** The first of a run’s levels that was seen on the source it now charges from: its row. */
export function beginsAt({ tracks: { percent }, sources }: RunRecord): number {
  return firstAfter(percent, (sources.at(-1)?.from ?? 0) - 1e-6);
}

/**
 * The charge to expect of a run, from the first level that was seen on the source it now charges from, in pencil. Readings do not bend it: it is what the gear
 * alone lets one expect.
 *
 * @returns `undefined` where its battery is unknown, no level was seen, or it should not charge at all
 */
export function expectedRun(run: RunRecord): Expected | undefined {
  const first = sighting(run.tracks.percent, beginsAt(run));
  const source = run.sources.at(-1) ?? run.header;
  const fed = source.feed && feedOf(source.charger, source.feed);
  return first && expectedCharge(negotiate({ device: run.header.device, ...source, fed }), first.value, {}, first.seconds);
}
