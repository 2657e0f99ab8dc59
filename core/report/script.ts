import { readDecimal } from '../quantity/decimal';
import { trimmed } from '../quantity/figures';
import { lowerFirst } from '../quantity/letters';
import type { PageBlock, PagePart, PiecePage } from './page';
import { isHeaded } from './page';

/** Words a minute of somebody who reads aloud (common practice, no source). */
export const READ_ALOUD = 150;

const plural = (count: number, one: string): string => `${trimmed(count)} ${one}${count === 1 ? '' : 's'}`;

/** A time as it is said: `2 hours and 5 minutes`. */
function timeSaid(seconds: number): string {
  if (seconds < 60) return plural(Math.round(seconds), 'second');
  const minutes = Math.round(seconds / 60);
  const [hours, rest] = [Math.floor(minutes / 60), minutes % 60];
  if (minutes === 30) return 'half an hour';
  return [hours > 0 && plural(hours, 'hour'), (rest > 0 || hours === 0) && plural(rest, 'minute')].filter(Boolean).join(' and ');
}

const TIME = /^(?:(\d+) h)?(?: ?(\d+)(?: min)?)?(?: ?(\d+) s)?$/;
/** A time as `spell` writes it, in seconds. */
function readTime(text: string): number | undefined {
  const [all, hours, minutes, seconds] = TIME.exec(text.trim()) ?? [];
  if (!all || !/[hms]/.test(all)) return undefined;
  return Number(hours ?? 0) * 3600 + Number(minutes ?? 0) * 60 + Number(seconds ?? 0);
}

/** An amount and its unit: `12.4 W`. */
function readAmount(text: string): { amount: number; unit: string } | undefined {
  const [, figure = '', unit = ''] = /^([−+]?[\d.,]+)\s*(\D*)$/.exec(text.trim()) ?? [];
  const amount = readDecimal(figure.replace('−', '-'));
  return figure !== '' && Number.isFinite(amount) ? { amount, unit: unit.trim() } : undefined;
}

/** By how much a margin lets a figure be off: of `± 4 min` that, of `52–56 min` the further of its ends. */
function halfOf(margin: string, value: number, read: (text: string) => number | undefined): number | undefined {
  const own = margin.replace(/, .*$/, '');
  if (own.startsWith('±')) return read(own.slice(1));
  const [low = '', high] = own.split(/–| to /);
  if (high === undefined) return undefined;
  const unit = /\s?[^\d\s]+$/.exec(high)?.[0] ?? '';
  const ends = [read(low) ?? read(low + unit), read(high)];
  return ends.every((end) => end !== undefined) ? Math.max(...ends.map((end) => Math.abs(end - value))) : undefined;
}

/** Steps that are easy to hear. */
const STEPS = [1, 5, 10, 15, 20, 30, 50, 60, 100];
/** The widest step that is no wider than a margin. */
const stepFor = (half: number): number => STEPS.findLast((step) => step <= half) ?? 1;
const near = (value: number, step: number): number => Math.round(value / step) * step;

/** Both as they are written, in words. */
const plainly = (text: string, margin: string): string =>
  wordsSaid([text, margin].filter(Boolean).join(margin.startsWith('±') ? ' ' : ', '));

const about = (said: string, off: string): string => `about ${said}, give or take ${off}`;

/**
 * A figure for the ear: rounded as far as its margin lets it, and the margin in words, wide enough for what was rounded too.
 *
 * @example figureSaid({ text: '2 h 04', margin: '± 5 min' }) // 'about 2 hours and 5 minutes, give or take 6 minutes'
 */
export function figureSaid({ text, margin }: { text: string; margin: string }): string {
  const seconds = readTime(text);
  if (seconds !== undefined) {
    const half = halfOf(margin, seconds, readTime);
    if (half === undefined || half < 30 || seconds < 300) return plainly(text, margin);
    const minutes = near(seconds / 60, stepFor(half / 60));
    return about(timeSaid(minutes * 60), timeSaid(Math.ceil(half / 60 + Math.abs(minutes - seconds / 60) - 1e-9) * 60));
  }
  const found = readAmount(text);
  const half = found && halfOf(margin, found.amount, (own) => readAmount(own)?.amount);
  if (!found || half === undefined || half <= 0 || found.amount < 0) return plainly(text, margin);
  // What is smaller than its margin stays as it is: rounded it would be nothing.
  const step = half >= 1 && found.amount >= 20 ? stepFor(half) : 0;
  const amount = step > 0 ? near(found.amount, step) : found.amount;
  const off = step > 0 ? Math.ceil(half + Math.abs(amount - found.amount) - 1e-9) : half;
  return about(wordsSaid(`${trimmed(amount)} ${found.unit}`), wordsSaid(`${trimmed(off)} ${found.unit}`));
}

const SAID: readonly [pattern: RegExp, words: string][] = [
  [/(\d+) h (\d\d)\b/g, '$1 h $2 min'],
  [/\b0(\d) min\b/g, '$1 min'],
  [/\b1 h\b/g, '1 hour'],
  [/(\d) h\b/g, '$1 hours'],
  [/\b1 min\b/g, '1 minute'],
  [/\bmin\b/g, 'minutes'],
  [/(\d) s\b/g, '$1 seconds'],
  [/\b1 points\b/g, '1 point'],
  [/\bmAh\b/g, 'milliamp-hours'],
  [/\bWh\b/g, 'watt-hours'],
  [/(\d) ?W\b/g, '$1 watts'],
  [/(\d) ?V\b/g, '$1 volts'],
  [/(\d) ?A\b/g, '$1 amps'],
  [/ ?±\s*/g, ', give or take '],
  [/(\d) ?%/g, '$1 percent'],
  [/ ?°([CF])\b/g, ' degrees'],
  [/(\d)–(\d)/g, '$1 to $2'],
  [/ · /g, ', '],
  [/ → /g, ' to '],
  [/≤/g, 'at most '],
  [/≥/g, 'at least '],
  [/−(?=\d)/g, 'minus '],
];
/** A text with its units and signs as words. */
export const wordsSaid = (text: string): string => SAID.reduce((said, [pattern, words]) => said.replace(pattern, words), text);

/** A part of a sentence for the ear. */
const partSaid = ({ text, of, margin = '' }: PagePart): string => (of === undefined ? wordsSaid(text) : figureSaid({ text, margin }));

/** So many figures of a row are said: more cannot be followed. */
const MOST_SAID = 3;

/** The paragraphs of a block for the ear: a table as a sentence a row, a picture as what is to be shown. */
function blockSaid({ title, words, table, picture }: PageBlock): string[] {
  if (picture) return [`[Show: ${title}]`];
  if (!table) return words.map(({ parts }) => parts.map(partSaid).join('').trim());
  return table.rows.map(({ name, cells }) => {
    const told = cells
      .flatMap((cell, at) => {
        const column = table.columns[at]?.title ?? '';
        if (cell.value === '—' || cell.value === '') return [];
        return [`${wordsSaid(lowerFirst(column))}, ${figureSaid({ text: cell.value, margin: cell.margin })}`];
      })
      .slice(0, MOST_SAID);
    return `${name}: ${told.length > 0 ? told.join('; ') : 'nothing was read'}.`;
  });
}

/** Blocks that nobody reads aloud: they stand beneath. */
const SILENT: readonly string[] = ['gear', 'repeat'];

/** A piece for speaking: its paragraphs, each with the time at which it comes. */
export interface Script {
  blocks: { id: string; title: string; at: number; paragraphs: string[] }[];
  /** How long it is read aloud, in seconds. */
  seconds: number;
}

const wordsIn = (text: string): number => text.split(/\s+/).filter((word) => /[\p{L}\p{N}]/u.test(word)).length;

export function scriptOf(page: PiecePage): Script {
  let words = wordsIn(page.title);
  const blocks = page.blocks
    .filter(({ id }) => !SILENT.includes(id))
    .map((block) => {
      const paragraphs = blockSaid(block);
      const at = (words / READ_ALOUD) * 60;
      // What is shown is not said.
      words += paragraphs.filter((each) => !each.startsWith('[')).reduce((sum, each) => sum + wordsIn(each), 0);
      return { id: block.id, title: isHeaded(block) ? block.title : '', at, paragraphs };
    });
  return { blocks, seconds: (words / READ_ALOUD) * 60 };
}

/** How long something is, as `m:ss`. */
export const timeMark = (seconds: number): string => {
  const whole = Math.round(seconds);
  return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, '0')}`;
};

/** The script as a text. */
export function scriptText(page: PiecePage): string {
  const { blocks, seconds } = scriptOf(page);
  return (
    [
      `${page.title}\nRead aloud at ${READ_ALOUD} words a minute: ${timeMark(seconds)}.`,
      ...blocks.map(({ title, at, paragraphs }) => [`[${timeMark(at)}]${title ? ` ${title}` : ''}`, ...paragraphs].join('\n\n')),
      page.dated,
    ].join('\n\n\n') + '\n'
  );
}
