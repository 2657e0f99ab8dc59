import type { RunRecord } from '../ink/fold';
import { notices, type Notice } from './notices';
import { oddities } from './oddities';

/** What is worth a look in a run, of one kind: how many there are, and what that does to which figure. */
export interface Remark {
  kind: Notice['kind'];
  title: string;
  effect: string;
  notices: Notice[];
}

/** Each kind in words, one and several, and what it does to the figures. In the order in which they are told. */
const KINDS: Readonly<Record<Exclude<Notice['kind'], 'struck'>, { one: string; many: string; effect: string }>> = {
  hold: {
    one: 'hold by an adaptive setting',
    many: 'holds by an adaptive setting',
    effect: 'times after it are void; in pencil they stand as if it had not been held',
  },
  lost: { one: 'loss of power', many: 'losses of power', effect: 'every time after it is later than the charger makes it' },
  cycling: {
    one: 'stretch of power on and off',
    many: 'stretches of power on and off',
    effect: 'average power and times tell of the pauses too',
  },
  unplugged: { one: 'time without power', many: 'times without power', effect: 'times from plug-in count it; charging time leaves it out' },
  stall: { one: 'stall', many: 'stalls', effect: 'levels after it may never come: not reached has no rank' },
  hot: { one: 'time too hot', many: 'times too hot', effect: 'heat slows a charge: compare with one as cool before you print it' },
  offset: {
    one: 'reading beyond what its charger offers',
    many: 'readings beyond what their charger offers',
    effect: 'watts, energy and average may all be too high: check the meter, and the rating',
  },
  counter: {
    one: 'counter beyond what its charger can give',
    many: 'counters beyond what their charger can give',
    effect: 'energy and charge by that counter cannot be right: check the rating, and when it was set to zero',
  },
  reset: { one: 'counter that began anew', many: 'counters that began anew', effect: 'what it counted before is a least' },
  unseen: { one: 'gap', many: 'gaps', effect: 'energy leaves it out and is a least; nothing is drawn across it' },
  unwatched: {
    one: 'time not watched',
    many: 'times not watched',
    effect: 'what happened then nobody knows: levels that came in it have wider bounds',
  },
  missed: { one: 'missed check', many: 'missed checks', effect: 'levels that came in between have wider bounds' },
  late: { one: 'late check', many: 'late checks', effect: 'none: a reading counts when it was seen' },
  stale: {
    one: 'level that stood and then jumped',
    many: 'levels that stood and then jumped',
    effect: 'levels in between are timed by the jump: wake the screen before each check',
  },
  jump: { one: 'jump', many: 'jumps', effect: 'times of the levels in it hang on one reading: look whether it was typed right' },
  fell: { one: 'fall of the level', many: 'falls of the level', effect: 'times are those of the first passage' },
  changed: {
    one: 'change made afterwards',
    many: 'changes made afterwards',
    effect: 'every figure goes by it; struck in the ink, all is as it was',
  },
  event: { one: 'event', many: 'events', effect: 'none by itself' },
};

/** All that is worth a look in a run but what was struck, kind by kind; the gravest first. */
export function remarksOf(run: RunRecord): Remark[] {
  const all = [...notices(run), ...oddities(run)].sort((one, other) => one.from - other.from);
  return Object.entries(KINDS).flatMap(([kind, { one, many, effect }]): Remark[] => {
    const found = all.filter((each) => each.kind === kind);
    const [first] = found;
    return first ? [{ kind: first.kind, title: found.length === 1 ? `1 ${one}` : `${found.length} ${many}`, effect, notices: found }] : [];
  });
}
