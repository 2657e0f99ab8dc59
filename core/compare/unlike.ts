import { mean, median } from 'd3-array';
import { roomOf } from '../curve/heat';
import type { ReadRun } from '../curve/figures';
import { AMBIENT, REST } from '../method/conditions';
import { cadenceInWords } from '../method/cadence';
import { readDecimal } from '../quantity/decimal';
import { nominal, spell } from '../quantity/duration';
import { fixed, temperature, temperatureRise } from '../quantity/figures';
import { clipped, lowerFirst, upperFirst } from '../quantity/letters';
import { listed } from '../quantity/listed';
import { workOn, type SetupRuns } from './setups';
import { startOf } from './starts';

/** A difference is told in so many characters at most. */
const MOST_CHARACTERS = 200;

/** Something in which runs that are compared differ beside what is compared, and what it could explain. */
export interface Unlike {
  what: string;
  /** How they differ, in a sentence, and what it explains where that still fits: 200 characters at most. */
  inShort: string;
  /** How they differ, in a sentence. */
  says: string;
  /** What of a difference between them it could explain, in a sentence. */
  explains: string;
  /** It as the subject of a sentence: `the room`. */
  about: string;
  /** Setups in which it is not as in most, by their place; none where there is no most. */
  odd: number[];
}

/** Settings and what they do to a charge (common practice, no source). */
const SETTINGS: readonly [about: RegExp, explains: string][] = [
  [/screen|brightness|keyboard/, 'What the screen uses never reaches the battery: the one that was lit is slower by that.'],
  [/airplane|wi-fi|background|apps|low-power/, 'Work in the background uses power and warms it: minutes can come from that alone.'],
  [/adaptive/, 'It may hold below full for hours: times to 100 % say nothing of the chargers.'],
  [/case/, 'A case keeps heat in: temperatures differ by it, and a hot battery takes less.'],
  [/locked/, 'A device that is in use takes power from its charge.'],
  [/version/, 'Another version may charge in another way.'],
];
const EXPLAINS_SETTING = 'It could explain a small difference.';

/** Rooms and first temperatures further apart than this are not alike, in °C. */
const WARMER = 2;
/** A temperature read so soon is one at the start, in seconds. */
const AT_START = 60;
/** Levels at plug-in further apart than this are not alike, in %. */
const HIGHER = 1;

/** What is said of every setup, where it is not the same of all: each answer, and whose it is. */
function answers(setups: readonly SetupRuns[], names: readonly string[], of: (one: ReadRun) => string | undefined): Map<string, string[]> {
  const found = new Map<string, string[]>();
  for (const [index, { runs }] of setups.entries())
    for (const answer of new Set(runs.map((one) => of(one) ?? 'not said')))
      found.set(answer, [...(found.get(answer) ?? []), names[index] ?? '']);
  return found;
}

/** `The room was 21 to 25 °C: compare the rise …`; without what it explains where that would be too long. */
function inShort(says: string, explains: string): string {
  const both = `${says.replace(/\.$/, '')}: ${lowerFirst(explains)}`;
  return both.length <= MOST_CHARACTERS ? both : says;
}

/** So many setups are named in one sentence, so many answers told, and each of them with so many characters. */
const MOST_NAMED = 3;
const MOST_ANSWERS = 3;
const LONGEST_ANSWER = 24;
const LONGEST_NAME = 24;

/** Answers as far as they are told: of those that would begin alike, what follows. */
function shortened(answers: readonly string[]): Map<string, string> {
  const clip = (answer: string) => clipped(answer, LONGEST_ANSWER);
  return new Map(
    answers.map((answer) => {
      const alike = answers.filter((each) => clip(each) === clip(answer));
      if (alike.length === 1) return [answer, clip(answer)];
      const same = answer.split('').findIndex((letter, at) => alike.some((each) => each[at] !== letter));
      return [answer, clip(`… ${answer.slice(answer.lastIndexOf(' ', same < 0 ? answer.length : same) + 1)}`)];
    }),
  );
}

/** `on for A and B, off for C`; of many setups how many: those are named that are fewest of one answer. Of many answers how many. */
function whoSays(found: ReadonlyMap<string, readonly string[]>): string {
  if (found.size > MOST_ANSWERS) return `${found.size} different answers`;
  let named = 0;
  const short = shortened([...found.keys()]);
  const says = new Map(
    [...found]
      .sort(([, one], [, other]) => one.length - other.length)
      .map(([answer, who]) => {
        const isNamed = named + who.length <= MOST_NAMED;
        if (isNamed) named += who.length;
        const whose = isNamed ? listed(who.map((name) => clipped(name, LONGEST_NAME))) : `${who.length} of them`;
        return [answer, `${short.get(answer) ?? answer} for ${whose}`] as const;
      }),
  );
  return listed([...found.keys()].map((answer) => says.get(answer) ?? ''));
}

/** Least and most of what is known; `undefined` where fewer than two know it. */
function rangeIn(all: readonly ReadRun[], of: (one: ReadRun) => number | undefined): { low: number; high: number } | undefined {
  const known = all.map(of).filter((each) => each !== undefined);
  return known.length < 2 ? undefined : { low: Math.min(...known), high: Math.max(...known) };
}

/** Setups whose answer is not that of most of them. */
function fewest(setups: readonly SetupRuns[], of: (one: ReadRun) => string | undefined): number[] {
  const said = setups.map(({ runs }) => [...new Set(runs.map((one) => of(one) ?? 'not said'))].sort().join());
  const most = said.find((answer) => said.filter((each) => each === answer).length > said.length / 2);
  return most === undefined ? [] : said.flatMap((answer, index) => (answer === most ? [] : [index]));
}

/** Setups that lie further than so much from the middle one. */
function far(setups: readonly SetupRuns[], of: (one: ReadRun) => number | undefined, max: number): number[] {
  const values = setups.map(({ runs }) => mean(runs.flatMap((one) => of(one) ?? [])));
  const middle = median(values.filter((each) => each !== undefined));
  return values.flatMap((value, index) => (value !== undefined && middle !== undefined && Math.abs(value - middle) > max ? [index] : []));
}

/** Seconds that one percent takes up to half full, of the quickest of them. */
function quickest(all: readonly ReadRun[]): number | undefined {
  const paces = all.flatMap(({ figures: { milestones, startLevel } }) => {
    const half = milestones.find(({ level }) => level === 50);
    return half?.state === 'reached' && startLevel !== undefined && startLevel < 40 ? [half.estimate / (50 - startLevel)] : [];
  });
  return paces.length > 0 ? Math.min(...paces) : undefined;
}

/**
 * What makes a comparison unfair: all in which its runs differ beside what is compared, each with what it could explain.
 *
 * @param names of the setups, in their order
 * @param byLevel whether times to levels are compared
 */
export function unlikeIn(setups: readonly SetupRuns[], names: readonly string[], byLevel = true): Unlike[] {
  const all = setups.flatMap(({ runs }) => runs);
  const found: Unlike[] = [];
  const say = (what: string, says: string, explains: string, odd: number[] = [], about = `the ${what}`) =>
    found.push({ what, inShort: inShort(says, explains), says, explains, about, odd });
  const differ = (what: string, of: (one: ReadRun) => string | undefined, explains: string) => {
    const said = answers(setups, names, of);
    if (said.size > 1) say(what, `${upperFirst(what)}: ${whoSays(said)}.`, explains, fewest(setups, of));
  };

  const starts = rangeIn(all, startOf);
  if (starts && starts.high - starts.low > HIGHER) {
    const pace = quickest(all);
    const worth = pace && ` At the quickest pace here that is ${spell(Math.max(60, pace * (starts.high - starts.low)), 60)}.`;
    say(
      'start',
      `They did not start alike: from ${fixed(starts.low)} to ${fixed(starts.high)} %.`,
      `Times to a level favour the higher start.${worth ?? ''}`,
      far(setups, startOf, HIGHER),
    );
  }
  if (byLevel && all.some((one) => startOf(one) === undefined))
    say('start', 'The level at plug-in is not known for every run.', 'Gains of those runs are not known either.');

  if (new Set(all.map(({ run }) => run.header.device.id)).size > 1)
    say('device', 'The devices differ.', 'A percent is not the same charge in each: compare the gains in Wh or in hours of use.');
  const health = rangeIn(all, ({ run }) => run.header.device.health ?? 100);
  if (health && health.high > health.low)
    say(
      'health',
      `Batteries are at ${fixed(health.low)} to ${fixed(health.high)} % of what they held when new.`,
      `One that holds less is full sooner, by up to ${fixed((1 - health.low / health.high) * 100)} % of the time.`,
    );

  const conditions = new Set(all.flatMap(({ run }) => (run.header.conditions ?? []).map(({ name }) => name)));
  for (const name of conditions) {
    if (name === AMBIENT || name === REST) continue;
    const explains = SETTINGS.find(([about]) => about.test(name.toLowerCase()))?.[1] ?? EXPLAINS_SETTING;
    differ(name, ({ run }) => run.header.conditions?.find((each) => each.name === name)?.value, explains);
  }
  differ(
    'work',
    ({ run }) => listed([...new Set(workOn(run))]) || undefined,
    'What a device uses while it charges never reaches its battery.',
  );
  const rested = rangeIn(all, ({ run }) => restOf(run.header.conditions));
  if (rested && rested.high - rested.low >= 10)
    say('rest', `They were left off for ${fixed(rested.low)} to ${fixed(rested.high)} min before.`, 'One that rested less starts warmer.');

  const rooms = rangeIn(all, ({ run }) => roomOf(run));
  if (rooms && rooms.high - rooms.low > WARMER)
    say(
      'room',
      `The room was ${temperature(rooms.low, 0)} to ${temperature(rooms.high, 0)}.`,
      `Temperatures can differ by ${temperatureRise(rooms.high - rooms.low)} from that alone: compare the rise. A warmer battery may take less.`,
      far(setups, ({ run }) => roomOf(run), WARMER),
    );
  const first = rangeIn(all, ({ figures }) => figures.heat.find((heat) => heat.first.seconds <= AT_START)?.first.value);
  if (first && first.high - first.low > WARMER)
    say(
      'warm start',
      `At the start they were ${temperature(first.low, 0)} to ${temperature(first.high, 0)} warm.`,
      'One that starts warm comes to its limit of heat sooner, and then takes less.',
      far(setups, ({ figures }) => figures.heat.find((heat) => heat.first.seconds <= AT_START)?.first.value, WARMER),
      'how warm it started',
    );

  differ(
    'meter',
    ({ run }) => run.header.meter?.name ?? 'none',
    'Two meters disagree by what each is off: their watts are told apart less finely.',
  );
  // Over the time that is compared: what was planned for later makes no difference, nor does the moment at which the first of them was over.
  const until = Math.min(...all.map(({ run }) => run.end));
  const checksSay = ({ run: { header }, figures }: ReadRun): string | undefined => {
    const { cadence } = header;
    if (!cadence) return figures.topSample ? 'streamed' : undefined;
    if (cadence.kind !== 'marks') return cadenceInWords(cadence);
    const at = cadence.at.filter((mark) => mark < until);
    const [says, last] = [cadenceInWords(at.length > 0 ? { ...cadence, at } : cadence), at.at(-1)];
    return says.length > LONGEST_ANSWER && last !== undefined && !cadence.of ? `${at.length} times by ${nominal(last)}` : says;
  };
  differ('checks', checksSay, 'The coarser one has the wider margin, and counts as it is.');
  // Of what is fed by another source: which.
  const fed = setups.flatMap((setup, index) => (setup.runs[0]?.run.header.feed ? [{ setup, name: names[index] ?? '' }] : []));
  const feeds = answers(
    fed.map(({ setup }) => setup),
    fed.map(({ name }) => name),
    ({ run }) => run.header.feed && sourceName(run.header.feed.charger.name, run.header.feed.cable?.name),
  );
  if (feeds.size > 1)
    say(
      'fed by',
      `Fed by ${whoSays(feeds)}.`,
      'A pad or a dock gives no more than what feeds it: the same pad from another supply is another setup.',
    );
  return found;
}

const sourceName = (charger: string, cable: string | undefined) => (cable === undefined ? charger : `${charger} through ${cable}`);

function restOf(conditions: ReadRun['run']['header']['conditions']): number | undefined {
  const typed = conditions?.find(({ name }) => name === REST)?.value.trim();
  const minutes = readDecimal(typed ?? '');
  return typed && Number.isFinite(minutes) ? minutes : undefined;
}
