import type { GearOn, Shelf } from '@core/bench';
import type { Comparison } from '@core/compare';
import { migrate } from '@core/exchange';
import { SCHEMA } from '@core/ink';
import { withRule, type OwnMethod } from '@core/method';
import type { Study } from '@core/plan';
import type { Piece } from '@core/report';
import { keyOf } from './keys';
import type { StoredRow } from './transactions';

/** What is kept in a list, each thing under its id: as the program has it, which is how it stands in a file. */
interface Things extends GearOn {
  study: Study;
  method: OwnMethod;
  comparison: Comparison;
  piece: Piece;
}
export type ListKind = keyof Things;
export type ThingOf<Of extends ListKind> = Things[Of];

/** How a thing is stored, and read whatever the schema it was stored by. */
interface Shape<Thing> {
  read: (stored: unknown) => Thing;
  write: (thing: Thing) => object;
}

const gear = <On extends Shelf>(shelf: On): Shape<GearOn[On]> => ({
  // Gear of the first schema was stored without saying so.
  read: (stored) => migrate({ schema: 1, ...(stored as object) }, 'Gear on the shelf').gear as GearOn[On],
  write: (each) => ({ shelf, gear: each, schema: SCHEMA }),
});
/** As it is: its schema is in it. */
const plain = <Thing extends object>(what: string): Shape<Thing> => ({
  read: (stored) => migrate(stored, what) as unknown as Thing,
  write: (thing) => thing,
});

export const SHAPES: { readonly [Of in ListKind]: Shape<ThingOf<Of>> } = {
  device: gear('device'),
  charger: gear('charger'),
  cable: gear('cable'),
  meter: gear('meter'),
  study: plain('A study'),
  comparison: plain('A comparison'),
  piece: plain('A piece'),
  method: {
    read: (stored) => withRule(migrate(stored, 'A method of your own').method as OwnMethod),
    write: (method) => ({ schema: SCHEMA, method: withRule(method) }),
  },
};
export const LIST_KINDS = Object.keys(SHAPES) as ListKind[];

/** A thing under its key, as it is stored: a copy, for what is on a screen no database takes. */
export function rowOf<Of extends ListKind>(kind: Of, thing: ThingOf<Of>): StoredRow {
  return [keyOf(kind, thing.id), JSON.parse(JSON.stringify(SHAPES[kind].write(thing)))];
}
