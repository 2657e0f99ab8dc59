/** What can happen during a run beside readings (common practice, no source): its key on the sheet of events, and how it is written. */
export const EVENTS = [
  { id: 'dead', key: 'd', says: 'dead: the display showed nothing' },
  { id: 'booted', key: 'b', says: 'it booted' },
  { id: 'handshake', key: 'h', says: 'volts stepped: handshake' },
  { id: 'chime', key: 'c', says: 'chime or charge icon' },
  { id: 'slow notice', key: 'n', says: 'it said: slow charger' },
  { id: 'not charging', key: 'r', says: 'connected, but not charging' },
  { id: 'woken', key: 's', says: 'screen woken' },
  { id: 'moved', key: 'm', says: 'moved on its pad' },
  { id: 'unplugged', key: 'u', says: 'unplugged' },
  { id: 'replugged', key: 'p', says: 'plugged in again' },
  /** At the socket or the strip, not on the device. */
  { id: 'switched off', key: 'o', says: 'power switched off' },
  { id: 'switched on', key: 'i', says: 'power switched on' },
  { id: 'light on', key: 'l', says: 'charge light on' },
  /** Its key asks which of the two it was. */
  { id: 'light off', key: 'k', says: 'charge light found out' },
  { id: 'light went out', key: '', says: 'charge light seen going out' },
  { id: 'hold', key: 'a', says: 'held by an adaptive setting' },
  { id: 'swapped', key: 'x', says: 'source or cable swapped' },
  { id: 'work started', key: 'w', says: 'workload started' },
  { id: 'work ended', key: 'e', says: 'workload ended' },
  /** By hand, without a thermometer: told, and never ranked. */
  { id: 'felt cool', key: '1', says: 'felt cool by hand' },
  { id: 'felt warm', key: '2', says: 'felt warm by hand' },
  { id: 'felt hot', key: '3', says: 'felt hot by hand' },
  { id: 'camera stopped', key: 'f', says: 'camera stopped' },
  /** Written by the program on every other lane of a set. */
  { id: 'fine', key: '', says: 'read finely from here on' },
  /** Written by the program: it was shut, asleep or gone, until the entry’s `until`. */
  { id: 'away', key: '', says: 'not watched' },
  /** Written by the program once a person says so: the wall clock was moved by the entry’s `shift`. */
  { id: 'clock', key: '', says: 'the clock was changed' },
] as const;

export type EventId = (typeof EVENTS)[number]['id'];

/** Somebody was watching the charge light as it went out, or found it so later: a time to seconds, or one since it was last seen lit. */
export const LIGHT_WAS = [
  { id: 'light went out', key: 's', says: 'seen going out' },
  { id: 'light off', key: 'f', says: 'found out: it went out before' },
] as const satisfies readonly { id: EventId; key: string; says: string }[];
/** The charge light is out after these. */
export const LIGHT_OUT: readonly EventId[] = ['light off', 'light went out'];
/** What a line says of the charge light, as what happened. */
export const LIGHTS = { on: 'light on', out: 'light off', 'went out': 'light went out' } as const;
/** After these it has no power, until one of the others. */
export const POWER_GOES: readonly EventId[] = ['unplugged', 'switched off'];
export const POWER_COMES: readonly EventId[] = ['replugged', 'switched on'];
/** Warmth as a hand feels it. */
export const FELT: readonly EventId[] = ['felt cool', 'felt warm', 'felt hot'];

/** An event in words. */
export const eventSays = (id: EventId): string => EVENTS.find((each) => each.id === id)?.says ?? id;
