import type { Schema } from 'yup';
import { SCHEMAS } from '../bench/schemas';
import { comparisonSchema } from '../compare/comparison';
import { ENTRY_SCHEMAS, headerSchema } from '../ink/entry';
import { LONGEST_RUN } from '../ink/ranges';
import { SCHEMA } from '../ink/version';
import { CADENCE_SCHEMAS } from '../method/cadenceSchema';
import { ownMethodSchema } from '../method/ownMethod';
import { studySchema } from '../plan/study';
import { pieceSchema } from '../report/pieceSchema';
import { QUANTITIES, quantityOf } from '../quantity/quantity';
import { rememberedSchema, settingsSchema } from './settings';

/** A schema as JSON Schema has it. */
export type JsonSchema = Record<string, unknown>;

/** What Yup tells of a schema. */
interface Told {
  type: string;
  optional?: boolean;
  oneOf?: unknown[];
  tests?: { name?: string; params?: Record<string, unknown> }[];
  fields?: Record<string, Told>;
  innerType?: Told;
}

const isNumber = (value: unknown): value is number => typeof value === 'number' && Number.isFinite(value);

const ENDS: Readonly<Record<string, readonly [least: string, most: string]>> = {
  string: ['minLength', 'maxLength'],
  array: ['minItems', 'maxItems'],
  number: ['minimum', 'maximum'],
};

/** A condition that a test of Yup is. Those that look at several parts at once have none: they are told in words in docs/formats.md. */
function rulesOf({ type, tests = [] }: Told): JsonSchema {
  const rules: JsonSchema = {};
  const [least, most] = ENDS[type] ?? ['', ''];
  for (const { name, params = {} } of tests) {
    if (name === 'min' && isNumber(params.min) && least) rules[least] = params.min;
    if (name === 'max' && isNumber(params.max) && most) rules[most] = params.max;
    if (name === 'length' && isNumber(params.length)) Object.assign(rules, { [least]: params.length, [most]: params.length });
    if (name === 'integer') rules.type = 'integer';
    if (name === 'matches' && params.regex instanceof RegExp) rules.pattern = params.regex.source;
    if (name === 'required' && type === 'string') rules.minLength ??= 1;
  }
  return rules;
}

/** A part of Yup’s description in JSON Schema. What it cannot tell of itself (a value of several kinds) may be anything there. */
function schemaOf(told: Told): JsonSchema {
  const { type, oneOf = [], fields = {}, innerType, tests = [] } = told;
  if (type === 'lazy') return { anyOf: CADENCE_SCHEMAS.map((each) => fromYup(each)) };
  const rules = rulesOf(told);
  const values = oneOf.filter((value) => value !== undefined);
  if (values.length > 0) return { enum: values };
  if (type === 'mixed') return {};
  if (type === 'array') return { type, ...rules, ...(innerType && { items: schemaOf(innerType) }) };
  if (type !== 'object') return { type, ...rules };
  const isStrict = tests.some(({ name }) => name === 'noUnknown');
  const needed = Object.entries(fields).flatMap(([name, field]) => (field.type !== 'lazy' && field.optional === false ? [name] : []));
  return {
    type,
    properties: Object.fromEntries(Object.entries(fields).map(([name, field]) => [name, schemaOf(field)])),
    ...(needed.length > 0 && { required: needed }),
    ...(isStrict && { additionalProperties: false }),
  };
}

/** A Yup schema in JSON Schema. */
export const fromYup = (schema: Schema): JsonSchema => schemaOf(schema.describe());

const columns = (): JsonSchema => ({
  type: 'object',
  description: 'What a meter streamed: a pair of columns for each quantity, equally long, ascending in time.',
  properties: Object.fromEntries(
    QUANTITIES.map((quantity) => {
      const { min, max, unit } = quantityOf(quantity);
      return [
        quantity,
        {
          type: 'object',
          properties: {
            seconds: { type: 'array', items: { type: 'number', minimum: 0, maximum: LONGEST_RUN }, description: 'Seconds from plug-in.' },
            values: { type: 'array', items: { type: 'number', minimum: min, maximum: max }, description: `In ${unit}.` },
          },
          required: ['seconds', 'values'],
          additionalProperties: false,
        },
      ];
    }),
  ),
  additionalProperties: false,
});

const listOf = (schema: Schema): JsonSchema => ({ type: 'array', items: fromYup(schema) });

/** The JSON Schema (2020-12) of a logbook, made of the schemas that check an import. */
export const logbookSchema = (): JsonSchema => ({
  $schema: 'https://json-schema.org/draft/2020-12/schema',
  title: 'Inkpath logbook',
  description:
    'Everything that a logbook of Inkpath Log holds. Times are epoch milliseconds unless they say otherwise; units are in docs/formats.md.',
  type: 'object',
  properties: {
    format: { const: 'inkpath-logbook' },
    schema: { const: SCHEMA },
    exportedAt: { type: 'string', minLength: 1, description: 'ISO 8601.' },
    settings: fromYup(settingsSchema),
    devices: listOf(SCHEMAS.device),
    chargers: listOf(SCHEMAS.charger),
    cables: listOf(SCHEMAS.cable),
    meters: listOf(SCHEMAS.meter),
    methods: listOf(ownMethodSchema),
    studies: listOf(studySchema),
    comparisons: listOf(comparisonSchema),
    pieces: listOf(pieceSchema),
    remembered: listOf(rememberedSchema),
    runs: {
      type: 'array',
      items: {
        type: 'object',
        properties: {
          header: fromYup(headerSchema),
          entries: { type: 'array', items: { anyOf: ENTRY_SCHEMAS.map((each) => fromYup(each)) } },
          samples: columns(),
          logs: { type: 'object', propertyNames: { pattern: '^[\\w-]{1,40}$' }, additionalProperties: columns() },
        },
        required: ['header', 'entries'],
        additionalProperties: false,
      },
    },
    pictures: {
      type: 'object',
      propertyNames: { pattern: '^[\\w-]{1,40}$' },
      additionalProperties: { type: 'string', pattern: '^data:image/(jpeg|png|webp);base64,', description: 'A data address (RFC 2397).' },
    },
  },
  required: ['format', 'schema', 'exportedAt', 'devices', 'chargers', 'cables', 'meters', 'methods', 'studies', 'runs'],
  additionalProperties: false,
});
