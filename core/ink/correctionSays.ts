import { factsOf } from '../bench/facts';
import type { Correction } from './entry';

/** A correction in words, old beside new: `charger is Quern 30, not Cobble 20`, `Cobble 20: watts 22, not 20`. */
export function correctionSays({ shelf, gear, reason }: Correction, before: Correction['gear'] | undefined): string {
  const why = reason ? ` (${reason})` : '';
  if (before === undefined) return `the ${shelf} is ${gear.name}${why}`;
  if (before.id !== gear.id) return `the ${shelf} is ${gear.name}, not ${before.name}${why}`;
  const [old, now] = [before as Record<string, unknown>, gear as Record<string, unknown>];
  const says = changedFacts(before, gear).map((key) => `${factName(shelf, key)} ${valueSays(now[key])}, not ${valueSays(old[key])}`);
  return `${before.name}: ${says.join('; ') || 'nothing changed'}${why}`;
}

const factName = (shelf: Correction['shelf'], key: string) => (factsOf(shelf).find((fact) => fact.key === key)?.name ?? key).toLowerCase();

function valueSays(value: unknown): string {
  if (value === undefined) return 'unknown';
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  return typeof value === 'string' ? value : JSON.stringify(value);
}

/** Whether a correction says nothing that does not stand there already. */
export const correctsNothing = ({ gear }: Pick<Correction, 'gear'>, before: Correction['gear'] | undefined): boolean =>
  before?.id === gear.id && changedFacts(before, gear).length === 0;

function changedFacts(before: Correction['gear'], gear: Correction['gear']): string[] {
  const [old, now] = [before as Record<string, unknown>, gear as Record<string, unknown>];
  return [...new Set([...Object.keys(old), ...Object.keys(now)])].filter(
    (key) => key !== 'id' && JSON.stringify(old[key]) !== JSON.stringify(now[key]),
  );
}
