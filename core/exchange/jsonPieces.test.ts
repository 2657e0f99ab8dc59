import fc from 'fast-check';
import { expect, it } from 'vitest';
import { ImportError } from './importError';
import { JsonSplitter } from './jsonPieces';
import { DEEPEST } from './limits';

const drawn = (whole: number) => (process.env.THOROUGH ? whole : whole / 4);

/** Members that come piece by piece where they are objects. */
const OPEN = 'open';

/** A text as its pieces make it, given in parts: what the pieces are is read by JSON.parse, as those do who take them. */
function takenApart(parts: readonly string[]): unknown {
  const found: Record<string, unknown> = {};
  const set = (in_: object, name: string, value: unknown) =>
    Object.defineProperty(in_, name, { value, enumerable: true, configurable: true, writable: true });
  const counts: number[] = [];
  const splitter = new JsonSplitter(
    'a.json',
    {
      value: (key, text) => set(found, key, JSON.parse(text)),
      begin: (key) => {
        set(found, key, undefined);
        counts.length = 0;
      },
      item: (key, index, text) => {
        expect(index).toBe(counts.length);
        counts.push(index);
        set(found, key, [...((found[key] as unknown[] | undefined) ?? []), JSON.parse(text)]);
      },
      member: (key, name, text) => {
        const own = (found[key] as object | undefined) ?? {};
        set(own, name, JSON.parse(text));
        set(found, key, own);
      },
    },
    (key) => key === OPEN,
  );
  for (const part of parts) splitter.push(part);
  splitter.end();
  return found;
}

/** An empty list or object that came piece by piece is told by its beginning alone. */
const bare = (value: unknown): unknown =>
  Object.fromEntries(
    Object.entries(value as object).map(([key, its]) => [
      key,
      (Array.isArray(its) && its.length === 0) ||
      (key === OPEN && its !== null && typeof its === 'object' && Object.keys(its as object).length === 0)
        ? undefined
        : (its as unknown),
    ]),
  );

const wholeOf = (text: string): Record<string, unknown> | undefined => {
  try {
    const found: unknown = JSON.parse(text);
    return found !== null && typeof found === 'object' && !Array.isArray(found) ? (found as Record<string, unknown>) : undefined;
  } catch {
    return undefined;
  }
};
const hasNoName = ({ [OPEN]: open, ...others }: Record<string, unknown>) =>
  '' in others || (open !== null && typeof open === 'object' && !Array.isArray(open) && '' in open);

const names = fc.constantFrom('runs', OPEN, 'a b', 'ä', '\\', '"', ',', '}', '__proto__', 'constructor');
const leaf = fc.oneof(
  fc.constantFrom<unknown>('', '"', '\\', '\\"', ',:[]{}', '\\\\', 'é\u2028', -0.5e-7, 0, 1e21, null, true, false),
  fc.string(),
  fc.double({ noNaN: true, noDefaultInfinity: true }),
);
const { any } = fc.letrec((tie) => ({
  any: fc.oneof(
    { maxDepth: 4, withCrossShrink: true },
    leaf,
    fc.array(tie('any'), { maxLength: 4 }),
    fc.uniqueArray(fc.tuple(names, tie('any')), { selector: ([name]) => name, maxLength: 4 }).map((all) => Object.fromEntries(all)),
  ),
}));
const objects = fc
  .uniqueArray(fc.tuple(names, any), { selector: ([name]) => name, maxLength: 5 })
  .map((all) => Object.fromEntries(all) as object);
const indents = fc.constantFrom(undefined, 1, '\t', ' \n ');
/** Where a text is cut into parts, as shares of its length. */
const cuts = fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { maxLength: 6 });
const cutUp = (text: string, shares: readonly number[]): string[] => {
  const ends = [...shares.map((share) => Math.round(share * text.length)), text.length].sort((one, other) => one - other);
  return ends.map((end, index) => text.slice(ends[index - 1] ?? 0, end));
};

it('is the object that JSON.parse makes of it, wherever it is cut into parts', () => {
  fc.assert(
    fc.property(objects, indents, cuts, (object, indent, shares) => {
      const text = JSON.stringify(object, undefined, indent);
      expect(bare(takenApart(cutUp(text, shares)))).toEqual(bare(JSON.parse(text)));
      expect(bare(takenApart(text.split('')))).toEqual(bare(JSON.parse(text)));
    }),
    { numRuns: drawn(1000) },
  );
});

it('is refused just where JSON.parse refuses it, and where it is no object, whatever was done to it', () => {
  const marks = fc.constantFrom('', ',', ':', '"', '{', '}', '[', ']', '\\', ' ', '0', 'null', '},', '],', '{}', '"a":1', ',,');
  // Most of it beside a letter that says how the text is made.
  const harm = fc.tuple(fc.double({ min: 0, max: 1, noNaN: true }), fc.constantFrom(0, 0, 0, 1, 2), marks, fc.nat({ max: 4 }));
  let [whole, refused] = [0, 0];
  fc.assert(
    fc.property(objects, indents, fc.array(harm, { minLength: 1, maxLength: 2 }), cuts, (object, indent, harms, shares) => {
      const text = harms.reduce(
        (now, [share, gone, put, after]) => {
          const places = [...now.matchAll(/[{}[\]:,]/g)].map(({ index }) => index);
          const at = after === 4 ? Math.round(share * now.length) : (places[Math.floor(share * places.length)] ?? 0) + (after % 2);
          return now.slice(0, at) + put + now.slice(at + gone);
        },
        JSON.stringify(object, undefined, indent),
      );
      const expected = wholeOf(text);
      if (!expected) {
        refused += 1;
        expect(() => takenApart(cutUp(text, shares)), text).toThrow();
      } else if (!hasNoName(expected)) {
        whole += 1;
        expect(bare(takenApart(cutUp(text, shares))), text).toEqual(bare(expected));
      }
    }),
    { numRuns: drawn(4000) },
  );
  expect(Math.min(whole, refused)).toBeGreaterThan(drawn(4000) / 100);
});

it('says of each fault what to do: no name, too deep, too large, none at all', () => {
  for (const text of [
    '',
    ' ',
    '[]',
    'null',
    '3',
    '"a"',
    '{"":1}',
    '{"open":{"":1}}',
    '{"a":1}{"b":2}',
    '{"a":1} 2',
    '{"a":1',
    '{"a":1,}',
    '{,}',
    '{"a":}',
  ])
    expect(() => takenApart([text]), text).toThrow(text === '{"a":}' ? SyntaxError : ImportError);
  const deep = (levels: number) => `{"a":${'['.repeat(levels - 1)}${']'.repeat(levels - 1)}}`;
  expect(takenApart([deep(DEEPEST)])).toHaveProperty('a');
  expect(() => takenApart([deep(DEEPEST + 1)])).toThrow(
    `a.json holds values more than ${DEEPEST} deep: no logbook does. Choose another file.`,
  );
});

it('takes no piece beyond its limit, however it comes in', () => {
  const taken: string[] = [];
  const splitter = new JsonSplitter(
    'a.json',
    { value() {}, begin() {}, item: (_, __, text) => taken.push(text), member() {} },
    () => false,
    8,
  );
  for (const part of ['{"runs":[', '123', '45678', ',', '    1', '234', ', 12345', '67']) splitter.push(part);
  expect(taken).toEqual(['12345678', '    1234']);
  expect(() => {
    splitter.push('8');
  }).toThrow('a.json holds a run that is larger than any that is kept');
});
