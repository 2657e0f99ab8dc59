import { escapeHtml, tableHtml } from '../quantity/plainTable';
import { isHeaded, type PageBlock, type PagePart, type PiecePage } from './page';
import type { PieceTable } from './writeUp';

/** A face of type that goes into the page: its family and weight, and a data address of it. */
export interface PageFont {
  family: string;
  weight: string;
  address: string;
  /** The letters that it is looked up for, as CSS has them; all where none are said. */
  range?: string | undefined;
}

/** Colours of the page: warm paper and dark ink, and the other way round; as the program has them. */
const STYLE = `
:root{color-scheme:light dark;--paper:#fdfaf0;--ink:#1b2330;--soft:#565048;--line:#d8ccb2;--mark:#b8400f}
@media (prefers-color-scheme:dark){:root{--paper:#14181d;--ink:#e9e3d5;--soft:#aaa294;--line:#3a4048;--mark:#ff9a66}}
*{box-sizing:border-box}
body{margin:0 auto;max-width:46rem;padding:2rem 1.25rem 4rem;background:var(--paper);color:var(--ink);font:1.05rem/1.55 "Atkinson Hyperlegible Next Variable",system-ui,sans-serif;overflow-wrap:anywhere}
h1{font-size:1.9rem;line-height:1.2;margin:0 0 .3rem}
h2{font-size:1.25rem;margin:2.2rem 0 .4rem;break-after:avoid}
p,ul{margin:0 0 .8rem}ul{padding-inline-start:1.2rem}
.about,.soft,figcaption,.note{color:var(--soft);font-size:.92rem}
.short{border-inline-start:3px solid var(--ink);padding-inline-start:1rem;font-size:1.12rem}
.margin{color:var(--soft);font-size:.88em;white-space:nowrap}
.figure{white-space:nowrap}
.across{overflow-x:auto}
table{border-collapse:collapse;width:100%;font-size:.95rem}
th,td{text-align:end;padding:.35rem .5rem;border-bottom:1px solid var(--line);vertical-align:baseline}
th:first-child,td:first-child{text-align:start;padding-inline-start:0}
thead th{color:var(--soft);font-weight:400}
td{font-family:"Atkinson Hyperlegible Mono Variable",ui-monospace,monospace}
td small{display:block;color:var(--soft);font-size:.82em}
figure{margin:0 0 1rem}svg{display:block;width:100%;height:auto}
.dark{display:none}@media (prefers-color-scheme:dark){.dark{display:block}.light{display:none}}
details{font-size:.92rem}summary{cursor:pointer}
td.words{font-family:inherit;text-align:start}caption{position:absolute;width:1px;height:1px;overflow:hidden;clip-path:inset(50%)}th,td{overflow-wrap:normal}.dated{margin-top:3rem;border-top:1px solid var(--line);padding-top:.6rem}
@page{margin:16mm 15mm 18mm;@bottom-right{content:counter(page) " of " counter(pages);font:8pt sans-serif}}
@media print{:root{--paper:#fff;--ink:#1b2330;--soft:#565048;--line:#d8ccb2}body{max-width:none;padding:0;font-size:10.5pt}.dark{display:none}.light{display:block}figure,tr{break-inside:avoid}.across{overflow:visible}details{display:none}}
`;

/** A part of running text: a figure is kept together, its margin behind it. */
function partHtml({ text, bold, italic, margin, of }: PagePart): string {
  const plain = escapeHtml(text);
  const told = of ? `<span class="figure" title="${escapeHtml(of)}">${plain}</span>` : plain;
  const styled = `${bold ? '<strong>' : ''}${italic ? '<em>' : ''}${told}${italic ? '</em>' : ''}${bold ? '</strong>' : ''}`;
  return margin ? `${styled} <span class="margin">(${escapeHtml(margin)})</span>` : styled;
}

/** Running text: items that follow each other are one list. */
function wordsHtml(words: PageBlock['words']): string {
  let html = '';
  for (const [index, { as, parts }] of words.entries()) {
    const text = parts.map(partHtml).join('');
    if (as === 'text') html += `<p>${text}</p>`;
    else html += `${words[index - 1]?.as === 'item' ? '' : '<ul>'}<li>${text}</li>${words[index + 1]?.as === 'item' ? '' : '</ul>'}`;
  }
  return html;
}

function pieceTableHtml({ columns, rows }: PieceTable, caption: string): string {
  const head = columns.map(({ title }) => `<th scope="col">${escapeHtml(title)}</th>`).join('');
  const body = rows.map(
    ({ name, cells }) =>
      `<tr><th scope="row">${escapeHtml(name)}</th>${cells
        .map(
          ({ value, margin }, at) =>
            `<td${columns[at]?.isText ? ' class="words"' : ''}>${escapeHtml(value)}${margin ? ` <small>${escapeHtml(margin)}</small>` : ''}</td>`,
        )
        .join('')}</tr>`,
  );
  return `<div class="across" role="region" aria-label="${escapeHtml(caption)}" tabindex="0"><table><caption>${escapeHtml(caption)}</caption><thead><tr><th scope="col">Setup</th>${head}</tr></thead><tbody>${body.join('')}</tbody></table></div>`;
}

/** Two drawings in one page: what they clip by is named once in each. */
const apart = (svg: string, name: string): string => svg.replace(/\b(id="|url\(#)(within-)/g, `$1${name}-$2`);

function blockHtml(block: PageBlock): string {
  const { id, title, caption, words, table, picture } = block;
  const heading = isHeaded(block) ? `<h2>${escapeHtml(title)}</h2>` : '';
  const note = caption ? `<p class="note">${escapeHtml(caption)}</p>` : '';
  if (table) return `<section>${heading}${pieceTableHtml(table, title)}${note}</section>`;
  if (picture) {
    const { light, dark, twin } = picture;
    const figures = `<details><summary>The same as a table</summary><div class="across" role="region" aria-label="${escapeHtml(twin.caption)}" tabindex="0">${tableHtml(twin)}</div></details>`;
    return `<section>${heading}<figure><div class="light">${apart(light, `${id}-l`)}</div>${dark === '' ? '' : `<div class="dark">${apart(dark, `${id}-d`)}</div>`}${caption ? `<figcaption>${escapeHtml(caption)}</figcaption>` : ''}</figure>${figures}</section>`;
  }
  return `<section${isHeaded(block) ? '' : ` class="short" aria-label="${escapeHtml(title)}"`}>${heading}${wordsHtml(words)}</section>`;
}

/** All of a piece within a page: its title, its blocks, and of when it is. */
export const pieceHtml = (
  page: PiecePage,
): string => `<div class="title"><h1>${escapeHtml(page.title)}</h1><p class="about">${escapeHtml(page.about)}</p></div>
${page.blocks.map(blockHtml).join('\n')}
<p class="soft dated">${escapeHtml(page.dated)}</p>`;

/**
 * A piece as a web page in one file: it asks for nothing from outside, has its type in it, goes by the reader's light or dark, and prints.
 *
 * @param language of its words, as BCP 47 has it
 */
export function pageHtml(page: PiecePage, fonts: readonly PageFont[] = [], language = 'en'): string {
  const faces = fonts.map(
    ({ family, weight, address, range }) =>
      `@font-face{font-family:"${family}";font-weight:${weight};font-display:swap;src:url(${address}) format("woff2")${range ? `;unicode-range:${range}` : ''}}`,
  );
  return `<!doctype html>
<html lang="${escapeHtml(language)}">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<meta http-equiv="Content-Security-Policy" content="default-src 'none'; style-src 'unsafe-inline'; font-src data:; img-src data:">
<title>${escapeHtml(page.title)}</title>
<style>${faces.join('')}${STYLE}</style>
</head>
<body>
<main>
${pieceHtml(page)}
</main>
</body>
</html>
`;
}
