import { nanoid } from 'nanoid';
import { computed, reactive } from 'vue';
import { cadenceOf, cellFor, FROM_PAPER, runFromPaper, studyOfPaper } from '@core/exchange';
import { SCHEMA, type Draft, type Footage, type Header } from '@core/ink';
import { AMBIENT, CONDITIONS, keptAmbient, REST, type Condition } from '@core/method';
import { studySchema, type Study } from '@core/plan';
import { listed, parseClock, readDecimal, upperFirst } from '@core/quantity';
import { inkOfStart, readStart } from '@core/run';
import { newHeaders } from '../logbook/headers';
import { useMethods } from '../logbook/methods';
import { useLogbook } from '../logbook/runs';
import { useStudies } from '../logbook/studies';
import { usePaperSheet } from './paperSheet';

/** A study that is made of the columns. */
export const NEW = 'new';
/** More columns than that are counted where something is said of them. */
const MOST_NAMED = 6;

/** Which columns want something: `columns 1 and 3`. */
function inColumns(columns: readonly number[]): string {
  const numbers = columns.map((each) => String(each + 1));
  const more = numbers.length - MOST_NAMED;
  return `${numbers.length === 1 ? 'column' : 'columns'} ${
    more > 0 ? `${numbers.slice(0, MOST_NAMED).join(', ')} and ${more} more` : listed(numbers)
  }`;
}

/** What is said of all columns, as it is typed. */
interface About {
  study: string | undefined;
  studyName: string;
  method: string | undefined;
  start: string;
  state: Study['states'][number];
  rest: string;
  ambient: string;
  isClip: boolean;
  offset: string;
  speed: string;
}

/** A paper on its way into the logbook: what is said of all its columns, what keeps it from being filed, and its runs. Nothing of it is on the screen. */
export function usePaperFiling() {
  const logbook = useLogbook();
  const studies = useStudies();
  const methods = useMethods();
  const about = reactive<About>({
    ...{ study: undefined, studyName: '', method: undefined, start: '', state: 'asleep', rest: '', ambient: '' },
    ...{ isClip: false, offset: '0:00', speed: '1' },
  });

  const footage = computed<Footage | undefined>(() =>
    about.isClip ? { offset: parseClock(about.offset.trim()) ?? 0, speed: readDecimal(about.speed) || 1, cuts: [] } : undefined,
  );
  const sheet = usePaperSheet(() => footage.value);
  const { grid, read, setups, filled, unknown } = sheet;
  const startRead = computed(() => readStart(about.start));

  /** Devices or chargers alone stand at the heads: which of them is not for the program to say. */
  const isHalf = computed(() => {
    const said = (fact: string) => grid.value.facts[fact]?.some((each) => each.trim() !== '') ?? false;
    return said('device') !== said('charger');
  });

  /** What keeps it from being filed. */
  const lacks = computed(() => {
    const said: string[] = [];
    if (filled.value.length === 0) said.push('Nothing is filled in yet.');
    if (read.value.faults.length > 0)
      said.push(
        read.value.faults.length === 1
          ? 'One cell cannot be read: it is marked.'
          : `${read.value.faults.length} cells cannot be read: they are marked.`,
      );
    const wanting = new Map<string, number[]>();
    for (const column of filled.value)
      for (const { says } of setups.value[column]?.faults ?? []) wanting.set(says, [...(wanting.get(says) ?? []), column]);
    for (const [says, columns] of wanting) said.push(`${upperFirst(inColumns(columns))}: ${says}`);
    if (unknown.value.length > 0) said.push('Put what is not on the shelf there first.');
    if (typeof startRead.value === 'object' && 'error' in startRead.value) said.push(startRead.value.error);
    if (about.study === NEW && !about.studyName.trim()) said.push('Give the study a name.');
    if (about.isClip && (parseClock(about.offset.trim()) === undefined || !(readDecimal(about.speed) > 0)))
      said.push('Write the time of the clip at plug-in, as 0:12, and a speed above 0.');
    return said;
  });

  /** A column with the state that it was in: its own, or that of all of them. */
  const setupOf = (column: number) => {
    const setup = setups.value[column];
    return setup && { ...setup, state: setup.state ?? about.state };
  };

  /** The study that the columns belong to: one there is, or one that is made of them. */
  function studyOf(): Study | undefined {
    if (about.study !== NEW) return studies.all.find(({ id }) => id === about.study);
    const school = methods.byId(about.method);
    const [first] = filled.value;
    const cadence = first === undefined ? undefined : cadenceOf(read.value.columns[first] ?? { drafts: [] });
    const level = typeof startRead.value === 'object' && 'percent' in startRead.value ? startRead.value.percent : 0;
    return studySchema.validateSync({
      schema: SCHEMA,
      id: nanoid(10),
      name: about.studyName.trim(),
      question: about.studyName.trim(),
      method: school?.id ?? 'fixed-interval',
      cadence: cadence ?? { kind: 'fixed', every: 300 },
      startLevel: level,
      ...studyOfPaper(filled.value.flatMap((column) => setupOf(column) ?? [])),
      meters: [],
      order: 'as listed',
      seed: 1,
      races: false,
      conditions: CONDITIONS.map((each) => ({ ...each })),
    }) as Study;
  }

  /** What was so of a column: its state, what was written down of it, then of all of them, then what its study asks for. */
  function conditionsOf(column: number, of: Study | undefined): Condition[] {
    const all = [
      ...(setups.value[column]?.conditions ?? []),
      { name: REST, value: about.rest.trim() },
      { name: AMBIENT, value: keptAmbient(about.ambient) },
      ...(of && about.study !== NEW ? of.conditions : []),
    ].filter(({ value }) => value);
    const once = all.filter(({ name }, index) => all.findIndex((each) => each.name === name) === index);
    return [{ name: 'state', value: setupOf(column)?.state ?? about.state }, ...once];
  }

  /**
   * Files what is filled in, all of it or nothing.
   *
   * @param told how many of the runs are stored so far
   * @returns the ids of the runs
   * @throws {StorageTrouble}
   */
  async function file(told: (done: number, of: number) => void): Promise<string[]> {
    const of = studyOf();
    const school = methods.byId(about.method);
    const methodOf = school ? { method: methods.isOwn(school.id) ? school.name : school.id, rule: school.rule } : {};
    const headers = newHeaders(
      filled.value.map((column) => headerOf(column, of, methodOf)),
      false,
    );
    const runs = headers.map((header, index) => {
      const column = filled.value[index] ?? 0;
      return runFromPaper({ drafts: withStart(column) }, header, () => nanoid(12), Date.now());
    });
    if (of && about.study === NEW) await studies.put(of);
    await logbook.importRuns(runs, { progress: told });
    return runs.map(({ header }) => header.id);
  }

  function headerOf(column: number, of: Study | undefined, methodOf: Pick<Header, 'method' | 'rule'>) {
    const setup = setupOf(column);
    const { device, charger, cable, port, feed, plugInAt } = setup ?? {};
    if (!setup || !device || !charger || plugInAt === undefined) throw new Error(`Column ${column + 1} is not whole.`);
    const cell = of && cellFor(of, setup);
    const cadence = cadenceOf(read.value.columns[column] ?? { drafts: [] });
    return {
      device,
      charger,
      plugInAt,
      ...(cable && { cable }),
      ...(port !== undefined && { port }),
      ...(feed && { feed }),
      ...(cadence && { cadence }),
      ...methodOf,
      ...(cell && { study: { id: of.id, cell: cell.key } }),
      ...(footage.value && { footage: footage.value }),
      conditions: conditionsOf(column, of),
      source: FROM_PAPER.replace('from ', ''),
    };
  }

  /** The ink of a column; where nothing stands at plug-in, the level at which every run started. */
  function withStart(column: number): { seconds: number; draft: Draft }[] {
    const drafts = read.value.columns[column]?.drafts ?? [];
    const given = startRead.value;
    if (drafts[0]?.seconds === 0 || (typeof given === 'object' && 'error' in given)) return drafts;
    const began = inkOfStart(given, 0).map((draft) => ({
      seconds: 0,
      draft: draft.kind === 'reading' ? { ...draft, paper: true as const } : draft,
    }));
    return [...began, ...drafts];
  }

  return { about, sheet, isHalf, lacks, file };
}
