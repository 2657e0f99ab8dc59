import type { Fact } from './facts';
import { writePort } from './portText';
import type { Gear } from './shelf';

/** What stands between the parts of a fact that holds several, and between ports, where facts are handed on. */
const AND = ' + ';
const NEXT_PORT = ' | ';

/** A fact of a piece of gear as it is handed on: lists joined, ports in words; `undefined` where it is not known. */
export function factValue(gear: Gear, { key, type }: Pick<Fact, 'key' | 'type'>): string | number | boolean | undefined {
  if (type === 'ports') return 'ports' in gear ? gear.ports?.map(writePort).join(NEXT_PORT) : undefined;
  const value = (gear as Partial<Record<string, string | number | boolean | string[]>>)[key];
  return Array.isArray(value) ? value.join(AND) : value;
}
