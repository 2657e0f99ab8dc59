import type { Cadence } from './cadenceSchema';
import type { Condition } from './conditionSchema';
import { USUAL_RULE } from './rule';
import type { Rule } from './ruleSchema';

/** A way in which reviewers take a run: how it starts, when it is read, what is written down, when it stops. */
export interface School {
  id: string;
  name: string;
  /** Level at the start, in words, and in % where it is one. */
  start: string;
  startLevel?: number | undefined;
  cadence: Cadence;
  /** What is written down at each check. */
  records: string;
  stops: string;
  goodFor: string;
  weakAt: string;
  /** The same for the program: what ends a run, what is wanted of a check, what is said meanwhile. */
  rule: Rule;
  /** Settings that must match, where the method says so. */
  conditions?: Condition[];
}

const MINUTE = 60;

/** The schools of the trade (common practice, no source). */
export const SCHOOLS: readonly School[] = [
  {
    id: 'fixed-interval',
    name: 'Fixed interval',
    start: '1 %, or 0',
    startLevel: 1,
    cadence: { kind: 'fixed', every: 5 * MINUTE },
    records: 'the level',
    stops: 'at 100 % on the display',
    goodFor: 'the whole curve by hand',
    weakAt: 'every time is uncertain by one interval; it takes hours of attention',
    rule: USUAL_RULE,
  },
  {
    id: 'coarse-then-fine',
    name: 'Coarse then fine',
    start: 'dead, left off for the same minutes each time',
    startLevel: 0,
    cadence: { kind: 'coarse then fine', every: 10 * MINUTE, level: 90, then: 5 * MINUTE },
    records: 'the level',
    stops: 'each at 100 % on the display',
    goodFor: 'several chargers or devices side by side',
    weakAt: 'the early part is coarse',
    rule: USUAL_RULE,
  },
  {
    id: 'milestone-checks',
    name: 'Milestone checks',
    start: '0 or 1 %',
    startLevel: 1,
    cadence: { kind: 'marks', at: [15, 30, 45, 60].map((minutes) => minutes * MINUTE), then: 15 * MINUTE },
    records: 'the level, then when it is full',
    stops: 'at 100 % on the display',
    goodFor: 'short tables people remember',
    weakAt: 'it hides what happens between; a winner at half an hour can lose at 100 %',
    rule: { ...USUAL_RULE, due: 'The level now; after the last mark, watch for 100 %.' },
  },
  {
    id: 'top-up-window',
    name: 'Top-up window',
    start: '5 %, or 0',
    startLevel: 5,
    cadence: { kind: 'marks', at: [5, 10, 15, 20, 30].map((minutes) => minutes * MINUTE) },
    records: 'the level',
    stops: 'when the window ends',
    goodFor: 'what is gained in a shower or over breakfast',
    weakAt: 'it says nothing of the full time; early leaders fade',
    rule: { ends: 'window', wants: ['level'], due: 'All lanes at once: Shift Space freezes the moment, the figures come after.' },
  },
  {
    id: 'fixed-hour-from-half',
    name: 'Fixed hour from half',
    start: '50 %, device asleep',
    startLevel: 50,
    cadence: { kind: 'marks', at: [30 * MINUTE, 60 * MINUTE] },
    records: 'the level; wake the screen only then',
    stops: 'after an hour',
    goodFor: 'laptops on small chargers',
    weakAt: 'both may be nearly full at the end, which hides a real difference',
    rule: {
      ends: 'window',
      wants: ['level'],
      due: 'Wake the screen only now, read the level, and let it sleep again.',
      between: 'Leave it asleep: the screen stays dark until the check.',
    },
  },
  {
    id: 'energy-sample',
    name: 'Energy sample',
    start: 'below 50 %',
    startLevel: 40,
    cadence: { kind: 'marks', at: [5 * MINUTE] },
    records: 'Wh of the meter at plug-in and after 5 min',
    stops: 'after 5 min',
    goodFor: 'ranking chargers without a full charge',
    weakAt: 'it assumes steady power and needs the battery in Wh; loss and taper are ignored',
    rule: {
      ends: 'window',
      wants: ['watt-hours'],
      due: 'The Wh of the meter now, as 1.42wh. A second sample follows in the next 5 min, if you like.',
      between: 'Unless its counter was at zero at plug-in, write the Wh at the start of the 5 min too; leave the screen as it is.',
    },
  },
  {
    id: 'instrumented-log',
    name: 'Instrumented log',
    start: 'low, and stated',
    startLevel: 5,
    cadence: { kind: 'marks', at: [10, 20, 30, 40, 60].map((minutes) => minutes * MINUTE), then: 30 * MINUTE },
    records: 'level and temperatures by hand; watts come in from the meter afterwards',
    stops: 'when power has died away',
    goodFor: 'stages, handshakes and heat',
    weakAt: 'it needs a meter and an import',
    rule: {
      ends: 'power',
      wants: ['level', 'temperature'],
      due: 'Level and temperatures, as 42 front 38c back 39c.',
      between: 'The meter logs watts; the run goes on after 100 % until power has died away.',
    },
  },
  {
    id: 'spot-check',
    name: 'Spot check',
    start: 'any; the level noted where it can be seen',
    cadence: { kind: 'spot', settle: MINUTE },
    records: 'volts, amps and watts once settled; chime, icon and meter as seen',
    stops: 'after about a minute',
    goodFor: 'compatibility tables',
    weakAt: 'it hangs on level and heat of that moment; a minute cannot tell holding from draining',
    rule: { ends: 'list', wants: [] },
  },
  {
    id: 'load-test',
    name: 'Load test',
    start: 'near empty, or full',
    startLevel: 5,
    cadence: { kind: 'fixed', every: 5 * MINUTE },
    records: 'watts in, battery watts, and the scores of each workload',
    stops: 'when the workload ends',
    goodFor: 'docks and small laptop chargers',
    weakAt: 'two meters disagree',
    rule: {
      ends: 'window',
      wants: ['watts', 'battery watts'],
      from: 'workload',
      due: 'Watts in, and what the system says of the battery, as 55w bat 29w.',
      between: 'V, then W, begins a workload; V, then E, ends it with its scores.',
    },
  },
  {
    id: 'consumption',
    name: 'Consumption',
    start: '100 %, brightness full',
    startLevel: 100,
    cadence: { kind: 'marks', at: [5 * MINUTE, 10 * MINUTE] },
    records: 'watts and Wh; the level at both ends',
    stops: 'when the window ends',
    goodFor: 'sizing packs and panels',
    weakAt: 'on a weak source the battery makes up the rest: input is then not consumption',
    rule: {
      ends: 'window',
      wants: ['watts', 'level at both ends'],
      from: 'workload',
      due: 'Watts and Wh; at both ends the level or the battery watts too.',
      between: 'V, then W, begins a workload. Brightness full, nothing else running.',
    },
  },
];
