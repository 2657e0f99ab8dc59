import type { Device } from '../bench/device';
import type { Trial } from '../ink/entry';
import type { RunInk } from '../ink/fold';
import { statusSays, type StatusId } from '../ink/statuses';
import { power } from '../quantity/electric';
import { spell } from '../quantity/duration';

/** What one charger turned out to be, awake or asleep. */
export interface Tried {
  trial: Trial;
  status: StatusId;
  /** In words: what it is, and how far a second look bears it out. */
  says: string;
  watts?: number | undefined;
  /** Chime, icon and meter where they do not agree, in words. */
  disagrees?: string | undefined;
  /** Whether a second look has told holding from draining. */
  isSure: boolean;
}

/** One row of a compatibility table. */
export interface Compatible {
  /** Tells sources apart: charger, port and cable. */
  key: string;
  charger: string;
  port?: number | undefined;
  cable?: string | undefined;
  awake?: Tried | undefined;
  asleep?: Tried | undefined;
}

/** A minute cannot tell these from each other. */
const DOUBTFUL: readonly StatusId[] = ['slow', 'holds', 'drains'];
/** No current worth the name, in W. */
const NOTHING = 0.3;
/** Where a device's limit is not known, this is fast, in W (common practice, no source). */
const FAST = 10;

export const sourceKey = ({ charger, port = 0, cable }: Trial['source']): string => [charger.id, port, cable?.id ?? ''].join('/');

/** The compatibility table of a spot check: a row for each charger in the order tried; of several trials in one state the last counts. */
export function compatibility({ trials }: RunInk): Compatible[] {
  const rows = new Map<string, Compatible>();
  const seconds = new Map<string, Trial>();
  for (const trial of trials) if (trial.confirms !== undefined) seconds.set(trial.confirms, trial);
  for (const trial of trials) {
    if (trial.confirms !== undefined) continue;
    const key = sourceKey(trial.source);
    const { charger, port, cable } = trial.source;
    const row = rows.get(key) ?? { key, charger: charger.name, port, cable: cable?.name };
    row[trial.state] = tried(trial, seconds.get(trial.id));
    rows.set(key, row);
  }
  return [...rows.values()];
}

function tried(trial: Trial, second: Trial | undefined): Tried {
  const status = afterSecond(trial, second);
  const moved = second?.percent === undefined || trial.percent === undefined ? undefined : second.percent - trial.percent;
  const minutes = second && spell((second.at - trial.at) / 1000);
  const isDoubtful = DOUBTFUL.includes(trial.status);
  const borne =
    moved === undefined ? (isDoubtful ? '; whether the level moves was not seen' : '') : `; ${level(moved)} in ${minutes ?? ''}`;
  return {
    trial,
    status,
    says: statusSays(status) + borne,
    watts: wattsOf(trial),
    disagrees: disagreement(trial),
    isSure: !isDoubtful || moved !== undefined,
  };
}

const level = (moved: number) => (moved === 0 ? 'the level stood still' : `${moved > 0 ? '+' : '−'}${Math.abs(moved)} %`);

/** The level decides, once it has had time to move. */
function afterSecond({ status, percent }: Trial, second: Trial | undefined): StatusId {
  if (second?.percent === undefined || percent === undefined) return status;
  if (second.percent > percent) return status === 'fast' ? 'fast' : 'slow';
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

function wattsOf({ watts, volts, amps }: Pick<Trial, 'watts' | 'volts' | 'amps'>): number | undefined {
  return watts ?? (volts !== undefined && amps !== undefined ? power(volts, amps) : undefined);
}

/** What the figures of a trial make likely, to begin with; a person decides. `undefined` without watts. */
export function likelyStatus(
  { inputLimit, awakeWatts }: Pick<Device, 'inputLimit' | 'awakeWatts'>,
  seen: Pick<Trial, 'state' | 'watts' | 'volts' | 'amps'>,
): StatusId | undefined {
  const watts = wattsOf(seen);
  if (watts === undefined) return undefined;
  if (watts < NOTHING) return 'not charging';
  if (seen.state === 'awake' && awakeWatts !== undefined && watts <= 1.1 * awakeWatts) return watts < 0.9 * awakeWatts ? 'drains' : 'holds';
  return watts >= (inputLimit === undefined ? FAST : inputLimit / 2) ? 'fast' : 'slow';
}
