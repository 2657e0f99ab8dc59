import { compatibility } from '@core/compare';
import {
  foldStored,
  streamedOf,
  writeAgenda,
  writeCompatibility,
  writeCsv,
  writeGearCsv,
  writeICalendar,
  type StoredRun,
} from '@core/exchange';
import { SHELVES, type Kept } from '@core/bench';
import type { FileMaker } from '../fileMaker';
import type { ExportSource } from '../source';

/** Exports that are one text. */

async function theRun(source: ExportSource): Promise<StoredRun> {
  for await (const run of source.runs()) return run;
  throw new Error(source.aside[0]?.why ?? 'There is no such run any more: nothing was written.');
}

export async function writeRunCsv(source: ExportSource, file: FileMaker): Promise<void> {
  const run = await theRun(source);
  file.add(writeCsv(foldStored(run), streamedOf(run)));
}

/** The table of a spot check. */
export async function writeTriedCsv(source: ExportSource, file: FileMaker): Promise<void> {
  const run = foldStored(await theRun(source));
  file.add(writeCompatibility([{ device: run.header.device.name, rows: compatibility(run) }]));
}

export async function writeGear(source: ExportSource, file: FileMaker): Promise<void> {
  const rest = await source.rest();
  file.add(writeGearCsv(SHELVES.flatMap((shelf) => rest[`${shelf}s`].map((gear) => ({ shelf, gear }) as Kept))));
}

const theCalendar = ({ target: { calendar } }: ExportSource) => {
  if (!calendar) throw new Error('There is no calendar to write.');
  return calendar;
};

export function writeCalendar(source: ExportSource, file: FileMaker): Promise<void> {
  const { study, agenda, gear } = theCalendar(source);
  file.add(writeICalendar(study, agenda, gear));
  return Promise.resolve();
}

export function writeAgendaCsv(source: ExportSource, file: FileMaker): Promise<void> {
  const { study, agenda, gear } = theCalendar(source);
  file.add(writeAgenda(study, agenda, gear));
  return Promise.resolve();
}
