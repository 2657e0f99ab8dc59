import { readFileSync } from 'node:fs';
import { parse } from 'opentype.js';
import { describe, expect, it } from 'vitest';
import { wordOutline } from './outlines';
import { svgSurface } from './svgSurface';

const fontAt = (path: string) => {
  const { buffer, byteOffset, byteLength } = readFileSync(new URL(`../../../node_modules/@fontsource/${path}`, import.meta.url));
  return parse(buffer.slice(byteOffset, byteOffset + byteLength));
};
const own = fontAt('atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-400-normal.woff');
const signs = fontAt('noto-sans-symbols/files/noto-sans-symbols-symbols-400-normal.woff');
const outline = wordOutline(() => [own, signs]);
const look = { colour: '#000000', size: 20, family: 'words' } as const;
/** The left and the right end of a path, by the places in its data: pairs behind each letter. */
function endsOf(path: string): [number, number] {
  const places = [...path.matchAll(/[MLCQ]([^MLCQZ]+)/g)].flatMap(([, pairs = '']) =>
    [...pairs.matchAll(/-?[\d.]+/g)].flatMap(([found], index) => (index % 2 === 0 ? [Number(found)] : [])),
  );
  return [Math.min(...places), Math.max(...places)];
}

describe('words as outlines', () => {
  it('are the letters of our own type, from where they begin, end or have their middle', () => {
    const long = own.getAdvanceWidth('Cobble 20', 20);
    const [left, right] = endsOf(outline('Cobble 20', 100, 40, look) ?? '');
    // The advance of a word is its letters and the little room about them.
    expect(left).toBeGreaterThan(99);
    expect(right).toBeLessThan(101 + long);
    expect(right - left).toBeGreaterThan(long * 0.9);
    expect(endsOf(outline('Cobble 20', 100, 40, { ...look, align: 'end' }) ?? '')[1]).toBeCloseTo(right - long, 1);
    expect(endsOf(outline('Cobble 20', 100, 40, { ...look, align: 'middle' }) ?? '')[0]).toBeCloseTo(left - long / 2, 1);
  });

  it('are whole numbers of places, of every letter that our type has', () => {
    const letters = Array.from({ length: 0x17f }, (_, code) => String.fromCodePoint(code)).filter((each) => own.charToGlyphIndex(each) > 0);
    expect(letters.length).toBeGreaterThan(180);
    for (const letter of letters) expect(outline(letter, 33.3, 40, look)).toMatch(/^([MLCQ]-?[\d.]+( -?[\d.]+)*|Z)*$/);
  });

  it('take signs from where they are, one after the other', () => {
    const alone = endsOf(outline('→', 0, 0, look) ?? '');
    const after = endsOf(outline('to →', 0, 0, look) ?? '');
    expect(after[1]).toBeCloseTo(alone[1] + own.getAdvanceWidth('to ', 20), 1);
  });

  it('stay text where a letter is in none of our type', () => {
    expect(outline('充電器 20', 0, 0, look)).toBeUndefined();
    const to = svgSurface(() => 10, outline);
    to.words('充電器 20', 10, 20, look);
    to.words('Cobble <20>', 10, 60, { ...look, turned: 1 });
    expect(to.body()).toMatch(/^<text [^>]*>充電器 20<\/text><path d="M[^"]+" fill="#000000" transform="rotate\(-90 10 60\)"\/>$/);
  });
});
