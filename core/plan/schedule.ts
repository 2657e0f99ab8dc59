import { listed } from '../quantity/listed';
import { spell } from '../quantity/duration';
import { REST } from '../method/conditions';
import { attended, DAYS, momentOn, usualCalendar, type Stretch } from './calendar';
import type { Calendar } from './calendarSchema';
import { readingsOf } from './cost';
import { toMinute, type Job, type Problem } from './jobs';
import { runKey, runsLeft, type PlannedRun } from './matrix';
import { racesOf, type UnitsOf } from './races';
import { gearNames, sourceOf, unitsIn, willNotCharge, type GearAtHand, type NameOf, type Setup } from './setups';
import type { Study } from './study';
import { Timetable } from './timetable';

/** A study made ready to be laid into days, or what keeps it from it. */
export interface Schedule {
  problem: Problem;
  /** The runs of each job. */
  runs: ReadonlyMap<string, PlannedRun[]>;
  /** Plug-in of each job, in seconds after the person sits down to it. */
  setUp: ReadonlyMap<string, number>;
  /** Keys of jobs in the order of the study. */
  order: string[];
  /** Why it cannot be laid, each with what to loosen. None: it can. */
  obstacles: string[];
  /** What was done otherwise than the study asks, and what would let it be done so. */
  notes: string[];
  /** Runs that are not laid, for they are expected to take no charge. */
  idle: PlannedRun[];
}

/** How far ahead runs are laid, in days. */
const HORIZON = 400;

/**
 * Makes a study ready to be laid into days: which runs are left, what each needs and for how long, and the hours there are.
 *
 * @param made cells of the runs that were made, one for each
 * @param now  epoch seconds: nothing is laid before
 */
export function schedule(study: Study, setups: readonly Setup[], gear: GearAtHand, made: readonly string[], now: number): Schedule {
  const calendar = study.calendar ?? usualCalendar(new Date(now * 1000).toISOString().slice(0, 10));
  const setupOf = new Map(setups.map((setup) => [setup.cell.key, setup]));
  const left = runsLeft(study, made);
  const idle = left.filter(({ cell }) => mustCharge(study) && isIdle(setupOf.get(cell.key)));
  const toLay = left.filter((run) => !idle.includes(run));
  const readings = (run: PlannedRun, set = [run]) => {
    const setup = setupOf.get(run.cell.key);
    const together = set.flatMap(({ cell }) => setupOf.get(cell.key) ?? []);
    return (setup && readingsOf(study, setup, calendar.allowance, together)) ?? assumed(study, calendar);
  };
  const obstacles: string[] = [];
  const unknown = toLay.filter((run) => !readings(run));
  const name = gearNames(gear);
  if (unknown.length > 0)
    obstacles.push(
      `No length can be expected of ${cellNames(unknown, name)}: give the batteries on the bench, or say how long to plan for what cannot be expected.`,
    );
  const known = toLay.filter((run) => readings(run));
  const most = Math.min(calendar.sockets, ...(study.meters.length > 0 ? [study.meters.length] : []));
  const units = unitsIn(gear);
  const groups = study.races ? racesOf(known, most, units) : known.map((run) => [run]);
  const crowded = groups.find((group) =>
    isCrowded(
      group.map((run) => readings(run, group) ?? []),
      calendar,
    ),
  );
  if (crowded)
    obstacles.push(
      `Readings of ${cellNames(crowded, name)} fall due faster than one person can take them: lengthen the interval${crowded.length > 1 ? ', or race fewer at once, with fewer sockets' : ''}.`,
    );
  const windows = attended(calendar.hours, calendar.from, now, HORIZON);
  const longest = Math.max(0, ...windows.map(({ from, to }) => to - from));
  const jobs = groups.map((group) => {
    const lanes = group.map((run) => ({ run, readings: readings(run, group) ?? [] }));
    return jobOf(lanes, study, calendar, longest);
  });
  const runs = new Map(jobs.map((job, index) => [job.key, groups[index] ?? []]));
  const setUp = new Map(jobs.map((job) => [job.key, (runs.get(job.key)?.length ?? 1) * calendar.setUp]));
  const problem: Problem = {
    jobs,
    capacity: {
      meter: study.meters.length,
      socket: calendar.sockets,
      ...Object.fromEntries(study.devices.flatMap((id) => (units(id) > 1 ? [[`device/${id}`, units(id)]] : []))),
    },
    windows,
    earliest: Math.max(now, windows[0] ? momentOn(calendar.from) : now),
    pins: new Map(jobs.flatMap(({ key }) => calendar.pins.flatMap((pin) => (pin.run === key ? [[key, pin.at / 1000] as const] : [])))),
  };
  const order = jobs.map(({ key }) => key);
  const found: Schedule = { problem, runs, setUp, order, obstacles, notes: splitRaces(study, known, calendar, most, units), idle };
  obstacles.push(...hourTroubles(found, calendar, longest, name), ...pinTroubles(found, name));
  return found;
}

/** Races that would want more than there is are split: said, with what would let them start together. */
function splitRaces(study: Study, runs: readonly PlannedRun[], { sockets }: Calendar, max: number, units: UnitsOf): string[] {
  if (!study.races) return [];
  const wanted = Math.max(0, ...racesOf(runs, Infinity, units).map((race) => race.length));
  if (wanted <= max) return [];
  const lacking = [
    ...(sockets < wanted ? ['sockets'] : []),
    ...(study.meters.length > 0 && study.meters.length < wanted ? ['meters'] : []),
  ];
  return [
    `${wanted} runs could race from one strip, but there are ${lacking.includes('sockets') ? `${sockets} sockets` : `${study.meters.length} meters`}: they are split into races of up to ${max}. With ${wanted} ${lacking.join(' and ')} they would start together.`,
  ];
}

/** Whether the method is about a charge: a spot check or a look at consumption also tells of what does not charge. */
const mustCharge = ({ cadence }: Study) => cadence.kind !== 'spot' && !(cadence.kind === 'marks' && cadence.then === undefined);
const isIdle = (setup: Setup | undefined) => setup?.negotiated !== undefined && willNotCharge(setup);

/** Readings of a run whose length cannot be expected, as long as the person says. */
function assumed(study: Study, { otherwise }: Calendar): number[] | undefined {
  if (otherwise === undefined) return undefined;
  return readingsOf(study, { expected: { reaches: (level) => (otherwise * level) / 100 } });
}

/** One run, or a race of several: what it occupies, when it needs the person. */
function jobOf(lanes: readonly { run: PlannedRun; readings: number[] }[], study: Study, calendar: Calendar, longest: number): Job {
  const setUp = lanes.length * calendar.setUp;
  const rest = Number(study.conditions.find(({ name }) => name === REST)?.value.replace(',', '.'));
  const prepare = toMinute(calendar.drain + (rest > 0 ? rest * 60 : 0));
  const times = [...new Set(lanes.flatMap(({ readings }) => readings))].sort((one, other) => one - other);
  const visits: Stretch[] = [];
  for (const time of times) {
    const reading = lanes.filter(({ readings }) => readings.includes(time)).length;
    const ending = lanes.filter(({ readings }) => readings.at(-1) === time).length;
    const from = time === 0 ? 0 : setUp + time;
    const to = setUp + time + reading * calendar.reading + ending * calendar.packUp;
    const before = visits.at(-1);
    // A visit that has not ended when the next falls due goes on into it.
    if (before && before.to > from) before.to = Math.max(to, before.to + (to - from));
    else visits.push({ from, to });
  }
  const length = toMinute(visits.at(-1)?.to ?? 0);
  const spans = lanes.flatMap(({ run: { cell }, readings }) => {
    const last = visits.find(({ to }) => to > setUp + (readings.at(-1) ?? 0));
    const to = lanes.length > 1 ? toMinute(last?.to ?? length) : length;
    return [
      { resource: `device/${cell.device}`, from: -prepare, to },
      { resource: `charger/${cell.charger}`, from: 0, to },
      ...(cell.feed === undefined ? [] : [{ resource: `charger/${cell.feed}`, from: 0, to }]),
      { resource: 'socket', from: 0, to },
      ...(cell.cable === undefined ? [] : [{ resource: `cable/${cell.cable}`, from: 0, to }]),
      ...(study.meters.length === 0 ? [] : [{ resource: 'meter', from: 0, to }]),
    ];
  });
  const key = lanes.map(({ run }) => runKey(run)).join('+');
  return { key, spans, visits, length, overnight: calendar.nights && length > longest };
}

function cellNames(runs: readonly PlannedRun[], name: NameOf): string {
  const names = [...new Set(runs.map(({ cell }) => `${name(cell.device)} on ${sourceOf(cell, name)}`))];
  return names.length > 3 ? `${names.slice(0, 3).join(', ')} and ${names.length - 3} more` : listed(names);
}

/** What of the hours keeps it from being laid. */
function hourTroubles({ problem, runs }: Schedule, calendar: Calendar, longest: number, name: NameOf): string[] {
  if (calendar.hours.length === 0) return ['There are no attended hours: say on which days and from when to when you are there.'];
  const tooLong = problem.jobs.filter(({ overnight, length, visits }) => (overnight ? (visits[0]?.to ?? 0) : length) > longest);
  if (tooLong.length > 0) {
    const job = tooLong.reduce((max, each) => (each.length > max.length ? each : max));
    return [
      `${cellNames(
        tooLong.flatMap(({ key }) => runs.get(key) ?? []),
        name,
      )} ${tooLong.length > 1 ? 'take up to' : 'takes'} ${spell(job.length)}, and the longest stretch of attended hours is ${spell(longest)}. Lengthen a day, leave less room, start at a higher level, or let what fits into no day go on overnight.`,
    ];
  }
  return [];
}

/** Whether readings fall due faster than one person can take them. */
function isCrowded(lanes: readonly (readonly number[])[], { reading }: Calendar): boolean {
  const times = lanes.flat().sort((one, other) => one - other);
  let free = 0;
  return times.some((time, index) => {
    const isNew = time !== times[index - 1];
    const isLate = isNew && time < free;
    free = (isNew ? time : free) + reading;
    return isLate;
  });
}

/** What keeps pinned runs from their places. */
function pinTroubles({ problem, runs }: Schedule, name: NameOf): string[] {
  const table = new Timetable({ ...problem, pins: new Map() });
  return problem.jobs.flatMap((job) => {
    const at = problem.pins.get(job.key);
    if (at === undefined) return [];
    const who = cellNames(runs.get(job.key) ?? [], name);
    const when = `${DAYS[(new Date(at * 1000).getDay() + 6) % 7] ?? ''} ${new Date(at * 1000).toTimeString().slice(0, 5)}`;
    if (at < problem.earliest) return [`${who} is pinned to ${when}, which is past: let go of it, or move it on.`];
    const obstacle = table.obstacle(job, at);
    if (obstacle === undefined) {
      const [placed] = table.fits(job, at);
      if (placed) table.place(placed);
      return [];
    }
    return [`${who} is pinned to ${when}, but ${inTheWay(obstacle, name)}: let go of it, or move it.`];
  });
}

function inTheWay(obstacle: string, name: NameOf): string {
  const [kind, id = ''] = obstacle.split('/');
  switch (kind) {
    case 'hours':
      return 'it does not fit into your hours there';
    case 'person':
      return 'its readings fall on those of another pinned run';
    case 'meter':
      return 'every meter is in use then';
    case 'socket':
      return 'every socket is in use then';
    default:
      return `${name(id)} is then needed twice, or still being drained and rested`;
  }
}
