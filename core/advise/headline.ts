import { PASSAGES } from '../curve/timeWords';
import { aboutOf, type About, type MeasureColumn } from '../compare/measures';
import { figureSays, usualYardstick } from '../compare/yardstick';
import { upperFirst } from '../quantity/letters';
import { listed } from '../quantity/listed';
import { basisOf, bestBy, isOfWindows, mainBy, marksIn, meansIn, takesAtMost } from './best';
import type { Claim } from './claims';
import { fullWindow } from './leads';
import { oneForAll, oneForAllSays } from './oneForAll';
import { figureOf, figuresAsked, groupsOf, midSentence, type Finding, type Group, type Question, type SaidAdvice } from './question';
import { charges, underLoad } from './tried';
import { overnight, worth } from './worth';

/** The answer, before all that it is made of. */
export interface Headline {
  /** Who should buy what: at most three sentences of one device; of several one each, and one for all. */
  says: string[];
  /** How sure that is, and what it goes by. */
  sure: string;
  claims: readonly Claim[];
}

/** Setups that are named in one sentence, at most. */
const MOST_NAMED = 12;
/** Devices that have a sentence each, at most. */
const MOST_DEVICES = 8;

/** What a comparison goes by: a level in %, or the id of a figure; and what the methods of its runs are about, unless it was chosen. */
export interface By {
  yardstick: string;
  about?: About | undefined;
}

/** What a study goes by where nobody chose: by what the methods of its runs are about. */
export function usualBy({ setups }: Pick<Question, 'setups'>, columns: readonly MeasureColumn[]): By {
  const about = aboutOf(setups.flatMap(({ runs }) => runs));
  return { yardstick: usualYardstick(columns, about), about };
}

/**
 * The answer of a comparison or a study: made of the same figures and the same findings as the whole verdict, so that it says nothing that they deny.
 *
 * @param givenBy     what it goes by; where nobody chose, what is usual
 * @param givenGroups the groups of the question, where they were made already
 * @returns `undefined` where there is nothing to say
 */
export function headlineOf(question: Question, givenBy?: By, givenGroups?: readonly Group[]): Headline | undefined {
  // Worked out once for both.
  const columns = givenBy && givenGroups ? [] : figuresAsked(question);
  const by = givenBy ?? usualBy(question, columns);
  const all = givenGroups ?? groupsOf(question, columns);
  const answers = by.about === 'work' ? underLoad(question.worked) : [];
  if (answers.length > 0) return fromAnswers(answers, SURE_UNDER_LOAD);
  const groups = all.filter(({ setups }) => setups.length > 1);
  const told = groups.flatMap((group) => {
    const found = answerOf(group, by, question.wishes.window);
    return found ? [found] : [];
  });
  const [only] = told;
  const [repeated] = all.flatMap(({ setups, names }) =>
    setups.flatMap(({ runs }, at) => (runs.length > 1 ? [{ name: names[at] ?? '', runs }] : [])),
  );
  if (!only && groups.length === 0 && repeated)
    return {
      says: [`${repeated.name}: ${repeated.runs.length} runs of one setup.`],
      sure: 'Their mean is given, for they repeat each other.',
      claims: [],
    };
  // A run that held several sources or workloads, whatever its method is about, has its answers too.
  const worked = only ? [] : underLoad(question.worked);
  if (worked.length > 0) return fromAnswers(worked, SURE_UNDER_LOAD);
  if (!only) return fromAnswers(charges(question.sittings), 'By a minute each, as it was seen.');
  const runs = groups.reduce((sum, { setups }) => sum + setups.reduce((count, each) => count + each.runs.length, 0), 0);
  const caveats = told.flatMap(({ best, group }) =>
    best.caveat === undefined ? [] : `${all.length > 1 ? `Those of ${group.of}` : 'They'} ${best.caveat}`,
  );
  const sure = [
    howSure(told.map(({ best }) => best)),
    `By ${listed([...new Set(told.map(({ basis }) => basis))])}, of ${runs} runs.`,
    ...caveats,
  ].join(' ');
  if (all.length === 1) {
    const others = [worthSays(only.group, question), nightSays(only.group, question), mostSays(only.group)].filter(
      (each) => each !== undefined,
    );
    return {
      says: [only.says, ...others.map(({ text }) => text)].slice(0, 3),
      sure,
      claims: [...claimsIn(only.group, only.best), ...others.slice(0, 2).flatMap(({ claims }) => claims)],
    };
  }
  const one = oneForAll(all);
  const shared = oneForAllSays(one).filter(({ claims }) => claims.length > 0);
  // What it goes by is said of it where the others go by something else.
  const ofAll = one && told.every(({ basis }) => basis !== one.by) ? `, by ${one.by}` : '';
  const rest = told.length - MOST_DEVICES;
  return {
    says: [
      ...told.slice(0, MOST_DEVICES).map(({ group, says }) => `${group.of}: ${says}`),
      ...(rest > 0 ? [`${rest} more devices have their sentence in the verdict.`] : []),
      ...shared.map(({ says }) => `One for all: ${says}${ofAll}.`),
    ],
    sure,
    claims: [...told.flatMap(({ group, best }) => claimsIn(group, best)), ...shared.flatMap(({ claims }) => claims)],
  };
}

const SURE_UNDER_LOAD = 'By scores, which tie within 3 %, and by what the battery did.';

const fromAnswers = (answers: readonly Finding[], sure: string): Headline | undefined =>
  answers.length === 0
    ? undefined
    : {
        says: answers.map(({ title, says }) => `${title}? ${says}.`),
        sure,
        claims: answers.flatMap(({ claims }) => claims),
      };

const claimsIn = ({ of }: Group, { claims }: Pick<SaidAdvice, 'claims'>): Claim[] => claims.map((claim) => ({ of, ...claim }));

/** What differences are told by; what is not told apart is no answer of theirs. */
function howSure(all: readonly SaidAdvice[]): string {
  const isDistinguishable = all.some(({ claims }) => claims.some(({ says }) => says === 'better'));
  return isDistinguishable ? 'Sure to at least 19 in 20, by what was read and how far runs vary.' : 'Nothing is told apart here.';
}

/** What is best by a figure, in a word. */
const BEST: Readonly<Record<string, string>> = { Times: 'Fastest', Gains: 'Most', Heat: 'Coolest' };

interface Answer {
  group: Group;
  best: SaidAdvice;
  /** The figure that it goes by: `the time to 80 %`. */
  basis: string;
  says: string;
}

/** The figure that a yardstick goes by in a group, where two of its setups have it. */
function figureBy(group: Group, yardstick: string): string | undefined {
  const times = [`level-${yardstick}`, ...(yardstick === '100' ? ['light out', 'power gone'] : [])];
  const ids = figureSays(yardstick) === undefined ? times : [yardstick];
  return ids.find((id) => meansIn(figureOf(group, id)?.cells ?? []).length > 1);
}

/** Of windows what was gained by the last mark that two setups were read at: its figure’s id. */
function lastGain(group: Group): string | undefined {
  if (!isOfWindows(group)) return undefined;
  return marksIn(group)
    .map((seconds) => `gain-${seconds}`)
    .findLast((id) => meansIn(figureOf(group, id)?.cells ?? []).length > 1);
}

/** In which words a figure stands behind its value: `57 min to 80 %`, `42 points in 15 min`. */
function wordsOf(id: string): string {
  const passed = Object.keys(PASSAGES).find((what) => what === id);
  if (passed !== undefined) return 'to full';
  if (id.startsWith('level-')) return id === 'level-100' ? 'to full' : `to ${id.slice(6)} %`;
  return figureSays(id) ?? '';
}

/** The answer of one group: by the yardstick or, where its setups do not have it, by the figure that they are judged by. */
function answerOf(group: Group, { yardstick, about }: By, window: number): Answer | undefined {
  const asked = figureBy(group, yardstick);
  const id = asked ?? lastGain(group) ?? mainBy(group, window);
  // What was asked for by hand and is not there is said.
  const none = asked === undefined && about === undefined ? `Too few were seen ${figureSays(yardstick) ?? `at ${yardstick} %`}. ` : '';
  const [found, best] = [figureOf(group, id), id === undefined ? undefined : bestBy(group, id)];
  if (!found || !best || id === undefined) return undefined;
  const hidden = found.measure.group === 'Gains' ? fullWindow(group) : undefined;
  const says = hidden ? [`${hidden.who}.`, ...hidden.tells].join(' ') : bestSays(group, found, best);
  return { group, best: hidden ?? best, basis: basisOf(found.measure), says: none + says };
}

/** Who is best by a figure, in one sentence. */
function bestSays(group: Group, { measure, cells }: MeasureColumn, best: SaidAdvice): string {
  const [to, first] = [wordsOf(measure.id), BEST[measure.group] ?? 'Best'];
  if (best.figures !== undefined) {
    const value = cells.find(({ isBest }) => isBest)?.value ?? '';
    return `${[`${first}: ${best.who}`, `${value} ${to}`.trim(), best.lead].filter(Boolean).join(', ')}.`;
  }
  if (!best.isAllAlike) return `${first} ${to}: ${best.who}; these readings cannot tell them apart.`;
  const alike = meansIn(cells).map((index) => group.names[index] ?? '');
  return `${upperFirst(to)} these readings show no difference between ${alike.length > MOST_NAMED ? `any of the ${alike.length} setups` : listed(alike)}.`;
}

interface More {
  text: string;
  claims: Claim[];
}

/** Which to buy, where prices are known. */
function worthSays(group: Group, { shelf }: Question): More | undefined {
  const said = worth(group, shelf);
  return said && { text: `For the money: ${said.who}, ${said.figures ?? ''}.`, claims: claimsIn(group, said) };
}

/** Which will do for nights, where not all take the same time. */
function nightSays(group: Group, { wishes }: Question): More | undefined {
  const said = overnight(group, wishes);
  return said && { text: `For nights: ${midSentence(said.who)}.`, claims: claimsIn(group, said) };
}

/** What a camera takes at most: from there on another charger changes nothing. */
function mostSays(group: Group): More | undefined {
  const most = group.device?.kind === 'camera' ? takesAtMost(group) : undefined;
  return most && { text: `${group.of} takes ${most.value} at most.`, claims: claimsIn(group, { claims: [most.claim] }) };
}
