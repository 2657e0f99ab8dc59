import Papa from 'papaparse';
import type { Draft, Entry, Header } from '../ink/entry';
import { LIGHT_OUT, LIGHTS } from '../ink/events';
import { elapsedIn, type Footage } from '../ink/footage';
import { LONGEST_RUN } from '../ink/ranges';
import type { Cadence } from '../method/cadenceSchema';
import { readDecimal } from '../quantity/decimal';
import { parseClock } from '../quantity/duration';
import { parseEntryLine } from '../quantity/entryLine';
import type { StoredRun } from './logbook';

/** A study as it stands on paper: times down, setups across; every cell as it is written. */
export interface PaperGrid {
  /** One for each column: what charged from what, as it is headed. */
  headings: string[];
  /** One for each row. */
  times: string[];
  /** By row, then by column. */
  cells: string[][];
}

/** The most that a grid holds: more is a log, and goes by import. */
export const MOST_PAPER = { rows: 300, columns: 12 };

/**
 * Reads a grid as a spreadsheet puts it on the clipboard, or as comma- or semicolon-separated text. The first row heads the setups, the first
 * column has the times; a first row of figures alone is no heading.
 */
export function readGrid(text: string): PaperGrid {
  const { data } = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), { skipEmptyLines: 'greedy' });
  const rows = data.map((row) => row.map((cell) => cell.trim()));
  const [first = []] = rows;
  const isHeaded = readTime(first[0] ?? '') === undefined;
  const body = (isHeaded ? rows.slice(1) : rows).slice(0, MOST_PAPER.rows);
  const columns = Math.min(MOST_PAPER.columns, Math.max(0, ...rows.map((row) => row.length - 1)));
  const across = Array.from({ length: columns }, (_, index) => index + 1);
  return {
    headings: across.map((index) => (isHeaded ? (first[index] ?? '') : '')),
    times: body.map((row) => row[0] ?? ''),
    cells: body.map((row) => across.map((index) => row[index] ?? '')),
  };
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

/** What a heading names of the shelf: the longest names of a device and of a charger that stand in it. */
export function gearNamedIn(
  heading: string,
  devices: readonly Named[],
  chargers: readonly Named[],
): { device?: string | undefined; charger?: string | undefined } {
  const text = heading.toLowerCase();
  const named = (all: readonly Named[]) =>
    all.filter(({ name }) => text.includes(name.toLowerCase())).sort((one, other) => other.name.length - one.name.length)[0]?.id;
  return { device: named(devices), charger: named(chargers) };
}

interface Named {
  id: string;
  name: string;
}

/** What in a grid cannot be read. Rows and columns from 0; without a column it is the time of the row. */
export interface PaperFault {
  row: number;
  column?: number | undefined;
  says: string;
}

/** One column of a grid, read: what was seen, by its time in seconds from plug-in. */
export interface PaperColumn {
  drafts: { seconds: number; draft: Draft }[];
}

const NOTHING = new Set(['', '-', '–', '—', 'n/a', '?']);

/**
 * Reads every cell as the entry line reads what is typed; `dead`, `light out` and `light out!` are words of their own, an empty cell is nothing.
 *
 * @param footage where the times are those of a clip
 */
export function readColumns({ times, cells }: PaperGrid, footage?: Footage): { columns: PaperColumn[]; faults: PaperFault[] } {
  const faults: PaperFault[] = [];
  const count = Math.max(0, ...cells.map((row) => row.length));
  const columns: PaperColumn[] = Array.from({ length: count }, () => ({ drafts: [] }));
  let before = -1;
  for (const [row, text] of times.entries()) {
    const isEmpty = (cells[row] ?? []).every((cell) => NOTHING.has(cell.trim()));
    if (text.trim() === '' && isEmpty) continue;
    const typed = readTime(text);
    const seconds = typed === undefined || !footage ? typed : elapsedIn(footage, typed);
    const fault = timeFault(seconds, before);
    if (fault || seconds === undefined) {
      faults.push({ row, says: fault ?? '' });
      continue;
    }
    before = seconds;
    for (const [column, cell] of (cells[row] ?? []).entries()) {
      const read = readCell(cell.trim(), seconds);
      if (typeof read === 'string') faults.push({ row, column, says: read });
      else if (read) columns[column]?.drafts.push({ seconds, draft: read });
    }
  }
  return { columns, faults };
}

function timeFault(seconds: number | undefined, before: number): string | undefined {
  if (seconds === undefined) return 'Write the time as 10, 14:25 or 1 h 30.';
  if (seconds < 0) return 'That is before plug-in.';
  if (seconds > LONGEST_RUN) return 'That is longer than a run is kept.';
  return seconds > before ? undefined : 'Times go down the page in order, each once.';
}

/** A cell as ink; nothing where nothing was read; a sentence where it cannot be read. */
function readCell(text: string, seconds: number): Draft | string | undefined {
  if (NOTHING.has(text)) return undefined;
  const line = parseEntryLine(/^(lit|out|off)!?$/i.test(text) ? `light ${text}` : text);
  if (!line.ok) return line.error;
  const { seen, dead, light, note, ...values } = line.values;
  if (seen !== undefined) return 'The time stands at the left: leave out the @.';
  if (dead) return seconds === 0 ? { kind: 'event', at: 0, event: 'dead', remark: FROM_PAPER } : 'It can be dead at plug-in only: at 0.';
  if (light) return { kind: 'event', at: 0, event: LIGHTS[light], remark: FROM_PAPER };
  if (Object.keys(values).length === 0) return { kind: 'note', at: 0, text: note ?? '' };
  return { kind: 'reading', at: 0, ...values, paper: true, ...(note && { note }) };
}

/** What marks a run, and what in it can say so, as copied from paper. */
export const FROM_PAPER = 'from paper';

/** The times at which a column was read, as its cadence: what was left empty between them is a check that was missed. */
export function cadenceOf({ times }: PaperGrid, column: PaperColumn, footage?: Footage): Cadence | undefined {
  const last = column.drafts.at(-1)?.seconds ?? 0;
  const at = times.flatMap((text) => {
    const typed = readTime(text);
    const seconds = typed === undefined || !footage ? typed : elapsedIn(footage, typed);
    return seconds !== undefined && seconds >= LEAST_MARK && seconds <= last ? [seconds] : [];
  });
  return at.length > 0 && at.length <= MOST_MARKS ? { kind: 'marks', at } : undefined;
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
