import { sourceSays } from '../ink/entrySays';
import type { Row } from '../compare/compare';
import { goalSays } from '../compare/words';
import { GAIN_TIMES, LEVELS } from '../curve/quoted';
import { cadenceInWords } from '../method/cadence';
import { nominal } from '../quantity/duration';
import { listed } from '../quantity/listed';

/** How a run is called beside others: by its charger where the device is the same, else by both. */
export function namesOf(rows: readonly Row[]): string[] {
  const oneDevice = new Set(rows.map(({ run }) => run.header.device.name)).size === 1;
  const names = rows.map(({ run: { header } }) => (oneDevice ? sourceSays(header) : `${header.device.name} on ${sourceSays(header)}`));
  const count = new Map<string, number>();
  return names.map((name) => {
    if (names.filter((other) => other === name).length === 1) return name;
    count.set(name, (count.get(name) ?? 0) + 1);
    return `${name} (${count.get(name) ?? 1})`;
  });
}

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

/** Conditions that make a comparison unfair, said aloud. */
export function unfairness(rows: readonly Row[]): string[] {
  const said: string[] = [];
  const starts = rows.map(({ startLevel }) => startLevel);
  const known = starts.filter((level) => level !== undefined);
  if (known.length > 1 && Math.max(...known) - Math.min(...known) > 1) {
    said.push(
      `They did not start alike: from ${listed([...new Set(known)].sort((one, other) => one - other).map((level) => `${level} %`))}. Times to a level favour the higher start.`,
    );
  }
  if (known.length < starts.length && typeof rows[0]?.goal === 'number')
    said.push('The level at plug-in is not known for every run, so not every gain is.');
  if (new Set(rows.map(({ run }) => run.header.device.id)).size > 1) {
    said.push('The devices differ: a percent is not the same charge in each. Compare the gains in Wh.');
  }
  const cadences = new Set(rows.map(({ run: { header } }) => header.cadence && cadenceInWords(header.cadence)));
  if (cadences.size > 1) said.push('They were not read at the same times: the coarser one has the wider margin.');
  return said;
}
