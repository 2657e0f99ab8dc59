import type { Cable } from '../bench/cable';
import type { Charger } from '../bench/charger';
import type { SetupRuns } from '../compare/setups';
import { expectationOf } from '../power/expectations';
import { price } from '../quantity/figures';
import { headerOf, type AdviceGear } from './question';

/** What a setup costs whoever does not have it: its charger and the cable that it needs. */
export interface Cost {
  /** Nothing for what is at home; `undefined` where a price that counts is not known. */
  value: number | undefined;
  /** What it is made of, in words. */
  says: string;
  /** Fast charging of a maker’s own, which needs this charger and a cable of the same family: what both cost, at home or not. */
  pair?: { family: string; value: number | undefined; cable: string | undefined } | undefined;
}

/** The gear as the shelf has it now: prices change, and what was bought is at home. */
export const nowOf = <Gear extends { id: string }>(all: readonly Gear[], gear: Gear): Gear => all.find(({ id }) => id === gear.id) ?? gear;

/** Plugs that take no cable of their own. */
const NO_CABLE: readonly Charger['kind'][] = ['pad', 'bay charger', 'DC brick', 'wall socket'];

function part(name: string, gear: Pick<Charger, 'price' | 'owned'>): { value: number | undefined; says: string } {
  if (gear.owned) return { value: 0, says: `${name} at home` };
  return gear.price === undefined
    ? { value: undefined, says: `${name}: no price` }
    : { value: gear.price, says: `${name} ${price(gear.price)}` };
}

/** The price of the charger of a setup and of the cable it needs, nothing for what is at home. */
export function costOfSetup(setup: SetupRuns, shelf: AdviceGear): Cost {
  const header = headerOf(setup);
  const charger = nowOf(shelf.chargers, header.charger);
  const own = part(charger.name, charger);
  if (NO_CABLE.includes(charger.kind)) return own;
  const { negotiated } = expectationOf(header.device, charger, header.cable);
  const family = negotiated.by === 'family' && !negotiated.family?.endsWith(' A') ? negotiated.family : undefined;
  if (charger.cableIncluded) return { ...own, pair: family === undefined ? undefined : { family, value: charger.price, cable: undefined } };
  const cable: Cable | undefined = header.cable
    ? nowOf(shelf.cables, header.cable)
    : family === undefined
      ? undefined
      : shelf.cables.find((each) => each.family === family);
  if (!cable) return { ...own, says: `${own.says}, its cable not counted` };
  const through = part(cable.name, cable);
  return {
    value: own.value === undefined || through.value === undefined ? undefined : own.value + through.value,
    says: `${own.says}, ${through.says}`,
    pair:
      family === undefined
        ? undefined
        : {
            family,
            value: charger.price === undefined || cable.price === undefined ? undefined : charger.price + cable.price,
            cable: cable.name,
          },
  };
}
