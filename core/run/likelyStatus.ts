import type { Device } from '../bench/device';
import type { Trial } from '../ink/entry';
import { valueIn } from '../ink/fold';
import type { StatusId } from '../ink/statuses';

/** No current worth the name, in W. */
const NOTHING = 0.3;
/** Where a device's limit is not known, this is fast, in W (common practice, no source). */
const FAST = 10;

/** What the figures of a trial make likely, to begin with; a person decides. `undefined` without watts. */
export function likelyStatus(
  { inputLimit, awakeWatts }: Pick<Device, 'inputLimit' | 'awakeWatts'>,
  seen: Pick<Trial, 'state' | 'watts' | 'volts' | 'amps'>,
): StatusId | undefined {
  const watts = valueIn(seen, 'watts');
  if (watts === undefined) return undefined;
  if (watts < NOTHING) return 'not charging';
  if (seen.state === 'awake' && awakeWatts !== undefined && watts <= 1.1 * awakeWatts) return watts < 0.9 * awakeWatts ? 'drains' : 'holds';
  return watts >= (inputLimit === undefined ? FAST : inputLimit / 2) ? 'fast' : 'slow';
}
