import type { Stretch } from './calendar';
import type { Schedule } from './schedule';
import type { Job, Placed, Problem } from './jobs';
import { runKey, runsLeft, type PlannedRun } from './matrix';
import { racesOf } from './races';
import { unitsIn, type GearAtHand } from './setups';
import type { Study } from './study';
import { scheduled } from './search';

/** What is in the calendar: a run, or a race of several, with its times in epoch seconds. */
export interface Appointment {
  key: string;
  runs: PlannedRun[];
  /** When its devices are begun to be drained. */
  prepare: number;
  /** When the person sits down to it, plugs in, and has packed up. */
  at: number;
  plugIn: number;
  end: number;
  visits: Stretch[];
  /** Readings that fall outside the attended hours. */
  unread: number;
  /** Whether it goes on while nobody is there. */
  overnight: boolean;
  isPinned: boolean;
}

/** The calendar of a study whose jobs have their places, in the order in which they start. */
export function agendaOf({ runs, setUp, problem }: Schedule, placed: readonly Placed[]): Appointment[] {
  return placed.map(({ job, at, end, visits, unread }) => ({
    key: job.key,
    runs: runs.get(job.key) ?? [],
    prepare: at + Math.min(0, ...job.spans.map(({ from }) => from)),
    at,
    plugIn: at + (setUp.get(job.key) ?? 0),
    end,
    visits,
    unread,
    overnight: job.overnight,
    isPinned: problem.pins.has(job.key),
  }));
}

/** What a plan asks of a person. */
export interface Tally {
  /** From the first to the last visit of every attended stretch, added up, in seconds. */
  attended: number;
  /** Attended stretches in which there is anything to do. */
  windows: number;
  /** Days of the calendar from the first to the last. */
  days: number;
}

/** Adds up what a plan asks of a person. */
export function tallyOf(placed: readonly Pick<Placed, 'visits'>[], { windows }: Pick<Problem, 'windows'>): Tally {
  const visits = placed.flatMap((each) => each.visits);
  const used = windows.flatMap(({ from, to }) => {
    const here = visits.filter((visit) => visit.from >= from && visit.from < to);
    return here.length === 0 ? [] : [{ from: Math.min(...here.map((each) => each.from)), to: Math.max(...here.map((each) => each.to)) }];
  });
  const [first, last] = [used[0]?.from, used.at(-1)?.from];
  return {
    attended: used.reduce((sum, { from, to }) => sum + to - from, 0),
    windows: used.length,
    days: first === undefined || last === undefined ? 0 : Math.round((startOfDay(last) - startOfDay(first)) / 86_400) + 1,
  };
}

const startOfDay = (seconds: number) => new Date(seconds * 1000).setHours(0, 0, 0, 0) / 1000;

/** The same jobs one after another in the same hours, in the order of the study, unpinned: what there was without a plan. */
export function oneAfterAnother({ problem, order }: Pick<Schedule, 'problem' | 'order'>): Placed[] | undefined {
  const jobs: Job[] = problem.jobs.map((job) => ({ ...job, spans: [...job.spans, { resource: 'table', from: 0, to: job.length }] }));
  const inOrder = order.flatMap((key) => jobs.find((job) => job.key === key) ?? []);
  return scheduled({ ...problem, jobs, pins: new Map() }, inOrder)?.placed;
}

/** The run to make next: the first in the calendar as it was laid, else in the order of the study. @param made cells of the runs that were made */
export function nextRun(study: Study, made: readonly string[]): PlannedRun | undefined {
  const left = runsLeft(study, made);
  const laidAt = (run: PlannedRun) => study.calendar?.laid.find((each) => each.run.split('+').includes(runKey(run)))?.at ?? Infinity;
  return left.reduce<PlannedRun | undefined>((first, run) => (first && laidAt(first) <= laidAt(run) ? first : run), undefined);
}

/** The runs that are to be started together next, where a study races; up to as many as there are lanes. */
export function nextRace(study: Study, made: readonly string[], gear: Pick<GearAtHand, 'devices'>): PlannedRun[] {
  if (!study.races) return [];
  const first = nextRun(study, made);
  const races = racesOf(runsLeft(study, made), study.calendar?.sockets ?? MOST_LANES, unitsIn(gear));
  const race = races.find((runs) => runs.some((run) => first && runKey(run) === runKey(first))) ?? [];
  return race.length > 1 ? race : [];
}

/** As many lanes as the board has. */
const MOST_LANES = 12;

/** A run that has another time than before; `from` is `undefined` when it had none. Epoch seconds. */
export interface Move {
  appointment: Appointment;
  from: number | undefined;
}

/** What is different between the calendar as it was laid and as it is. */
export function movesOf(before: readonly { run: string; at: number }[], after: readonly Appointment[]): Move[] {
  const known = new Map(before.map(({ run, at }) => [run, at / 1000]));
  if (known.size === 0) return [];
  return after.flatMap((appointment) => {
    const from = known.get(appointment.key);
    return from === appointment.at ? [] : [{ appointment, from }];
  });
}
