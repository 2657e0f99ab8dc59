import type { Cable } from '../bench/cable';
import type { Charger } from '../bench/charger';
import type { Device } from '../bench/device';
import { isFed, usualFeed, type Feed } from '../bench/feed';
import { portName } from '../bench/portName';
import { portsOf } from '../bench/ports';
import type { Kept, Shelf } from '../bench/shelf';
import type { Header } from '../ink/entry';
import { AMBIENT, keptAmbient } from '../method/conditions';
import type { Condition } from '../method/conditionSchema';
import { STATES } from '../plan/study';
import { either, listed } from '../quantity/listed';
import { PAPER_GEAR, type PaperGrid } from './paper';

/** What charged from what in a column of a paper, as far as it is said and stands on the shelf. */
export interface PaperSetup {
  device: Device | undefined;
  charger: Charger | undefined;
  cable: Cable | undefined;
  /** Which of several, from 0. */
  port: number | undefined;
  feed: Header['feed'] | undefined;
  /** Epoch milliseconds. */
  plugInAt: number | undefined;
  state: (typeof STATES)[number] | undefined;
  conditions: Condition[];
  /** Names that are not on the shelf: they stay as typed. */
  unknown: NewName[];
  /** What is missing or cannot be read, by the fact that it is of. */
  faults: { fact: string; says: string }[];
}

/** A name that is to become gear. */
export interface NewName {
  shelf: Exclude<Shelf, 'meter'>;
  name: string;
}

interface PaperGear {
  devices: readonly Device[];
  chargers: readonly Charger[];
  cables: readonly Cable[];
}

const same = (one: string, other: string) => one.trim().toLowerCase() === other.trim().toLowerCase();

/**
 * Reads what stands above a column.
 *
 * @param readMoment reads a moment as it is typed: epoch milliseconds, `undefined` for none
 */
export function setupIn(
  { facts }: Pick<PaperGrid, 'facts'>,
  column: number,
  { devices, chargers, cables }: PaperGear,
  readMoment: (typed: string) => number | undefined,
): PaperSetup {
  const typed = (fact: string) => facts[fact]?.[column]?.trim() ?? '';
  const unknown: NewName[] = [];
  const faults: PaperSetup['faults'] = [];
  const named = <Gear extends { name: string }>(fact: string, shelf: NewName['shelf'], all: readonly Gear[]): Gear | undefined => {
    const name = typed(fact);
    const found = name === '' ? undefined : all.find((each) => same(each.name, name));
    if (name !== '' && !found) unknown.push({ shelf, name });
    return found;
  };
  const [device, charger] = [named('device', 'device', devices), named('charger', 'charger', chargers)];
  if (typed('device') === '') faults.push({ fact: 'device', says: 'Say what charged.' });
  if (typed('charger') === '') faults.push({ fact: 'charger', says: 'Say what it charged from.' });
  const cable = named('cable', 'cable', cables);
  const feeder = named('fed by', 'charger', chargers);
  const usual = charger && usualFeed(charger, chargers, cables);
  if (feeder && charger && !isFed(charger))
    faults.push({ fact: 'fed by', says: `${charger.name} is fed by nothing: its kind on the shelf is no pad, dock or the like.` });
  const plugInAt = readMoment(typed('plugged in'));
  if (plugInAt === undefined)
    faults.push({
      fact: 'plugged in',
      says: typed('plugged in') === '' ? 'Say when it was plugged in.' : 'Write its day and its time of day.',
    });
  const port = charger && readPort(typed('port'), charger);
  if (typeof port === 'string') faults.push({ fact: 'port', says: port });
  const state = STATES.find((each) => same(each, typed('state')));
  if (typed('state') !== '' && !state) faults.push({ fact: 'state', says: `Write ${either(STATES)}.` });
  return {
    device,
    charger,
    cable,
    port: typeof port === 'number' ? port : undefined,
    feed: charger && isFed(charger) ? feedOf(feeder ? { charger: feeder } : usual) : undefined,
    plugInAt,
    state,
    conditions: conditionsIn(facts, column),
    unknown,
    faults,
  };
}

const feedOf = (feed: Feed | undefined): Header['feed'] | undefined =>
  feed && { charger: feed.charger, ...(feed.cable && { cable: feed.cable }) };

/** Which port is meant: by its number, or by its name; a sentence where there is none such. */
function readPort(typed: string, charger: Charger): number | string | undefined {
  if (typed === '') return undefined;
  const ports = portsOf(charger);
  const names = ports.map((port, index) => portName(port, index));
  const found = /^\d+$/.test(typed) ? Number(typed) - 1 : names.findIndex((name) => same(name, typed));
  return ports[found] ? found : `${charger.name} has ${ports.length === 1 ? 'one port' : `ports ${listed(names)}`}.`;
}

function conditionsIn(facts: PaperGrid['facts'], column: number): Condition[] {
  return Object.entries(facts).flatMap(([name, values]) => {
    const value = values[column]?.trim() ?? '';
    if (value === '' || PAPER_GEAR.some((each) => each === name)) return [];
    return [{ name, value: name === AMBIENT ? keptAmbient(value) : value }];
  });
}

/** Each name once, as gear that is only named: its facts can follow. */
export function gearOf(names: readonly NewName[], nextId: () => string): Kept[] {
  const once = new Map(names.map((each) => [`${each.shelf} ${each.name.toLowerCase()}`, each]));
  return [...once.values()].map(({ shelf, name }): Kept => {
    const gear = { id: nextId(), name };
    if (shelf === 'cable') return { shelf, gear: { ...gear, chargerEnd: 'not known', deviceEnd: 'not known', marker: 'none' } };
    return { shelf, gear: { ...gear, kind: 'other' } };
  });
}
