/** Shares that people say as fractions. */
const FRACTIONS = [
  [1 / 10, 'a tenth'],
  [1 / 5, 'a fifth'],
  [1 / 4, 'a quarter'],
  [1 / 3, 'a third'],
  [2 / 5, 'two fifths'],
  [1 / 2, 'half'],
  [3 / 5, 'three fifths'],
  [2 / 3, 'two thirds'],
  [3 / 4, 'three quarters'],
  [4 / 5, 'four fifths'],
  [9 / 10, 'nine tenths'],
] as const;

/** A share of something as it is said: `about a third of`, `next to nothing of`, `nearly all of`. @param share from 0 to 1 */
export function shareInWords(share: number): string {
  if (share < 0.05) return 'next to nothing of';
  if (share > 0.95) return 'nearly all of';
  const [first, ...others] = FRACTIONS;
  const [, says] = others.reduce<(typeof FRACTIONS)[number]>(
    (best, each) => (Math.abs(each[0] - share) < Math.abs(best[0] - share) ? each : best),
    first,
  );
  return `about ${says} of`;
}
