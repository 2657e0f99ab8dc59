import Ajv2020 from 'ajv/dist/2020';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { finishedRuns, STUDIES } from '../../demo/finished';
import { CABLES, CHARGERS, DEVICES, METERS } from '../../demo/saltmarsh';
import { logbookSchema } from './jsonSchema';
import { logbookOf, writeLogbook } from './logbook';
import { readLogbook } from './readLogbook';

const isValid = new Ajv2020({ strict: false, validateFormats: false }).compile(logbookSchema());
const demo = logbookOf({ devices: DEVICES, chargers: CHARGERS, cables: CABLES, meters: METERS, studies: STUDIES }, finishedRuns());
const text = writeLogbook(demo);

/** Every place in a value, as the keys that lead there. */
function* places(value: unknown, at: (string | number)[] = []): Generator<(string | number)[]> {
  if (at.length > 0) yield at;
  if (typeof value !== 'object' || value === null) return;
  for (const [key, part] of Object.entries(value).slice(0, 40)) yield* places(part, [...at, Array.isArray(value) ? Number(key) : key]);
}
function changed(where: readonly (string | number)[], to: unknown): unknown {
  const copy = JSON.parse(text) as Record<string | number, unknown>;
  let part = copy;
  for (const key of where.slice(0, -1)) part = part[key] as typeof part;
  const last = where.at(-1) ?? '';
  if (to === undefined) Reflect.deleteProperty(part, last);
  else part[last] = to;
  return copy;
}
const isRead = (value: unknown): boolean => {
  try {
    readLogbook(JSON.stringify(value), 'it');
    return true;
  } catch {
    return false;
  }
};

describe('the JSON Schema of a logbook (2020-12, checked by ajv)', () => {
  it('is the one that is published', async () => {
    await expect(`${JSON.stringify(logbookSchema(), null, 1)}\n`).toMatchFileSnapshot('../../docs/logbook.schema.json');
  });

  it('accepts what this program writes', () => {
    expect([isValid(JSON.parse(text)), isValid.errors]).toEqual([true, null]);
  });

  it('refuses nothing that an import takes, and nearly all that it refuses, whatever is changed in a logbook (property)', () => {
    const whole = { ...demo, runs: demo.runs.slice(0, 2) };
    const all = [...places(JSON.parse(writeLogbook(whole)))].filter((where) => where[0] !== 'exportedAt');
    const value = fc.constantFrom(undefined, null, -1, 1e12, 0.5, '', 'x'.repeat(500), true, [], {}, { stranger: 1 }, 'not/an id');
    let [refused, also] = [0, 0];
    fc.assert(
      fc.property(fc.constantFrom(...all), value, (where, to) => {
        const odd = changed(where, to);
        const [taken, valid] = [isRead(odd), isValid(odd)];
        if (taken) expect([where.join('.'), to, valid, isValid.errors]).toEqual([where.join('.'), to, true, null]);
        if (!taken) refused += 1;
        if (!taken && !valid) also += 1;
      }),
      { numRuns: process.env.THOROUGH ? 2000 : 200 },
    );
    expect(also / refused).toBeGreaterThan(0.9);
  });
});
