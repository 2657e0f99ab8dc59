import type { Cable } from '../bench/cable';
import type { Charger } from '../bench/charger';
import type { Device } from '../bench/device';
import type { Meter } from '../bench/meter';
import type { Entry, Header } from '../ink/entry';
import type { OwnMethod } from '../method/ownMethod';
import { SCHEMA } from '../ink/version';
import type { Study } from '../plan/study';
import type { Samples } from '../ink/track';

/** A run as it is kept: its header, its ink and a meter's samples if it has any. */
export interface StoredRun {
  header: Header;
  entries: Entry[];
  samples?: Samples | undefined;
}

/** Everything a logbook holds, as one JSON file. */
export interface Logbook {
  format: 'inkpath-logbook';
  schema: typeof SCHEMA;
  /** ISO 8601. */
  exportedAt: string;
  devices: Device[];
  chargers: Charger[];
  cables: Cable[];
  meters: Meter[];
  methods: OwnMethod[];
  studies: Study[];
  runs: StoredRun[];
  /** Pictures taken as evidence, by their ids, each as a data address (RFC 2397). */
  pictures?: Record<string, string> | undefined;
}

/** Gear and runs as a logbook, dated now. */
export function logbookOf(
  { devices, chargers, cables, meters }: Pick<Logbook, 'devices' | 'chargers' | 'cables' | 'meters'>,
  { methods, studies }: Pick<Logbook, 'methods' | 'studies'>,
  runs: StoredRun[],
  pictures: Record<string, string> = {},
): Logbook {
  return {
    format: 'inkpath-logbook',
    schema: SCHEMA,
    exportedAt: new Date().toISOString(),
    devices,
    chargers,
    cables,
    meters,
    methods,
    studies,
    runs,
    ...(Object.keys(pictures).length > 0 && { pictures }),
  };
}

/** Writes a logbook as JSON. Samples become plain arrays; figures keep every digit. */
export function writeLogbook(logbook: Logbook): string {
  return JSON.stringify(logbook, (_key, value: unknown) => (value instanceof Float64Array ? Array.from(value) : value));
}
