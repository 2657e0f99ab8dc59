import { readDecimal } from '../quantity/decimal';
import { ValidationError } from 'yup';
import { cadenceSchema, type Cadence } from './cadenceSchema';

/** A cadence as a person types it: times in minutes, but for a meter’s samples in seconds, as text. Which fields count hangs on the kind. */
export interface CadenceText {
  kind: Cadence['kind'];
  every: string;
  at: string;
  level: string;
  then: string;
}

const minutes = (seconds: number | undefined) => (seconds === undefined ? '' : String(Number((seconds / 60).toFixed(3))));

/** A cadence as a person would have typed it. */
export function writeCadence(cadence: Cadence): CadenceText {
  const text: CadenceText = { kind: cadence.kind, every: '', at: '', level: '', then: '' };
  switch (cadence.kind) {
    case 'fixed':
      return { ...text, every: minutes(cadence.every) };
    case 'coarse then fine':
      return { ...text, every: minutes(cadence.every), level: String(cadence.level), then: minutes(cadence.then) };
    case 'marks':
      return { ...text, at: cadence.at.map(minutes).join(', '), then: minutes(cadence.then) };
    case 'spot':
      return { ...text, every: minutes(cadence.settle) };
    case 'sampled':
      return { ...text, every: String(cadence.every) };
  }
}

/** A number as typed, with a decimal comma or point; `undefined` for none, NaN for what is none. */
const number = (typed: string) => (typed.trim() === '' ? undefined : readDecimal(typed));
const seconds = (typed: string) => {
  const given = number(typed);
  return given === undefined ? undefined : Math.round(given * 60_000) / 1000;
};

/**
 * Reads a cadence as typed. Marks are split by spaces, commas or semicolons.
 *
 * @param of the run whose check times these are
 * @returns the cadence, or a sentence that says what is wrong with it
 */
export function readCadence({ kind, every, at, level, then }: CadenceText, of?: string): { cadence: Cadence } | { error: string } {
  const shapes: Record<Cadence['kind'], object> = {
    fixed: { every: seconds(every) },
    'coarse then fine': { every: seconds(every), level: number(level), then: seconds(then) },
    marks: {
      at: at
        .split(/[\s,;]+/)
        .filter(Boolean)
        .map(seconds),
      ...(then.trim() && { then: seconds(then) }),
      ...(of && { of }),
    },
    spot: { settle: seconds(every) },
    sampled: { every: number(every) },
  };
  try {
    return { cadence: cadenceSchema.validateSync({ kind, ...shapes[kind] }) as Cadence };
  } catch (error) {
    if (error instanceof ValidationError) return { error: error.message };
    throw error;
  }
}
