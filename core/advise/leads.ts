import { aheadOf, turnOf } from '../compare/ahead';
import type { Cell } from '../compare/cells';
import { unevenStarts } from '../compare/starts';
import { sourceSays } from '../ink/entrySays';
import type { Track } from '../ink/track';
import { nominal, spell } from '../quantity/duration';
import { fixed } from '../quantity/figures';
import { lowerFirst } from '../quantity/letters';
import { listed } from '../quantity/listed';
import { expectedOf, FIVE_VOLTS } from './ceiling';
import { differenceText, basisOf, between, gainBy, isBetter, isOfWindows, mainBy, marksIn, meansIn, timeBy } from './best';
import { figureOf, headerOf, onceMore, type Group, type Question, type SaidAdvice } from './question';

/** Pairs that are looked at for a lead that is lost: those of the best, whatever they are best by, and of the baseline. */
function pairsOf(group: Group, window: number): [one: number, other: number][] {
  const bestIn = (id: string | undefined) => {
    return (figureOf(group, id)?.cells ?? []).flatMap(({ isBest }, index) => (isBest ? [index] : []));
  };
  const some = new Set([...bestIn(gainBy(group, window)?.id), ...bestIn(timeBy(group)), ...bestIn('level-100'), group.baseline]);
  some.delete(-1);
  const leaders = [...some].slice(0, LEADERS);
  return leaders.flatMap((one) =>
    group.setups.flatMap((_, other): [number, number][] =>
      other !== one && !(leaders.includes(other) && other < one) ? [[one, other]] : [],
    ),
  );
}
const LEADERS = 6;
/** Leads that are told of at most. */
const TOLD = 3;

/** Leads that turn along the charge: who is ahead until when, and behind from when. */
export function leads(group: Group, { tracks, wishes }: Pick<Question, 'tracks' | 'wishes'>): SaidAdvice | undefined {
  // Whoever started higher leads at first, and nothing turns by that.
  if (unevenStarts(group.setups)) return undefined;
  const tracksOf = (index: number): Track[] =>
    (group.setups[index]?.runs ?? []).flatMap(({ run }) => {
      const track = tracks.get(run.header.id);
      return track && track.values.length > 1 ? [track] : [];
    });
  const isWhole = (index: number) => tracksOf(index).length === (group.setups[index]?.runs.length ?? 0);
  const found = pairsOf(group, wishes.window).flatMap(([one, other]) => {
    if (!isWhole(one) || !isWhole(other)) return [];
    const ahead = aheadOf(tracksOf(one), tracksOf(other));
    const turn = turnOf(ahead);
    const last = ahead.findLast(({ isDistinguishable }) => isDistinguishable);
    if (!turn || !last) return [];
    // Who is ahead at first is behind at last.
    const [early, late] = last.value > 0 ? [other, one] : [one, other];
    return [{ early: group.names[early] ?? '', late: group.names[late] ?? '', ...turn }];
  });
  const [first] = found;
  if (!first) return undefined;
  const says = ({ early, late, from, to }: (typeof found)[number]) =>
    `${early} is ahead of ${late} until ${spell(from)}, and behind from ${spell(to)} on`;
  return {
    who: says(first),
    isSentence: true,
    claims: found.slice(0, TOLD).map((each) => ({ figure: 'lead', who: each.early, says: 'is', than: each.late, value: says(each) })),
    why: [...found.slice(1, TOLD).map((each) => `${says(each)}.`), 'A short charge and a full one have different winners.'].join(' '),
  };
}

/** From here on a battery is nearly full, in %: what is left to gain is no more than this off. */
const NEARLY_FULL = 95;

/** Where a window ends with batteries nearly full, a tie there hides a difference: what the marks before tell. */
export function fullWindow(group: Group): (SaidAdvice & { tells: readonly string[] }) | undefined {
  if (!group.device || !isOfWindows(group)) return undefined;
  const marks = marksIn(group);
  const cellsAt = (seconds: number): readonly Cell[] => group.figures.get(`gain-${seconds}`)?.cells ?? [];
  const end = marks.findLast((seconds) => meansIn(cellsAt(seconds)).length > 1);
  if (end === undefined) return undefined;
  const isFull = (index: number) => (group.setups[index]?.runs ?? []).some(({ figures }) => (figures.topLevel ?? 0) >= NEARLY_FULL);
  const full = meansIn(cellsAt(end)).filter(isFull);
  const pairs = full.flatMap((one, at) => full.slice(at + 1).map((other) => [one, other] as const));
  const hidden = pairs.filter(([one, other]) => between(cellsAt(end), one, other)?.told === 'tie');
  if (hidden.length === 0) return undefined;
  const names = (pair: readonly number[]) => listed(pair.map((index) => group.names[index] ?? ''));
  const seen = hidden.flatMap(([one, other]) => {
    const mark = marks.findLast((seconds) => seconds < end && !['tie', undefined].includes(between(cellsAt(seconds), one, other)?.told));
    const differ = mark === undefined ? undefined : between(cellsAt(mark), one, other);
    const measure = mark === undefined ? undefined : group.figures.get(`gain-${mark}`)?.measure;
    if (mark === undefined || !differ || !measure) return [];
    const [more, less] = differ.value > 0 ? [other, one] : [one, other];
    const [who, than, value] = [group.names[more] ?? '', group.names[less] ?? '', differenceText(differ, measure)];
    return [
      {
        text: `At ${nominal(mark)} ${who} had gained ${value} more than ${than}.`,
        claim: { figure: measure.id, who, says: 'better' as const, than, value },
      },
    ];
  });
  const all = [...new Set(hidden.flat())];
  const settle = seen.length === 0 ? fromLower(group, all) : undefined;
  const tells = seen.length > 0 ? seen.slice(0, TOLD).map(({ text }) => text) : ['The checks before tie too.'];
  return {
    isSentence: true,
    claims: [
      ...seen.slice(0, TOLD).map(({ claim }) => claim),
      ...(settle ? [{ figure: 'start', who: names(all), says: 'is' as const, value: settle.says }] : []),
    ],
    who: `The end of the window hides what ${names(all)} differ by`,
    why: [
      `At ${nominal(end)} ${names(all)} tie, but stand at ${fixed(NEARLY_FULL)} % or more: there is nothing left to gain.`,
      ...tells,
    ].join(' '),
    settle,
    tells,
  };
}

/** Runs of some setups from half the level that they began at: nothing of those that began at next to none. */
function fromLower(group: Group, some: readonly number[]): SaidAdvice['settle'] {
  const starts = some.flatMap((index) => (group.setups[index]?.runs ?? []).flatMap(({ figures }) => figures.startLevel ?? []));
  const from = Math.floor(Math.min(...starts) / 2);
  return from >= 1 ? { says: `One run of each from ${from} % would tell.`, runs: onceMore(group, some, { from }) } : undefined;
}

/** What two chargers are expected to give this device, so much apart, is expected to show, as a share. */
const STRONGER = 1.1;

/** A charger that should give more by the facts of its gear, and is surely slower: what to check before it is believed. */
export function surprises(group: Group, window: number, unlike: (pair: readonly number[]) => readonly string[]): SaidAdvice | undefined {
  const id = mainBy(group, window);
  const found = figureOf(group, id);
  if (!found || !group.device) return undefined;
  const seen = meansIn(found.cells);
  const rated = (index: number) => expectedOf(group, index)?.watts;
  const pairs = seen.flatMap((strong) =>
    seen.flatMap((weak): [number, number][] => {
      const [more, less] = [rated(strong), rated(weak)];
      return more !== undefined && less !== undefined && more >= STRONGER * less && isBetter(found.cells, found.measure, weak, strong)
        ? [[strong, weak]]
        : [];
    }),
  );
  const [first] = pairs;
  if (!first) return undefined;
  const [strong, weak] = first;
  const differ = between(found.cells, weak, strong);
  const [name, other] = [group.names[strong] ?? '', group.names[weak] ?? ''];
  const causes = [...unlike(first), ...fellBack(group, strong), ...hotter(group, strong, weak)];
  return {
    isSentence: true,
    claims: [
      { figure: found.measure.id, who: other, says: 'better', than: name, value: differ && differenceText(differ, found.measure) },
      { figure: 'causes', who: name, says: 'is', than: other, value: causes.join(' ') },
    ],
    who: `${name} is slower than ${other}, though it should give more`,
    why: [
      differ && `${name} is ${differenceText(differ, found.measure)} behind, by ${basisOf(found.measure)}.`,
      causes.length > 0
        ? `Check first: ${lowerFirst(causes.join(' '))}`
        : 'Check first: heat, the cable, what ran in the background, and how both starts were made.',
      'Repeat both before it is printed.',
    ]
      .filter(Boolean)
      .join(' '),
    settle: { says: 'One more run of each would tell whether it holds.', runs: onceMore(group, first) },
  };
}

function fellBack(group: Group, index: number): string[] {
  const steady = (group.setups[index]?.runs ?? []).flatMap(({ figures }) =>
    figures.stages.filter(({ kind }) => kind === 'steady').slice(0, 1),
  );
  const volts = steady.flatMap((stage) => stage.volts ?? []);
  const setup = group.setups[index];
  return volts.length > 0 && Math.max(...volts) < FIVE_VOLTS && setup
    ? [`${sourceSays(headerOf(setup))} charged at 5 V: it fell back, and its cable may be why.`]
    : [];
}

function hotter(group: Group, strong: number, weak: number): string[] {
  const rises = [...group.figures].filter(([id]) => id.startsWith('rise-'));
  const isHotter = rises.some(([, { measure, cells }]) => isBetter(cells, measure, weak, strong));
  return isHotter ? [`it ran hotter with ${group.names[strong] ?? ''}, and a hot battery takes less.`] : [];
}
