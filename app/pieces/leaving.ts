import { pageOf, type PagePicture, type PiecePage } from '@core/report';
import { addressOf } from '../kit/dataAddress';
import { pageWidth } from '../strip/layers/canvasSurface';
import { fetchOutlines, type Outline } from '../strip/layers/outlines';
import { picturePng, pictureSvg, type PictureJob } from '../strip/picture';
import { onPage, WIDE, type DrawnBlock } from './pictures';
import type { PieceWriting } from './writing';

/** A picture that leaves by itself: its title and its date are on it, its words are outlines. */
async function alone(drawn: DrawnBlock, title: string, dated: string, outline: Outline): Promise<Pick<PagePicture, 'alone' | 'png'>> {
  const job: PictureJob = {
    shape: { id: 'page', says: '', width: WIDE, height: drawn.height + 90, dense: 2 },
    text: { title, lines: [], foot: dated },
    ground: 'paper',
    body: drawn.body,
  };
  return { alone: pictureSvg(job, pageWidth(), outline), png: await addressOf(await picturePng(job)) };
}

/** A piece as readers get it, its pictures drawn. */
export async function drawnPage({ about, blocks, written, drawn }: PieceWriting): Promise<PiecePage> {
  const outline = await fetchOutlines();
  const pictures = new Map<string, PagePicture>();
  for (const { id, title } of blocks.value) {
    const its = drawn.value.get(id);
    if (!its) continue;
    pictures.set(id, {
      ...onPage(its),
      ...(await alone(its, title, about.value.dated, outline)),
    });
  }
  return pageOf(about.value, blocks.value, written.value.known, ({ id }) => pictures.get(id));
}
