import { ValidationError, type Schema } from 'yup';
import { short } from './importError';

/** What a value must be, where its schema says it in no words of its own. */
const RULES: Readonly<Record<string, (params: Readonly<Record<string, unknown>>) => string>> = {
  optionality: () => 'is missing',
  nullable: () => 'is missing',
  required: () => 'is missing',
  defined: () => 'is missing',
  typeError: ({ type }) => `is not ${KINDS[String(type)] ?? 'what it should be'}`,
  oneOf: ({ values }) => `is none of ${short(String(values))}`,
  noUnknown: ({ unknown }) => `has parts that nothing is known of (${short(String(unknown))})`,
  integer: () => 'is not a whole number',
  min: ({ min }) => `is less than ${String(min)}`,
  max: ({ max }) => `is more than ${String(max)}`,
  matches: () => 'is not written as it should be',
  trim: () => 'has blanks around it',
};
const KINDS: Readonly<Record<string, string>> = {
  number: 'a number',
  string: 'a text',
  array: 'a list',
  object: 'a set of named values',
  boolean: 'yes or no',
  mixed: 'one of what it can be',
};
const LENGTHS: Readonly<Record<string, (params: Readonly<Record<string, unknown>>) => string>> = {
  min: ({ min }) => `is shorter than ${String(min)}`,
  max: ({ max }) => `is longer than ${String(max)}`,
};

/** What is wrong with a value: where in it, and a clause that follows the place. */
export interface Misfit {
  /** As `entries[3].percent`; empty for the value itself. */
  path: string;
  says: string;
}

/**
 * Whether a value fits its schema as it is, nothing being changed to make it fit.
 *
 * @returns `undefined` where it does; never throws, whatever it is handed
 */
export function misfit(schema: Pick<Schema, 'validateSync'>, value: unknown): Misfit | undefined {
  try {
    schema.validateSync(value, { strict: true });
    return undefined;
  } catch (error) {
    if (error instanceof ValidationError) return { path: short(error.path ?? ''), says: sentence(error) };
    return { path: '', says: 'is not what it should be' };
  }
}

function sentence({ message, path, type = '', params = {}, value }: ValidationError): string {
  // A message of the schema's own does not begin with the path.
  if (!message.startsWith(path ? path : 'this')) return message;
  // Of a part of something larger, the value is that of the whole.
  const part: unknown = params.value ?? value;
  const isLong = typeof part === 'string' || Array.isArray(part);
  return ((isLong ? LENGTHS[type] : undefined) ?? RULES[type])?.(params) ?? 'is not what it should be';
}
