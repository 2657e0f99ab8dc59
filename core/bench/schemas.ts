import { cableSchema } from './cable';
import { chargerSchema } from './charger';
import { deviceSchema } from './device';
import { meterSchema } from './meter';

/** The schema of what stands on each shelf. */
export const SCHEMAS = { device: deviceSchema, charger: chargerSchema, cable: cableSchema, meter: meterSchema } as const;
