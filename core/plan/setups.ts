import type { Cable } from '../bench/cable';
import type { Charger } from '../bench/charger';
import type { Device } from '../bench/device';
import { sourceName, usualFeed } from '../bench/feed';
import type { Meter } from '../bench/meter';
import { expectationOf } from '../power/expectations';
import type { Negotiated } from '../power/negotiate';
import { expectedCharge, type Expected } from '../simulate/expected';
import { cellsOf, type MatrixCell, type PlannedRun } from './matrix';
import type { Study } from './study';

/** The gear that a study names by its ids. */
export interface GearAtHand {
  devices: readonly Device[];
  chargers: readonly Charger[];
  cables: readonly Cable[];
  meters: readonly Meter[];
}

/** A cell of a study with its gear negotiated, on the port that gives most. */
export interface Setup {
  cell: MatrixCell;
  /** `undefined` when its gear is no longer there. */
  negotiated?: Negotiated | undefined;
  /** `undefined` where the battery is unknown, it will not charge, or it starts full. */
  expected?: Expected | undefined;
}

const byId = <Each extends { id: string }>(all: readonly Each[], id: string | undefined) => all.find((each) => each.id === id);

/** What to expect of every cell of a study, those left out among them. */
export function studySetupsOf(study: Study, gear: GearAtHand): Setup[] {
  return cellsOf(study).map((cell) => {
    const [device, charger] = [byId(gear.devices, cell.device), byId(gear.chargers, cell.charger)];
    if (!device || !charger) return { cell };
    const by = byId(gear.chargers, cell.feed);
    const feed = by ? { charger: by } : usualFeed(charger, gear.chargers, gear.cables);
    const { negotiated } = expectationOf(device, charger, byId(gear.cables, cell.cable), feed);
    const startsLow = study.startLevel >= 0 && study.startLevel < 100;
    return {
      cell,
      negotiated,
      expected: startsLow ? expectedCharge(negotiated, study.startLevel, { awake: cell.state === 'awake' }) : undefined,
    };
  });
}

/** Whether a setup is expected to take no charge in its state. */
export function willNotCharge({ cell, negotiated }: Setup): boolean {
  const outcome = negotiated?.outcome;
  return (
    outcome === 'does not fit' || outcome === 'connected, will not charge' || (outcome === 'charges only asleep' && cell.state === 'awake')
  );
}

/** Gives the name of gear by its id. */
export type NameOf = (id: string | undefined) => string;

/** The names of gear at hand; of what is no longer there, that it is not. */
export function gearNames({ devices, chargers, cables }: GearAtHand): NameOf {
  const names = new Map([...devices, ...chargers, ...cables].map(({ id, name }) => [id, name]));
  return (id) => (id === undefined ? undefined : names.get(id)) ?? 'gear no longer there';
}

/** What a cell charges from, in words: `Puddle fed by Cobble 20`. */
export const sourceOf = ({ charger, feed }: Pick<MatrixCell, 'charger' | 'feed'>, name: NameOf): string =>
  sourceName({ charger: { name: name(charger) }, feed: feed === undefined ? undefined : { charger: { name: name(feed) } } });

/** A planned run in words: `Sedge 5 on Quern 30`, with its state where a study has several. */
export function runInWords({ cell }: PlannedRun, study: Pick<Study, 'states'>, name: NameOf): string {
  const path = cell.cable === undefined ? '' : `, ${name(cell.cable)}`;
  return `${name(cell.device)} on ${sourceOf(cell, name)}${path}${study.states.length > 1 ? `, ${cell.state}` : ''}`;
}

/** How many identical units of each device there are. */
export const unitsIn =
  ({ devices }: Pick<GearAtHand, 'devices'>) =>
  (id: string): number =>
    byId(devices, id)?.units ?? 1;
