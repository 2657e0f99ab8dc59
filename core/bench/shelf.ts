import { cableSchema, type Cable } from './cable';
import { chargerSchema, type Charger } from './charger';
import { deviceSchema, type Device } from './device';
import { meterSchema, type Meter } from './meter';

/** The four shelves of the bench, and the schema of what stands on each. */
export const SCHEMAS = { device: deviceSchema, charger: chargerSchema, cable: cableSchema, meter: meterSchema } as const;
export const SHELVES = ['device', 'charger', 'cable', 'meter'] as const;
export type Shelf = (typeof SHELVES)[number];

export interface GearOn {
  device: Device;
  charger: Charger;
  cable: Cable;
  meter: Meter;
}
export type Gear = GearOn[Shelf];
/** A piece of gear and the shelf it stands on. */
export type Kept = { [On in Shelf]: { shelf: On; gear: GearOn[On] } }[Shelf];
