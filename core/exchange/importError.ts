import { clipped, MOST_QUOTED } from '../quantity/letters';

/** A file that cannot be imported. The message is one sentence or two: what, where, and the way out. Nothing has been stored. */
export class ImportError extends Error {
  override name = 'ImportError';
}

/** An id, or the name of a file, as a sentence repeats it. */
export const short = (name: string): string => clipped(name, MOST_QUOTED);
