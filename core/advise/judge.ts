import { unlikeIn } from '../compare/unlike';
import { stalls } from '../curve/stall';
import { ruleOf } from '../curve/stretches';
import { EMPTY_TRACK } from '../ink/track';
import { nominal } from '../quantity/duration';
import { fixed } from '../quantity/figures';
import { listed } from '../quantity/listed';
import { bestBy, coolest, takesAtMost, topUp } from './best';
import { balance } from './balance';
import { ceiling, untested } from './ceiling';
import { fullWindow, leads, surprises } from './leads';
import { oneForAll, oneForAllSays } from './oneForAll';
import { groupsOf, headerOf, onceMore, over, type Finding, type Group, type Question, type SaidAdvice } from './question';
import { charges, underLoad } from './tried';
import { keepOrNot, overnight, toTravel, worth } from './worth';
import type { TakenRun } from '../plan/settle';

/**
 * Who should buy what, how sure it is, and what would settle the rest: a sentence for each need with its reason, made of figures with margins alone.
 *
 * @param all the groups of the question, where they were made already: each is every figure of its setups
 * @returns what can be said, in the order in which it is read; nothing where there is nothing to judge
 * @see docs/numbers.md, *Verdicts*.
 */
export function judge(question: Question, all: readonly Group[] = groupsOf(question)): Finding[] {
  const { wishes, shelf } = question;
  const groups = all.filter(({ setups }) => setups.length > 1);
  const say = (need: string, title: string, by: Parameters<typeof over>[4]) => over(groups, all.length === 1, need, title, by);
  const window = nominal(wishes.window);
  return [
    ...say('top-up', `In ${window}`, (group) => topUp(group, wishes.window)),
    ...say('to-80', 'To 80 %', (group) => bestBy(group, 'level-80')),
    ...say('to-full', 'To full', toFull),
    ...say('by-sample', 'By energy sample', (group) => bestBy(group, group.device ? 'sampled' : 'projected')),
    ...say('overnight', 'Overnight', (group) => overnight(group, wishes)),
    ...say('coolest', 'Coolest', coolest),
    ...say('balance', 'Best balance', (group) => balance(group, wishes.window)),
    ...say('worth', 'Worth', (group) => worth(group, shelf)),
    ...say('travel', 'On a trip', (group) => toTravel(group, wishes, shelf)),
    ...oneForAllSays(oneForAll(all)),
    ...say('keep', 'Keep or throw away', (group) => keepOrNot(group, wishes, shelf)),
    ...say('ceiling', 'From what wattage on', (group) => ceiling(group, wishes.window, fullWindow(group) !== undefined)),
    ...underLoad(question.worked),
    ...charges(question.sittings),
    ...say('lead', 'A lead that turns', (group) => leads(group, question)),
    ...say('window', 'A full window', fullWindow),
    ...say('order', 'A surprising order', (group) => surprises(group, wishes.window, (pair) => unlikeOf(group, pair))),
    ...say('fair', 'Not told yet', unfair),
    ...say('open', 'Not seen', (group) => unseen(group, question.tracks)),
    ...say('untested', 'Not run yet', (group) => untested(group, shelf)),
  ];
}

/** Needs in the order of how much their answers weigh: what nobody should overlook, then what most readers ask. */
const BY_WEIGHT = [
  'order',
  'window',
  'dock',
  'fills',
  'charges',
  'worth',
  'to-80',
  'to-full',
  'top-up',
  'by-sample',
  'one-for-all',
  'lead',
];
/** So many reasons are open at first. */
const OPEN = 3;

/** Needs of the findings that weigh most. */
export function weightiest(findings: readonly Finding[]): string[] {
  return BY_WEIGHT.filter((need) => findings.some((each) => each.need === need)).slice(0, OPEN);
}

/** Who is full first, by whatever shows it; of a camera what it takes at most, for no charger gives it more. */
function toFull(group: Group): SaidAdvice | undefined {
  const said = bestBy(group, 'level-100') ?? bestBy(group, 'light out') ?? bestBy(group, 'power gone');
  const most = group.device?.kind === 'camera' ? takesAtMost(group) : undefined;
  return said && most
    ? { ...said, why: `${said.why} ${group.of} takes ${most.value} at most.`.trim(), claims: [...said.claims, most.claim] }
    : said;
}

/** Differences of conditions that are no reason to doubt a comparison of chargers. */
const HARMLESS = ['meter', 'checks', 'fed by', 'device'];

const unlikeAmong = (group: Group, some: readonly number[]) =>
  unlikeIn(
    some.flatMap((index) => group.setups[index] ?? []),
    some.map((index) => group.names[index] ?? ''),
  ).filter(({ what }) => !HARMLESS.includes(what));

const unlikeOf = (group: Group, pair: readonly number[]) => unlikeAmong(group, pair).map(({ says }) => says);

/** Whether conditions that differed made the difference: how they differed, and the run that would settle it. */
function unfair(group: Group): SaidAdvice | undefined {
  const all = group.setups.map((_, index) => index);
  const [first, ...others] = unlikeAmong(group, all).filter(({ odd }) => odd.length > 0 && odd.length < group.setups.length);
  if (!first || !group.device) return undefined;
  const names = first.odd.map((index) => group.names[index] ?? '');
  const why = [first.says, first.explains, ...others.slice(0, 2).map(({ says }) => says)].join(' ');
  // Where most of them are unlike the middle one there is no usual way that the others could be taken again in.
  const isMost = first.odd.length > group.setups.length / 2;
  return {
    isSentence: true,
    claims: [{ figure: 'conditions', who: listed(names), says: 'is', value: why }],
    who: `Whether ${first.about} cost ${isMost ? 'some of them' : listed(names)} time, or gave it`,
    why,
    settle: isMost
      ? { says: 'One more run of each, all of them alike, would settle it.', runs: onceMore(group, all) }
      : {
          says: `One more run of ${listed(names)}, under the conditions of the others, would settle it.`,
          runs: onceMore(group, first.odd, { conditions: conditionsOfOthers(group, first.odd) }),
        },
  };
}

/** The conditions of a setup that is not among those that are odd. */
const conditionsOfOthers = ({ setups }: Group, odd: readonly number[]) =>
  setups.flatMap((setup, index) => (odd.includes(index) ? [] : [headerOf(setup).conditions ?? []]))[0] ?? [];

/** A run that ended with its window, taken until it is full: its checks, and on from the last of them as far apart as the last two. */
function untilFull({ setups }: Group, index: number): TakenRun | undefined {
  const setup = setups[index];
  const { cadence, rule } = setup ? headerOf(setup) : {};
  if (rule?.ends !== 'window' || cadence?.kind !== 'marks') return undefined;
  const [last = 0, before = 0] = [...cadence.at].reverse();
  return { method: 'milestone-checks', cadence: { ...cadence, then: cadence.then ?? Math.min(LONGEST_BETWEEN, last - before) } };
}
/** Checks until a device is full lie no further apart, in seconds. */
const LONGEST_BETWEEN = 900;

/** Setups that were not seen where the others were: their runs ended before, or they stood still. */
function unseen(group: Group, tracks: Question['tracks']): SaidAdvice | undefined {
  const found = ['level-100', 'level-80'].flatMap((id) => {
    const figure = group.figures.get(id);
    if (!figure?.cells.some(({ mean }) => mean && !mean.isLeast)) return [];
    const missing = figure.cells.flatMap(({ mean }, index) => (!mean || mean.isLeast ? [index] : []));
    return missing.length > 0 ? [{ level: id.slice(6), missing }] : [];
  });
  const [first] = found;
  if (!first) return undefined;
  const { level, missing } = first;
  const nameOf = (index: number) => group.names[index] ?? '';
  const isStalled = (index: number) =>
    (group.setups[index]?.runs ?? []).some(({ run }) => stalls(tracks.get(run.header.id) ?? EMPTY_TRACK, ruleOf(run).stall).length > 0);
  const stood = missing.filter(isStalled);
  const ended = missing.filter((index) => !stood.includes(index));
  const tops = stood.map(
    (index) =>
      `${nameOf(index)} stood still at ${fixed(Math.max(...(group.setups[index]?.runs ?? []).map(({ figures }) => figures.topLevel ?? 0)))} %: it may never get there.`,
  );
  const names = listed(ended.map(nameOf));
  const isOneRun = ended.length === 1 && ended.every((index) => group.setups[index]?.runs.length === 1);
  return {
    isSentence: true,
    claims: [{ figure: 'not seen', who: listed(missing.map(nameOf)), says: 'is', value: tops.join(' ') }],
    who: `When ${listed(missing.map(nameOf))} ${missing.length === 1 ? 'is' : 'are'} at ${level} %`,
    why: [
      ...tops,
      ended.length > 0 &&
        `${names}: ${isOneRun ? 'its run' : `${ended.length === 1 ? 'its' : 'their'} runs`} ended before, or no time can be given.`,
    ]
      .filter(Boolean)
      .join(' '),
    settle:
      ended.length > 0
        ? {
            says: `One run of ${names} to ${level} % would settle it.`,
            runs: ended.flatMap((index) => onceMore(group, [index], untilFull(group, index))),
          }
        : undefined,
  };
}
