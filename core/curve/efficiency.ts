import type { Energy } from './energy';

/** What of the energy that came in is in the battery. */
export interface Efficiency {
  /** Stored ÷ come in: 0.81. */
  share: number;
  /** Its standard uncertainty. */
  uncertainty: number;
  /** What the battery gained by its level, in Wh. */
  stored: number;
  /** Levels that it was worked out between, in %. */
  from: number;
  to: number;
}

/** What it is worked out of. Energies in Wh, levels in %. */
interface Stored {
  battery?: number | undefined;
  startLevel?: number | undefined;
  topLevel?: number | undefined;
  energy: Energy;
}

/** Shares that something other than loss explains (common practice, no source). */
const USUAL_SHARES = { min: 0.55, max: 0.98 };

/**
 * Energy stored by level beside energy come in, from the first reading to the last that rose. A level of whole percents is known to half of one at
 * either end (JCGM 100:2008, GUM 4.3.7).
 *
 * @returns undefined where the battery, either level or the energy is not known, or less than a fifth was gained
 */
export function efficiencyOf({ battery, startLevel, topLevel, energy }: Stored): Efficiency | undefined {
  if (battery === undefined || startLevel === undefined || topLevel === undefined) return undefined;
  const gained = topLevel - startLevel;
  const stored = (battery * gained) / 100;
  // Where next to nothing came in by what was read, most of it was not read.
  if (gained < 20 || energy.wattHours < stored / 10 || energy.averageWatts === undefined) return undefined;
  const share = stored / energy.wattHours;
  const rounding = Math.SQRT2 / Math.sqrt(12) / gained;
  const uncertainty = share * Math.hypot(rounding, energy.uncertainty / energy.wattHours);
  return { share, uncertainty, stored, from: startLevel, to: topLevel };
}

/** What an efficiency that is hardly possible points at; nothing of a usual one. */
export function oddEfficiency({ share, uncertainty }: Efficiency, unseen: number): string | undefined {
  if (share - 2 * uncertainty > USUAL_SHARES.max)
    return unseen > 0
      ? 'more is stored than came in: some of the power was not seen'
      : 'more is stored than came in: the battery is smaller than written down (its health?), or the meter reads too little';
  if (share + 2 * uncertainty < USUAL_SHARES.min)
    return 'much more came in than is stored: the device used it (awake?), the battery is larger than written down, or the meter reads too much';
  return undefined;
}
