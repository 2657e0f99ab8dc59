import { group } from 'd3-array';
import { between, differenceText, meansIn } from '../advise/best';
import type { Group } from '../advise/question';
import { workingOf, type Cell, type Measure } from '../compare/cells';
import { setupKey, type SetupRuns } from '../compare/setups';
import { hashId } from '../quantity/hashId';
import { lowerFirst } from '../quantity/letters';
import type { Paragraph, WordPart } from './paragraph';

/** A figure as running text refers to it: it follows the ink that it is made of. */
export interface KnownFigure {
  /** `<setup>/<figure>`, or `<setup>-<other>/<figure>` of what two differ by. */
  ref: string;
  /** As it is told, without its margin: `54 min`; of a difference with it: `38 ± 4 min`. */
  text: string;
  /** What it lies between, or its one margin; nothing where `text` has it. */
  margin: string;
  /** What it is, in words: `time to 80 % of Quern 30`. */
  of: string;
  /** Names of the setups that it is of. */
  names: readonly string[];
  /** The device whose setups are judged, where there are several. */
  group: string | undefined;
  /** How it came about, in sentences: worked out when it is asked for. */
  working: () => string[];
  /** The runs behind it. */
  runs: readonly string[];
}

/** Names a setup for ever: made of all that it consists of. */
export const setupId = ({ runs: [first], key }: SetupRuns): string => hashId(first ? setupKey(first.run) : key);

/** What a cell lies between, without what else is said of it. */
export const marginOf = ({ range }: Pick<Cell, 'range'>): string => range.split(' · ')[0] ?? '';

const figureName = ({ title }: Pick<Measure, 'title'>): string => lowerFirst(title);

/** Of more setups than this, differences are told against the baseline, the best and the worst alone. */
const FEW = 10;

/**
 * Every figure of a group that a sentence can be about: of each setup, and what two of them differ by.
 *
 * @param of the device that it is of, where there are several
 */
export function figuresIn({ setups, names, figures, baseline }: Group, of: string | undefined): KnownFigure[] {
  const ids = setups.map(setupId);
  return [...figures.values()].flatMap(({ measure, cells }) => {
    const own = cells.flatMap((cell, index): KnownFigure[] => {
      const [id, name] = [ids[index], names[index]];
      if (id === undefined || name === undefined || cell.value === undefined) return [];
      return [
        {
          ref: `${id}/${measure.id}`,
          text: cell.value,
          margin: marginOf(cell),
          of: `${figureName(measure)} of ${name}`,
          names: [name],
          group: of,
          working: () => workingOf(cells, index, names, measure),
          runs: cell.each.map((each) => each.id),
        },
      ];
    });
    if (!measure.better) return own;
    const known = meansIn(cells);
    const ranked = [...known].sort((one, other) => (cells[one]?.rank?.place ?? 0) - (cells[other]?.rank?.place ?? 0));
    const told = known.length > FEW ? new Set([baseline, ranked[0], ranked.at(-1)]) : undefined;
    const differences = known.flatMap((one) =>
      known.flatMap((other): KnownFigure[] => {
        if (one === other || (told && !told.has(one) && !told.has(other))) return [];
        const differ = between(cells, one, other);
        const [first, second] = [names[one] ?? '', names[other] ?? ''];
        if (!differ) return [];
        return [
          {
            ref: `${ids[one] ?? ''}-${ids[other] ?? ''}/${measure.id}`,
            text: differenceText(differ, measure),
            margin: '',
            of: `what ${first} and ${second} differ by in ${figureName(measure)}`,
            names: [first, second],
            group: of,
            working: () => workingOf(cells, one, names, measure),
            runs: [...(cells[one]?.each ?? []), ...(cells[other]?.each ?? [])].map((each) => each.id),
          },
        ];
      }),
    );
    return [...own, ...differences];
  });
}

const isWord = (letter: string | undefined): boolean => letter !== undefined && /[\p{L}\p{N}]/u.test(letter);
/** What stands before a level or a time at which something was read, rather than a figure. */
const MARK_BEFORE = /\b(in|every|after|to|at|from|until)\s$/i;

/** Where a name stands in a sentence, as a whole: Quern 3 is not in Quern 30. */
export function placesOf(sentence: string, name: string): number[] {
  const found: number[] = [];
  for (let at = sentence.indexOf(name); at >= 0 && name !== ''; at = sentence.indexOf(name, at + 1))
    if (!isWord(sentence[at - 1]) && !isWord(sentence[at + name.length])) found.push(at);
  return found;
}

/** How far a name stands from a place in a sentence, names before it first; `undefined` where it is not in it. */
function distance(sentence: string, name: string, at: number): number | undefined {
  const places = placesOf(sentence, name);
  const before = places.findLast((place) => place < at);
  if (before !== undefined) return at - before;
  const [after] = places;
  return after === undefined ? undefined : sentence.length + after - at;
}

/** Figures by how they begin, once for all sentences. */
const begun = new WeakMap<readonly KnownFigure[], Map<string, KnownFigure[]>>();
const BEGIN = 2;
function beginning(known: readonly KnownFigure[], letters: string): readonly KnownFigure[] {
  const by =
    begun.get(known) ??
    group(
      known.filter(({ text }) => /\d/.test(text)),
      ({ text }) => text.slice(0, BEGIN),
    );
  begun.set(known, by);
  return by.get(letters) ?? [];
}

/** The figure that stands at a place of a sentence: the longest, and of those that are told alike the one whose setup is named nearest. */
function figureAt(sentence: string, at: number, known: readonly KnownFigure[]): KnownFigure | undefined {
  if (isWord(sentence[at - 1]) || sentence[at - 1] === '.' || MARK_BEFORE.test(sentence.slice(0, at))) return undefined;
  let best: { figure: KnownFigure; far: number } | undefined;
  for (const figure of beginning(known, sentence.slice(at, at + BEGIN))) {
    const { text } = figure;
    if (!sentence.startsWith(text, at) || isWord(sentence[at + text.length])) continue;
    if (figure.group !== undefined && !sentence.includes(figure.group)) continue;
    const far = figure.names.map((name) => distance(sentence, name, at));
    if (far.some((each) => each === undefined)) continue;
    const sum = far.reduce<number>((total, each) => total + (each ?? 0), 0) / far.length;
    const isBetter = !best || text.length > best.figure.text.length || (text.length === best.figure.text.length && sum < best.far);
    if (isBetter) best = { figure, far: sum };
  }
  return best?.figure;
}

/** A sentence with the figures in it as references: found by what they say, among the setups that it names. */
export function linked(sentence: string, known: readonly KnownFigure[]): WordPart[] {
  const parts: WordPart[] = [];
  let from = 0;
  for (let at = 0; at < sentence.length; at += 1) {
    const figure = /[\d−+<]/.test(sentence[at] ?? '') ? figureAt(sentence, at, known) : undefined;
    if (!figure) continue;
    if (at > from) parts.push({ text: sentence.slice(from, at) });
    parts.push({ text: figure.text, ref: figure.ref });
    from = at + figure.text.length;
    at = from - 1;
  }
  if (from < sentence.length) parts.push({ text: sentence.slice(from) });
  return parts;
}

/** What became of a figure that words were written around. */
export type FigureState = { is: 'as written' } | { is: 'changed'; now: string } | { is: 'gone' };

/** @param known figures by their references */
export function stateOf({ ref, text, kept }: WordPart, known: ReadonlyMap<string, KnownFigure>): FigureState {
  if (ref === undefined) return { is: 'as written' };
  const now = known.get(ref)?.text;
  if (now === undefined) return { is: 'gone' };
  return now === text || now === kept ? { is: 'as written' } : { is: 'changed', now };
}

/** Whether words have a figure in them that is another by now. */
export const hasChanged = (words: readonly Paragraph[], known: ReadonlyMap<string, KnownFigure>): boolean =>
  words.some(({ parts }) => parts.some((part) => stateOf(part, known).is !== 'as written'));
