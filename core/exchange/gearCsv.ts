import Papa from 'papaparse';
import { ValidationError } from 'yup';
import { factsOf, type Fact } from '../bench/facts';
import { factValue } from '../bench/factValue';
import { readPort } from '../bench/portText';
import { SCHEMAS } from '../bench/schemas';
import { quoted } from '../quantity/letters';
import { SHELVES, type Gear, type Kept, type Shelf } from '../bench/shelf';
import { ImportError, short } from './importError';
import { escapeFormula, unescapeFormula } from '../quantity/plainTable';

const YES = /^(yes|y|true|1|x)$/i;
const NO = /^(no|n|false|0)$/i;

const headingOf = ({ name, unit }: Fact) => (unit ? `${name} (${unit})` : name).toLowerCase();
const FIXED = ['shelf', 'name', 'retired'] as const;

/** Headings of earlier files, and what they are called now. */
const FORMER: Readonly<Record<string, string>> = {
  'knows a charging port (bc 1.2)': 'supports bc 1.2',
  families: 'maker’s own fast charging',
};

/** Every heading a gear CSV can have, once, in the order of the shelves. */
const HEADINGS = [...new Set([...FIXED.slice(0, 2), ...SHELVES.flatMap((shelf) => factsOf(shelf).map(headingOf)), 'retired'])];

/** Gear as CSV (RFC 4180): a row a piece, whatever its shelf; an empty cell is unknown. */
export function writeGearCsv(kept: readonly Kept[]): string {
  const names = new Map(kept.map(({ shelf, gear }) => [`${shelf}/${gear.id}`, gear.name]));
  const nameOf = (shelf: Shelf, id: string) => names.get(`${shelf}/${id}`) ?? '';
  const rows = kept.map(({ shelf, gear }) => {
    const cells: Record<string, string> = { shelf, name: escapeFormula(gear.name), retired: gear.retired ? 'yes' : '' };
    for (const fact of factsOf(shelf)) cells[headingOf(fact)] = escapeFormula(cellOf(fact, gear, nameOf));
    return HEADINGS.map((heading) => cells[heading] ?? '');
  });
  return Papa.unparse({ fields: HEADINGS, data: rows }, { newline: '\r\n' });
}

function cellOf(fact: Fact, gear: Gear, nameOf: (shelf: Shelf, id: string) => string): string {
  const value = factValue(gear, fact);
  if (value === undefined) return '';
  // Other gear goes by its name: an id means nothing on another shelf.
  if (fact.of) return nameOf(fact.of, String(value));
  return fact.type === 'yes' ? (value === true ? 'yes' : 'no') : String(value);
}

/** A piece of gear from a file; it has no id yet, and names other gear it goes with. */
export type NewGear = {
  [On in Shelf]: { shelf: On; gear: Omit<Extract<Kept, { shelf: On }>['gear'], 'id'> & { name: string }; links: Link[] };
}[Shelf];

/** Other gear that a piece names: by which fact, on which shelf. */
interface Link {
  key: string;
  of: Shelf;
  name: string;
}

export interface ReadGear {
  gear: NewGear[];
  /** A sentence for each row that could not be taken. The others stand. */
  refused: string[];
  /** Headings that were not understood. */
  ignored: string[];
}

/**
 * Reads gear from a CSV that this program wrote or that is headed like one. A bad row is refused by itself, with its place.
 *
 * @throws {ImportError} when the file as a whole is no such CSV
 */
export function readGearCsv(text: string, file: string): ReadGear {
  const name = short(file);
  if (text.includes('\0')) throw new ImportError(`${name} is not a text file. Export the gear as CSV, and choose that file.`);
  const { data, errors } = Papa.parse<string[]>(text, { skipEmptyLines: 'greedy' });
  const open = errors.find(({ code }) => code === 'MissingQuotes');
  if (open)
    throw new ImportError(`Row ${(open.row ?? 0) + 1} of ${name} opens a quotation mark that is never closed. Close it, or take it away.`);
  const [heading = [], ...rows] = data;
  const columns = heading.map((each) => {
    const plain = each
      .replace(/^\uFEFF/, '')
      .trim()
      .toLowerCase();
    return FORMER[plain] ?? plain;
  });
  for (const needed of ['shelf', 'name']) {
    if (columns.includes(needed)) continue;
    throw new ImportError(`Row 1 of ${name} heads no column “${needed}”. Export the gear as CSV here to see how it is headed.`);
  }
  if (rows.length === 0) throw new ImportError(`${name} has a heading but no rows. Add a row for each piece of gear.`);
  const read: ReadGear = { gear: [], refused: [], ignored: heading.filter((_, index) => !HEADINGS.includes(columns[index] ?? '')) };
  const seen = new Set<string>();
  rows.forEach((cells, index) => {
    const where = `Row ${index + 2} of ${name}`;
    try {
      const piece = readRow(columns, cells);
      const key = `${piece.shelf}/${piece.gear.name}`;
      if (seen.has(key)) throw new Error(`a ${piece.shelf} called ${piece.gear.name} stands in an earlier row. Give it another name.`);
      seen.add(key);
      read.gear.push(piece);
    } catch (error) {
      read.refused.push(`${where}: ${error instanceof Error ? error.message : String(error)}`);
    }
  });
  return read;
}

function readRow(columns: string[], cells: string[]): NewGear {
  if (cells.length !== columns.length)
    throw new Error(`it has ${cells.length} columns where the heading has ${columns.length}. Mend the row.`);
  const cell = (heading: string) => unescapeFormula((cells[columns.indexOf(heading)] ?? '').trim());
  const shelf = SHELVES.find((each) => each === cell('shelf').toLowerCase());
  if (!shelf) throw new Error(`${quoted(cell('shelf'))} is no shelf. Write device, charger, cable or meter in column “shelf”.`);
  const given: Record<string, unknown> = { id: 'new', name: cell('name') };
  if (YES.test(cell('retired'))) given.retired = true;
  const links: Link[] = [];
  for (const fact of factsOf(shelf)) {
    const heading = headingOf(fact);
    const typed = columns.includes(heading) ? cell(heading) : '';
    if (typed && fact.of) links.push({ key: fact.key, of: fact.of, name: typed });
    else if (typed) given[fact.key] = valueOf(fact, typed, heading);
  }
  try {
    const gear = SCHEMAS[shelf].validateSync(given);
    return { shelf, gear: withoutId(gear), links } as NewGear;
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error;
    const fact = factsOf(shelf).find(({ key }) => error.path?.startsWith(key));
    throw new Error(`column “${fact ? headingOf(fact) : (error.path ?? 'name')}”: ${error.message}`, { cause: error });
  }
}

/**
 * Gear from a file as it is put on the shelf: with its id, and with the ids of the gear it names. A name that is nowhere is left out.
 *
 * @param idOf the id that gear of a name has on a shelf, or will have
 */
export const shelved = (all: readonly NewGear[], idOf: (shelf: Shelf, name: string) => string | undefined): Kept[] =>
  all.map(({ shelf, gear, links }) => {
    const linked = links.flatMap(({ key, of, name }) => (idOf(of, name) === undefined ? [] : [[key, idOf(of, name)] as const]));
    return { shelf, gear: { ...gear, ...Object.fromEntries(linked), id: idOf(shelf, gear.name) } } as Kept;
  });

/** Gear from a file gets its id where it is put on the shelf. */
function withoutId(gear: Gear): object {
  return Object.fromEntries(Object.entries(gear).filter(([key]) => key !== 'id'));
}

function valueOf({ type }: Fact, typed: string, heading: string): unknown {
  switch (type) {
    case 'ports':
      return typed.split('|').map(readPort);
    case 'choices':
    case 'names':
      return typed.split('+').map((each) => each.trim());
    case 'yes':
      if (!YES.test(typed) && !NO.test(typed)) throw new Error(`column ${quoted(heading)}: ${quoted(typed)} is neither yes nor no.`);
      return YES.test(typed);
    case 'figure':
      return typed.replace(',', '.');
    case 'choice':
    case 'text':
    case 'lines':
    case 'gear':
      return typed;
  }
}
