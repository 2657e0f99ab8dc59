import fc from 'fast-check';
import { expect, it } from 'vitest';
import {
  balanceOf,
  groupsOf,
  headlineOf,
  judge,
  oneForAll,
  questionOf,
  verdictText,
  weightiest,
  WISHES,
  type Claim,
  type Question,
} from '../core/advise';
import {
  aboutOf,
  aheadOf,
  byDevice,
  columnsOf,
  compareRuns,
  compatibility,
  figureTable,
  gainUnitsOf,
  gathered,
  loadsOf,
  matrixOf,
  matrixTable,
  measuresOf,
  namesOf,
  padsOf,
  sharesSay,
  standingsOf,
  turnOf,
  unlikeIn,
  usualYardstick,
  whiskersOf,
  workingOf,
  writeDifference,
  writeStanding,
  writeTried,
  yardsticksOf,
} from '../core/compare';
import { readRun, workloads } from '../core/curve';
import { foldRun, TRIAL_STATES } from '../core/ink';
import { WILD_RUNS } from '../core/wildRuns';
import { madeUp } from './pages';

/**
 * What is said of made-up studies, to the letter: whatever small change is made to how verdicts and tables come about shows here what it changes. Whether
 * it is true is asked elsewhere (truth.test.ts). Where sentences are meant to change, the fixtures are written anew (`npm run unit -- truth/said -u`)
 * and the change is read line by line.
 */
const STUDIES = 36;
const chosen = <Each>(all: readonly Each[], index: number): Each => all[index % all.length] as Each;
/** Each asked with other wishes than the last. */
const asked: Question[] = [...madeUp(STUDIES, 20261201)].map((question, index) => ({
  ...question,
  wishes: {
    window: chosen(WISHES.window, index),
    night: chosen(WISHES.night, index),
    loss: chosen(WISHES.loss, index),
    habit: chosen(WISHES.habit, index),
  },
}));

const claimed = ({ of, figure, who, than, says, value }: Claim) => [of, figure, who, says, than, value].filter(Boolean).join(' · ');
/** Figures to six digits: the last ones are the machine’s. */
const plain = (_key: string, value: unknown) => (typeof value === 'number' ? Number(value.toPrecision(6)) : value);
const lines = (all: readonly unknown[]) => `${all.map((each) => JSON.stringify(each, plain)).join('\n')}\n`;

it('verdicts of made-up studies say what they said', async () => {
  const all = asked.flatMap((question, index) => {
    const groups = groupsOf(question);
    const headline = headlineOf(question, undefined, groups);
    const findings = judge(question, groups);
    return [
      `study ${index}, ${JSON.stringify(question.wishes)}`,
      ...verdictText(findings, undefined, headline).split('\n'),
      ...findings.flatMap(({ need, settle }) => (settle ? [[need, settle.runs]] : [])),
      ...[...(headline?.claims ?? []), ...findings.flatMap(({ claims }) => claims)].map(claimed),
      weightiest(findings),
      oneForAll(groups),
      ...groups.map((group) => balanceOf(group, question.wishes.window)),
    ];
  });
  await expect(lines(all)).toMatchFileSnapshot('fixtures/verdicts.jsonl');
});

it('tables of made-up studies hold what they held', async () => {
  const all = asked.slice(0, STUDIES / 4).flatMap(({ setups, unit, tracks }, index) => {
    const runs = setups.flatMap((each) => each.runs);
    const base = setups[index % setups.length]?.runs[0]?.run.header.id ?? '';
    const rows = compareRuns(runs, base, chosen([50, 80, 100], index));
    const names = namesOf(rows);
    const columns = columnsOf(setups, unit, { from: 20, to: 80 });
    const yardsticks = yardsticksOf(columns.map(({ measure }) => measure));
    const levels = setups.map((each) => each.runs.flatMap(({ run }) => tracks.get(run.header.id) ?? []));
    const ahead = aheadOf(levels[0] ?? [], levels[1] ?? []);
    return [
      `study ${index}`,
      ...unlikeIn(setups, names).map(({ says, explains }) => `${says} ${explains}`),
      ...rows.map((row) => [row.startLevel, row.goal, ...row.milestones.map(({ rank }) => rank), writeStanding(row, names[0] ?? '')]),
      ...byDevice(rows),
      [yardsticks, usualYardstick(columns, aboutOf(runs))],
      ...columns.flatMap(({ measure, cells }) => [
        [measure.id, measure.title, measure.unit, sharesSay(measure)],
        ...cells.map((cell) => [cell.value, cell.range, cell.rank, whiskersOf(cell)]),
        workingOf(cells, index % cells.length, names, measure),
        ...cells.flatMap((cell) => (cells[0] ? [writeDifference(cell, cells[0], measure.unit)] : [])),
        standingsOf(rows, names, 0, { measure, cells }),
      ]),
      ...measuresOf(runs, chosen(gainUnitsOf(runs), index)).map((measure) => matrixTable(matrixOf(setups, measure), measure)),
      figureTable(
        'All figures',
        names,
        columns.map(({ measure }) => measure),
        columns.map(({ cells }) => cells),
      ),
      [turnOf(ahead), ...ahead.filter((_, at) => at % 20 === 0)],
    ];
  });
  await expect(lines(all)).toMatchFileSnapshot('fixtures/tables.jsonl');
});

it('what wild runs come to is what it was', async () => {
  const records = fc
    .sample(WILD_RUNS.run, { seed: 20261201, numRuns: 60 })
    .map(({ header, entries, samples }, index) => foldRun({ ...header, id: `w${index}` }, entries, samples));
  const judged = records.map((run) => ({ ...readRun(run), workloads: workloads(run), percent: run.tracks.percent }));
  const all = [
    ...loadsOf(judged).map((load) => JSON.stringify(load, (key, value: unknown) => (key === 'run' ? undefined : value))),
    ...gathered(records),
    ...padsOf(records, []),
    ...records.flatMap((record) =>
      compatibility(record).flatMap((row) => TRIAL_STATES.flatMap((state) => (row[state] ? [writeTried(row[state])] : []))),
    ),
    ...judged.flatMap((_, index) => {
      const some = judged.slice(index, index + 2);
      return judge(questionOf(some, { devices: [], chargers: [], cables: [] })).map(({ title, says, why }) => [title, says, why]);
    }),
  ];
  await expect(lines(all)).toMatchFileSnapshot('fixtures/wild.jsonl');
});
