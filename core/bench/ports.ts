import type { Charger, Port } from './charger';

/** The ports of a charger. One whose ports nobody wrote down has one that suits its kind. */
export function portsOf(charger: Charger): Port[] {
  if (charger.ports && charger.ports.length > 0) return charger.ports;
  const usual: Partial<Record<Charger['kind'], Port['connector']>> = { pad: 'pad', 'bay charger': 'bay', 'DC brick': 'DC barrel' };
  return [{ connector: usual[charger.kind] ?? 'USB-C' }];
}
