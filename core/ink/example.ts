import type { Entry, Header } from './entry';
import { SCHEMA } from './version';

/** A run's header for tests: a phone on a 20 W charger, read every five minutes, plugged in at a round instant. */
export function exampleHeader(changes: Partial<Header> = {}): Header {
  return {
    schema: SCHEMA,
    id: 'run-1',
    device: { id: 'sedge', name: 'Sedge 5', kind: 'phone', milliampHours: 4500, nominalVolts: 3.85 },
    charger: { id: 'cobble', name: 'Cobble 20', kind: 'adapter', watts: 20 },
    plugInAt: Date.UTC(2026, 9, 5, 14, 2),
    cadence: { kind: 'fixed', every: 300 },
    pen: 0,
    ...changes,
  };
}

/** A strike of one of its entries, for tests: the last that was written. */
export function exampleStrike({ plugInAt }: Header, target: string): Entry {
  return { kind: 'strike', seq: 9, id: 's', at: plugInAt, written: plugInAt, target, reason: 'slip' };
}
