import type { Row } from '../compare/compare';
import { namesOf } from '../compare/names';
import { goalSays } from '../compare/words';
import { GAIN_TIMES, LEVELS } from '../curve/quoted';
import { nominal } from '../quantity/duration';
import { listed } from '../quantity/listed';

/** What a comparison comes to, in words: who was first, whether they can be told apart, and where an early lead did not last. */
export function verdict(rows: readonly Row[], level: number): string[] {
  const [only] = rows;
  if (rows.length < 2)
    return only && only.runs.length > 1 ? [`${only.runs.length} runs of one setup: their mean is given, for they repeat each other.`] : [];
  const names = namesOf(rows);
  const named = (chosen: (row: Row) => boolean) => names.filter((_, index) => rows[index] && chosen(rows[index]));
  const goal = rows[0]?.goal ?? level;
  const at = LEVELS.findIndex((each) => each === goal);
  const placeOf = ({ milestones, passages }: Row) => (typeof goal === 'number' ? milestones[at] : passages[goal])?.rank?.place;
  const first = named((row) => placeOf(row) === 1);
  const sentences: string[] = [];
  if (first.length === 0)
    sentences.push(typeof goal === 'number' ? `None of them reached ${goal} %.` : `None of them was seen done ${goalSays(goal)}.`);
  else if (first.length === 1) sentences.push(`${first[0] ?? ''} is first ${goalSays(goal)}.`);
  else sentences.push(`${listed(first)} tie ${goalSays(goal)}: these readings cannot tell them apart.`);

  const half = GAIN_TIMES.indexOf(1800);
  const early = named(({ gains }) => gains[half]?.rank?.place === 1 && !gains[half].rank.shared);
  if (early.length === 1 && first.length > 0 && !first.includes(early[0] ?? '')) {
    sentences.push(`${early[0] ?? ''} gained most in ${nominal(1800)}, and was still not first ${goalSays(goal)}.`);
  }
  return sentences;
}
