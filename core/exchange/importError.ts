/** A file that cannot be imported. The message is one sentence or two: what, where, and the way out. Nothing has been stored. */
export class ImportError extends Error {
  override name = 'ImportError';
}
