import { parse, type Font, type PathCommand } from 'opentype.js';
import mono from '@fontsource/atkinson-hyperlegible-mono/files/atkinson-hyperlegible-mono-latin-400-normal.woff?url';
import monoBold from '@fontsource/atkinson-hyperlegible-mono/files/atkinson-hyperlegible-mono-latin-700-normal.woff?url';
import monoMore from '@fontsource/atkinson-hyperlegible-mono/files/atkinson-hyperlegible-mono-latin-ext-400-normal.woff?url';
import next from '@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-400-normal.woff?url';
import nextBold from '@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-700-normal.woff?url';
import nextMore from '@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-ext-400-normal.woff?url';
import symbols from '@fontsource/noto-sans-symbols/files/noto-sans-symbols-symbols-400-normal.woff?url';
import type { WordLook } from './surface';

/** Words as the outline of their letters: the data of an SVG path. `undefined` where our type lacks a letter, and they stay text. */
export type Outline = (text: string, x: number, y: number, look: WordLook) => string | undefined;

/** Where each letter is looked for, the first that has it: our own type, its further letters, signs. */
const FILES: Readonly<Record<WordLook['family'], readonly string[]>> = {
  words: [next, nextMore, symbols],
  figures: [mono, monoMore, symbols],
};
const BOLD: Readonly<Record<string, string>> = { [next]: nextBold, [mono]: monoBold };

/** Fetches our own type. @throws {Error} saying what to do, where it is not there */
export async function fetchOutlines(): Promise<Outline> {
  const files = [...new Set([...Object.values(FILES).flat(), ...Object.values(BOLD)])];
  const found = new Map(await Promise.all(files.map(async (file) => [file, await fontAt(file)] as const)));
  return wordOutline(({ family, weight }) => FILES[family].flatMap((file) => found.get(weight ? (BOLD[file] ?? file) : file) ?? []));
}

async function fontAt(file: string): Promise<Font> {
  const answer = await fetch(file).catch(() => undefined);
  if (!answer?.ok) throw new Error('The type for outlines cannot be loaded. Choose text, or load the page anew.');
  return parse(await answer.arrayBuffer());
}

/** @param fontsOf where each letter of words is looked for, in order */
export const wordOutline =
  (fontsOf: (look: WordLook) => readonly Font[]): Outline =>
  (text, x, y, look) => {
    const fonts = fontsOf(look);
    const pieces: { font: Font; text: string }[] = [];
    for (const letter of text) {
      const last = pieces.at(-1);
      const font = fonts.find((each) => each.charToGlyphIndex(letter) > 0);
      if (!font) return undefined;
      if (last?.font === font) last.text += letter;
      else pieces.push({ font, text: letter });
    }
    const widths = pieces.map((piece) => piece.font.getAdvanceWidth(piece.text, look.size));
    const long = widths.reduce((sum, each) => sum + each, 0);
    let at = x - (look.align === 'end' ? long : look.align === 'middle' ? long / 2 : 0);
    return pieces
      .map((piece, index) => {
        const path = dataOf(piece.font.getPath(piece.text, at, y, look.size).commands);
        at += widths[index] ?? 0;
        return path;
      })
      .join('');
  };

/** The data of a path. The package's own rounds some places to no number at all. */
const dataOf = (commands: readonly PathCommand[]): string =>
  commands
    .map((each) => {
      const places = [
        ...('x1' in each ? [each.x1, each.y1] : []),
        ...('x2' in each ? [each.x2, each.y2] : []),
        ...('x' in each ? [each.x, each.y] : []),
      ];
      return `${each.type}${places.map((place) => String(Math.round(place * 100) / 100)).join(' ')}`;
    })
    .join('');
