import { factsOf } from '../bench/facts';
import { factValue } from '../bench/factValue';
import type { Gear, Shelf } from '../bench/shelf';
import type { Judged } from '../advise/question';
import { unlikeIn } from '../compare/unlike';
import type { SetupRuns } from '../compare/setups';
import { checksOf } from '../curve/notices';
import { cadenceInWords, marksOf } from '../method/cadence';
import { shownCondition } from '../method/conditions';
import type { School } from '../method/schools';
import { entrySays } from '../ink/entrySays';
import { nominal } from '../quantity/duration';
import { fixed, trimmed } from '../quantity/figures';
import { clipped, isolated, upperFirst } from '../quantity/letters';
import { listed } from '../quantity/listed';
import { items, said, type Paragraph } from './paragraph';

/** What sentences of how it was done are made of. */
export interface Done {
  judged: readonly Judged[];
  setups: readonly SetupRuns[];
  names: readonly string[];
  methods: readonly Pick<School, 'id' | 'name' | 'start' | 'stops'>[];
  /** A day in words. */
  day: (at: number) => string;
}

/** So many of a kind are told one by one; of more, how many. */
const MOST_TOLD = 12;

export const runsSay = (count: number): string => (count === 1 ? 'one run' : `${count} runs`);

/** From when to when: `2 Oct`, `2 Oct to 9 Oct`. */
export function daysOf(judged: readonly Judged[], day: Done['day']): string {
  const at = judged.map(({ run }) => run.header.plugInAt);
  const [first, last] = [day(Math.min(...at)), day(Math.max(...at))];
  return first === last ? first : `${first} to ${last}`;
}

/** Different answers, in order, and how many gave each. */
function answersOf<Each>(all: readonly Each[], of: (one: Each) => string | undefined): [answer: string, count: number][] {
  const found = new Map<string, number>();
  for (const one of all) {
    const answer = of(one);
    if (answer !== undefined) found.set(answer, (found.get(answer) ?? 0) + 1);
  }
  return [...found];
}

const ofThem = (count: number, all: number): string => (count === all ? '' : ` (${count} of ${all} runs)`);

/** Facts that are no label's. */
const NO_LABEL = ['kind', 'price', 'owned', 'boxCharger', 'boxCable'];

/** Values that no reader learns anything from. */
const SAYS_NOTHING = ['', 'not known', 'none'];

/** What of a piece of gear its label says, after its name and its kind. */
function gearSays(shelf: Shelf, gear: Gear): string {
  const facts = factsOf(shelf).flatMap((fact) => {
    const value = factValue(gear, fact);
    if (NO_LABEL.includes(fact.key) || fact.type === 'gear' || value === undefined || value === false) return [];
    if (typeof value === 'string' && SAYS_NOTHING.includes(value)) return [];
    return [
      value === true
        ? fact.name
        : `${fact.name} ${typeof value === 'number' ? trimmed(value, 3) : value}${fact.unit ? ` ${fact.unit}` : ''}`,
    ];
  });
  const kind = 'kind' in gear && gear.kind !== 'other' ? ` (${gear.kind})` : '';
  return `${isolated(gear.name)}${kind}${facts.length > 0 ? `: ${facts.join(' · ')}` : ''}.`;
}

/** All gear that runs were made with, each once, as its labels say. */
export function gearSaid(judged: readonly Judged[]): Paragraph[] {
  const found = new Map<string, string>();
  const add = (shelf: Shelf, gear: Gear | undefined) => {
    if (gear && !found.has(`${shelf}/${gear.id}`)) found.set(`${shelf}/${gear.id}`, gearSays(shelf, gear));
  };
  for (const { run } of judged) add('device', run.header.device);
  for (const { run } of judged)
    for (const { charger, cable, feed } of [run.header, ...run.sources]) {
      add('charger', charger);
      add('charger', feed?.charger);
      add('cable', cable);
      add('cable', feed?.cable);
    }
  for (const { run } of judged) add('meter', run.header.meter);
  return items([...found.values()]);
}

/** When each run was read. Of runs from paper, the last mark of which is their end, the others are told once, as far as any of them went. */
function readSays(judged: readonly Judged[]): (string | undefined)[] {
  const marks = judged.map(({ run }) => (run.header.source === 'paper' ? marksOf(run.header.cadence).slice(0, -1) : []));
  const longest = [...marks].sort((one, other) => other.length - one.length)[0] ?? [];
  const isPart = marks.map((each) => each.length > 0 && each.every((mark, index) => mark === longest[index]));
  const areAlike = new Set(judged.flatMap(({ run }, index) => (isPart[index] ? marksOf(run.header.cadence).join(' ') : []))).size === 1;
  return judged.map(({ run }, index) => {
    const { cadence } = run.header;
    if (isPart[index] && !areAlike) return `Read ${cadenceInWords({ kind: 'marks', at: [...longest] })}, as far as it went, and at its end`;
    if (cadence && cadence.kind !== 'sampled') return `Read ${cadenceInWords(cadence)}`;
    return run.sampled.size > 0 || cadence ? 'Streamed by a meter' : undefined;
  });
}

/** How runs were taken: their method, when they were read, at which level they began, and how often each was run. */
function methodSays({ judged, setups, names, methods }: Done): string[] {
  const all = judged.length;
  const named = answersOf(judged, ({ run }) => run.header.method).map(([id, count]) => {
    const found = methods.find((each) => each.id === id);
    return found
      ? `By ${found.name}${ofThem(count, all)}: it starts at ${found.start}, and stops ${found.stops}.`
      : `By a method that is not kept here any more${ofThem(count, all)}.`;
  });
  const read = answersOf(readSays(judged), (how) => how).map(([how, count]) => `${how}${ofThem(count, all)}.`);
  const starts = judged.flatMap(({ figures }) => figures.startLevel ?? []);
  const [low, high] = [Math.min(...starts), Math.max(...starts)];
  const began = starts.length === 0 ? [] : [`At plug-in it showed ${low === high ? fixed(low) : `${fixed(low)} to ${fixed(high)}`} %.`];
  const often = answersOf(setups, ({ runs }) => runsSay(runs.length));
  const each = often[0]?.[0] ?? '';
  const repeats =
    often.length === 1
      ? `Made ${each === 'one run' ? 'was' : 'were'} ${each} of ${setups.length === 1 ? 'it' : 'each setup'}.`
      : `Made were ${listed(setups.slice(0, MOST_TOLD).map(({ runs }, index) => `${runsSay(runs.length)} of ${names[index] ?? ''}`))}${setups.length > MOST_TOLD ? ', and more of others' : ''}.`;
  return [...named, ...read, ...began, repeats];
}

/** Settings that every run was confirmed to have. */
function alikeSays(judged: readonly Judged[]): string | undefined {
  const lists = judged.map(({ run }) => run.header.conditions ?? []);
  const [first = []] = lists;
  const alike = first.filter(({ name, value }) =>
    lists.every((each) => each.some((other) => other.name === name && other.value === value)),
  );
  if (alike.length === 0) return undefined;
  const told = alike.map(shownCondition).map(({ name, value }) => (value === '' ? name : `${name} ${value}`));
  return `Confirmed alike for every run: ${listed(told)}.`;
}

/** What went otherwise than the method has it: checks that came late or never, what was struck, settings that differ. */
function departures({ judged, setups, names }: Done): string[] {
  const nameOf = ({ run }: Judged) =>
    names[setups.findIndex(({ runs }) => runs.some((one) => one.run.header.id === run.header.id))] ?? run.header.charger.name;
  const checked = judged.flatMap((one) => {
    const checks = checksOf({ ...one.run, tracks: { percent: one.percent } });
    const count = (state: string) => checks.reduce((sum, each) => sum + (each.state === state ? each.count : 0), 0);
    const [late, missed] = [count('late'), count('missed')];
    const told = [late > 0 && `${late} late`, missed > 0 && `${missed} missed`].filter((each) => each !== false);
    return told.length > 0 ? [`${nameOf(one)}: ${listed(told)}`] : [];
  });
  const struck = judged.flatMap((one) =>
    one.run.struck.map(
      ({ reading, seconds, strike }) =>
        `${nameOf(one)}: ${entrySays(reading)} at ${nominal(seconds)} was struck, for ${clipped(strike.reason, 120)}`,
    ),
  );
  const some = (all: readonly string[]) =>
    all.length > MOST_TOLD ? [...all.slice(0, MOST_TOLD), `and ${all.length - MOST_TOLD} more`] : all;
  return [
    ...(checked.length > 0 ? [`Checks that were not answered in time: ${some(checked).join('; ')}.`] : []),
    ...(struck.length > 0 ? [`Readings that count for nothing: ${some(struck).join('; ')}.`] : []),
    ...unlikeIn(setups, names).map(({ says }) => says),
  ];
}

/** How it was done, in sentences from what was done. */
export function doneSays(done: Done): Paragraph[] {
  const { judged, day } = done;
  if (judged.length === 0) return [];
  const devices = answersOf(judged, ({ run }) => isolated(run.header.device.name)).map(([name]) => name);
  const alike = alikeSays(judged);
  const gone = departures(done);
  return [
    said(`${upperFirst(runsSay(judged.length))} of ${listed(devices)}, ${daysOf(judged, day)}. ${methodSays(done).join(' ')}`),
    ...(alike ? [said(alike)] : []),
    ...(gone.length > 0
      ? [said('What went otherwise:'), ...items(gone)]
      : [said('Every check was answered in time, and nothing was struck.')]),
  ];
}

/** The answer that most of them gave. */
const usual = (answers: readonly [answer: string, count: number][]): string | undefined =>
  [...answers].sort(([, one], [, other]) => other - one)[0]?.[0];

/** How somebody else can repeat it. */
export function repeatSays({ judged, names, methods }: Done): Paragraph[] {
  if (judged.length === 0) return [];
  const method = methods.find(({ id }) => id === usual(answersOf(judged, ({ run }) => run.header.method)));
  const read = usual(answersOf(readSays(judged), (how) => how));
  const start = usual(answersOf(judged, ({ figures }) => (figures.startLevel === undefined ? undefined : fixed(figures.startLevel))));
  const alike = alikeSays(judged);
  const devices = [...new Set(judged.map(({ run }) => isolated(run.header.device.name)))];
  return items([
    `Take ${listed(devices)}, and charge ${devices.length === 1 ? 'it by each of' : 'each as it was here'}: ${listed(names)}.`,
    ...(method ? [`Method: ${method.name}; it starts at ${method.start}, and stops ${method.stops}.`] : []),
    ...(start === undefined ? [] : [`Plug in at ${start} %.`]),
    ...(read ? [`${read}; write the moment down with what you read.`] : []),
    ...(alike ? [alike.replace('Confirmed alike for every run', 'Set alike before each run')] : []),
    'Run each at least twice, on different days and in mixed order: how far two runs of one setup differ tells what a difference between two setups is worth.',
  ]);
}
