import { groupsOf, headlineOf, judge, questionOf, type Claim, type Finding, type Question } from '../core/advise';
import { between, isBetter } from '../core/advise/best';
import type { Group } from '../core/advise/question';
import type { Charger, Device } from '../core/bench';
import { columnsOf, type MeasureColumn, type SetupRuns } from '../core/compare';
import { writeApart } from '../core/compare/amounts';
import { readRun, workloads } from '../core/curve';
import { exampleHeader } from '../core/ink/example';
import { foldRun, inkOf, type Entry, type Header } from '../core/ink';
import { nominal, price, spell } from '../core/quantity';
import { seeded } from '../core/simulate/seeded';
import { contradictions } from './contradictions';
import { levelAt, MODELS, normal, pick, shownAt, timesOf, type Rate } from './models';

/** Whole verdicts of made-up studies, read as data: whether a page denies itself, its table or another page, or has a figure that is of nothing. */

/** What pages say against themselves, and which figures in them are of nothing, each once. */
export interface Pages {
  studies: number;
  findings: number;
  claims: number;
  denials: string[];
  /** Values in a sentence that no claim of it has. */
  untold: string[];
  /** Claims that the table of the page has otherwise. */
  otherwise: string[];
}

const CHARGERS: readonly Charger[] = (
  [
    ['Cobble 5', 5, 6, 30, true],
    ['Cobble 12', 12, 12, 40, true],
    ['Cobble 20', 20, 19, 52, false],
    ['Quern 30', 30, 45, 84, false],
    ['Quern 65', 65, 59, 110, false],
    ['Sluice', undefined, undefined, undefined, false],
  ] as const
).map(([name, watts, paid, weight, owned]) => ({
  ...{ id: name, name, kind: 'adapter' as const, owned },
  ...(watts !== undefined && { watts }),
  ...(paid !== undefined && { price: paid }),
  ...(weight !== undefined && { weight, size: `${weight / 2} × 28 × 51 mm` }),
}));

const METHODS = ['full', 'window', 'light'] as const;

interface Played {
  entries: Entry[];
  header: Header;
}

/** A run of a device by a charger, read every so often until it is full or the window is over, with its heat where a thermometer lies on it. */
function runOf(
  { device, rate, isHot }: { device: Device; rate: Rate; isHot: boolean },
  charger: Charger,
  method: (typeof METHODS)[number],
  cadence: number,
  id: string,
  noise: () => number,
): Played {
  const share = Math.min(1, (charger.watts ?? 15) / 28);
  const factor = 1 + 0.02 * normal(noise);
  let most = 0;
  for (let level = 0; level < 100; level += 1) most = Math.max(most, rate(level, 5));
  const start = pick([1, 2, 10, 50], noise);
  const times = timesOf((level, minutes) => Math.min(share * most, rate(level, minutes)) / factor, start);
  const end = method === 'window' ? 60 : Math.min(12 * 60, (times[100] ?? Infinity) + cadence);
  const rule: Header['rule'] = method === 'window' ? { ends: 'window', wants: ['level'] } : undefined;
  const header = exampleHeader({
    id,
    device,
    charger,
    conditions: [{ name: 'screen', value: charger.name === 'Cobble 5' ? 'on' : 'off' }],
    cadence: method === 'window' ? { kind: 'marks', at: [900, 1800, 3600] } : { kind: 'fixed', every: cadence * 60 },
    ...(rule && { rule }),
  });
  const readings = [];
  const step = method === 'window' ? 15 : cadence;
  for (let minutes = 0; minutes <= end; minutes += step) {
    const level = levelAt(times, minutes);
    const percent = shownAt(times, minutes);
    const rise = 18 * share * Math.sin((Math.PI * Math.min(100, level)) / 130);
    readings.push({
      seconds: minutes * 60 + (minutes > 0 ? 3 * noise() : 0),
      ...(method !== 'light' && { percent }),
      ...(isHot && { front: 24 + rise + 0.3 * normal(noise) }),
      watts: 20 * share * (percent >= 100 ? 0.02 : 1),
    });
    if (percent >= 100) break;
  }
  const entries = inkOf(header, readings);
  if (method !== 'light') return { header, entries };
  const isSeen = noise() < 0.5;
  const light = [0, (times[100] ?? 0) * 60].map((seconds, index): Entry => {
    const at = header.plugInAt + Math.round(seconds * 1000);
    return {
      kind: 'event',
      seq: 9000 + index,
      id: `${id}l${index}`,
      at,
      written: at,
      event: index === 0 ? 'light on' : isSeen ? 'light went out' : 'light off',
    };
  });
  return { header, entries: [...entries, ...light] };
}

/** A study of one to three devices on two to five chargers, some of it repeated, some of it left out. */
function study(noise: () => number, seed: number): Question {
  const method = pick(METHODS, noise);
  const devices = Array.from({ length: pick([1, 1, 1, 2, 3], noise) }, (_, index) => {
    const model = pick(MODELS, noise);
    const kind: Device['kind'] = method === 'light' ? 'camera' : model.kind === 'bank' ? 'phone' : model.kind;
    const device: Device = {
      id: `d${index}`,
      name: `Sedge ${index + 1}`,
      kind,
      wattHours: Math.round(12 + 38 * noise()),
      inputLimit: 25,
    };
    return { device: noise() < 0.4 ? { ...device, boxCharger: 'Cobble 12' } : device, rate: model.device(noise), isHot: noise() < 0.5 };
  });
  const chargers = [...CHARGERS].sort(() => noise() - 0.5).slice(0, 2 + Math.floor(noise() * 4));
  // Half of the studies repeat all alike; in the others each device is read in its own way, and each cell as often as there was time for.
  const isEven = noise() < 0.5;
  const [cadence, repeats] = [pick([5, 10, 15], noise), pick([1, 1, 2, 3], noise)];
  const runs = devices.flatMap((of, at) => {
    const every = isEven ? cadence : pick([2, 5, 10, 15], noise);
    return chargers.flatMap((charger, place) =>
      // A cell of the matrix is left out now and then.
      place > 1 && noise() < 0.15
        ? []
        : Array.from({ length: isEven ? repeats : pick([1, 1, 2, 3], noise) }, (_, index) =>
            runOf(of, charger, method, every, `r${seed} ${at} ${place} ${index}`, noise),
          ),
    );
  });
  const judged = runs.map(({ header, entries }) => {
    const run = foldRun(header, entries);
    return { ...readRun(run), workloads: workloads(run), percent: run.tracks.percent };
  });
  return questionOf(judged, { devices: devices.map(({ device }) => device), chargers: CHARGERS, cables: [] });
}

/** Amounts as they stand in a sentence: `1 h 39`, `57 min`, `± 3 points`, `12 °C`. */
const AMOUNT = /\d[\d.]*(?: h(?: \d\d)?| (?:min|s|%|Wh|W|mAh|°C|points?|g|cm³))(?![\w°])/g;

/** Figures of a text that are neither in what it claims nor in what it was asked. */
function untoldIn(text: string, claims: readonly Claim[], known: readonly string[]): string[] {
  const values = [...claims.flatMap(({ value }) => value ?? []), ...known];
  return (text.match(AMOUNT) ?? []).filter((amount) => !values.some((value) => holds(value, amount)));
}

/** Whether a value has an amount in it, also with its unit said once: `26 to 51 min`. */
function holds(value: string, amount: string): boolean {
  const [figure = '', ...unit] = amount.split(' ');
  return value.includes(amount) || (value.includes(figure) && value.includes(unit.join(' ')));
}

/** What the table of a page, which has all its setups, has otherwise than a claim. */
function otherwiseIn(
  { setups, columns }: { setups: readonly SetupRuns[]; columns: readonly MeasureColumn[] },
  groups: readonly Group[],
  { of, figure, who, than, says, value }: Claim,
): string[] {
  const group = groups.find((each) => each.of === of);
  const found = columns.find(({ measure }) => measure.id === figure);
  const at = (name: string | undefined) => {
    const own = group?.setups[group.names.indexOf(name ?? '')];
    return own ? setups.indexOf(own) : -1;
  };
  const cell = found?.cells[at(who)];
  if (!found || !cell) return [];
  if (says === 'is')
    return cell.value === value ? [] : [`${figure}: ${who} is ${value ?? ''} in a sentence and ${cell.value ?? ''} in the table`];
  const differ = between(found.cells, at(who), at(than));
  const apart = differ && writeApart(differ, found.measure.unit).both;
  if (says === 'better' && value !== undefined && value !== apart)
    return [`${figure}: ${who} is better than ${than ?? ''} by ${value} in a sentence and by ${apart ?? 'nothing'} in the table`];
  const told = differ?.told;
  const beats = (one: string | undefined, other: string | undefined) => isBetter(found.cells, found.measure, at(one), at(other));
  const is = { alike: told === 'tie', better: beats(who, than), unbeaten: !beats(than, who), serves: true, fails: true }[says];
  return is ? [] : [`${figure}: ${who} is ${says} than ${than ?? ''}, and the table has ${told ?? 'nothing'}`];
}

/** What *Put it into the plan* would add otherwise than a finding says that it takes. */
function plannedOtherwise({ need, settle }: Finding): string[] {
  if (!settle) return [];
  const said = [...settle.says.matchAll(/\b(one|\d+) (?:more )?runs? of (each)?/gi)].map(([, count = '', each]) => ({
    count: /one/i.test(count) ? 1 : Number(count),
    isEach: each !== undefined,
  }));
  const isSo = said.some(({ count, isEach }) => isEach && settle.runs.every(({ runs }) => runs === count));
  const planned = settle.runs.map(({ runs }) => runs).join(' and ');
  const asSaid =
    said.length > 1 ? said.map(({ count }) => count).join(' and ') === planned : settle.runs.every(({ runs }) => runs === said[0]?.count);
  return said.length === 0 || isSo || asSaid ? [] : [`${need}: ${planned} runs planned, and it says “${settle.says}”`];
}

const textOf = ({ says, why, settle }: Finding) => [says, why, settle?.says].filter(Boolean).join(' ');

/** So many made-up studies, as they are asked about, one after another: none is held when the next is made. */
export function* madeUp(studies: number, seed: number): Generator<Question> {
  const noise = seeded(seed);
  for (let count = 0; count < studies; count += 1) yield study(noise, count);
}

/** Reads so many pages. */
export function playPages(studies: number, seed: number): Pages {
  const found: Pages = { studies, findings: 0, claims: 0, denials: [], untold: [], otherwise: [] };
  let count = 0;
  for (const question of madeUp(studies, seed)) {
    readPage(question, found, count);
    count += 1;
  }
  return found;
}

function readPage(question: Question, found: Pages, count: number): void {
  const groups = groupsOf(question);
  const columns = columnsOf(question.setups, question.unit);
  const headline = headlineOf(question, undefined, groups);
  const findings = judge(question, groups);
  const claims = [...(headline?.claims ?? []), ...findings.flatMap((each) => each.claims)];
  const { wishes } = question;
  const known = [
    ...groups.flatMap(({ figures }) => [...figures.values()].map(({ measure }) => measure.title)),
    ...[nominal(wishes.window), spell(wishes.window), spell(wishes.night), `${wishes.loss * 100} %`, '80 %', '100 %', '95 %'],
    ...CHARGERS.flatMap((each) => (each.price === undefined ? [] : [price(each.price)])),
  ];
  const names = [...new Set([...groups.flatMap((group) => [...group.names, group.of]), ...CHARGERS.map(({ name }) => name)])].sort(
    (one, other) => other.length - one.length,
  );
  const bare = (text: string) => names.reduce((left, name) => left.replaceAll(name, '§'), text);
  found.findings += findings.length;
  found.claims += claims.length;
  const say = (list: string[], some: readonly string[]) => list.push(...some.map((each) => `study ${count}, ${each}`));
  say(found.denials, contradictions(claims));
  for (const finding of findings)
    say(
      found.untold,
      untoldIn(bare(textOf(finding)), finding.claims, known).map((each) => `${finding.need}: ${each} in “${textOf(finding)}”`),
    );
  for (const sentence of headline?.says ?? [])
    say(
      found.untold,
      untoldIn(bare(sentence), headline?.claims ?? [], known).map((each) => `headline: ${each} in “${sentence}”`),
    );
  say(
    found.otherwise,
    claims.flatMap((claim) => otherwiseIn({ setups: question.setups, columns }, groups, claim)),
  );
  if (groups.length === 1) say(found.otherwise, findings.flatMap(plannedOtherwise));
}
