import { checksOf } from '../curve/notices';
import type { Check } from '../method/cadence';
import { holds } from '../curve/faults';
import { POWER_GONE, goneBelow } from '../curve/milestones';
import { stalls } from '../curve/stall';
import { ruleOf, stretchesOf } from '../curve/stretches';
import { LIGHT_OUT } from '../ink/events';
import type { Reading, Stop } from '../ink/entry';
import { type RunRecord } from '../ink/fold';
import { sighting } from '../ink/track';
import { TEMPERATURES } from '../quantity/quantity';
import type { Wanted } from '../method/ruleSchema';
import { nominal, spell } from '../quantity/duration';
import { listed } from '../quantity/listed';

/** What the method of a run says of its stop now. */
export interface StopOffer {
  because: Stop['because'];
  says: string;
}

/** A current this small means that a device without a percentage is done, in A. */
const SPENT_AMPS = 0.1;

/**
 * Whether a live run may be stopped by the rule of its method, and why.
 *
 * @param elapsed seconds from plug-in
 * @returns `undefined` while it is to go on
 */
export function stopOffer(run: RunRecord, elapsed: number): StopOffer | undefined {
  const { ends, stall } = ruleOf(run);
  const { percent } = run.tracks;
  const level = sighting(percent, percent.seconds.length - 1)?.value;
  if (ends === 'window') return windowEnd(run, elapsed);
  if (ends === 'list') return undefined;
  if (ends === 'power' || level === undefined) {
    const died = powerDied(run);
    if (died !== undefined) return { because: 'power died away', says: `power has died away since ${spell(died)}` };
  } else if (level >= 100) return { because: 'full', says: 'the display shows 100 %' };
  if (level === undefined) {
    const light = run.events.findLast(({ event }) => event === 'light on' || LIGHT_OUT.includes(event));
    if (light && LIGHT_OUT.includes(light.event)) return { because: 'light out', says: `the light went out at ${spell(light.seconds)}` };
    const amps = sighting(run.tracks.amps, run.tracks.amps.seconds.length - 1);
    if (amps && amps.value < SPENT_AMPS) return { because: 'power died away', says: `it takes less than ${SPENT_AMPS} A` };
  }
  const last = percent.seconds[percent.seconds.length - 1];
  const stuck = stalls(percent, stall).at(-1);
  if (stuck && stuck.to === last && holds(run).every(({ to }) => to < stuck.from))
    return { because: 'will not finish', says: `no gain for ${spell(stuck.to - stuck.from)}` };
  return undefined;
}

/** Since when power has been gone, as watts were read; `undefined` while it is not, or for less than five minutes. */
function powerDied({ tracks: { watts } }: RunRecord): number | undefined {
  const all = Array.from(watts.values);
  const floor = goneBelow(watts);
  const begins = all.findLastIndex((value) => value >= floor) + 1;
  const [from, to] = [watts.seconds[begins], watts.seconds[watts.seconds.length - 1]];
  return begins > 0 && from !== undefined && to !== undefined && to - from >= POWER_GONE.lasting ? from : undefined;
}

/** A window is over once its last mark has been answered or has gone by; one without marks once its workload has ended. */
function windowEnd(run: RunRecord, elapsed: number): StopOffer | undefined {
  const {
    header: { cadence },
    readings,
    events,
  } = run;
  if (cadence?.kind !== 'marks' || cadence.then !== undefined) {
    const work = events.findLast(({ event }) => event === 'work started' || event === 'work ended');
    return work?.event === 'work ended' ? { because: 'window over', says: 'the workload has ended' } : undefined;
  }
  const end = (stretchesOf(run).at(-1)?.from ?? 0) + (cadence.at.at(-1) ?? Infinity);
  const isOver = elapsed >= end && (readings.some(({ seconds }) => seconds >= end - 60) || elapsed >= end + 120);
  return isOver ? { because: 'window over', says: 'the window is over' } : undefined;
}

const NAMES: Readonly<Record<Wanted, string>> = {
  level: 'level',
  watts: 'watts',
  'watt-hours': 'Wh',
  temperature: 'temperature',
  'battery watts': 'battery watts',
  'level at both ends': 'level or battery watts',
};

function has(wanted: Wanted, reading: Reading): boolean {
  switch (wanted) {
    case 'level':
      return reading.percent !== undefined;
    case 'watts':
      return reading.watts !== undefined || (reading.volts !== undefined && reading.amps !== undefined);
    case 'watt-hours':
      return reading.wattHours !== undefined;
    case 'temperature':
      return TEMPERATURES.some((quantity) => reading[quantity] !== undefined);
    case 'battery watts':
      return reading.batteryWatts !== undefined;
    case 'level at both ends':
      return reading.percent !== undefined || reading.batteryWatts !== undefined;
  }
}

/** What of the wants of its method a device can show: one without a percentage shows none. */
function askedOf(run: RunRecord): readonly Wanted[] {
  const { wants } = ruleOf(run);
  const { display = 'percent' } = run.header.device;
  return display === 'percent' ? wants : wants.filter((each) => each !== 'level');
}

/**
 * What can still be read of what a method wants: at the check whose time is now.
 *
 * @returns such as `level and temperature at 30 min`; nothing where that was read, or no check is near
 */
export function stillReadable(run: RunRecord, elapsed: number): string | undefined {
  const check = checksOf(run, elapsed).findLast(({ from, to, state }) => state !== 'missed' && elapsed >= from && elapsed < to);
  if (!check) return undefined;
  const read = run.readings.filter(({ seconds }) => seconds >= check.from && seconds < check.to);
  const lacking = askedOf(run).filter((wanted) => !read.some(({ reading }) => has(wanted, reading)));
  return lacking.length > 0 ? `${listed(lacking.map((wanted) => NAMES[wanted]))} at ${nominal(check.due)}` : undefined;
}

/** How a run ended, as far as its readings show: by its method, full, or early. */
export function endingShown(run: RunRecord, elapsed: number): Stop['because'] {
  const offer = stopOffer(run, elapsed);
  if (offer) return offer.because;
  const { percent } = run.tracks;
  if (ruleOf(run).ends === 'list' || run.header.list) return 'window over';
  return sighting(percent, percent.seconds.length - 1)?.value === 100 ? 'full' : 'other';
}

/**
 * What a run lacks of what its method wants, up to now.
 *
 * @returns sentences without a full stop, such as `no temperature at 10 and 30 min`; none when nothing is missing
 */
export function missing(run: RunRecord, elapsed: number): string[] {
  const checks = checksOf(run, elapsed);
  const gone = checks.filter(({ seen }) => seen === undefined);
  const said = gone.length > 0 ? [`no reading at ${stretches(gone)}`] : [];
  const start = run.readings.filter(({ seconds }) => seconds < 60).map(({ reading }) => reading);
  for (const wanted of askedOf(run)) {
    const atEnds = wanted === 'level at both ends';
    const lacking = checks
      .filter((_, index) => !atEnds || index === checks.length - 1)
      .filter(
        ({ seen, from, to }) =>
          seen !== undefined && !run.readings.some(({ seconds, reading }) => seconds >= from && seconds < to && has(wanted, reading)),
      )
      .map(({ due }) => due);
    const wantsStart = atEnds || wanted === 'level' || wanted === 'watt-hours';
    if (wantsStart && !start.some((reading) => has(wanted, reading))) said.push(`no ${NAMES[wanted]} at plug-in`);
    if (lacking.length > 0) said.push(`no ${NAMES[wanted]} at ${times(lacking)}`);
  }
  return said;
}

/** Checks that were not answered, those one after another from the first to the last of them; up to three, then how many more checks. */
function stretches(all: readonly Check[]): string {
  const most = 3;
  const said = all.map(({ due, last, count }) => (count === 1 ? nominal(due) : `${nominal(due)} to ${nominal(last)} (${count} checks)`));
  const more = all.slice(most).reduce((sum, { count }) => sum + count, 0);
  return more === 0 ? listed(said) : `${said.slice(0, most).join(', ')} and ${more} more`;
}

/** Up to three times, then how many more. */
function times(all: number[]): string {
  const most = 3;
  return all.length <= most ? listed(all.map(nominal)) : `${all.slice(0, most).map(nominal).join(', ')} and ${all.length - most} more`;
}
