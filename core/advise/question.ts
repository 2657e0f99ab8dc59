import { least } from 'd3-array';
import type { Cable } from '../bench/cable';
import type { Charger } from '../bench/charger';
import type { Device } from '../bench/device';
import type { Worked } from '../compare/loads';
import { columnsAmong, columnsOf, usualGainUnit, type CarriedOn, type GainUnit, type MeasureColumn } from '../compare/measures';
import { namesOf } from '../compare/names';
import { judgedTogether, setupsOf, usualBaseline, type SetupRuns } from '../compare/setups';
import type { ReadRun } from '../curve/figures';
import type { RunInk } from '../ink/fold';
import type { Track } from '../ink/track';
import { marksOf } from '../method/cadence';
import type { Settling, TakenRun } from '../plan/settle';
import { lowerFirst } from '../quantity/letters';
import { listed } from '../quantity/listed';
import type { Claim, OwnClaim } from './claims';

/** What a reader of a verdict needs, where people differ in it. */
export interface Wishes {
  /** How long a short top-up is, in seconds. */
  window: number;
  /** How long a night is, in seconds. */
  night: number;
  /** What may be lost on a trip, as a share of the best time. */
  loss: number;
  /** How the owner of an old charger charges. */
  habit: 'overnight' | 'top-ups' | 'both';
}
/** What can be chosen of each. */
export const WISHES: { readonly [Key in keyof Wishes]: readonly Wishes[Key][] } = {
  window: [300, 600, 900, 1200, 1800, 2700, 3600],
  night: [5, 6, 7, 8, 9, 10].map((hours) => hours * 3600),
  loss: [0, 0.05, 0.1, 0.2, 0.3, 0.5],
  habit: ['overnight', 'top-ups', 'both'],
};
/** What is taken where nobody says (common practice, no source). */
export const USUAL_WISHES: Wishes = { window: 900, night: 8 * 3600, loss: 0.1, habit: 'both' };

/** How long a top-up is unless a person says otherwise: the mark nearest to the usual one that all runs of a study were read at, else that itself. */
export function usualWindow(all: readonly RunInk[]): number {
  const [first = [], ...others] = all.map(({ header: { cadence } }) => marksOf(cadence));
  const shared = first.filter((mark) => mark > 0 && others.every((marks) => marks.includes(mark)));
  return least(shared, (mark) => Math.abs(Math.log(mark / USUAL_WISHES.window))) ?? USUAL_WISHES.window;
}

/** The gear there is: prices, what is at home already, and what was not run yet. */
export interface AdviceGear {
  devices: readonly Device[];
  chargers: readonly Charger[];
  cables: readonly Cable[];
}

/** All that a verdict is made of. */
export interface Question {
  setups: readonly SetupRuns[];
  /** Levels of each run, by its id. */
  tracks: ReadonlyMap<string, Track>;
  /** Id of a run of the setup that others are set against. */
  baseline: string | undefined;
  /** What gains are told in. */
  unit: GainUnit;
  /** Between which levels energy samples are carried on; from empty to half where nobody says. */
  carriedOn?: CarriedOn | undefined;
  wishes: Wishes;
  shelf: AdviceGear;
  /** Work that was done under load, and spot checks. */
  worked: readonly Worked[];
  sittings: readonly RunInk[];
}

/** A run as a verdict takes it: with its figures, its work and its levels. */
export interface Judged extends ReadRun, Worked {
  percent: Track;
}

/** What is asked of runs: as chosen, and as is usual where nothing is. Spot checks are no charges. */
export function questionOf(
  all: readonly Judged[],
  shelf: AdviceGear,
  { baseline, unit, carriedOn, wishes }: Partial<Pick<Question, 'baseline' | 'unit' | 'carriedOn' | 'wishes'>> = {},
): Question {
  const charges = all.filter(({ run }) => run.header.list === undefined);
  const runs = charges.map(({ run }) => run);
  return {
    setups: setupsOf(charges),
    tracks: new Map(charges.map(({ run, percent }) => [run.header.id, percent])),
    baseline: baseline ?? usualBaseline(runs) ?? runs[0]?.header.id,
    unit: unit ?? usualGainUnit(charges),
    carriedOn,
    wishes: wishes ?? { ...USUAL_WISHES, window: usualWindow(runs) },
    shelf,
    worked: all,
    sittings: all.filter(({ run }) => run.trials.length > 0).map(({ run }) => run),
  };
}

/** A sentence of a verdict with its reason. */
export interface Finding {
  /** Names it for ever: what a reviewer’s own words stand in place of. */
  need: string;
  /** For whom or what it is: `To 80 %`. */
  title: string;
  says: string;
  why: string;
  /** What would settle what it leaves open: how, and the runs. */
  settle?: { says: string; runs: Settling[] } | undefined;
  /** All that it says, as data. */
  claims: readonly Claim[];
}

/** What a need comes to among setups that are judged against each other. */
export interface SaidAdvice {
  /** Who, or what: the same words for two devices where they agree. */
  who: string;
  /** Whether that is a sentence of its own. */
  isSentence?: true;
  /** None of those that have the figure can be told apart. */
  isAllAlike?: boolean;
  /** The figures behind it: `51 min, 38 ± 4 min sooner than Cobble 12`. */
  figures?: string | undefined;
  /** Of them, how the best stands to the baseline: `38 ± 4 min sooner than Cobble 12`. */
  lead?: string | undefined;
  /** What makes it less than it seems, as what follows `they` in a sentence: part of the reason too. */
  caveat?: string | undefined;
  why: string;
  settle?: Finding['settle'];
  /** All that it says, as data; the devices are filled in. */
  claims: readonly OwnClaim[];
}

/** Setups that are judged against each other: those of one device; or devices, each with its own charger. */
export interface Group {
  /** What is judged in it, in words. */
  of: string;
  /** `undefined` where devices are judged. */
  device: Device | undefined;
  setups: readonly SetupRuns[];
  names: readonly string[];
  /** Which of them the others are set against; −1 where it is not among them. */
  baseline: number;
  figures: ReadonlyMap<string, MeasureColumn>;
}

export const headerOf = ({ runs }: SetupRuns) => (runs[0] as ReadRun).run.header;

/** The figures of all setups of a question: those that its table shows. */
export const figuresAsked = ({ setups, unit, carriedOn }: Pick<Question, 'setups' | 'unit' | 'carriedOn'>): MeasureColumn[] =>
  columnsOf(setups, unit, carriedOn);

/**
 * Setups by device, without sequences; where every device was run with one charger alone, the devices are judged. Their figures are those of the table,
 * so that no sentence has another value or another margin, ranked among them alone.
 *
 * @param columns the figures of all setups, where they were worked out already
 */
export function groupsOf(
  question: Pick<Question, 'setups' | 'unit' | 'carriedOn' | 'baseline'>,
  columns: readonly MeasureColumn[] = figuresAsked(question),
): Group[] {
  const { setups, baseline } = question;
  const groups = judgedTogether(setups).map((places) => places.filter((place) => !setups[place]?.isSequence));
  return groups
    .filter(({ length }) => length > 0)
    .map((places): Group => {
      const own = places.flatMap((place) => setups[place] ?? []);
      const devices = [...new Map(own.map((setup) => [headerOf(setup).device.id, headerOf(setup).device])).values()];
      const device = devices.length === 1 ? devices[0] : undefined;
      return {
        of: device?.name ?? 'these devices',
        device,
        setups: own,
        names: namesOf(own.flatMap(({ runs }) => runs.slice(0, 1))),
        baseline: own.findIndex(({ runs }) => runs.some(({ run }) => run.header.id === baseline)),
        figures: new Map(columnsAmong(columns, setups, places).map((found) => [found.measure.id, found])),
      };
    });
}

/**
 * One finding over several groups: each says for which devices it holds.
 *
 * @param isOne whether it is the only device, so that it need not be named
 * @param say what the need comes to in one group; nothing where its figures say nothing of it
 */
export function over(
  groups: readonly Group[],
  isOne: boolean,
  need: string,
  title: string,
  say: (group: Group) => SaidAdvice | undefined,
): Finding[] {
  const said = groups.flatMap((group) => {
    const found = say(group);
    return found ? [{ group, ...found }] : [];
  });
  const [first] = said;
  if (!first) return [];
  const claims = said.flatMap(({ group, claims: own }) => own.map((claim) => ({ of: group.of, ...claim })));
  const settles = said.flatMap(({ group, settle }) => (settle ? [{ group, ...settle }] : []));
  const settleSays = byWords(settles, ({ says }) => says).map(({ words, of }) => (isOne ? words : `${of}: ${words}`));
  const settle = settles.length > 0 ? { says: settleSays.join(' '), runs: settles.flatMap(({ runs }) => runs) } : undefined;
  if (isOne) {
    const { who, figures, why } = first;
    return [{ need, title, says: figures ? `${who}: ${figures}` : who, why, settle, claims }];
  }
  const says = byWords(said, ({ who }) => who)
    .map(({ words, of }, index) => (first.isSentence ? `${of}: ${words}` : `${index > 0 ? midSentence(words) : words} for ${of}`))
    .join('; ');
  // A line for each, so that the eye finds its own; one for those of which the same is said.
  const why = byWords(said, ({ figures, why: its }) => [figures && `${figures}.`, its].filter(Boolean).join(' '))
    .map(({ words, of }) => `${of}: ${words}`)
    .join('\n');
  return [{ need, title, says, why, settle, claims }];
}

/** What is said of each group, each words once, with the groups of which they are said. */
function byWords<T extends { group: Group }>(said: readonly T[], wordsOf: (each: T) => string): { words: string; of: string }[] {
  const found = new Map<string, string[]>();
  for (const each of said) found.set(wordsOf(each), [...(found.get(wordsOf(each)) ?? []), each.group.of]);
  return [...found].map(([words, of]) => ({ words, of: listed(of) }));
}

/** An answer in words of its own within a sentence; a name stays as it is. */
export const midSentence = (who: string): string => who.replace(/^(Any of them|No difference)\b/, lowerFirst);

/** A figure of a group; `undefined` where nothing is asked for, or no setup has it. */
export const figureOf = (group: Group, id: string | undefined) => (id === undefined ? undefined : group.figures.get(id));

/** Some setups of a group once more, a run of each: taken as they were, but for what is said. */
export const onceMore = ({ setups }: Group, some: readonly number[], as?: TakenRun): Settling[] =>
  some.flatMap((index) => (setups[index] ? [again(setups[index], 1, as)] : []));

/** Runs of a setup once more: taken as it was, but for what is said. */
export function again(setup: SetupRuns, runs: number, as?: TakenRun): Settling {
  const { device, charger, feed, cable, conditions = [] } = headerOf(setup);
  return {
    device: device.id,
    charger: charger.id,
    feed: feed?.charger.id,
    cable: cable?.id,
    state: conditions.find(({ name }) => name === 'state')?.value,
    runs,
    ...(as && { as }),
  };
}
