import { tableHtml, tableTsv, type PlainTable } from '@core/quantity';

/** What is copied: a table, a text, or a picture as PNG. */
export type Copied = { table: PlainTable } | { text: string } | { picture: Promise<Blob> };

/** Puts something on the clipboard: a table as tab-separated text and as HTML, whichever is taken where it is pasted. @throws {Error} saying what to do */
export async function copy(what: Copied): Promise<void> {
  try {
    if ('picture' in what) {
      // Handed over as a promise, for a browser wants the press and the write together.
      await navigator.clipboard.write([new ClipboardItem({ 'image/png': what.picture })]);
      return;
    }
    const parts: Record<string, string> =
      'text' in what ? { 'text/plain': what.text } : { 'text/plain': tableTsv(what.table), 'text/html': tableHtml(what.table) };
    if (!byEvent(parts)) await navigator.clipboard.writeText(parts['text/plain'] ?? '');
  } catch (cause) {
    throw new Error('The browser does not allow copying here. Select it, and copy it with Ctrl C.', { cause });
  }
}

/** By the event of copying, which is there without a secure address too. */
function byEvent(parts: Readonly<Record<string, string>>): boolean {
  let isPut = false;
  const put = (event: ClipboardEvent) => {
    for (const [type, text] of Object.entries(parts)) event.clipboardData?.setData(type, text);
    isPut = event.clipboardData !== null;
    event.preventDefault();
    event.stopImmediatePropagation();
  };
  window.addEventListener('copy', put, { capture: true, once: true });
  // The only way that asks for nothing: it is called old, and has no heir.
  // eslint-disable-next-line @typescript-eslint/no-deprecated
  document.execCommand('copy');
  window.removeEventListener('copy', put, { capture: true });
  return isPut;
}

/** A table of the page as it is handed on: text by text, without what only acts. */
export function tableIn(table: HTMLTableElement, caption: string): PlainTable {
  const grid = [...table.rows].map((row) =>
    [...row.cells].flatMap((cell) => [cell, ...Array<undefined>(cell.colSpan - 1).fill(undefined)]),
  );
  const headed = table.tHead ? table.tHead.rows.length : 0;
  const texts = grid.map((row) => row.map((cell) => (cell ? wordsIn(cell) : '')));
  const width = Math.max(0, ...texts.map(({ length }) => length));
  const heads = Array.from({ length: width }, (_, column) =>
    texts
      .slice(0, headed)
      .map((row) => row[column] ?? '')
      .filter(Boolean)
      .join(', '),
  );
  const rows = texts.slice(headed);
  /** A column of buttons alone, or of nothing, tells nothing. */
  const isTold = (column: number) =>
    rows.some((row) => (row[column] ?? '') !== '') ||
    (heads[column] !== '' && !grid.slice(headed).some((row) => row[column]?.querySelector('.v-btn')));
  const kept = heads.flatMap((_, column) => (isTold(column) ? [column] : []));
  return {
    caption,
    heads: kept.map((column) => heads[column] ?? ''),
    rows: rows.map((row) => kept.map((column) => row[column])),
  };
}

/** What a cell says: line after line; what is typed into it too. */
function wordsIn(cell: Element): string {
  return saidBy(cell)
    .split('\n')
    .map((line) => line.replace(/\s+/g, ' ').trim())
    .filter(Boolean)
    .join('; ');
}

function saidBy(node: Node): string {
  if (node instanceof Text) return node.data;
  if (!(node instanceof Element) || node.matches('[aria-hidden="true"], [data-acts], .v-btn, svg, style, script')) return '';
  if (node instanceof HTMLInputElement || node instanceof HTMLSelectElement) return node.value;
  const inner = [...node.childNodes].map(saidBy).join('');
  const { display } = getComputedStyle(node);
  if (display === 'none') return '';
  if (display === 'inline' || display === 'contents') return node.tagName === 'BR' ? '\n' : inner;
  return display.startsWith('inline') ? ` ${inner} ` : `\n${inner}\n`;
}

/** Presses the *Copy* of what is at hand: that which is pointed at or has the focus, else the first that is seen. @returns whether there is one */
export function copyAtHand(): boolean {
  const keys = [...document.querySelectorAll<HTMLElement>('[data-copies]')].filter((key) => key.offsetParent !== null);
  const around = (key: HTMLElement) => key.closest('[data-copied]') ?? key.parentElement;
  const isAtHand = (key: HTMLElement) => Boolean(around(key)?.matches(':hover, :focus-within'));
  const isSeen = (key: HTMLElement) => {
    const { top, bottom } = (around(key) ?? key).getBoundingClientRect();
    return bottom > 0 && top < window.innerHeight;
  };
  const key = keys.findLast(isAtHand) ?? keys.find(isSeen);
  key?.click();
  return key !== undefined;
}
