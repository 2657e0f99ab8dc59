import type { Cable } from './cable';
import type { Charger } from './charger';

/** What feeds a source: a charger of its own, its port, and the cable between them. */
export interface Feed {
  charger: Charger;
  port?: number | undefined;
  cable?: Cable | undefined;
}

/** Kinds that pass on what a source of their own gives them. */
const FED: readonly Charger['kind'][] = ['dock', 'pad', 'computer', 'bay charger', 'power bank', 'other'];

/** Whether a source may have one of its own. */
export const isFed = ({ kind }: Pick<Charger, 'kind'>): boolean => FED.includes(kind);

/** A source by its name, with what feeds it: `Puddle fed by Cobble 20`. */
export const sourceName = ({ charger, feed }: { charger: Pick<Charger, 'name'>; feed?: { charger: Pick<Charger, 'name'> } | undefined }) =>
  feed ? `${charger.name} fed by ${feed.charger.name}` : charger.name;

/** What usually feeds a source, as the shelf says it. */
export function usualFeed({ fedBy, fedThrough }: Charger, chargers: readonly Charger[], cables: readonly Cable[]): Feed | undefined {
  const charger = chargers.find(({ id }) => id === fedBy);
  return charger && { charger, cable: cables.find(({ id }) => id === fedThrough) };
}
