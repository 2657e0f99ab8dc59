import { type RunRecord } from '../ink/fold';
import { sighting } from '../ink/track';
import type { Forecast } from './forecast';

/** An extra check is worth asking for when it leaves less unknown of a milestone than one made blindly in the middle, which leaves half. */
const WORTH = 0.45;
/** Quantile that a forecast’s band reaches to on either side (forecast.ts). */
const NINETY = 1.645;

/**
 * The level that a check right now would catch: one that is about to show long before the next check, so that reading now and at the check
 * leaves its time between closer bounds than the check alone.
 *
 * @param coming  forecasts of the run
 * @param due     when the next reading is due anyway, seconds from plug-in
 * @param elapsed seconds from plug-in
 * @returns the level in %, of several the one most narrowed
 */
export function worthReading(run: RunRecord, coming: readonly Forecast[], due: number | undefined, elapsed: number): number | undefined {
  const { percent } = run.tracks;
  const last = sighting(percent, percent.seconds.length - 1);
  if (!last || due === undefined || elapsed >= due || elapsed <= last.seconds) return undefined;
  const shares = coming.flatMap(({ level, low, high }) => {
    const width = due - last.seconds;
    if (high === undefined) return [];
    const at = (low + high) / 2;
    if (at > elapsed || at < last.seconds) return [];
    const shown = normal((elapsed - at) / Math.max(1, (high - low) / (2 * NINETY)));
    const left = shown * (elapsed - last.seconds) + (1 - shown) * (due - elapsed);
    return left / width <= WORTH ? [{ level, share: left / width }] : [];
  });
  return shares.sort((one, other) => one.share - other.share)[0]?.level;
}

/** The normal distribution up to z, by Zelen & Severo’s formula 26.2.17 in Abramowitz & Stegun (from memory), good to 1e-7. */
function normal(z: number): number {
  const t = 1 / (1 + 0.2316419 * Math.abs(z));
  const sum = t * (0.31938153 + t * (-0.356563782 + t * (1.781477937 + t * (-1.821255978 + t * 1.330274429))));
  const beyond = (Math.exp((-z * z) / 2) / Math.sqrt(2 * Math.PI)) * sum;
  return z > 0 ? 1 - beyond : beyond;
}
