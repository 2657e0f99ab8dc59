import type { Header } from '../ink/entry';

/** Letters that name lanes: for there may be twelve. */
export const LANE_LETTERS = 'ABCDEFGHIJKL';

type Lettered = Pick<Header, 'id' | 'lane'>;

/** The letter of each lane: its own for as long as it lives. One that has none, or shares it, has the first that is free. */
export function lettersOf(headers: readonly Lettered[]): Map<string, string> {
  const letters = new Map<string, string>();
  const taken = new Set<string>();
  const give = (id: string, letter: string) => {
    letters.set(id, letter);
    taken.add(letter);
  };
  for (const { id, lane } of headers) if (lane !== undefined && !taken.has(lane)) give(id, lane);
  for (const { id } of headers) if (!letters.has(id)) give(id, freeLetter(taken));
  return letters;
}

/** The first letter that no lane has; nothing where all are taken. */
export const freeLetter = (taken: ReadonlySet<string>): string => Array.from(LANE_LETTERS).find((letter) => !taken.has(letter)) ?? '';
