/** What did not happen, where a reading was to be stored. */
export const NOT_LOGGED = 'Not logged.';

/** Storage refused, filled up or lied. The message is a sentence for the person; nothing was shown as logged. */
export class StorageTrouble extends Error {
  override name = 'StorageTrouble';

  /**
   * @param why  a sentence on what stood in the way, and the way out
   * @param what a sentence before it on what did not happen
   */
  constructor(
    private readonly why: string,
    what = '',
    options?: ErrorOptions,
  ) {
    super(`${what} ${why}`.trim(), options);
  }

  /** The same trouble where something else than a reading was to be stored: `The study was not kept.` */
  saying(what: string): string {
    return `${what} ${this.why}`;
  }
}

/** Puts what the browser said into a sentence with the way out. */
export function troubleFrom(cause: unknown): StorageTrouble {
  if (cause instanceof StorageTrouble) return cause;
  const name = cause instanceof Error || cause instanceof DOMException ? cause.name : '';
  const why =
    name === 'QuotaExceededError'
      ? 'This browser has no room left for it. Free some space, or save a file now.'
      : `This browser would not store it (${name || String(cause)}); a private window or blocked site data does that. Save a file now, then allow storage for this address.`;
  return new StorageTrouble(why, NOT_LOGGED, { cause });
}
