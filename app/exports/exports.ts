import type { FileMaker } from './fileMaker';
import type { ExportSource } from './source';
import type { ExportOf, Target } from './target';

/** One kind of file that things leave in. Writing is the worker’s: what it needs is fetched there, when it is asked for. */
export interface ExportRow {
  id: string;
  name: string;
  /** What is in it, and for whom it is. */
  says: string;
  of: readonly ExportOf[];
  /** Whether it can be made of one of these. */
  fits?: (target: Target) => boolean;
  mediaType: string;
  ending: string;
  /** Bytes that a run, an entry of ink and a value of a meter take about; none where it is small whatever is in it. */
  size?: { run: number; entry: number; value: number };
  write: (source: ExportSource, file: FileMaker) => Promise<void>;
}

const RUNS = ['run', 'runs', 'study', 'comparison', 'logbook'] as const;

/** Every export, in the order in which they are offered. A new one is a row here, and a file in formats/ with its test. */
export const EXPORTS = [
  {
    id: 'logbook',
    name: 'Logbook',
    says: 'all of it, with its gear, studies and pictures: to be imported here again',
    of: [...RUNS, 'shelf'],
    mediaType: 'application/json',
    ending: 'json',
    size: { run: 2500, entry: 180, value: 12 },
    write: async (source, file) => (await import('./formats/logbook')).writeLogbookFile(source, file),
  },
  {
    id: 'workbook',
    name: 'Spreadsheet',
    says: 'results with what they lie between, readings, gear, conditions and methods, a sheet each',
    of: RUNS,
    mediaType: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
    ending: 'xlsx',
    size: { run: 1200, entry: 15, value: 0 },
    write: async (source, file) => (await import('./formats/tables')).writeWorkbook(source, file),
  },
  {
    id: 'csv',
    name: 'CSV',
    says: 'readings, samples, events and notes of one run, in order of time',
    of: ['run'],
    mediaType: 'text/csv;charset=utf-8',
    ending: 'csv',
    size: { run: 300, entry: 60, value: 25 },
    write: async (source, file) => (await import('./formats/texts')).writeRunCsv(source, file),
  },
  {
    id: 'tried',
    name: 'Table of what was tried, as CSV',
    says: 'each charger of a spot check with what was seen of it',
    of: ['run'],
    fits: ({ isSpot }) => isSpot === true,
    mediaType: 'text/csv;charset=utf-8',
    ending: 'csv',
    size: { run: 300, entry: 100, value: 0 },
    write: async (source, file) => (await import('./formats/texts')).writeTriedCsv(source, file),
  },
  {
    id: 'package',
    name: 'Data package',
    says: 'every table with its columns described, for notebooks and archives (Frictionless Data Package, zipped)',
    of: RUNS,
    mediaType: 'application/zip',
    ending: 'zip',
    size: { run: 1500, entry: 12, value: 6 },
    write: async (source, file) => (await import('./formats/tables')).writePackage(source, file),
  },
  {
    id: 'parquet',
    name: 'Parquet',
    says: 'every table for query engines, readings and samples a file for each run, zipped',
    of: RUNS,
    mediaType: 'application/zip',
    ending: 'zip',
    size: { run: 4500, entry: 12, value: 6 },
    write: async (source, file) => (await import('./formats/tables')).writeParquet(source, file),
  },
  {
    id: 'repeat',
    name: 'Study to repeat',
    says: 'question, matrix, method and conditions without its runs: for somebody else to run on gear of their own',
    of: ['study'],
    fits: ({ study }) => study !== undefined,
    mediaType: 'application/json',
    ending: 'json',
    write: async (source, file) => (await import('./formats/logbook')).writeStudyToRepeat(source, file),
  },
  {
    id: 'gear',
    name: 'CSV',
    says: 'a row a piece: to be edited in a spreadsheet and imported again',
    of: ['shelf'],
    mediaType: 'text/csv;charset=utf-8',
    ending: 'csv',
    write: async (source, file) => (await import('./formats/texts')).writeGear(source, file),
  },
  {
    id: 'icalendar',
    name: 'iCalendar',
    says: 'each run as an appointment with an alarm, for any calendar',
    of: ['calendar'],
    mediaType: 'text/calendar;charset=utf-8',
    ending: 'ics',
    write: async (source, file) => (await import('./formats/texts')).writeCalendar(source, file),
  },
  {
    id: 'agenda',
    name: 'CSV',
    says: 'each run with when to get ready, to plug in and to read',
    of: ['calendar'],
    mediaType: 'text/csv;charset=utf-8',
    ending: 'csv',
    write: async (source, file) => (await import('./formats/texts')).writeAgendaCsv(source, file),
  },
  {
    id: 'page',
    name: 'Web page',
    says: 'in one file that asks for nothing from outside: for a site or a mail. For a PDF, print the piece (More, Print)',
    of: ['piece'],
    mediaType: 'text/html;charset=utf-8',
    ending: 'html',
    write: async (source, file) => (await import('./formats/piece')).writePage(source, file),
  },
  {
    id: 'markdown',
    name: 'Markdown',
    says: 'the text and its tables, with its pictures beside it, zipped',
    of: ['piece'],
    mediaType: 'application/zip',
    ending: 'zip',
    write: async (source, file) => (await import('./formats/piece')).writeMarkdown(source, file),
  },
  {
    id: 'script',
    name: 'Script',
    says: 'for speaking: figures rounded for the ear, with time marks',
    of: ['piece'],
    mediaType: 'text/plain;charset=utf-8',
    ending: 'txt',
    write: async (source, file) => (await import('./formats/piece')).writeScript(source, file),
  },
  {
    id: 'pictures',
    name: 'Pictures',
    says: 'all of them, as SVG and PNG, zipped',
    of: ['piece'],
    mediaType: 'application/zip',
    ending: 'zip',
    write: async (source, file) => (await import('./formats/piece')).writePictures(source, file),
  },
] as const satisfies readonly ExportRow[];
export type ExportId = (typeof EXPORTS)[number]['id'];

/** The exports that can be made of something. */
export const exportsOf = (target: Target): ExportRow[] =>
  (EXPORTS as readonly ExportRow[]).filter(({ of, fits }) => of.includes(target.of) && (!fits || fits(target)));
