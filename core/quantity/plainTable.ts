import { inManner } from './manner';

/** A table as it is handed on: what it is of, its heads, and rows of texts and numbers. */
export interface PlainTable {
  caption: string;
  heads: readonly string[];
  rows: readonly (readonly (string | number | undefined)[])[];
}

/**
 * A text that a spreadsheet would run as a formula, after blanks and tabs too, is given an apostrophe, which `unescapeFormula` takes off again.
 */
export const escapeFormula = (text: string): string => (/^'*\s*[=+\-@]/.test(text) ? `'${text}` : text);

export const unescapeFormula = (text: string): string => text.replace(/^'(?='*\s*[=+\-@])/, '');

/** A cell as a spreadsheet of this person takes it: a number with their decimal sign, a text that is no formula. */
const cellText = (cell: string | number | undefined): string =>
  typeof cell === 'number' ? inManner(String(cell)) : escapeFormula(cell ?? '');

/** A table as tab-separated text, without its caption: what a spreadsheet takes off the clipboard. */
export function tableTsv({ heads, rows }: PlainTable): string {
  const line = (cells: readonly (string | number | undefined)[]) =>
    cells.map((cell) => cellText(cell).replace(/\s+/g, ' ').trim()).join('\t');
  return [heads, ...rows].map(line).join('\n');
}

const MARKS: Readonly<Record<string, string>> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' };
/** A text as it stands in HTML. */
export const escapeHtml = (text: string): string => text.replace(/[&<>"]/g, (mark) => MARKS[mark] ?? mark);

/** A table as HTML, for an editor: the first cell of a row heads it, numbers stand at the right. */
export function tableHtml({ caption, heads, rows }: PlainTable): string {
  const cell = (tag: string, text: string, about = '') => `<${tag}${about}>${escapeHtml(text)}</${tag}>`;
  const head = heads.map((each) => cell('th', each, ' scope="col"')).join('');
  const body = rows.map(([first, ...others]) => {
    const rest = others.map((each) => cell('td', cellText(each), typeof each === 'number' ? ' align="right"' : ''));
    return `<tr>${cell('th', cellText(first), ' scope="row"')}${rest.join('')}</tr>`;
  });
  return `<table><caption>${escapeHtml(caption)}</caption><thead><tr>${head}</tr></thead><tbody>${body.join('')}</tbody></table>`;
}
