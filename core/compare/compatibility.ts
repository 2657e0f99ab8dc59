import { portName } from '../bench/portName';
import { portsOf } from '../bench/ports';
import type { Source, Trial } from '../ink/entry';
import { sourceSays } from '../ink/entrySays';
import { valueIn, type RunInk } from '../ink/fold';
import { SECOND_LOOK, statusSays, type StatusId } from '../ink/statuses';
import { TRIAL_STATES, type TrialState } from '../ink/trialStates';
import { apparentLoad } from '../quantity/electric';
import { spell } from '../quantity/duration';
import { sourceKey } from '../ink/sourceKey';

/** What one source turned out to be, in one state of the device. */
export interface Tried {
  trial: Trial;
  /** The second look at its level, where there was one. */
  second?: Trial | undefined;
  status: StatusId;
  /** In words: what it is, and how far a second look bears it out. */
  says: string;
  watts?: number | undefined;
  /** Volts over amps, in Ω: what a meter shows beside them. */
  ohms?: number | undefined;
  /** What a pad gives out of what it draws, as a share; `isAssumed` where its output was. */
  efficiency?: { share: number; isAssumed: boolean } | undefined;
  /** Chime, icon and meter where they do not agree, in words. */
  disagrees?: string | undefined;
  /** Whether a second look has told holding from draining. */
  isSure: boolean;
}

/** One row of a compatibility table. */
export interface Compatible extends Partial<Record<TrialState, Tried>> {
  /** Tells sources apart: charger, port, cable, what feeds it, and the voltage it is held to. */
  key: string;
  source: Source;
  /** The source in words. */
  name: string;
  /** Port and cable in words, where they are known. */
  through: string;
}

/** A minute cannot tell these from each other. */
const DOUBTFUL: readonly StatusId[] = ['slow', 'charges', 'holds', 'drains', 'not charging'];

/** What lies between a source and the device, in words. */
export function throughSays({ charger, port, cable }: Source): string {
  const outlet = port === undefined ? undefined : portsOf(charger)[port];
  return [outlet && portName(outlet, port ?? 0), cable?.name].filter(Boolean).join(', ');
}

/**
 * The compatibility table of a spot check: a row for each source in the order of its list, those that are not on it after them; of several trials in
 * one state the last counts.
 */
export function compatibility({ trials, list = [] }: Pick<RunInk, 'trials' | 'list'>): Compatible[] {
  const rows = new Map<string, Compatible>();
  const rowOf = (source: Source) => {
    const key = sourceKey(source);
    const row = rows.get(key) ?? { key, source, name: sourceSays(source), through: throughSays(source) };
    rows.set(key, row);
    return row;
  };
  list.forEach(rowOf);
  for (const trial of trials) {
    if (trial.confirms !== undefined) continue;
    // A trial that was written again keeps the second look that was taken at it.
    const second = trials.findLast(
      (other) => other.confirms !== undefined && isSameTrial(other, trial) && other.at >= trial.at && !isTriedBetween(trials, trial, other),
    );
    rowOf(trial.source)[trial.state] = tried(trial, second);
  }
  return [...rows.values()].filter((row) => TRIAL_STATES.some((state) => row[state]));
}

const isSameTrial = (one: Trial, other: Trial) => one.state === other.state && sourceKey(one.source) === sourceKey(other.source);

/** What a table of them leaves open, once for all of it: `Whether the level moves was not seen of 4: …`; `undefined` where nothing is. */
export function notSeenSays(rows: readonly Compatible[]): string | undefined {
  const unsure = rows.flatMap((row) => TRIAL_STATES.flatMap((state) => (row[state] && !row[state].isSure ? [row.name] : [])));
  const who = unsure.length > 1 ? `${unsure.length} of these` : (unsure[0] ?? '');
  return unsure.length === 0
    ? undefined
    : `Whether the level moves was not seen of ${who}: a second look after ${spell(SECOND_LOOK)} tells slow charging, holding and draining apart.`;
}

/** Whether the same was tried anew after a trial and before a second look, which is then at the later one. */
const isTriedBetween = (trials: readonly Trial[], trial: Trial, look: Trial) =>
  trials.some((each) => each.confirms === undefined && isSameTrial(each, trial) && each.at > trial.at && each.at <= look.at);

function tried(trial: Trial, second: Trial | undefined): Tried {
  const status = afterSecond(trial, second);
  const moved = second?.percent === undefined || trial.percent === undefined ? undefined : second.percent - trial.percent;
  const minutes = second && spell((second.at - trial.at) / 1000);
  const isDoubtful = DOUBTFUL.includes(trial.status);
  const borne = moved === undefined ? '' : `; ${level(moved)} in ${minutes ?? ''}`;
  const watts = valueIn(trial, 'watts');
  return {
    trial,
    second,
    status,
    says: statusSays(status) + borne,
    watts,
    ohms: ohmsOf(trial),
    efficiency: efficiencyOf(trial, watts),
    disagrees: disagreement(trial),
    isSure: !isDoubtful || moved !== undefined,
  };
}

/** Current that flows the other way has no load to speak of. */
const ohmsOf = ({ volts, amps }: Trial) =>
  volts === undefined || amps === undefined || volts < 0 || amps < 0 ? undefined : apparentLoad(volts, amps);

/** What of its input a source gave out; nothing where it would be more than all. */
function efficiencyOf({ wattsOut, wattsOutAssumed }: Trial, watts: number | undefined): Tried['efficiency'] {
  if (wattsOut === undefined || watts === undefined || watts <= 0 || wattsOut > watts) return undefined;
  return { share: wattsOut / watts, isAssumed: wattsOutAssumed === true };
}

const level = (moved: number) => (moved === 0 ? 'the level stood still' : `${moved > 0 ? '+' : '−'}${Math.abs(moved)} %`);

/** The level decides, once it has had time to move; of one that is connected and not charging, only that it charges or drains after all. */
function afterSecond({ status, percent }: Trial, second: Trial | undefined): StatusId {
  if (second?.percent === undefined || percent === undefined) return status;
  if (status === 'not charging' && second.percent === percent) return status;
  if (second.percent > percent) return status === 'fast' || status === 'charges' ? status : 'slow';
  return second.percent < percent ? 'drains' : 'holds';
}

function disagreement({ chime, icon, meter }: Trial): string | undefined {
  const said = [
    { name: 'chime', yes: chime },
    { name: 'icon', yes: icon },
    { name: 'meter', yes: meter },
  ].filter(({ yes }) => yes !== undefined);
  const [yes, no] = [said.filter((each) => each.yes), said.filter((each) => !each.yes)];
  const names = (some: typeof said) => some.map(({ name }) => name).join(' and ');
  return yes.length > 0 && no.length > 0 ? `${names(yes)} yes, ${names(no)} no` : undefined;
}
