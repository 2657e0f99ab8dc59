import type { PlainTable } from '../quantity/plainTable';
import type { ComposedBlock } from './compose';
import type { KnownFigure } from './figures';
import type { Paragraph, WordPart } from './paragraph';
import type { PieceTable } from './writeUp';

/** A part of running text as readers get it; a figure has its margin with it. */
export interface PagePart extends Pick<WordPart, 'text' | 'bold' | 'italic'> {
  margin?: string | undefined;
  /** What it is, where it is a figure: `time to 80 % of Quern 30`. */
  of?: string | undefined;
}

/** A picture, for light and for dark pages, and the same as a table. */
export interface PagePicture {
  light: string;
  dark: string;
  /** The same by itself, its words as outlines; and as PNG, a data address (RFC 2397). */
  alone?: string | undefined;
  png?: string | undefined;
  says: string;
  twin: PlainTable;
}

/** A block as readers get it. */
export interface PageBlock {
  id: string;
  title: string;
  caption: string;
  words: { as: Paragraph['as']; parts: PagePart[] }[];
  table?: PieceTable | undefined;
  picture?: PagePicture | undefined;
}

/** A piece as readers get it, whatever it leaves as. */
export interface PiecePage {
  title: string;
  about: string;
  /** When it was published, or that it is a draft of today, in words. */
  dated: string;
  blocks: PageBlock[];
}

/** Headings that are not said over what stands first: it is the answer. */
const UNHEADED = 'short';
export const isHeaded = ({ id }: Pick<PageBlock, 'id'>): boolean => id !== UNHEADED;

/** Parts with their margins: of a figure that is told as it is worked out now; one that a person kept stands as it was written. */
const pageParts = (parts: readonly WordPart[], known: ReadonlyMap<string, KnownFigure>): PagePart[] =>
  parts.map(({ text, bold, italic, ref }) => {
    const figure = ref === undefined ? undefined : known.get(ref);
    const isNow = figure?.text === text;
    return { text, bold, italic, ...(isNow && { of: figure.of, ...(figure.margin !== '' && { margin: figure.margin }) }) };
  });

/**
 * A piece as readers get it: what is hidden or has nothing in it is left out.
 *
 * @param pictureOf draws the picture of a block
 */
export function pageOf(
  about: Pick<PiecePage, 'title' | 'about' | 'dated'>,
  blocks: readonly ComposedBlock[],
  known: ReadonlyMap<string, KnownFigure>,
  pictureOf: (block: ComposedBlock) => PagePicture | undefined,
): PiecePage {
  return {
    ...about,
    blocks: blocks
      .filter((block) => !block.isHidden && block.isEmpty === undefined)
      .map((block): PageBlock => {
        const { id, title, caption, kind, words, table } = block;
        return {
          ...{ id, title, caption: caption || (kind === 'table' ? (table?.note ?? '') : '') },
          words: kind === 'words' ? words.map(({ as, parts }) => ({ as, parts: pageParts(parts, known) })) : [],
          ...(kind === 'table' && { table }),
          ...(kind === 'picture' && { picture: pictureOf(block) }),
        };
      }),
  };
}

/** Whatever of a page is written in letters that its type does not have: they are drawn in another one, wherever that is found. */
export function lettersLacking(page: PiecePage): string[] {
  const found = new Set<string>();
  const look = (text: string) => {
    for (const letter of text) if (!HAS.test(letter)) found.add(letter);
  };
  look(page.title + page.about);
  for (const { title, caption, words, table, picture } of page.blocks) {
    look(title + caption + (picture?.says ?? ''));
    for (const { parts } of words) for (const { text, margin = '' } of parts) look(text + margin);
    for (const { name, cells } of table?.rows ?? []) look(name + cells.map(({ value, margin }) => value + margin).join(''));
  }
  return [...found];
}

/** Letters of our type, and of what every system prints: Latin, Greek, Cyrillic, signs of money, arrows, mathematics and power. */
const HAS =
  /[\s\p{Script=Latin}\p{Script=Greek}\p{Script=Cyrillic}\p{Nd}\u0020-\u007e\u00a0-\u00ff\u2000-\u206f\u2070-\u20cf\u2100-\u23ff]/u;
