/** What did not happen, where a reading was to be stored. */
export const NOT_LOGGED = 'Not logged.';

/** What stood in the way of storing. */
type Kind = 'full' | 'blocked' | 'newer' | 'other';

/** Storage refused, filled up or lied. The message is a sentence for the person; nothing was shown as logged. */
export class StorageTrouble extends Error {
  override name = 'StorageTrouble';
  readonly kind: Kind;

  /**
   * @param why  a sentence on what stood in the way, and the way out
   * @param what a sentence before it on what did not happen
   */
  constructor(
    private readonly why: string,
    what = '',
    { kind = 'other', ...options }: ErrorOptions & { kind?: Kind } = {},
  ) {
    super(`${what} ${why}`.trim(), options);
    this.kind = kind;
  }

  /** The same trouble where something else than a reading was to be stored: `The study was not saved.` */
  saying(what: string): string {
    return `${what} ${this.why}`;
  }
}

/** Puts what the browser said into a sentence with the way out. */
export function troubleFrom(cause: unknown): StorageTrouble {
  if (cause instanceof StorageTrouble) return cause;
  const name = cause instanceof Error || cause instanceof DOMException ? cause.name : '';
  switch (name) {
    // The other two are what browsers say of a disk that fills up while they write.
    case 'QuotaExceededError':
    case 'AbortError':
    case 'UnknownError':
      return new StorageTrouble(
        'This browser has no room left for it. The disk is full, or the part of it that it may take: free some space, or save a file now.',
        NOT_LOGGED,
        { cause, kind: 'full' },
      );
    case 'VersionError':
      return new StorageTrouble('It was stored by a newer Inkpath Log. Open that one, or reload to fetch it.', NOT_LOGGED, {
        cause,
        kind: 'newer',
      });
    default:
      return new StorageTrouble(
        `This browser would not store it (${name || String(cause)}); a private window or blocked site data does that. Save a file now, then allow storage for this address.`,
        NOT_LOGGED,
        { cause, kind: name === 'SecurityError' || name === 'InvalidStateError' ? 'blocked' : 'other' },
      );
  }
}

/** Why something failed, in a sentence: of trouble with storage without what was to be stored. */
export function whyOf(error: unknown): string {
  if (error instanceof StorageTrouble) return error.saying('').trim();
  return error instanceof Error ? error.message : String(error);
}
