/** Storage refused, filled up or lied. The message is a sentence for the person; nothing was shown as logged. */
export class StorageTrouble extends Error {
  override name = 'StorageTrouble';
}

/** Puts what the browser said into a sentence with the way out. */
export function troubleFrom(cause: unknown): StorageTrouble {
  if (cause instanceof StorageTrouble) return cause;
  const name = cause instanceof Error || cause instanceof DOMException ? cause.name : '';
  const why =
    name === 'QuotaExceededError'
      ? 'This browser has no room left for it. Free some space, or save a file now.'
      : `This browser would not store it (${name || String(cause)}); a private window or blocked site data does that. Save a file now, then allow storage for this address.`;
  return new StorageTrouble(`Not logged. ${why}`, { cause });
}
