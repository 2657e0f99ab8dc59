/**
 * How a run can end: the key under which it is stored, and the word for it, the same everywhere. Where the word
 * alone would not tell two of them apart, `reason` is said with it always, and `asks` where one is chosen.
 */
export const RUN_ENDINGS = [
  { id: 'full', word: 'full' },
  { id: 'light out', word: 'light out' },
  { id: 'power died away', word: 'power gone' },
  { id: 'window over', word: 'window over' },
  { id: 'will not finish', word: 'stopped early', reason: 'it will not finish' },
  { id: 'other', word: 'stopped early', asks: 'for another reason' },
  { id: 'something went wrong', word: 'went wrong' },
] as const satisfies readonly { id: string; word: string; reason?: string; asks?: string }[];

export type EndingId = (typeof RUN_ENDINGS)[number]['id'];
export const RUN_ENDING_IDS: readonly EndingId[] = RUN_ENDINGS.map(({ id }) => id);

/** The remark on the stop of a run that was read from a meter's log, which does not say how it ended. */
export const END_OF_LOG = 'end of the file';

/** The remark on the end of a run whose own was trimmed off. */
export const TRIMMED = 'trimmed there';

interface Ended {
  /** Its key; in lists made earlier it stands where its word stands now. */
  because: string;
  remark?: string | undefined;
}

/** How a run ended, in a word or two. */
export function endingWord({ because, remark }: Ended): string {
  if (remark === END_OF_LOG) return 'log ended';
  if (remark === TRIMMED) return 'cut off';
  return RUN_ENDINGS.find(({ id }) => id === because)?.word ?? because;
}

/** How a run ended, with its reason. */
export function endingSays({ because, remark }: Ended): string {
  const word = endingWord({ because, remark });
  const known = RUN_ENDINGS.find(({ id }) => id === because);
  const reason = [known && 'reason' in known && known.reason, remark !== END_OF_LOG && remark !== TRIMMED && remark]
    .filter(Boolean)
    .join(', ');
  return reason ? `${word}: ${reason}` : word;
}
