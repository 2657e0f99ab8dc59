import { chargingTime, type RunInk } from '../ink/fold';
import type { Bounds } from '../margin/bounds';
import { spell } from '../quantity/duration';
import type { Figures } from './figures';
import { milestoneTime, type Milestone } from './milestone';

/** From when times are counted, and whether the time without power counts. */
export interface Counting {
  /** Plug-in, the first level after a dead start, or a level in %. */
  from: 'plug-in' | 'boot' | number;
  isCharging: boolean;
}

export const FROM_PLUG_IN: Counting = { from: 'plug-in', isCharging: false };

interface Origin {
  bounds: Bounds;
  at: number;
  says: string;
}

const PLUG_IN: Origin = { bounds: { low: 0, high: 0 }, at: 0, says: 'plug-in' };

/** The moment that times are counted from; a sentence where it never came. */
function originOf({ from }: Counting, { passages, milestones, more, startLevel }: Figures): Origin | string {
  if (from === 'plug-in') return PLUG_IN;
  if (from === 'boot') {
    const boot = passages.find(({ what }) => what === 'boot');
    // A device that was not dead had booted at plug-in.
    return boot ? { bounds: boot.bounds, at: boot.bounds.high, says: 'its boot' } : PLUG_IN;
  }
  if (startLevel === from) return { ...PLUG_IN, says: `${from} %` };
  const found = [...milestones, ...more.milestones].find(({ level }) => level === from);
  if (found?.state === 'reached') return { bounds: found.bounds, at: milestoneTime(found) ?? found.estimate, says: `${from} %` };
  return found?.state === 'started above' ? `it began above ${from} %` : `it was never seen at ${from} %`;
}

/**
 * A milestone counted from elsewhere than plug-in, or by the time with power alone. The bounds of both ends add up, for either can lie anywhere within
 * its own; so do the squares of their standard uncertainties (JCGM 100:2008, GUM 5.1.2).
 */
export function counted(found: Milestone, counting: Counting, figures: Figures, run: Pick<RunInk, 'unplugged'>): Milestone {
  if (counting.from === 'plug-in' && !counting.isCharging) return found;
  if (found.state !== 'reached' && found.state !== 'not reached') return found;
  const origin = originOf(counting, figures);
  const { level, working } = found;
  if (typeof origin === 'string') return { state: 'void', level, why: origin, working };
  const time = (moment: number) => (counting.isCharging && Number.isFinite(moment) ? chargingTime(run, moment) : moment);
  const since = ({ low, high }: Bounds) => ({
    low: Math.max(0, time(low) - time(origin.bounds.high)),
    high: time(high) - time(origin.bounds.low),
  });
  const less = [
    origin.at > 0 && `less ${spell(origin.at, 1)} to ${origin.says}`,
    counting.isCharging && 'without the time it had no power',
  ].filter(Boolean);
  const moved = {
    level,
    bounds: since(found.bounds),
    checked: since(found.checked),
    working: { ...working, formula: [working.formula, ...less].join('; ') },
  };
  if (found.state === 'not reached') return { state: 'not reached', ...moved };
  if (found.bounds.high <= origin.bounds.low) return { state: 'void', level, why: `it came before ${origin.says}`, working };
  const width = origin.bounds.high - origin.bounds.low;
  return {
    state: 'reached',
    ...moved,
    estimate: Math.max(0, time(found.estimate) - time(origin.at)),
    uncertainty: Math.hypot(found.uncertainty, width / Math.sqrt(12)),
  };
}
