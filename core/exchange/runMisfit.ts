import { entrySchema, headerSchema, type Entry } from '../ink/entry';
import { idField } from '../ink/fields';
import { isPlainReading, OWN } from '../ink/plainReading';
import { misfit, type Misfit } from './fits';
import { short } from './importError';
import { samplesMisfit } from './samplesFit';

const KNOWN = new Set(['header', 'entries', 'samples', 'logs']);

/** Whether a whole run fits: its header, every entry of its ink, each with an id of its own, and a meter's columns. */
export function runMisfit(run: unknown): Misfit | undefined {
  if (typeof run !== 'object' || run === null) return { path: '', says: 'is not a run' };
  const { header, entries, samples, logs } = run as Record<string, unknown>;
  const stranger = Object.keys(run).find((key) => !KNOWN.has(key));
  if (stranger !== undefined) return { path: short(stranger), says: 'is no part of a run' };
  return (
    prefixed('header', partMisfit('header', header)) ??
    (Array.isArray(entries) ? entriesMisfit(entries) : { path: 'entries', says: 'is not a list' }) ??
    (samples === undefined ? undefined : prefixed('samples', samplesMisfit(samples))) ??
    (logs === undefined ? undefined : prefixed('logs', logsMisfit(logs)))
  );
}

function logsMisfit(logs: unknown): Misfit | undefined {
  if (typeof logs !== 'object' || logs === null || Array.isArray(logs)) return { path: '', says: 'is not a set of logs' };
  for (const [log, samples] of Object.entries(logs)) {
    const found = misfit(idField(), log) ?? samplesMisfit(samples);
    if (found) return prefixed(short(log), found);
  }
  return undefined;
}

/** What was found to fit, but for what is its own: of a thousand runs on one setup the gear is looked at once. */
const fitting = new Set<string>();
/** How many are remembered, each no longer than so many letters. */
const MOST_FITTING = 2000;
const LONGEST_FITTING = 5000;

/** Whether a header or an entry fits. No part of either hangs on another, so that like ones need not be asked about twice. */
function partMisfit(part: keyof typeof OWN, value: unknown): Misfit | undefined {
  const schema = part === 'header' ? headerSchema : entrySchema;
  if (typeof value !== 'object' || value === null) return misfit(schema, value);
  const given = value as Record<string, unknown>;
  const own = Object.entries(OWN[part]);
  if (!own.every(([name, fits]) => fits(given[name]))) return misfit(schema, value);
  const key = `${part} ${JSON.stringify({ ...given, ...Object.fromEntries(own.map(([name]) => [name, undefined])) })}`;
  if (fitting.has(key)) return undefined;
  const found = misfit(schema, value);
  if (!found && key.length <= LONGEST_FITTING && fitting.size < MOST_FITTING) fitting.add(key);
  return found;
}

/** Whether one entry of ink fits: of a plain reading, as nearly all are, the schema need not be asked. */
export const entryMisfit = (entry: unknown): Misfit | undefined =>
  typeof entry === 'object' && entry !== null && isPlainReading(entry as Entry) ? undefined : partMisfit('entry', entry);

function entriesMisfit(entries: readonly unknown[]): Misfit | undefined {
  const ids = new Set<string>();
  for (const [index, entry] of entries.entries()) {
    const place = `entries[${index}]`;
    const found = prefixed(place, entryMisfit(entry));
    if (found) return found;
    const { id } = entry as { id: string };
    if (ids.has(id)) return { path: place, says: `has the id of another entry of its run (${id})` };
    ids.add(id);
  }
  return undefined;
}

/** Puts the place that a value lies in before its trouble, so that the message says where. */
export function prefixed(place: string, found: Misfit | undefined): Misfit | undefined {
  return found && { ...found, path: found.path ? `${place}.${found.path}` : place };
}
