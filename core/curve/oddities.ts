import { max, sum } from 'd3-array';
import { portsOf } from '../bench/ports';
import { reshapingSays } from '../ink/reshapingSays';
import type { Source } from '../ink/entry';
import { sourceAt, type RunRecord } from '../ink/fold';
import { chargedBy, fedBy } from '../ink/sequence';
import { sighting, sightings, type Track } from '../ink/track';
import { offersOf } from '../power/offers';
import { spell } from '../quantity/duration';
import { fixed, trimmed } from '../quantity/figures';
import { upperFirst } from '../quantity/letters';
import { quantityOf } from '../quantity/quantity';
import { accuracyOf, uncertaintyOf } from './energy';
import { holds } from './faults';
import type { Notice } from './notices';
import { paceOf } from './pace';
import { peak } from './peak';
import { nearest, voltSteps } from './voltSteps';

/** What stands in a record that can hardly have been so: of the display, the meter, its counters; and what was set right since. */
export function oddities(run: RunRecord): Notice[] {
  return [...stale(run), ...jumps(run), ...aboveRating(run), ...offVolts(run), ...resets(run), ...overCounted(run), ...setRight(run)];
}

/** Readings of one level in a row, and a rise after them, that make a display that was not refreshed: so many readings, and so many %. */
const STALE = { readings: 3, rise: 3 };
/** A rise this many times as fast as any other of the run, and of this many %, is taken for a slip. */
const JUMP = { times: 2.5, rise: 4 };
/** Meters and counters are trusted within this share. */
const BEYOND = 1.05;

/** A level that was read again and again, and then rose by more than it should have: the screen had not been woken. */
function stale(run: RunRecord): Notice[] {
  if (run.sampled.has('percent')) return [];
  const all = sightings(run.tracks.percent);
  const held = holds(run);
  return all.flatMap(({ seconds, value }, index): Notice[] => {
    if (index > 0 && all[index - 1]?.value === value) return [];
    let next = index;
    while (all[next + 1]?.value === value) next += 1;
    const [last, after] = [all[next], all[next + 1]];
    const isHeld = held.some(({ from, to }) => from < (last?.seconds ?? 0) && to > seconds);
    if (!last || !after || isHeld || next - index + 1 < STALE.readings || after.value - value < STALE.rise) return [];
    const text = `${trimmed(value)} % was read ${next - index + 1} times from ${spell(seconds)} to ${spell(last.seconds)}, then ${trimmed(after.value)} %`;
    return [{ kind: 'stale', from: seconds, to: after.seconds, text }];
  });
}

/** A level that rose far faster between two readings than anywhere else. */
function jumps(run: RunRecord): Notice[] {
  if (run.sampled.has('percent')) return [];
  const all = sightings(run.tracks.percent);
  const { broken } = paceOf(run, holds(run));
  const steps = all.slice(1).map((other, index) => {
    const one = all[index] ?? other;
    const width = Math.max(other.seconds - one.seconds, 1);
    const isBroken = broken.some(({ from, to }) => from <= other.seconds && to >= one.seconds);
    return { one, other, rise: other.value - one.value, rate: isBroken ? 0 : (other.value - one.value) / width };
  });
  const rates = steps.map(({ rate }) => rate).sort((one, other) => other - one);
  const [fastest = 0, second = 0] = rates;
  if (rates.length < 4 || second <= 0 || fastest < JUMP.times * second) return [];
  return steps
    .filter(({ rate, rise }) => rate === fastest && rise >= JUMP.rise)
    .map(({ one, other, rise }) => ({
      kind: 'jump',
      from: one.seconds,
      to: other.seconds,
      text: `${trimmed(rise)} % in ${spell(other.seconds - one.seconds, 1)} at ${spell(other.seconds)}: far faster than anywhere else`,
    }));
}

/** More power than the charger is rated for. */
function aboveRating(run: RunRecord): Notice[] {
  const { watts } = run.tracks;
  const top = peak(watts, run.sampled.has('watts'));
  const { charger } = sourceAt(run, top?.seconds ?? 0);
  if (!top || charger.watts === undefined) return [];
  const margin = 2 * uncertaintyOf(top.watts, accuracyOf(run.header.meter, watts));
  if (top.watts - margin <= charger.watts * BEYOND) return [];
  const text = `${fixed(top.watts, 1)} W at ${spell(top.seconds)} is more than ${charger.name} is rated for (${trimmed(charger.watts)} W)`;
  return [{ kind: 'offset', from: top.seconds, to: top.seconds, text }];
}

/** Volts that stand above what a fixed supply gives: a cable only ever takes some away. */
function offVolts(run: RunRecord): Notice[] {
  const { steps, supply } = voltSteps(run);
  if (supply === 'stepping') return [];
  const isProgrammable = (moment: number) => offersAt(sourceAt(run, moment)).some(({ kind }) => kind !== 'fixed');
  const step = steps.find(({ volts, seconds }) => volts > BEYOND * nearest(volts) && !isProgrammable(seconds));
  if (!step) return [];
  const usual = nearest(step.volts);
  const text = `${trimmed(step.volts, 2)} V from ${spell(step.seconds)} on, ${trimmed(step.volts - usual, 2)} V above the ${usual} V of a fixed supply`;
  return [{ kind: 'offset', from: step.seconds, to: step.seconds, text }];
}

const offersAt = ({ charger, port = 0 }: Source) => offersOf(portsOf(charger)[port] ?? { connector: 'USB-C' }, charger).offers;

const COUNTERS = ['wattHours', 'milliampHours'] as const;

/** Counters that began anew. */
function resets({ tracks }: RunRecord): Notice[] {
  return COUNTERS.flatMap((quantity) => {
    const { seconds, values } = tracks[quantity];
    const found: Notice[] = [];
    for (let row = 1; row < values.length; row += 1) {
      const at = seconds[row] ?? 0;
      if ((values[row] ?? 0) >= (values[row - 1] ?? 0)) continue;
      found.push({ kind: 'reset', from: at, to: at, text: `The ${quantityOf(quantity).unit} counter began anew at ${spell(at)}` });
    }
    return found;
  });
}

/** A counter that counted more than what fed it can have given in that time, each source for as long as it did. */
function overCounted(run: RunRecord): Notice[] {
  const fed = fedBy(run);
  const rateOf = (source: Source, quantity: (typeof COUNTERS)[number]): number | undefined => {
    if (quantity === 'wattHours') return source.charger.watts;
    const amps = max(offersAt(source), (offer) => ('amps' in offer ? offer.amps : undefined));
    return amps === undefined ? undefined : amps * 1000;
  };
  return COUNTERS.flatMap((quantity): Notice[] => {
    const track: Track = run.tracks[quantity];
    const [first, last] = [sighting(track, 0), sighting(track, track.seconds.length - 1)];
    if (!first || !last || last.seconds - first.seconds < 60) return [];
    const given = fed.map(({ from, source }, index) => {
      const until = Math.min(last.seconds, fed[index + 1]?.from ?? Infinity);
      const hours = Math.max(0, until - Math.max(first.seconds, from)) / 3600;
      const rate = source && rateOf(source, quantity);
      return hours === 0 ? 0 : rate === undefined ? undefined : rate * hours;
    });
    if (given.includes(undefined)) return [];
    const most = sum(given);
    const counted = last.value - first.value;
    if (counted <= most * BEYOND) return [];
    const { unit } = quantityOf(quantity);
    const digits = quantity === 'wattHours' ? 2 : 0;
    const text = `The counter says ${fixed(counted, digits)} ${unit} in ${spell(last.seconds - first.seconds)}; ${chargedBy(run)} can give ${fixed(most, digits)}`;
    return [{ kind: 'counter', from: first.seconds, to: last.seconds, text }];
  });
}

/** What was said of the whole run after it was taken. */
function setRight(run: RunRecord): Notice[] {
  const crossed = new Set(run.crossed.map(({ entry }) => entry.id));
  return run.entries.flatMap((entry): Notice[] => {
    if (crossed.has(entry.id) || (entry.kind !== 'conditions' && entry.kind !== 'plug-in' && entry.kind !== 'trim')) return [];
    const seconds = Math.min(Math.max((entry.at - run.header.plugInAt) / 1000, 0), Math.max(run.end, 0));
    return [{ kind: 'changed', from: seconds, to: seconds, text: upperFirst(reshapingSays(entry, run)) }];
  });
}
