import latin from '@fontsource-variable/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-wght-normal.woff2?url';
import latinMore from '@fontsource-variable/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-ext-wght-normal.woff2?url';
import mono from '@fontsource-variable/atkinson-hyperlegible-mono/files/atkinson-hyperlegible-mono-latin-wght-normal.woff2?url';
import symbols from '@fontsource/noto-sans-symbols/files/noto-sans-symbols-symbols-400-normal.woff2?url';
import { pageHtml, pageMarkdown, pictureName, scriptText, type PageFont, type PiecePage } from '@core/report';
import { Archive } from '@core/tables';
import { addressOf, bytesIn } from '../../kit/dataAddress';
import type { FileMaker } from '../fileMaker';
import type { ExportSource } from '../source';

/** The type that goes into a page, each file with the letters that it is looked up for. */
const FONTS = [
  {
    family: 'Atkinson Hyperlegible Next Variable',
    weight: '200 800',
    file: latin,
    range: 'U+0000-00FF,U+0131,U+0152-0153,U+2000-206F,U+20AC,U+2122,U+2191,U+2193,U+2212',
  },
  {
    family: 'Atkinson Hyperlegible Next Variable',
    weight: '200 800',
    file: latinMore,
    range: 'U+0100-0130,U+0132-0151,U+0154-02BA,U+1E00-1EFF,U+20A0-20AB,U+20AD-20C0',
  },
  { family: 'Atkinson Hyperlegible Mono Variable', weight: '200 800', file: mono },
  { family: 'Noto Sans Symbols', weight: '400', file: symbols },
];

/** The piece that is exported, as it stands on the page. */
function pageIn({ target }: ExportSource): PiecePage {
  if (!target.piece) throw new Error('There is no piece to export. Open it, and try again.');
  return target.piece;
}

async function fontOf({ family, weight, file, range }: (typeof FONTS)[number]): Promise<PageFont> {
  const answer = await fetch(file).catch(() => undefined);
  if (!answer?.ok) throw new Error('The type of the page cannot be loaded. Load the program anew, and try again.');
  const address = await addressOf(new Blob([await answer.arrayBuffer()], { type: 'font/woff2' }));
  return { family, weight, address, range };
}

export async function writePage(source: ExportSource, file: FileMaker): Promise<void> {
  file.add(pageHtml(pageIn(source), await Promise.all(FONTS.map(fontOf))));
}

export function writeScript(source: ExportSource, file: FileMaker): Promise<void> {
  file.add(scriptText(pageIn(source)));
  return Promise.resolve();
}

/** Pictures of a page into an archive: as SVG, and as PNG where that is wanted. */
function addPictures(archive: Archive, { blocks }: PiecePage, isWithPng: boolean): void {
  for (const block of blocks) {
    if (!block.picture?.alone) continue;
    archive.add(pictureName(block), block.picture.alone);
    if (!isWithPng || !block.picture.png) continue;
    const png = archive.begin(pictureName(block).replace(/svg$/, 'png'), true);
    png.bytes(bytesIn(block.picture.png));
    png.end();
  }
}

const archiveInto = (file: FileMaker): Archive =>
  new Archive((bytes) => {
    file.add(bytes);
  });

/** The text and its pictures beside it, zipped. */
export function writeMarkdown(source: ExportSource, file: FileMaker): Promise<void> {
  const page = pageIn(source);
  const archive = archiveInto(file);
  archive.add('piece.md', pageMarkdown(page));
  addPictures(archive, page, false);
  archive.end();
  return Promise.resolve();
}

/** All pictures of a piece, zipped. */
export function writePictures(source: ExportSource, file: FileMaker): Promise<void> {
  const page = pageIn(source);
  const archive = archiveInto(file);
  addPictures(archive, page, true);
  archive.end();
  return Promise.resolve();
}
