import { array, boolean, mixed, number, string, type TestContext, type ValidationError } from 'yup';
import { readDecimal } from '../quantity/decimal';
import { ID } from './id';

/** The longest name that is kept; more would not fit a lane. */
const LONGEST_NAME = 80;

export const idField = () =>
  string().required().matches(ID, { message: 'is no id: letters, digits, - and _, up to 40 of them', excludeEmptyString: true });

/** The id of other gear on the shelf, or none. */
export const linkField = () =>
  string()
    .transform((value: unknown) => (value === '' || value === null ? undefined : value))
    .matches(ID, { message: 'is no id: letters, digits, - and _, up to 40 of them', excludeEmptyString: true });

export const nameField = () =>
  string()
    .trim()
    .required('Give it a name, so that its runs can be told apart.')
    .max(LONGEST_NAME, `Keep the name within ${LONGEST_NAME} characters.`);

/** A figure that may be unknown, typed with a point or a comma. A field left empty is missing, not zero. */
export const figureField = () =>
  number()
    .transform((value: unknown, typed: unknown) => {
      if (typed === '' || typed === null) return undefined;
      return typeof typed === 'string' ? readDecimal(typed) : value;
    })
    .typeError('Write a number, such as 12 or 3.85.');

/** The least size that is one: less is a slip, and so little of anything cannot be reckoned with. */
const LEAST_SIZE = 1e-6;

/** A size above nothing, up to the most that is believable in its unit. */
export const sizeField = (max: number, unit: string) =>
  figureField()
    .typeError(`Write a number of ${unit}, such as ${Math.round(max / 10)}.`)
    .min(LEAST_SIZE, `Must be more than 0 ${unit}, or left empty if unknown.`)
    .max(max, `Over ${max} ${unit} is more than is kept here: check the unit.`);

export const priceField = () =>
  figureField()
    .typeError('Write the price as a number, without the currency.')
    .min(0, 'A price cannot be below zero.')
    .max(1e9, 'Over a thousand million is no price: check it.');

/** Taken out of use: no longer offered, never deleted, for runs may have used it. */
export const retiredField = () => boolean();

/** Whether the reviewer has it already: then it costs nothing. */
export const ownedField = () => boolean();

/** A short text that may be missing. */
export const textField = (max: number) => string().trim().max(max, `Keep it within ${max} characters.`);

/** An error of a whole piece of gear, said at one of its fields. */
export function errorAt(context: TestContext, field: string, message: string): ValidationError {
  return context.createError({ path: context.path ? `${context.path}.${field}` : field, message });
}

/** A choice from a list that may be unknown. A field that was cleared is missing. */
export const choiceField = <Choice extends string>(choices: readonly Choice[], message: string) =>
  mixed<Choice>()
    .transform((value: unknown) => (value === null ? undefined : value))
    .oneOf(choices, message)
    .optional();

/** How many things a list holds at most: more are never typed. */
export const MOST_LISTED = 400;

/** Choices from a list, or names of one's own. None at all is unknown. */
export const choicesField = <Choice extends string>(choices: readonly Choice[], message: string) =>
  array().of(mixed<Choice>().oneOf(choices, message).required()).max(MOST_LISTED).transform(unlessEmpty).default(undefined).optional();

export const namesField = () =>
  array()
    .of(string().trim().required('Write a name.').max(40, 'Keep each name within 40 characters.'))
    .max(MOST_LISTED)
    .transform(unlessEmpty)
    .default(undefined)
    .optional();

function unlessEmpty(value: unknown): unknown {
  return value === null || (Array.isArray(value) && value.length === 0) ? undefined : value;
}
