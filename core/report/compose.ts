import { blockOf, BLOCKS, type BlockId, type BlockKind } from './blocks';
import { hasChanged } from './figures';
import { linesOf, type Paragraph } from './paragraph';
import type { Piece, PieceBlock } from './pieceSchema';
import type { PieceTable, WrittenUp } from './writeUp';

/** A block as it stands in the piece now. */
export interface ComposedBlock {
  id: BlockId;
  kind: BlockKind;
  title: string;
  caption: string;
  isHidden: boolean;
  /** Running text: a person's own, or what is worked out. */
  words: readonly Paragraph[];
  /** Whether a person wrote it. */
  isOwn: boolean;
  /** What is worked out has changed since: a figure in it, or what it says. */
  isStale: boolean;
  table?: PieceTable | undefined;
  /** Which setups a table or picture shows, in order. */
  setups: readonly string[];
  /** Why nothing stands in it, in a sentence; it is in no page then. */
  isEmpty?: string | undefined;
}

/** A piece of runs before anybody changed it: every block, and none of its words. Corrections come once it is published. */
export const usualBlocks = (): PieceBlock[] => BLOCKS.map(({ id }) => ({ id }));

/** Why a block has nothing to say. */
const NOTHING: Readonly<Record<BlockId, string>> = {
  short: 'Nothing can be said of these runs yet.',
  times: 'No times and no gains were read.',
  bars: 'There are no two setups to draw beside each other.',
  curves: 'No levels were read.',
  power: 'No power and no temperatures were read.',
  watts: 'No power and no temperatures were read.',
  cost: 'No charger has a price on the bench.',
  tried: 'No chargers were tried in it one after another.',
  done: 'None of its runs are here.',
  gear: 'None of its runs are here.',
  limits: 'Nothing is left open.',
  cautions: '',
  repeat: 'None of its runs are here.',
  lent: 'Nobody wrote down yet who lent or paid for what.',
  corrections: 'Nothing was corrected.',
};

/** Those that are wanted and there, in the order they are wanted in; all where none are said. */
const chosen = <Each>(all: readonly Each[], idOf: (each: Each) => string, wanted: readonly string[] | undefined): Each[] =>
  wanted ? wanted.flatMap((id) => all.filter((each) => idOf(each) === id)) : [...all];

/** A table with the figures and setups that are chosen of it. */
function chosenOf(
  table: PieceTable,
  columns: readonly string[] | undefined,
  setups: readonly string[],
  all: readonly string[],
): PieceTable {
  const shown = chosen(table.columns, ({ id }) => id, columns);
  const places = shown.map((column) => table.columns.indexOf(column));
  return {
    ...table,
    columns: shown,
    // What is no row of a setup stands as it is.
    rows: [...chosen(table.rows, ({ setup }) => setup, setups), ...table.rows.filter(({ setup }) => !all.includes(setup))].map((row) => ({
      ...row,
      cells: places.flatMap((place) => row.cells[place] ?? []),
    })),
  };
}

/** What was worked out of a block, as text: once that says something else, words that were written in its place may be stale. */
export const madeOf = (words: readonly Paragraph[] = []): string => linesOf(words).join('\n');

function composed(block: PieceBlock, written: WrittenUp): ComposedBlock {
  const { id, title, kind } = blockOf(block.id);
  const worked = written.words[id] ?? [];
  const words = block.words ?? worked;
  const all = written.setups.map((each) => each.id);
  const setups = chosen(all, (each) => each, block.setups);
  const { [id]: table } = written.tables;
  const hasData =
    kind === 'words'
      ? words.length > 0
      : kind === 'table'
        ? table !== undefined && (setups.length > 0 || id === 'tried')
        : hasPicture(id, written);
  return {
    id,
    kind,
    title: block.title ?? title,
    caption: block.caption ?? '',
    isHidden: block.hidden ?? false,
    words,
    isOwn: block.words !== undefined,
    isStale: block.words !== undefined && (hasChanged(block.words, written.known) || (block.made ?? '') !== madeOf(worked)),
    ...(table && { table: chosenOf(table, block.columns ?? written.usual[id], setups, all) }),
    setups,
    ...(!hasData && { isEmpty: NOTHING[id] }),
  };
}

function hasPicture(id: BlockId, { columns, setups }: WrittenUp): boolean {
  const hasAny = (some: readonly string[]) => columns.some(({ measure }) => some.includes(measure.group));
  if (id === 'bars') return setups.length > 1 && columns.some(({ measure }) => measure.better !== undefined);
  return id === 'watts' ? hasAny(['Power and energy', 'Heat']) : columns.some(({ measure }) => /^(level|gain)-/.test(measure.id));
}

/** The blocks of a piece as they stand now, in its order. A block of a later program than the piece stands at the end. */
export function compose(piece: Pick<Piece, 'blocks'>, written: WrittenUp): ComposedBlock[] {
  const known = new Set(piece.blocks.map(({ id }) => id));
  const added = usualBlocks().filter(({ id }) => !known.has(id));
  return [...piece.blocks, ...added].map((block) => composed(block, written));
}
