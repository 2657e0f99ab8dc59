import { batteryEnergy } from '../quantity/electric';
import type { Device } from './gear';

/** Energy of the device's battery when full, in Wh; `undefined` when the shelf does not say. */
export function batteryOf(device: Device): number | undefined {
  if (device.wattHours !== undefined) return device.wattHours;
  if (device.milliampHours === undefined || device.nominalVolts === undefined) return undefined;
  return batteryEnergy(device.milliampHours, device.nominalVolts);
}
