import type { PlainTable } from '../quantity/plainTable';
import { isHeaded, type PageBlock, type PagePart, type PiecePage } from './page';

/** A text whose signs stay signs: none is markup, HTML or an address that becomes a link (CommonMark 0.31, 2.4; GitHub Flavored Markdown, 6.9). */
const plainText = (text: string): string => text.replace(/[\\`*_[\]<>&|~@#]|:(?=\/\/)|(?<=\bwww)\./gi, '\\$&');
/** What would begin a list, a quotation or a rule where a line begins with it. */
const lineStart = (text: string): string => text.replace(/^(\s*)(\d*)([-+=.)])/, '$1$2\\$3');
const cellText = (text: string): string => plainText(text).replace(/\s+/g, ' ').trim();

function partMarkdown({ text, bold, italic, margin }: PagePart): string {
  const [, before = '', inner = '', after = ''] = /^(\s*)(.*?)(\s*)$/s.exec(text.replace(/\s*\n\s*/g, ' ')) ?? [];
  const [open, close] = bold && italic ? ['***', '***'] : bold ? ['**', '**'] : italic ? ['*', '*'] : ['', ''];
  const styled = inner === '' ? before + after : `${before}${open}${plainText(inner)}${close}${after}`;
  return margin ? `${styled} (${plainText(margin)})` : styled;
}

const row = (cells: readonly string[]): string => `| ${cells.join(' | ')} |`;

function tableMarkdown(heads: readonly string[], rows: readonly (readonly string[])[]): string {
  return [
    row(heads.map(cellText)),
    row(heads.map((_, column) => (column === 0 ? ':---' : '---:'))),
    ...rows.map((cells) => row(cells.map(cellText))),
  ].join('\n');
}

const twinMarkdown = ({ heads, rows }: PlainTable): string =>
  tableMarkdown(
    heads,
    rows.map((cells) => heads.map((_, column) => String(cells[column] ?? ''))),
  );

/** Where the picture of a block lies beside the text. */
export const pictureName = ({ id }: Pick<PageBlock, 'id'>): string => `pictures/${id}.svg`;

function blockMarkdown(block: PageBlock): string {
  const { title, caption, words, table, picture } = block;
  const parts: string[] = isHeaded(block) ? [`## ${plainText(title)}`] : [];
  let list: string[] = [];
  const endList = () => {
    if (list.length > 0) parts.push(list.join('\n'));
    list = [];
  };
  for (const { as, parts: its } of words) {
    const text = its.map(partMarkdown).join('');
    if (as === 'item') list.push(`- ${lineStart(text)}`);
    else {
      endList();
      parts.push(lineStart(text));
    }
  }
  endList();
  if (table)
    parts.push(
      tableMarkdown(
        ['Setup', ...table.columns.map((column) => column.title)],
        table.rows.map(({ name, cells }) => [name, ...cells.map(({ value, margin }) => [value, margin].filter(Boolean).join(' · '))]),
      ),
    );
  if (picture) parts.push(`![${plainText(picture.says)}](${pictureName(block)})`, twinMarkdown(picture.twin));
  if (caption) parts.push(`*${plainText(caption)}*`);
  return parts.join('\n\n');
}

/** A piece as Markdown (CommonMark, with the tables of GitHub Flavored Markdown), its pictures beside it. */
export const pageMarkdown = (page: PiecePage): string =>
  [`# ${plainText(page.title)}`, plainText(page.about), ...page.blocks.map(blockMarkdown), plainText(page.dated)].join('\n\n') + '\n';
