import { CAUTIONS } from '../advise/cautions';
import { costOfSetup } from '../advise/cost';
import { headlineOf, usualBy, type By } from '../advise/headline';
import { judge } from '../advise/judge';
import { figuresAsked, groupsOf, questionOf, type AdviceGear, type Finding, type Group, type Judged } from '../advise/question';
import { timeBy } from '../advise/best';
import { compatibility } from '../compare/compatibility';
import { writeTried } from '../compare/triedSays';
import { aboutOf, usualMeasures, type GainUnit, type MeasureColumn } from '../compare/measures';
import { namesOf } from '../compare/names';
import type { SetupRuns } from '../compare/setups';
import { statusSays } from '../ink/statuses';
import { TRIAL_STATES } from '../ink/trialStates';
import type { School } from '../method/schools';
import { price } from '../quantity/figures';
import { lowerFirst } from '../quantity/letters';
import { listed } from '../quantity/listed';
import { nominal } from '../quantity/duration';
import type { BlockId } from './blocks';
import { daysOf, doneSays, gearSaid, repeatSays, runsSay } from './done';
import { figuresIn, linked, marginOf, placesOf, setupId, type KnownFigure } from './figures';
import { items, said, type Paragraph } from './paragraph';
import type { CorrectionLine, Piece } from './pieceSchema';

/** What a piece is written from: runs as they are now, the bench, and what its comparison goes by. */
export interface ReportSource {
  judged: readonly Judged[];
  shelf: AdviceGear;
  methods: readonly Pick<School, 'id' | 'name' | 'start' | 'stops'>[];
  /** A day in words. */
  day: (at: number) => string;
}

/** A cell of a table: what is told, and its margin; of a figure, which. */
export interface PieceCell {
  value: string;
  margin: string;
  ref?: string | undefined;
}

/** A table of a piece: a row a setup. */
export interface PieceTable {
  /** Its figures; some are words. */
  columns: { id: string; title: string; isText?: boolean }[];
  rows: { setup: string; name: string; cells: PieceCell[] }[];
  note: string;
}

/** All that can be said of the runs of a piece, as it is now. */
export interface WrittenUp {
  /** What it is about, in a line: devices, runs, days and how they were read. */
  about: string;
  setups: { id: string; name: string; runs: string[] }[];
  known: ReadonlyMap<string, KnownFigure>;
  /** What each block of words says. */
  words: Readonly<Partial<Record<BlockId, Paragraph[]>>>;
  /** The tables, with every figure that each can have. */
  tables: Readonly<Partial<Record<BlockId, PieceTable>>>;
  /** Figures that a table shows unless others are chosen. */
  usual: Readonly<Partial<Record<BlockId, string[]>>>;
  columns: readonly MeasureColumn[];
}

/** Sentences of the short answer at most. */
const MOST_ANSWERS = 5;

/** Needs of a reader that follow the answer, as the short answer leads them in. */
const LEADS: Readonly<Record<string, string>> = {
  worth: 'For the money:',
  'one-for-all': 'One for all:',
  travel: 'For the bag:',
  overnight: 'For nights:',
  coolest: 'Coolest:',
};

/** So many names stand in one sentence. */
const MOST_NAMED = 8;
const someOf = (names: readonly string[]): string =>
  names.length > MOST_NAMED ? `${names.slice(0, MOST_NAMED).join(', ')} and ${names.length - MOST_NAMED} more` : listed(names);

const ended = (text: string): string => (/[.!?]$/.test(text) ? text : `${text}.`);

/** A sentence with its figures, its first words in bold up to a colon. */
function answer(text: string, known: readonly KnownFigure[]): Paragraph {
  const colon = text.indexOf(': ');
  const parts = linked(text, known);
  const [first, ...rest] = parts;
  if (colon < 0 || !first || first.ref !== undefined || first.text.length <= colon) return { as: 'text', parts };
  return {
    as: 'text',
    parts: [{ text: first.text.slice(0, colon + 1), bold: true }, { ...first, text: first.text.slice(colon + 1) }, ...rest],
  };
}

/** An answer that is a tie, with the figures that are no further apart than can be told. */
function tied(paragraph: Paragraph, says: string, known: readonly KnownFigure[], yardstick: string): Paragraph {
  if (!/cannot tell them apart|show no difference/.test(says)) return paragraph;
  const ids = [`/level-${yardstick}`, `/${yardstick}`];
  const own = known
    .filter(({ ref, names, group = '' }) => names.length === 1 && ids.some((id) => ref.endsWith(id)) && says.startsWith(group))
    .flatMap((figure) =>
      placesOf(says, figure.names[0] ?? '')
        .slice(0, 1)
        .map((place) => ({ ...figure, place })),
    )
    .sort((one, other) => one.place - other.place);
  if (own.length < 2) return paragraph;
  const figures = own.flatMap(({ text, ref }, index) => [
    ...(index > 0 ? [{ text: index === own.length - 1 ? ' and ' : ', ' }] : []),
    { text, ref },
  ]);
  return { ...paragraph, parts: [...paragraph.parts, { text: ' By figures: ' }, ...figures, { text: '.' }] };
}

/** The short answer: the headline, then what else readers need, each said once; and how sure it is. */
function shortAnswer(
  says: readonly string[],
  sure: string,
  findings: readonly Finding[],
  known: readonly KnownFigure[],
  yardstick: string,
): Paragraph[] {
  const isSaid = (lead: string) => says.some((each) => each.startsWith(lead));
  const more = Object.entries(LEADS).flatMap(([need, lead]) => {
    const found = findings.find((each) => each.need === need);
    return found && !isSaid(lead) ? [`${lead} ${ended(found.says)}`] : [];
  });
  // Of many devices a sentence each would be no short answer.
  const first =
    says.length > MOST_ANSWERS ? [...says.slice(0, MOST_ANSWERS - 2), 'The others are in the tables.', ...says.slice(-1)] : says;
  const all = [...first, ...more].slice(0, MOST_ANSWERS);
  return [
    ...all.map((each) => tied(answer(each, known), each, known, yardstick)),
    { as: 'text', parts: [{ text: `How sure: ${lowerFirst(sure.replace(/^Sure to /, 'to '))}`, italic: true }] },
  ];
}

/** What these readings cannot tell: ties, what was run once, what was not seen, what conditions leave open. */
function limitsSay(groups: readonly Group[], findings: readonly Finding[], known: readonly KnownFigure[], oneDevice: boolean): Paragraph[] {
  const ties = groups.flatMap((group) => {
    const id = timeBy(group) ?? [...group.figures.values()].find(({ measure }) => measure.better)?.measure.id;
    const column = id === undefined ? undefined : group.figures.get(id);
    if (!column) return [];
    const places = new Map<string, string[]>();
    for (const [index, { place }] of column.cells.entries())
      if (place?.endsWith('=')) places.set(place, [...(places.get(place) ?? []), group.names[index] ?? '']);
    return [...places.values()]
      .filter((names) => names.length > 1)
      .map(
        (names) => `${oneDevice ? '' : `${group.of}: `}${someOf(names)} cannot be told apart by their ${lowerFirst(column.measure.title)}.`,
      );
  });
  const once = groups.flatMap(({ setups, names, of }) => {
    const single = setups.flatMap(({ runs }, index) => (runs.length === 1 ? [names[index] ?? ''] : []));
    if (single.length === 0) return [];
    const who =
      single.length === setups.length ? 'Every setup was run once' : `${someOf(single)} ${single.length === 1 ? 'was' : 'were'} run once`;
    return [
      `${oneDevice ? '' : `${of}: `}${who}: how far one run differs from the next is taken from ${single.length === setups.length ? 'what is usual' : 'the others'}.`,
    ];
  });
  const open = findings
    .filter(({ need }) => need === 'fair' || need === 'open' || need === 'untested')
    .map(({ says, why, settle }) => {
      const rest = [why, settle?.says].flatMap((text) => text || []);
      // Of what is said of one device alone its name is said once; of several each has a line.
      const lead = why.includes('\n') ? undefined : groups.map(({ of }) => `${of}: `).find((each) => says.startsWith(each));
      return [ended(says), ...rest.map((text) => (lead !== undefined && text.startsWith(lead) ? text.slice(lead.length) : text))].join(' ');
    });
  const settled = findings
    .filter(({ need }) => !['fair', 'open', 'untested'].includes(need))
    .flatMap(({ settle, title }) => (settle ? [`${title}: ${settle.says}`] : []));
  return [...ties, ...once, ...open, ...settled.slice(0, 4)].map((text) => ({ as: 'item' as const, parts: linked(text, known) }));
}

const cellOf = (setup: string, { measure, cells }: MeasureColumn, index: number): PieceCell => {
  const cell = cells[index];
  if (!cell || cell.value === undefined) return { value: '—', margin: cell ? marginOf(cell) : '' };
  return { value: cell.value, margin: marginOf(cell), ref: `${setup}/${measure.id}` };
};

/** A table of some figures, of every setup. */
function tableOf(setups: WrittenUp['setups'], columns: readonly MeasureColumn[], note: string): PieceTable | undefined {
  if (columns.length === 0) return undefined;
  return {
    columns: columns.map(({ measure }) => ({ id: measure.id, title: measure.title })),
    rows: setups.map(({ id, name }, index) => ({ setup: id, name, cells: columns.map((column) => cellOf(id, column, index)) })),
    note,
  };
}

/** What each costs, beside the time that it goes by. */
function costTable(
  all: readonly SetupRuns[],
  setups: WrittenUp['setups'],
  columns: readonly MeasureColumn[],
  shelf: AdviceGear,
): PieceTable | undefined {
  const costs = all.map((setup) => costOfSetup(setup, shelf));
  if (!costs.some(({ value }) => value !== undefined)) return undefined;
  const time = columns.find(({ measure }) => measure.id === 'level-80') ?? columns.find(({ measure }) => measure.group === 'Times');
  return {
    columns: [
      { id: 'price', title: 'Price' },
      { id: 'of', title: 'Made of', isText: true },
      ...(time ? [{ id: time.measure.id, title: time.measure.title }] : []),
    ],
    rows: setups.map(({ id, name }, index) => {
      const cost = costs[index];
      return {
        setup: id,
        name,
        cells: [
          { value: cost?.value === undefined ? '—' : price(cost.value), margin: '' },
          { value: cost?.says ?? '', margin: '' },
          ...(time ? [cellOf(id, time, index)] : []),
        ],
      };
    }),
    note: 'What is at home already costs nothing.',
  };
}

/** What was tried, a row a source and a state of the device. */
function triedTable(judged: readonly Judged[]): PieceTable | undefined {
  const several = new Set(judged.filter(({ run }) => run.trials.length > 0).map(({ run }) => run.header.device.name)).size > 1;
  const rows = judged.flatMap(({ run }) =>
    compatibility(run).flatMap((row) =>
      TRIAL_STATES.flatMap((state) => {
        const { [state]: tried } = row;
        if (!tried) return [];
        const { figures, pencil, level } = writeTried(tried);
        const cells = [state, statusSays(tried.status), [figures, pencil].filter(Boolean).join(' · '), level];
        return [
          {
            setup: `${run.header.id}/${row.key}/${state}`,
            name: several ? `${run.header.device.name} on ${row.name}` : row.name,
            cells: cells.map((value) => ({ value, margin: '' })),
          },
        ];
      }),
    ),
  );
  if (rows.length === 0) return undefined;
  const columns = ['Device', 'What it does', 'Read', 'Level'].map((title) => ({ id: title.toLowerCase(), title, isText: true }));
  return { columns, rows, note: 'By a minute each, as it was seen.' };
}

/**
 * Writes up runs: all that a piece can say of them, as they are now. What a person wrote of it, and what they hide, is another matter (compose.ts).
 *
 * @param piece which runs, and what they go by
 */
export function writeUp(
  piece: Pick<Piece, 'base' | 'level' | 'unit' | 'lent' | 'corrections'>,
  { judged, shelf, methods, day }: ReportSource,
): WrittenUp {
  const question = questionOf(judged, shelf, { baseline: piece.base, unit: piece.unit as GainUnit | undefined });
  const columns = figuresAsked(question);
  const groups = groupsOf(question, columns);
  const about = aboutOf(question.setups.flatMap(({ runs }) => runs));
  const by: By = piece.level ? { yardstick: piece.level } : usualBy(question, columns);
  const { yardstick } = by;
  const names = namesOf(question.setups.flatMap(({ runs }) => runs.slice(0, 1)));
  const setups = question.setups.map((setup, index) => ({
    id: setupId(setup),
    name: names[index] ?? '',
    runs: setup.runs.map(({ run }) => run.header.id),
  }));
  const figures = groups.flatMap((group) => figuresIn(group, groups.length > 1 ? group.of : undefined));
  const findings = judge(question, groups);
  const headline = headlineOf(question, by, groups);
  const charges = judged.filter(({ run }) => run.header.list === undefined);
  const done = { judged: charges, setups: question.setups, names, methods, day };
  const oneDevice = new Set(charges.map(({ run }) => run.header.device.id)).size === 1;
  const usual = usualMeasures(
    columns.map(({ measure }) => measure),
    about,
    yardstick,
  );
  const inGroups = (some: readonly string[]) => columns.filter(({ measure }) => some.includes(measure.group));
  const [times, power] = [inGroups(['Gains', 'Times']), inGroups(['Power and energy', 'Heat'])];
  const tables = {
    tried: triedTable(judged),
    times: tableOf(setups, times, 'Behind each figure stands what it lies between, or its margin: 19 in 20.'),
    power: tableOf(setups, power, 'Temperatures are those of the surfaces that were named.'),
    cost: costTable(question.setups, setups, columns, shelf),
  };
  const shown = (some: readonly MeasureColumn[]) => {
    const found = some.filter(({ measure }) => usual.includes(measure.id)).map(({ measure }) => measure.id);
    return found.length > 0 ? found : some.slice(0, 4).map(({ measure }) => measure.id);
  };
  return {
    about: aboutSays(charges, setups.length, day, done.setups.length > 0),
    setups,
    known: new Map(figures.map((each) => [each.ref, each])),
    words: {
      ...(headline && { short: shortAnswer(headline.says, headline.sure, findings, figures, yardstick) }),
      done: doneSays(done),
      gear: gearSaid(judged),
      limits: limitsSay(groups, findings, figures, oneDevice),
      cautions: items(CAUTIONS.full),
      repeat: repeatSays(done),
      lent: piece.lent ? [said(piece.lent)] : [],
      corrections: correctionItems(piece.corrections, day),
    },
    tables,
    usual: {
      times: shown(times),
      power: power.filter(({ measure }) => /^(peak|sustained|energy|hottest-|rise-)/.test(measure.id)).map(({ measure }) => measure.id),
      tried: tables.tried?.columns.map(({ id }) => id) ?? [],
      cost: tables.cost?.columns.map(({ id }) => id) ?? [],
    },
    columns,
  };
}

/** Corrections as they stand in the piece, the last first. */
export const correctionItems = (corrections: readonly CorrectionLine[] = [], day: (at: number) => string): Paragraph[] =>
  items([...corrections].sort((one, other) => other.at - one.at).map(({ at, text }) => `${day(at)}: ${text}`));

function aboutSays(charges: readonly Judged[], setups: number, day: (at: number) => string, isCompared: boolean): string {
  if (charges.length === 0) return '';
  const devices = [...new Set(charges.map(({ run }) => run.header.device.name))];
  const every = new Set(charges.map(({ run: { header } }) => (header.cadence?.kind === 'fixed' ? header.cadence.every : undefined)));
  const [only] = every;
  return [
    `${devices.length > 3 ? `${devices.length} devices` : listed(devices)}${isCompared && setups > 1 ? `, ${setups} setups` : ''}`,
    `${runsSay(charges.length)}, ${daysOf(charges, day)}`,
    ...(every.size === 1 && only !== undefined ? [`checks every ${nominal(only)}`] : []),
  ].join(' · ');
}
