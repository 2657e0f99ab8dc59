import { batteryEnergy } from '../quantity/electric';
import { assumedNow } from '../quantity/assumed';
import { fixed, trimmed } from '../quantity/figures';
import type { Device } from './device';

/** What a device’s battery is, each figure as given or derived from the others. Wh and mAh as rated when new. */
export interface BatteryFacts {
  wattHours?: number | undefined;
  milliampHours?: number | undefined;
  nominalVolts?: number | undefined;
  /** How far mAh × volts lies from the Wh given, as a share of it, where all three are given. */
  disagreement?: number | undefined;
}

/** Past this share, charge and energy given for one battery are pointed out as disagreeing. */
const DISAGREES = 0.03;

type Given = Pick<Device, 'milliampHours' | 'nominalVolts' | 'wattHours'>;

/** Fills in what mAh, volts and Wh say of each other. Where both are given, Wh counts. */
export function batteryFacts({ milliampHours, nominalVolts, wattHours }: Given): BatteryFacts {
  const product = milliampHours !== undefined && nominalVolts !== undefined ? batteryEnergy(milliampHours, nominalVolts) : undefined;
  const energy = wattHours ?? product;
  return {
    wattHours: energy,
    milliampHours: milliampHours ?? (energy !== undefined && nominalVolts !== undefined ? (energy / nominalVolts) * 1000 : undefined),
    nominalVolts: nominalVolts ?? (energy !== undefined && milliampHours !== undefined ? (energy / milliampHours) * 1000 : undefined),
    disagreement: product !== undefined && wattHours !== undefined ? product / wattHours - 1 : undefined,
  };
}

/** Says so, in a sentence, where charge and energy disagree by over 3 %. */
export function batteryDoubt(given: Given): string | undefined {
  const { disagreement } = batteryFacts(given);
  if (disagreement === undefined || Math.abs(disagreement) <= DISAGREES) return undefined;
  const [product, energy] = [batteryEnergy(given.milliampHours ?? 0, given.nominalVolts ?? 0), given.wattHours ?? 0];
  return `${given.milliampHours ?? 0} mAh × ${trimmed(given.nominalVolts ?? 0)} V is ${fixed(product, 1)} Wh, not ${trimmed(energy)} Wh: check which is printed. ${trimmed(energy)} Wh counts.`;
}

/** Energy of the device’s battery when full, at its present health, in Wh; `undefined` when the shelf does not say. */
export function batteryOf(device: Device): number | undefined {
  const { wattHours } = batteryFacts(device);
  return wattHours === undefined ? undefined : (wattHours * (device.health ?? 100)) / 100;
}

/** Charge of the device’s battery when full, at its present health, in mAh; `undefined` when the shelf does not say. */
export function chargeOf(device: Device): number | undefined {
  const { milliampHours } = batteryFacts(device);
  return milliampHours === undefined ? undefined : (milliampHours * (device.health ?? 100)) / 100;
}

/**
 * For how many hours a full battery lasts in real use: as it was measured of the device; else the share of its claimed hours that is taken for real.
 *
 * @returns with where it comes from, in words; `undefined` where neither is known
 */
export function hoursOf({
  measuredHours,
  enduranceHours,
}: Pick<Device, 'measuredHours' | 'enduranceHours'>): { hours: number; says: string } | undefined {
  if (measuredHours !== undefined) return { hours: measuredHours, says: `${trimmed(measuredHours)} h measured` };
  if (enduranceHours === undefined) return undefined;
  const { realUse } = assumedNow();
  return { hours: enduranceHours * realUse, says: `${trimmed(enduranceHours)} h claimed × ${trimmed(realUse * 100)} %` };
}
