/** A file that cannot be imported. The message is one sentence or two: what, where, and the way out. Nothing has been stored. */
export class ImportError extends Error {
  override name = 'ImportError';
}

/** The longest that a sentence repeats of an id or a name, in characters: whoever reads it knows by then which it is. */
const REPEATED = 80;
export const short = (name: string): string => (name.length > REPEATED ? `${name.slice(0, REPEATED - 1)}…` : name);
