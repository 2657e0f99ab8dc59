import { deviation, group, max, mean, median, min, sum } from 'd3-array';
import type { Claim } from './changes';
import type { BandKind, BandTally, BandTable } from './bands';
import type { Ceilings } from './ceilings';
import type { Laid } from './logs';
import type { Dealt } from './manners';
import type { Pages } from './pages';
import type { Sentences } from './sentences';
import { CADENCES, play, REPEATS, SIGMAS, type Cell, type Tally } from './studies';

/** The bars of docs/numbers.md, *Tests of the whole*. */
export const BARS = {
  falseWinners: 0.02,
  worstCell: 0.03,
  falseFirsts: 0.01,
  misses: 0.1,
  margin: 1.3,
  band: [0.85, 0.95],
  part: 0.8,
  partCases: 200,
  kindRuns: 200,
  claim: 0.9,
  within: 0.93,
  ceilings: 0.02,
  logs: { sure: 0.8, right: 0.97, foreign: 0.02 },
} as const;
/** More than is assumed of how runs vary: printed, and held to the bar from two repeats on. */
const BEYOND = 0.04;

export interface Played {
  cell: Cell;
  tallies: Tally[];
}

/** Plays every cell of cadence, spread and repeats. @param studies of each */
export function playAll(studies: number, seed: number): Played[] {
  return SIGMAS.flatMap((sigma) =>
    CADENCES.flatMap((cadence) =>
      REPEATS.map((repeats) => {
        const cell = { cadence, sigma, repeats };
        return { cell, tallies: play(cell, studies, seed + Math.round(1e4 * sigma + 10 * cadence + repeats)) };
      }),
    ),
  );
}

/** What a part of the studies comes to, at one figure. Shares. */
export interface Outcome {
  figure: string;
  pairs: number;
  falseWinners: number;
  worst: number;
  worstCell: string;
  falseFirsts: number;
  misses: number;
  margin: number;
  naive: number;
}

export function outcomesOf(all: readonly Played[]): Outcome[] {
  const figures = all[0]?.tallies.map(({ figure }) => figure) ?? [];
  return figures.map((figure, at) => {
    const tallies = all.flatMap(({ cell, tallies: each }) => (each[at] ? [{ cell, ...each[at] }] : []));
    const total = (of: (tally: Tally) => number) => sum(tallies, of);
    const pairs = total((tally) => tally.pairs);
    const shareOf = (tally: Tally) => tally.falseWinners / tally.pairs;
    const worst = max(tallies, shareOf) ?? 0;
    const { cell } = tallies.find((tally) => shareOf(tally) === worst) ?? {};
    return {
      figure,
      pairs,
      falseWinners: total((tally) => tally.falseWinners) / pairs,
      worst,
      worstCell: cell ? `${cell.cadence} min, ${cell.sigma * 100} %, ${cell.repeats}×` : '',
      falseFirsts: total((tally) => tally.falseFirsts) / total((tally) => tally.studies),
      misses: total((tally) => tally.misses) / total((tally) => tally.clear),
      margin: median(tallies.flatMap(({ margins }) => margins)) ?? 0,
      naive: total((tally) => tally.naive) / pairs,
    };
  });
}

export const assumed = (all: readonly Played[]) => all.filter(({ cell }) => cell.sigma < BEYOND);
export const beyond = (all: readonly Played[], repeated: boolean) =>
  all.filter(({ cell }) => cell.sigma >= BEYOND && cell.repeats > 1 === repeated);

/** What of these outcomes is not within its bar, in words. @param isWhole whether cells hold enough pairs to be held to theirs */
export function beyondBars(outcomes: readonly Outcome[], isWhole: boolean): string[] {
  return outcomes.flatMap(({ figure, falseWinners, worst, worstCell, falseFirsts, misses, margin }) => [
    ...(falseWinners > BARS.falseWinners ? [`${figure}: ${percent(falseWinners)} false winners`] : []),
    ...(isWhole && worst > BARS.worstCell ? [`${figure}: ${percent(worst)} false winners at ${worstCell}`] : []),
    ...(falseFirsts > BARS.falseFirsts ? [`${figure}: ${percent(falseFirsts)} false firsts`] : []),
    ...(misses > BARS.misses ? [`${figure}: ${percent(misses)} misses`] : []),
    ...(margin > BARS.margin ? [`${figure}: margins ${margin.toFixed(2)} times the generator’s`] : []),
  ]);
}

/** False winners among all pairs, where runs vary by more than is assumed. */
export function falseBeyond(outcomes: readonly Outcome[]): string[] {
  const share = sum(outcomes, ({ falseWinners, pairs }) => falseWinners * pairs) / sum(outcomes, ({ pairs }) => pairs);
  return share > BARS.falseWinners ? [`${percent(share)} false winners, where runs vary by 4 %`] : [];
}

/** What of the forecasts is not within its bar. @param isWhole whether parts hold enough devices, for the cases of one go together */
export function bandsBeyond({ all, parts }: BandTable, isWhole: boolean): string[] {
  const [least, most] = BARS.band;
  const held = all.within / all.cases;
  return [
    ...(held < least || held > most ? [`bands hold ${percent(held)}`] : []),
    ...Object.entries(parts).flatMap(([part, tally]) =>
      isWhole && tally.cases > BARS.partCases && tally.within / tally.cases < BARS.part
        ? [`bands of ${part} hold ${percent(tally.within / tally.cases)}`]
        : [],
    ),
  ];
}

/** How the bands of a kind hold at most: two standard errors above what its runs show. */
const mostHeld = ({ held }: BandKind) => (mean(held) ?? 1) + (2 * (deviation(held) ?? 0)) / Math.sqrt(held.length);

/** Kinds of live run whose bands hold too seldom, beyond chance. @param runs that a kind must have to be held to it */
export const kindsBeyond = (kinds: readonly BandKind[], runs: number = BARS.kindRuns): string[] =>
  kinds
    .filter((each) => each.held.length >= runs && mostHeld(each) < BARS.part)
    .map(({ kind, held }) => `bands of ${kind} hold ${percent(mean(held) ?? 0)} of ${held.length} runs`);

/** What of the plan’s claims is not within its bar: what it offers tells in nine of ten, and what it calls beyond reach does not. */
export function claimsBeyond(claims: readonly Claim[]): string[] {
  return [...group(claims, ({ kind }) => kind)].flatMap(([kind, some]) => {
    const share = mean(some, ({ told }) => told) ?? 0;
    const isKept = kind === 'out of reach' ? share <= BARS.claim : share >= BARS.claim;
    return isKept ? [] : [`changes of kind “${kind}” tell in ${percent(share)}`];
  });
}

/** What of the manners of reading is not within its bar. Differences of repeats at equal marks lie within what is told of them. @param isWhole whether there are enough studies to count sole firsts */
export function mannersBeyond(all: readonly Dealt[], isWhole: boolean): string[] {
  return all.flatMap(({ manner, pairs, falseWinners, falseFirsts, studies, clear, misses, within, margins }) => [
    ...(falseWinners > BARS.falseWinners * pairs ? [`${manner}: ${percent(falseWinners / pairs)} false winners`] : []),
    ...(isWhole && falseFirsts > BARS.falseFirsts * studies ? [`${manner}: ${percent(falseFirsts / studies)} false firsts`] : []),
    ...(misses > BARS.misses * clear ? [`${manner}: ${percent(misses / clear)} misses`] : []),
    ...((median(margins) ?? 0) > BARS.margin ? [`${manner}: margins ${(median(margins) ?? 0).toFixed(2)} times the generator’s`] : []),
    ...(manner.startsWith('repeats') && within < BARS.within * pairs ? [`${manner}: ${percent(within / pairs)} within what is told`] : []),
  ]);
}

export const ceilingsBeyond = ({ said, wrong }: Ceilings): string[] =>
  wrong.length > BARS.ceilings * said ? wrong.map((each) => `a ceiling that is none: ${each}`) : [];

const shareOf = (some: readonly Laid[], is: (each: Laid) => boolean) => some.filter(is).length / Math.max(1, some.length);
const isSure = ({ isSure: sure }: Laid) => sure;
const isRight = ({ off }: Laid) => off === 0;

/** What of logs laid on runs is not within its bar. */
export function logsBeyond(all: readonly Laid[]): string[] {
  return [...group(all, ({ whose }) => whose)].flatMap(([whose, some]) => {
    const [sure, right] = [shareOf(some, isSure), shareOf(some.filter(isSure), isRight)];
    if (whose === 'a repeat') return [];
    if (whose !== 'own') return sure > BARS.logs.foreign ? [`logs of ${whose} are sure in ${percent(sure)}`] : [];
    return [
      ...(sure < BARS.logs.sure ? [`the run’s own log is sure in ${percent(sure)}`] : []),
      ...(right < BARS.logs.right ? [`the run’s own log is right in ${percent(right)}`] : []),
    ];
  });
}

const percent = (share: number) => `${(100 * share).toFixed(1)} %`;

const HEADS = [
  'Figure',
  'Pairs',
  'False winners',
  'Worst cell',
  'False sole firsts',
  'Misses',
  'Margin beside the generator’s',
  'Smaller number wins',
];

function tableOf(outcomes: readonly Outcome[]): string {
  const rows = outcomes.map((each) =>
    [
      each.figure,
      each.pairs,
      percent(each.falseWinners),
      `${percent(each.worst)} (${each.worstCell})`,
      percent(each.falseFirsts),
      percent(each.misses),
      `${each.margin.toFixed(2)} ×`,
      percent(each.naive),
    ].join(' | '),
  );
  return grid(HEADS, rows);
}

const grid = (heads: readonly string[], rows: readonly string[]) =>
  [heads.join(' | '), heads.map(() => '---').join(' | '), ...rows].map((row) => `| ${row} |`).join('\n');

function bandsOf({ all, parts, earliest }: BandTable): string {
  const row = (name: string, { cases, within, early }: BandTally) =>
    `| ${name} | ${cases} | ${percent(within / cases)} | ${percent(early / cases)} | ${percent((cases - within - early) / cases)} |`;
  return [
    '| Cases | How many | Within | Sooner than said | Later |',
    '| --- | --- | --- | --- | --- |',
    row('all bands', all),
    ...Object.entries(parts).map(([part, tally]) => row(part, tally)),
    row('only the earliest said', earliest),
  ].join('\n');
}

function kindsOf(kinds: readonly BandKind[]): string {
  const counted = kinds.filter(({ held }) => held.length >= BARS.kindRuns);
  const least = min(counted, ({ held }) => mean(held) ?? 1) ?? 0;
  return `Crossed — shape × level × stage × earlier runs × how often read — ${counted.length} kinds have ${BARS.kindRuns} runs or more. The bands of the worst hold in ${percent(least)};
${kindsBeyond(kinds).length} hold less than ${percent(BARS.part)} by over two standard errors.`;
}

function claimsOf(claims: readonly Claim[]): string {
  const rows = [...group(claims, ({ kind }) => kind)].map(([kind, some]) => {
    const cheaper = mean(some, (claim) => claim.cheaper);
    return `| ${kind} | ${some.length} | ${percent(mean(some, ({ told }) => told) ?? 0)} | ${cheaper === undefined ? '' : percent(cheaper)} |`;
  });
  return ['| Change | Claims | Told as offered | Told by what is cheaper |', '| --- | --- | --- | --- |', ...rows.sort()].join('\n');
}

function mannersOf(all: readonly Dealt[]): string {
  const rows = all.map(({ manner, pairs, falseWinners, falseFirsts, studies, clear, misses, within, margins }) =>
    [
      manner,
      pairs,
      percent(falseWinners / pairs),
      percent(falseFirsts / studies),
      percent(misses / Math.max(1, clear)),
      percent(within / pairs),
      `${(median(margins) ?? 0).toFixed(2)} ×`,
    ].join(' | '),
  );
  const heads = ['Read as', 'Pairs', 'False winners', 'False sole firsts', 'Misses', 'Differences within', 'Margin beside the generator’s'];
  return grid(heads, rows);
}

function logsOf(all: readonly Laid[]): string {
  const rows = [...group(all, ({ whose }) => whose)].flatMap(([whose, some]) =>
    [...group(some, ({ cadence, isEarly }) => `every ${cadence} min, begun ${isEarly ? 'before' : 'after'} plug-in`)].map(([part, of]) => {
      const sure = of.filter(isSure);
      const right = whose === 'own' ? percent(shareOf(sure, isRight)) : '';
      return `| ${whose} | ${part} | ${of.length} | ${percent(shareOf(of, isSure))} | ${right} | ${Math.round(median(sure, ({ margin }) => margin) ?? 0)} s |`;
    }),
  );
  return ['| Log of | Run read | Laid | Sure | Then right | Margin |', '| --- | --- | --- | --- | --- | --- |', ...rows].join('\n');
}

/** All that was played. */
export interface Whole {
  all: readonly Played[];
  manners: readonly Dealt[];
  bands: BandTable;
  kinds: readonly BandKind[];
  claims: readonly Claim[];
  ceilings: Ceilings;
  logs: readonly Laid[];
  pages: Pages;
  sentences: Sentences;
}

/** docs/truth.md. @param studies of each cell; @param devices of each model */
export function written(
  { all, manners, bands, kinds, claims, ceilings, logs, pages, sentences }: Whole,
  studies: number,
  devices: number,
): string {
  return `# Truth: does it name the right winner

Written by \`npm run truth\`: ${studies} studies of three setups for each cell of cadence × spread × repeats, on nine charge models of its own (\`truth/models.ts\`)
that core/simulate knows nothing of; ${devices} devices of each model for the forecasts. What is counted, and the bars, are in numbers.md, *Tests of the whole*. A cell is
written as cadence, true spread, repeats.

## Runs vary by 1 to 3 %: no more than is assumed

${tableOf(outcomesOf(assumed(all)))}

## Runs vary by 4 %, more than is assumed: two and three runs of each

${tableOf(outcomesOf(beyond(all, true)))}

## Runs vary by 4 %: single runs

No rule can know this from single runs; it is printed so that nobody is surprised.

${tableOf(outcomesOf(beyond(all, false)))}

## Read in other ways

Runs vary by 1 to 3 %; half as many studies of each spread and number of repeats (\`truth/manners.ts\`).

${mannersOf(manners)}

## The forecast band called 90 %

One to eight earlier runs of each device, on chargers of its own and from other levels, all read every 1, 5, 10 or 15 min; 3 % of spread.

${bandsOf(bands)}

${kindsOf(kinds)}

## What the plan says would tell a difference apart

Two setups of one device that differ by what was wanted, 6 to 20 % of the time to 80 %, read as the plan offers; and as the dearest change that is
cheaper by two steps or more. What is beyond reach is played as it is.

${claimsOf(claims)}

## From what wattage on nothing changes

Five or six chargers on one device (\`truth/ceilings.ts\`): of ${ceilings.studies} studies ${ceilings.said} name a ceiling; in ${ceilings.wrong.length} of them those above it that tie differ in truth by
more than was said could hide.

## Logs laid on runs

Runs read by hand, and the log of another meter on a clock of its own (\`truth/logs.ts\`). A repeat is nearly the same charge: what becomes of it is printed.

${logsOf(logs)}

## What verdicts say

Sentences of ${sentences.studies} studies, held against the rule written a second time (\`truth/rule.ts\`): ${sentences.named} names called best or surely worse, ${sentences.wrong.length} of
them not told by the rule, ${sentences.left.length} sentences that leave out what it tells.

Whole pages of ${pages.studies} made-up studies, read as data (\`truth/pages.ts\`): ${pages.findings} findings with ${pages.claims} claims; ${pages.denials.length} deny each other, ${pages.otherwise.length} have
another figure than the table, ${pages.untold.length} figures are of nothing.
`;
}
