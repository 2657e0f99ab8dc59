import type { Cable } from '../bench/cable';
import type { Charger, Port } from '../bench/charger';
import { portsOf } from '../bench/ports';
import type { Device } from '../bench/device';
import type { Feed } from '../bench/feed';
import { offersOf, shareOf } from './offers';
import { signalsOf, type Means, type Signal } from './signals';
import { KNOWN_BY_RATING, MARKED_AMPS, UNMARKED_AMPS } from './standards';
import { takenAmps, takenVolts, takesOf, type Takes } from './takes';

/** Who keeps a pairing from giving more. `mismatch`: both could, but share no language for it. */
export const LIMITS = ['charger', 'feed', 'cable', 'device', 'standard', 'mismatch'] as const;
export type Limit = (typeof LIMITS)[number];

/** What comes of plugging in. */
export type Outcome = 'charges' | 'charges only asleep' | 'connected, will not charge' | 'does not fit' | 'not known';

/** Whether anything flows into the battery. `not known`: neither watts nor label of the charger were written down. */
export const mayCharge = (outcome: Outcome): boolean => outcome === 'charges' || outcome === 'charges only asleep';

/** A device on a port through a cable, negotiated: what flows at most, and why not more. */
export interface Negotiated {
  outcome: Outcome;
  /** At the device, in V, A and W; on a pad volts and amps are unknown. Zero where nothing fits. */
  volts?: number | undefined;
  amps?: number | undefined;
  watts: number;
  by?: Means | undefined;
  family?: string | undefined;
  limit: Limit;
  /** What the best charger there could be would give it, where that is more, and how. */
  better?: { watts: number; by: Means } | undefined;
  /** What the limit is about: the watts or amps it stands at. */
  device: Device;
  charger: Charger;
  cable?: Cable | undefined;
  /** What the charger draws from a source of its own, where it has one. */
  fed?: FeedDraw | undefined;
  /** What it gives above these watts is not known: a label would tell. */
  knownTo?: number | undefined;
  /** Facts that nobody wrote down and that were taken to be as usual. */
  assumed: string[];
}

/** What a cable carries. Amps by signal kind; whether it reaches over 20 V; the family it belongs to. */
interface Carries {
  amps: number;
  extended: boolean;
  family: string | undefined;
  /** Whether it serves every family: the ideal cable, and the one that came with the charger. */
  anyFamily: boolean;
}

/** What a source draws from what feeds it, and what of that it can pass on. W. */
export interface FeedDraw {
  feed: Feed;
  /** At its input. */
  watts: number;
  /** At most, at its output. */
  passes: number;
  assumed: string[];
}

/** A pairing to be negotiated. Without a cable, one that fits is taken: the charger’s own where it comes with one, else an unmarked one. */
export interface Pairing {
  device: Device;
  charger: Charger;
  /** Which port of the charger; the first without. */
  port?: number;
  cable?: Cable | undefined;
  /** What feeds the charger, where it has a source of its own (`fedBy`). */
  fed?: FeedDraw | undefined;
  /** Ports of the charger that are in use at the same time. */
  inUse?: readonly number[] | undefined;
}

const IDEAL_CABLE: Carries = { amps: MARKED_AMPS, extended: true, family: undefined, anyFamily: true };
const NEEDS_NO_CABLE: ReadonlySet<Port['connector']> = new Set(['pad', 'bay', 'DC barrel', 'micro-USB']);

/**
 * Works out what a device, a cable and a port agree on: offer, volts, amps, watts, and what limits it.
 *
 * Of all that the port signals, the device takes what gives it most. What limits it is found by asking, for each of cable, device and
 * charger alone, whether an ideal one in its place would give more.
 *
 * @example negotiate({ device, charger, cable }).watts // what the device takes through that cable from the first port
 * @see docs/numbers.md, *What limits it*.
 */
export function negotiate({ device, charger, port: index = 0, cable, fed, inUse }: Pairing): Negotiated {
  const port = portsOf(charger)[index];
  const takes = takesOf(device);
  const shared = shareOf(charger, index, inUse);
  const shareWatts = Math.min(shared.watts, fed?.passes ?? Infinity);
  const assumed = [...takes.assumed, ...(fed?.assumed ?? [])];
  if (port && offersOf(port, charger).assumed) assumed.push(`what ${charger.name} offers (the least its rating asks for)`);
  if (shared.assumed) assumed.push('how its ports share (evenly)');
  const base = { device, charger, cable, fed, assumed };
  const nothing: Negotiated = { ...base, outcome: 'does not fit', watts: 0, limit: 'device' };
  if (!port || !fits(takes, port, cable)) return nothing;

  const isUnknown = charger.watts === undefined && !port.data && offersOf(port, charger).offers.length === 0;
  if (isUnknown) return { ...nothing, outcome: 'not known' };
  const signals = signalsOf(port, charger);
  const carries = carriedBy(cable, charger, port);
  const found = best(signals, takes, carries, shareWatts);
  if (!found) return nothing;
  const [volts, amps] = found.signal.by === 'wireless' ? [] : [found.volts, found.watts / found.volts];
  const negotiated: Negotiated = {
    ...base,
    outcome: outcomeOf(found.watts, device),
    volts,
    amps,
    watts: found.watts,
    by: found.signal.by,
    family: found.signal.family,
    limit: isFeedBound(fed, shared.watts, found) ? 'feed' : limitOf(found, signals, takes, carries, shareWatts, port),
    better: betterOf(found, signals, takes, port),
  };
  const isOpenAbove = offersOf(port, charger).assumed && port.connector === 'USB-C' && (charger.watts ?? 0) > KNOWN_BY_RATING;
  // What would take no more than that is told by it all the same.
  if (isOpenAbove && negotiated.limit !== 'device' && found.watts > KNOWN_BY_RATING - 1) negotiated.knownTo = KNOWN_BY_RATING;
  if (!cable && !NEEDS_NO_CABLE.has(port.connector) && negotiated.limit === 'cable') assumed.push('its cable (unmarked, 3 A)');
  return negotiated;
}

/** Whether a source would give more if it were fed more. */
const isFeedBound = (fed: FeedDraw | undefined, shareWatts: number, { watts }: Found) =>
  fed !== undefined && fed.passes < shareWatts && watts >= fed.passes - 1e-9;

interface Found {
  signal: Signal;
  volts: number;
  watts: number;
  /** Whether the standard’s own current is what binds. */
  standardBinds: boolean;
}

/** Of all signals, the one by which the device gets most. */
function best(signals: readonly Signal[], takes: Takes, carries: Carries, shareWatts: number): Found | undefined {
  let most: Found | undefined;
  for (const signal of signals) {
    const volts = takenVolts(takes, signal);
    const carried = carriedAmps(signal, carries);
    if (volts === undefined || carried === 0) continue;
    const amps = Math.min(signal.amps, signal.standardAmps, carried, takenAmps(takes, signal));
    const taken = signal.by === 'wireless' ? takes.wirelessWatts : takes.wiredWatts;
    const watts = Math.min(volts * amps, shareWatts, taken);
    if (!most || watts > most.watts + 1e-9 || (watts > most.watts - 1e-9 && isPreferred(signal, most.signal, takes))) {
      const standardWatts = volts * signal.standardAmps;
      const couldMore = signal.amps > signal.standardAmps + 1e-9 || signal.by === 'USB default';
      most = { signal, volts, watts, standardBinds: couldMore && watts >= standardWatts - 1e-9 };
    }
  }
  return most;
}

/**
 * Where several signals give a device as much, a programmable supply comes first, which it sets as it likes; then the voltage of Power Delivery nearest
 * to what such devices ask for (common practice, no source).
 */
function isPreferred(one: Signal, other: Signal, { favouredVolts }: Takes): boolean {
  if (one.by === 'PPS' || other.by === 'PPS') return one.by === 'PPS' && other.by !== 'PPS';
  const away = ({ high }: Signal) => Math.abs(Math.log(high / favouredVolts));
  return one.by === 'PD' && other.by === 'PD' && away(one) < away(other);
}

/** What the best charger with a plug like this one's would give, with the best cable; nothing where it is no more. */
function betterOf({ watts }: Found, signals: readonly Signal[], takes: Takes, port: Port): Negotiated['better'] {
  const found = best(idealSignals(port, takes, signals), takes, IDEAL_CABLE, Infinity);
  return found && found.watts > WORTH_SAYING * watts ? { watts: found.watts, by: found.signal.by } : undefined;
}

/** Watts within 3 % of each other are said to tie. */
const WORTH_SAYING = 1.03;

function carriedAmps(signal: Signal, { amps, extended, family, anyFamily }: Carries): number {
  if (signal.by === 'wireless' || signal.by === 'barrel' || signal.by === 'bay') return Infinity;
  if (signal.by === 'extended range') return extended ? amps : 0;
  // Makers’ own signalling on USB-A works over any cable; their fast charging needs a cable of theirs.
  if (signal.by === 'family' && !signal.family?.endsWith(' A')) return anyFamily || family === signal.family ? Infinity : 0;
  return amps;
}

function carriedBy(cable: Cable | undefined, charger: Charger, port: Port): Carries {
  if (NEEDS_NO_CABLE.has(port.connector)) return IDEAL_CABLE;
  if (!cable) return charger.cableIncluded ? IDEAL_CABLE : { amps: UNMARKED_AMPS, extended: false, family: undefined, anyFamily: false };
  const isMarked = cable.marker === '5 A' || cable.marker === '240 W';
  return { amps: isMarked ? MARKED_AMPS : UNMARKED_AMPS, extended: cable.marker === '240 W', family: cable.family, anyFamily: false };
}

/** Whether the plug goes in at both ends. */
function fits({ connectors, wireless }: Takes, { connector }: Port, cable: Cable | undefined): boolean {
  switch (connector) {
    case 'pad':
      return wireless.size > 0;
    case 'bay':
    case 'DC barrel':
    case 'micro-USB':
      return connectors.has(connector);
    case 'USB-A':
    case 'USB-C':
      if (!cable) return ['USB-C', 'micro-USB', 'mini-USB', 'own plug'].some((each) => connectors.has(each));
      // An end that nobody wrote down is taken to go in: it was charged through.
      return [connector, 'not known'].includes(cable.chargerEnd) && (cable.deviceEnd === 'not known' || connectors.has(cable.deviceEnd));
  }
}

function outcomeOf(watts: number, { leastWatts, awakeWatts }: Device): Outcome {
  if (leastWatts !== undefined && watts < leastWatts) return 'connected, will not charge';
  return awakeWatts !== undefined && watts <= awakeWatts ? 'charges only asleep' : 'charges';
}

/** A device that takes whatever the port can signal. */
function idealDevice(takes: Takes, signals: readonly Signal[]): Takes {
  return {
    ...takes,
    typeCAmps: 3,
    chargingPort: true,
    deliveryVolts: 48,
    programmableVolts: 21,
    families: new Set(signals.flatMap(({ family }) => (family === undefined ? [] : [family]))),
    wireless: new Set(['baseline', 'extended', 'magnetic']),
    wiredWatts: Infinity,
    wirelessWatts: Infinity,
  };
}

/** What a charger could signal at the very best; one with USB-A could as well have USB-C. */
function idealSignals({ connector }: Port, takes: Takes, signals: readonly Signal[]): Signal[] {
  const make = (by: Means, high: number, amps: number, rest: Partial<Signal> = {}): Signal => ({
    by,
    low: high,
    high,
    amps,
    standardAmps: Infinity,
    ...rest,
  });
  const families = [...takes.families].map((family) => make('family', 20, family.endsWith(' A') ? parseFloat(family) / 4 : 12, { family }));
  switch (connector) {
    case 'USB-C':
    case 'USB-A':
    case 'micro-USB':
      return [
        make('PPS', 21, MARKED_AMPS, { low: 3.3 }),
        ...[5, 9, 12, 15, 20].map((volts) => make('PD', volts, MARKED_AMPS)),
        ...[28, 36, 48].map((volts) => make('extended range', volts, MARKED_AMPS)),
        ...families,
        make('Type-C current', 5, 3),
        make('BC 1.2', 5, 1.5),
      ];
    case 'pad':
      return (['magnetic', 'extended', 'baseline'] as const).map((profile) =>
        make('wireless', 1, profile === 'baseline' ? 5 : 15, { profile }),
      );
    case 'DC barrel':
    case 'bay':
      return signals.map((signal) => ({ ...signal, amps: Infinity }));
  }
}

function limitOf(found: Found, signals: readonly Signal[], takes: Takes, carries: Carries, shareWatts: number, port: Port): Limit {
  const more = (other: Found | undefined) => Math.max(0, (other?.watts ?? 0) - found.watts);
  const isMore = (watts: number) => watts > 1e-6;
  const byCable = more(best(signals, takes, IDEAL_CABLE, shareWatts));
  if (isMore(byCable)) return 'cable';
  const ideal = idealDevice(takes, signals);
  const byDevice = more(best(signals, ideal, carries, shareWatts));
  const offered = idealSignals(port, takes, signals);
  // Beside a better charger its better cable is thought of too.
  const byCharger = more(best(offered, takes, IDEAL_CABLE, Infinity));
  const strangers = signals.some((signal) => signal.by === 'family' && takenVolts(takes, signal) === undefined);
  const unserved = [...takes.families].some((family) => !signals.some((signal) => signal.family === family));
  if ((strangers || unserved) && isMore(byDevice) && (isMore(byCharger) || found.standardBinds)) return 'mismatch';
  if (!isMore(byDevice) && !isMore(byCharger)) return found.standardBinds ? 'standard' : 'device';
  if (isMore(byDevice) && byDevice >= byCharger) return 'device';
  return found.standardBinds ? 'standard' : 'charger';
}
