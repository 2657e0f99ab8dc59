import Papa from 'papaparse';
import type { Draft, Entry, Header } from '../ink/entry';
import { LIGHT_OUT, LIGHTS } from '../ink/events';
import { elapsedIn, type Footage } from '../ink/footage';
import { LONGEST_RUN } from '../ink/ranges';
import type { Cadence } from '../method/cadenceSchema';
import { AMBIENT, CONDITIONS, REST } from '../method/conditions';
import { readDecimal } from '../quantity/decimal';
import { parseClock, spell } from '../quantity/duration';
import { parseEntryLine, type Surfaces } from '../quantity/entryLine';
import type { StoredRun } from './logbook';

/** A study as it stands on paper: times down, setups across; every cell as it is written. */
export interface PaperGrid {
  /** What is said of each column, by the name of it: `device`, `cable`, a condition. */
  facts: Record<string, string[]>;
  /** One for each row. */
  times: string[];
  /** By row, then by column. */
  cells: string[][];
}

/** The most that a grid holds: more is a log, and goes by import. */
export const MOST_PAPER = { rows: 2000, columns: 60 };

/** What every column has, and what else is said of one where it is known; conditions beside. */
export const PAPER_GEAR = ['device', 'charger', 'cable', 'port', 'fed by', 'plugged in', 'state'] as const;

/** How else people head these rows. */
const ALSO: Readonly<Record<string, string>> = {
  phone: 'device',
  tablet: 'device',
  laptop: 'device',
  camera: 'device',
  source: 'charger',
  adapter: 'charger',
  brick: 'charger',
  feeder: 'fed by',
  'plug-in': 'plugged in',
  'plug in': 'plugged in',
  'plugged in at': 'plugged in',
  started: 'plugged in',
  'start time': 'plugged in',
  'time of day': 'plugged in',
  'date and time': 'plugged in',
  date: 'plugged in',
  day: 'plugged in',
  rested: REST,
  'left off': REST,
  room: AMBIENT,
  ambient: AMBIENT,
};
const FACT_NAMES = new Map([...PAPER_GEAR, ...CONDITIONS.map(({ name }) => name)].map((name) => [name.toLowerCase(), name]));

/** What a row is of, by what stands at its left; `undefined` for a row of readings. */
function factNamed(label: string): string | undefined {
  const bare = label.trim().replace(/:$/, '').toLowerCase();
  return FACT_NAMES.get(bare) ?? ALSO[bare];
}

/** A row that has the time at which each was full. */
const FULL_ROW = /^(full( at)?|full time|time to full)$/i;

/**
 * Reads a grid as a spreadsheet puts it on the clipboard, or as comma- or semicolon-separated text. The first row heads the setups, the first
 * column has the times; a first row of figures alone is no heading. Rows that say what a setup was (`Device`, `Cable`, `Screen`) can stand anywhere.
 *
 * @returns the grid; or in a sentence why it is not taken: nothing of it is cut off
 */
export function readGrid(text: string, shelf: PaperShelf = { devices: [], chargers: [] }): PaperGrid | { refused: string } {
  const { data } = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), { skipEmptyLines: 'greedy' });
  const rows = data.map((row) => row.map((cell) => cell.trim()));
  const label = (row: readonly string[] | undefined) => row?.[0] ?? '';
  const isReadings = (row: readonly string[]) => factNamed(label(row)) === undefined;
  const [first] = rows;
  const isHeaded = first !== undefined && isReadings(first) && readTime(label(first)) === undefined && !FULL_ROW.test(label(first));
  const body = (isHeaded ? rows.slice(1) : rows).filter(isReadings);
  const columns = Math.max(0, ...rows.map((row) => row.findLastIndex((cell) => cell !== '')));
  const refused = tooMuch(body.length, columns);
  if (refused) return { refused };
  const across = Array.from({ length: columns }, (_, index) => index + 1);
  const facts: PaperGrid['facts'] = {};
  if (isHeaded) {
    const found = across.map((index) => gearNamedIn(first[index] ?? '', shelf.devices, shelf.chargers));
    facts.device = found.map(({ device }) => device);
    facts.charger = found.map(({ charger }) => charger);
  }
  for (const row of rows) {
    const name = factNamed(label(row));
    // A day and a time of day may have a row each.
    const before = name === 'plugged in' ? facts[name] : undefined;
    if (name !== undefined) facts[name] = across.map((index) => dayFirst(before?.[index - 1] ?? '', row[index] ?? ''));
  }
  return { facts, times: body.map(label), cells: body.map((row) => across.map((index) => row[index] ?? '')) };
}

/** A day and a time of day as one moment, whichever stood above the other. */
const dayFirst = (one: string, other: string): string =>
  (/^\d{1,2}:\d\d/.test(one) ? [other, one] : [one, other]).filter(Boolean).join(' ');

/** Why so much is not taken. */
export function tooMuch(rows: number, columns: number): string | undefined {
  if (columns > MOST_PAPER.columns)
    return `That is ${columns} setups, and ${MOST_PAPER.columns} are the most at a time: nothing was taken. Paste some of them, file those, then the others.`;
  if (rows > MOST_PAPER.rows)
    return `That is ${rows} rows, and ${MOST_PAPER.rows} are the most: nothing was taken. A log of so many goes by Import.`;
  return undefined;
}

const UNITS: Readonly<Record<string, number>> = { '': 60, s: 1, sec: 1, min: 60, m: 60, h: 3600 };

/**
 * Reads a time as people write it down: `10` and `10 min` are minutes, `14:25` minutes and seconds, `1:02:05` hours too, `2 h`, `1 h 30`.
 *
 * @returns seconds; `undefined` for what is no time
 */
export function readTime(text: string): number | undefined {
  const typed = text.trim().toLowerCase();
  const ticking = parseClock(typed);
  if (ticking !== undefined) return ticking;
  const both = /^(\d+)\s*h\s*(\d{1,2})(?:\s*min)?$/.exec(typed);
  if (both) return Number(both[1]) * 3600 + Number(both[2]) * 60;
  const one = /^([\d.,]+)\s*([a-z]*)$/.exec(typed);
  const scale = one && UNITS[one[2] ?? ''];
  const value = one ? readDecimal(one[1] ?? '') : Number.NaN;
  return scale === undefined || scale === null || !Number.isFinite(value) ? undefined : value * scale;
}

interface Named {
  id: string;
  name: string;
}
interface PaperShelf {
  devices: readonly Named[];
  chargers: readonly Named[];
}

/** What stands between a device and its charger in a heading. */
const BETWEEN = /\s+(?:on|from|with|by|via)\s+|\s*[/|,+–—·]\s+|\s+-\s+/i;

/** A name as a word of its own in a text: `Cobble 1` is not in `Cobble 12`. */
function cutOut(text: string, all: readonly Named[]): { name: string; rest: string } | undefined {
  const longest = [...all].sort((one, other) => other.name.length - one.name.length);
  for (const { name } of longest) {
    const at = text.toLowerCase().indexOf(name.toLowerCase());
    const [before, after] = [text.slice(0, Math.max(0, at)), text.slice(at + name.length)];
    if (at >= 0 && !/[\p{L}\p{N}]$/u.test(before) && !/^[\p{L}\p{N}]/u.test(after)) return { name, rest: `${before} ${after}`.trim() };
  }
  return undefined;
}

/**
 * The device and the charger that a heading names, each as it is called on the shelf or, where it is not there, as it is written. What names only one
 * of them leaves the other empty: it is asked. What stands on the shelf neither as the one nor as the other is a charger.
 */
export function gearNamedIn(heading: string, devices: readonly Named[], chargers: readonly Named[]): { device: string; charger: string } {
  const device = cutOut(heading, devices);
  const charger = cutOut(device?.rest ?? heading, chargers);
  const left = (charger ?? device)?.rest ?? heading;
  // Nothing but what stands between them is left: the heading is all of the shelf.
  if ((device ?? charger) && left.replace(/^(on|from|with|by|via)$/i, '').replace(/[\s\p{P}|+]/gu, '') === '')
    return { device: device?.name ?? '', charger: charger?.name ?? '' };
  const [one = '', ...others] = heading.split(BETWEEN);
  return others.length === 1 ? { device: one.trim(), charger: others[0]?.trim() ?? '' } : { device: '', charger: heading.trim() };
}

/** What in a grid cannot be read. Rows and columns from 0; without a column it is the time of the row, and `isNoTime` where that is none at all. */
export interface PaperFault {
  row: number;
  column?: number | undefined;
  says: string;
  isNoTime?: true;
}

/** One column of a grid, read: what was seen, by its time in seconds from plug-in. */
export interface PaperColumn {
  drafts: { seconds: number; draft: Draft }[];
}

/** Cells as they were read before: of 120,000 most say what another says, and most stand as they stood when one was written. */
const READ = new Map<string, ReturnType<typeof readCell>>();
const MOST_READ = 50_000;

const NOTHING = new Set(['', '-', '–', '—', 'n/a', '?']);

/**
 * Reads every cell as the entry line reads what is typed; `dead`, `light out` and `light out!` are words of their own, an empty cell is nothing.
 *
 * @param footage where the times are those of a clip
 * @param devices what charged in each column, for names of its surfaces
 */
export function readColumns(
  { times, cells }: Pick<PaperGrid, 'times' | 'cells'>,
  footage?: Footage,
  devices: readonly (Surfaces | undefined)[] = [],
): { columns: PaperColumn[]; faults: PaperFault[] } {
  const faults: PaperFault[] = [];
  const count = cells.reduce((max, row) => Math.max(max, row.length), 0);
  const columns: PaperColumn[] = Array.from({ length: count }, () => ({ drafts: [] }));
  const fulls: { row: number; column: number; seconds: number; isSeen: boolean }[] = [];
  const readOnce = (cell: string, seconds: number, column: number) => {
    const device = devices[column];
    const key = `${cell}\n${seconds === 0 ? 0 : 1}\n${device?.frontName ?? ''}\n${device?.backName ?? ''}`;
    if (READ.size > MOST_READ) READ.clear();
    if (!READ.has(key)) READ.set(key, readCell(cell, seconds, device));
    return READ.get(key);
  };
  let before = -1;
  for (const [row, text] of times.entries()) {
    const isEmpty = (cells[row] ?? []).every((cell) => NOTHING.has(cell.trim()));
    if (text.trim() === '' && isEmpty) continue;
    const isFull = FULL_ROW.test(text.trim());
    for (const [column, cell] of (cells[row] ?? []).entries()) {
      const full = readFull(cell.trim(), isFull, footage);
      if (typeof full === 'string') faults.push({ row, column, says: full });
      else if (full) fulls.push({ row, column, ...full });
    }
    if (isFull) continue;
    const typed = readTime(text);
    const seconds = typed === undefined || !footage ? typed : elapsedIn(footage, typed);
    const fault = timeFault(seconds, before);
    if (fault || seconds === undefined) {
      faults.push({ row, says: fault ?? '', ...(typed === undefined && { isNoTime: true as const }) });
      continue;
    }
    before = seconds;
    for (const [column, cell] of (cells[row] ?? []).entries()) {
      if (FULL_CELL.test(cell.trim())) continue;
      const read = readOnce(cell.trim(), seconds, column);
      if (typeof read === 'string') faults.push({ row, column, says: read });
      else if (read) columns[column]?.drafts.push({ seconds, draft: read });
    }
  }
  for (const { row, column, seconds, isSeen } of fulls) {
    const drafts = columns[column]?.drafts ?? [];
    const later = drafts.findLast(({ seconds: at, draft }) => at >= seconds && draft.kind === 'reading' && (draft.percent ?? 100) < 100);
    if (later) faults.push({ row, column, says: `It was not full at ${spell(later.seconds, 1)}: it cannot have been before.` });
    else drafts.push({ seconds, draft: { kind: 'reading', at: 0, percent: 100, paper: true, ...(isSeen && { turning: true }) } });
    drafts.sort((one, other) => one.seconds - other.seconds);
  }
  return { columns, faults };
}

/** `full 95 min`: a full time alone; `full! 95 min` where the display was seen turning. */
const FULL_CELL = /^full(!?)\s+(?:at\s+)?(\S.*)$/i;

/** When a cell says that it was full; nothing where it does not, a sentence where it cannot be read. */
function readFull(text: string, isFull: boolean, footage?: Footage): { seconds: number; isSeen: boolean } | string | undefined {
  const [, sign = text.endsWith('!') ? '!' : '', time = text.replace(/!$/, '')] = FULL_CELL.exec(text) ?? [];
  if (NOTHING.has(text) || !(isFull || FULL_CELL.test(text))) return undefined;
  const typed = readTime(time);
  const seconds = typed === undefined || !footage ? typed : elapsedIn(footage, typed);
  if (seconds === undefined || seconds <= 0) return 'Write when it was full as 95 min or 1 h 35.';
  return seconds > LONGEST_RUN ? 'That is longer than a run is kept.' : { seconds, isSeen: sign === '!' };
}

function timeFault(seconds: number | undefined, before: number): string | undefined {
  if (seconds === undefined) return 'Write the time as 10, 14:25 or 1 h 30.';
  if (seconds < 0) return 'That is before plug-in.';
  if (seconds > LONGEST_RUN) return 'That is longer than a run is kept.';
  return seconds > before ? undefined : 'Times go down the page in order, each once.';
}

/** A cell as ink; nothing where nothing was read; a sentence where it cannot be read. */
function readCell(text: string, seconds: number, device: Surfaces = {}): Draft | string | undefined {
  if (NOTHING.has(text)) return undefined;
  const line = parseEntryLine(inLineWords(text), device);
  if (!line.ok) return line.error;
  const { seen, dead, light, note, ...values } = line.values;
  if (seen !== undefined) return 'The time stands at the left: leave out the @.';
  if (dead) return seconds === 0 ? { kind: 'event', at: 0, event: 'dead', remark: FROM_PAPER } : 'It can be dead at plug-in only: at 0.';
  if (light) return { kind: 'event', at: 0, event: LIGHTS[light], remark: FROM_PAPER };
  if (Object.keys(values).length === 0) return { kind: 'note', at: 0, text: note ?? '' };
  return { kind: 'reading', at: 0, ...values, paper: true, ...(note && { note }) };
}

/** `out` is of the light, `full` is 100 %. */
function inLineWords(text: string): string {
  if (/^(lit|out|off)!?$/i.test(text)) return `light ${text}`;
  return text.replace(/^full(!?)$/i, '100$1');
}

/** What marks a run, and what in it can say so, as copied from paper. */
export const FROM_PAPER = 'from paper';

/** The times at which a column was read, as its cadence: what was left empty was not asked for. `undefined` where they are too many and uneven. */
export function cadenceOf({ drafts }: PaperColumn): Cadence | undefined {
  const at = [...new Set(drafts.map(({ seconds }) => seconds))].filter((seconds) => seconds >= LEAST_MARK);
  if (at.length > 0 && at.length <= MOST_MARKS) return { kind: 'marks', at };
  const [every = 0] = at;
  const isEven = every >= LEAST_MARK && at.every((seconds, index) => Math.abs(seconds - every * (index + 1)) < 1);
  return isEven ? { kind: 'fixed', every } : undefined;
}

/** Marks of a cadence begin here, in s, and there are so many at most (method/cadenceSchema.ts). */
const LEAST_MARK = 30;
const MOST_MARKS = 288;

/**
 * Makes a run of a column.
 *
 * @param header its plug-in instant dates every row
 * @param nextId makes an id for each entry
 * @param now    epoch milliseconds: when it was copied here
 */
export function runFromPaper({ drafts }: PaperColumn, header: Header, nextId: () => string, now: number): StoredRun {
  const last = drafts.at(-1);
  const at = (seconds: number) => header.plugInAt + Math.round(seconds * 1000);
  const stop: Draft = { kind: 'stop', at: at(last?.seconds ?? 0), because: endingOf(last?.draft), remark: FROM_PAPER };
  const dated = [...drafts.map(({ seconds, draft }) => ({ ...draft, at: at(seconds) })), stop];
  return { header, entries: dated.map((draft, index): Entry => ({ ...draft, seq: index + 1, id: nextId(), written: now })) };
}

function endingOf(draft: Draft | undefined) {
  if (draft?.kind === 'event' && LIGHT_OUT.includes(draft.event)) return 'light out';
  return draft?.kind === 'reading' && draft.percent === 100 ? 'full' : 'window over';
}
