import type { Cable } from '../bench/cable';
import type { Charger } from '../bench/charger';
import type { Device } from '../bench/device';
import type { Meter } from '../bench/meter';
import type { Comparison } from '../compare/comparison';
import type { Entry, Header } from '../ink/entry';
import type { OwnMethod } from '../method/ownMethod';
import { SCHEMA } from '../ink/version';
import type { Study } from '../plan/study';
import type { Piece } from '../report/pieceSchema';
import type { Logs, Samples } from '../samples/column';
import type { Remembered, Settings } from './settings';
import { foldRun, streamsLaid, type RunRecord } from '../ink/fold';

/** A run as it is kept: its header, its ink and a meter's samples if it has any. */
export interface StoredRun {
  header: Header;
  entries: Entry[];
  samples?: Samples | undefined;
  /** Columns of logs that were laid into it later, by their ids. */
  logs?: Logs | undefined;
}

/** The record of a stored run. */
export const foldStored = ({ header, entries, samples, logs }: StoredRun): RunRecord => foldRun(header, entries, samples, logs);

/** What was streamed of a stored run, where it lies in it. */
export const streamedOf = ({ header, entries, samples, logs }: StoredRun): Samples => streamsLaid(header, entries, samples, logs);

/** A stored run as it would be without one of its logs, and that log by its own clock. @param log its id; none of the one the run was imported from */
export function separateLog({ header, entries, samples, logs }: StoredRun, log: string | undefined): { rest: StoredRun; own: Samples } {
  if (log === undefined) return { rest: { header, entries, logs }, own: samples ?? {} };
  const rest = entries.filter((entry) => entry.kind !== 'log' || entry.log !== log);
  return { rest: { header, entries: rest, samples, logs }, own: logs?.[log] ?? {} };
}

/** Everything a logbook holds, as one JSON file. */
export interface Logbook {
  format: 'inkpath-logbook';
  schema: typeof SCHEMA;
  /** ISO 8601. */
  exportedAt: string;
  devices: Device[];
  chargers: Charger[];
  cables: Cable[];
  meters: Meter[];
  methods: OwnMethod[];
  studies: Study[];
  /** Comparisons that were saved by name; none in a logbook from before there were any. */
  comparisons: Comparison[];
  /** What was written up of runs; likewise. */
  pieces: Piece[];
  /** How logs of meters were read, by their headings; likewise. */
  remembered: Remembered[];
  runs: StoredRun[];
  /** What was chosen of the program, figures among it; of a logbook from before, nothing. */
  settings?: Settings | undefined;
  /** Pictures taken as evidence, by their ids, each as a data address (RFC 2397). */
  pictures?: Record<string, string> | undefined;
}

/** What a logbook holds beside its runs and pictures. */
export type Rest = Omit<Logbook, 'format' | 'schema' | 'exportedAt' | 'runs' | 'pictures'>;

export const NOTHING_ELSE: Rest = {
  devices: [],
  chargers: [],
  cables: [],
  meters: [],
  methods: [],
  studies: [],
  comparisons: [],
  pieces: [],
  remembered: [],
};

/** What a logbook holds beside its runs and pictures. */
export function restOf(book: Logbook): Rest {
  const { devices, chargers, cables, meters, methods, studies, comparisons, pieces, remembered, settings } = book;
  return { devices, chargers, cables, meters, methods, studies, comparisons, pieces, remembered, ...(settings && { settings }) };
}

const head = (): Pick<Logbook, 'format' | 'schema' | 'exportedAt'> => ({
  format: 'inkpath-logbook',
  schema: SCHEMA,
  exportedAt: new Date().toISOString(),
});

/** Runs and what else there is as a logbook, dated now. */
export const logbookOf = (rest: Partial<Rest>, runs: StoredRun[] = []): Logbook => ({ ...head(), ...NOTHING_ELSE, ...rest, runs });

/** How many numbers of a column are put into words at once. */
const NUMBERS_AT_ONCE = 50_000;

/** A run in JSON, in parts: a meter's columns may be longer than any text. */
function* runParts({ header, entries, samples, logs = {} }: StoredRun): Generator<string> {
  yield `{"header":${JSON.stringify(header)},"entries":${JSON.stringify(entries)}`;
  if (samples && Object.keys(samples).length > 0) {
    yield ',"samples":';
    yield* samplesParts(samples);
  }
  for (const [index, [log, columns]] of Object.entries(logs).entries()) {
    yield `${index === 0 ? ',"logs":{' : ','}${JSON.stringify(log)}:`;
    yield* samplesParts(columns);
  }
  yield Object.keys(logs).length > 0 ? '}}' : '}';
}

function* samplesParts(samples: Samples): Generator<string> {
  yield '{';
  for (const [index, [quantity, { seconds, values }]] of Object.entries(samples).entries()) {
    yield `${index === 0 ? '' : ','}"${quantity}":{"seconds":[`;
    yield* numberParts(seconds);
    yield '],"values":[';
    yield* numberParts(values);
    yield ']}';
  }
  yield '}';
}

function* numberParts(numbers: Float64Array): Generator<string> {
  for (let from = 0; from < numbers.length; from += NUMBERS_AT_ONCE)
    yield (from > 0 ? ',' : '') + numbers.subarray(from, from + NUMBERS_AT_ONCE).join(',');
}

/**
 * A logbook in JSON, part by part, so that it may be larger than any text can be. Samples become plain lists; figures keep every digit.
 *
 * @param runs     one after another, each read when it is its turn
 * @param pictures ids with data addresses, likewise
 * @param rest     asked for last, when all runs have gone by
 */
export async function* logbookParts(
  runs: AsyncIterable<StoredRun> | Iterable<StoredRun>,
  pictures: AsyncIterable<[string, string]> | Iterable<[string, string]>,
  rest: () => Promise<Rest>,
): AsyncGenerator<string> {
  yield `${JSON.stringify(head()).slice(0, -1)},"runs":[`;
  let isFirst = true;
  for await (const run of runs) {
    if (!isFirst) yield ',';
    isFirst = false;
    yield* runParts(run);
  }
  yield ']';
  isFirst = true;
  for await (const [id, address] of pictures) {
    yield `${isFirst ? ',"pictures":{' : ','}${JSON.stringify(id)}:${JSON.stringify(address)}`;
    isFirst = false;
  }
  yield `${isFirst ? '' : '}'},${JSON.stringify(await rest()).slice(1)}`;
}

/** Writes a logbook that is small enough to be one text. */
export function writeLogbook(logbook: Logbook): string {
  return JSON.stringify(logbook, (_key, value: unknown) => (value instanceof Float64Array ? Array.from(value) : value));
}
