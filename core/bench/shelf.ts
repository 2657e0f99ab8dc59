import type { Cable } from './cable';
import type { Charger } from './charger';
import type { Device } from './device';
import type { Meter } from './meter';

/** The four shelves of the bench. */
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
