import Papa from 'papaparse';
import type { Trial } from '../ink/entry';
import { sourceSays } from '../ink/entrySays';
import type { RunInk } from '../ink/fold';
import { MOMENTS } from '../ink/ranges';
import { statusSays } from '../ink/statuses';
import type { Samples } from '../samples/column';
import { QUANTITIES, quantityOf, type Quantity } from '../quantity/quantity';
import { escapeFormula } from '../quantity/plainTable';

/**
 * Writes one run as CSV (RFC 4180): every standing reading, sample, event, trial, note and the stop, in order of time. What it leaves out is
 * told in docs/formats.md.
 */
export function writeCsv(run: RunInk, samples: Samples = {}): string {
  const rows: { seconds: number; kind: string; seq: number | ''; values: Partial<Record<Quantity, number>>; note: string }[] = [
    ...run.readings.map(({ seconds, reading }) => ({
      seconds,
      kind: 'reading',
      seq: reading.seq,
      values: reading,
      note: reading.note ?? '',
    })),
    ...run.events.map(({ seconds, seq, event, remark }) => ({
      seconds,
      kind: 'event',
      seq,
      values: {},
      note: [event, remark].filter(Boolean).join(': '),
    })),
    ...run.trials.map((trial) => ({ seconds: trial.seconds, kind: 'trial', seq: trial.seq, values: trial, note: trialNote(trial) })),
    // One that says nothing would be no row.
    ...run.notes
      .filter(({ text }) => text.trim() !== '')
      .map(({ seconds, seq, text }) => ({ seconds, kind: 'note', seq, values: {}, note: text })),
    ...(run.stop
      ? [
          {
            seconds: run.stop.seconds,
            kind: 'stop',
            seq: run.stop.seq,
            values: {},
            note: [run.stop.because, run.stop.remark].filter(Boolean).join(': '),
          },
        ]
      : []),
  ];
  // Those that are always there, and of the rest those that hold anything.
  const written = QUANTITIES.filter(
    (quantity) =>
      quantityOf(quantity).always ||
      (samples[quantity]?.values.length ?? 0) > 0 ||
      rows.some(({ values }) => values[quantity] !== undefined),
  );
  rows.sort((one, other) => one.seconds - other.seconds);
  const head = Papa.unparse(
    {
      fields: ['elapsed (s)', 'clock time', 'kind', 'entry', ...written.map((quantity) => quantityOf(quantity).heading), 'note'],
      data: [],
    },
    { newline: '\r\n' },
  );
  const lines = rows.map(({ seconds, kind, seq, values, note }) =>
    Papa.unparse([
      [
        seconds,
        clockTime(run.header.plugInAt + seconds * 1000),
        kind,
        seq,
        ...written.map((quantity) => values[quantity] ?? ''),
        // A text with such a letter is none to whoever reads it.
        escapeFormula(note.replaceAll('\0', '␀')),
      ],
    ]),
  );
  // Of samples there may be millions: their lines are figures alone, and are put between the others as they come.
  let text = head.trimEnd();
  let next = 0;
  const until = (seconds: number) => {
    for (; next < rows.length && (rows[next]?.seconds ?? Infinity) <= seconds; next += 1) text += `\r\n${lines[next] ?? ''}`;
  };
  for (const [seconds, cells] of sampleRows(samples, written)) {
    until(seconds);
    text += `\r\n${seconds},${clockTime(run.header.plugInAt + seconds * 1000)},sample,,${cells}`;
  }
  until(Infinity);
  return text;
}

/** ISO 8601; nothing past what dates are kept for, as the last rows of a log may be. */
const clockTime = (at: number): string => (at >= MOMENTS.min && at <= MOMENTS.max ? new Date(at).toISOString() : '');

/** What a trial says beside its figures, in words: `Cobble 20, awake: charges fast; chime yes; held to 9 V`. */
function trialNote({
  source,
  state,
  status,
  voltsBefore,
  wattsOut,
  wattsOutAssumed,
  chime,
  chimes,
  icon,
  meter,
  confirms,
  remark,
}: Trial): string {
  const seen = (name: string, value: boolean | undefined) => value !== undefined && `${name} ${value ? 'yes' : 'no'}`;
  const said = [
    confirms === undefined ? statusSays(status) : 'second look',
    voltsBefore !== undefined && `${voltsBefore} V before`,
    wattsOut !== undefined && `${wattsOut} W out${wattsOutAssumed ? ' (assumed)' : ''}`,
    chimes === undefined ? seen('chime', chime) : `${chimes} chimes`,
    seen('icon', icon),
    seen('meter', meter),
    remark,
  ];
  return `${sourceSays(source)}, ${state}: ${said.filter(Boolean).join('; ')}`;
}

/** A meter's columns put side by side again: the cells of each moment, as they stand in a line. Of two values of one moment the later counts. */
function* sampleRows(samples: Samples, written: readonly Quantity[]): Generator<[seconds: number, cells: string]> {
  const columns = written.map((quantity) => samples[quantity]);
  const at = columns.map(() => 0);
  for (;;) {
    let seconds = Infinity;
    for (let index = 0; index < columns.length; index += 1)
      seconds = Math.min(seconds, columns[index]?.seconds[at[index] ?? 0] ?? Infinity);
    if (seconds === Infinity) return;
    let cells = '';
    for (let index = 0; index < columns.length; index += 1) {
      const column = columns[index];
      let row = at[index] ?? 0;
      if (column?.seconds[row] === seconds) {
        while (column.seconds[row + 1] === seconds) row += 1;
        cells += String(column.values[row] ?? 0);
        at[index] = row + 1;
      }
      cells += ',';
    }
    yield [seconds, cells];
  }
}
