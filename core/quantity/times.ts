/** A number that counts from a zero of its own. A plain number passes for any of them; one of them never passes for another. */
type From<Zero extends string> = number & { readonly from?: Zero };

/** Epoch milliseconds, as the wall clock shows them: somebody may set it while a run goes on. */
export type WallTime = From<'1970, by the wall clock'>;
/** Epoch milliseconds, as if the clock had not been changed since plug-in: what stands in ink. */
export type Moment = From<'1970, by the clock of the run'>;
/** Seconds from plug-in. */
export type Elapsed = From<'plug-in'>;
/** Seconds of a clip. */
export type ClipTime = From<'the beginning of the clip'>;
