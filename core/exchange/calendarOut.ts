import { formatISO } from 'date-fns';
import { createEvents, type EventAttributes } from 'ics';
import Papa from 'papaparse';
import { cadenceInWords } from '../method/cadence';
import type { Appointment } from '../plan/agenda';
import { gearNames, runInWords, sourceOf, type GearAtHand } from '../plan/setups';
import type { Study } from '../plan/study';
import { ImportError } from './importError';
import { escapeFormula } from '../quantity/plainTable';

const moment = (seconds: number) => formatISO(seconds * 1000);

/**
 * Writes the calendar of a study as iCalendar, times in UTC: each run with an alarm ten minutes before, and what is to be got ready for it.
 *
 * @see RFC 5545
 */
export function writeICalendar(study: Study, agenda: readonly Appointment[], gear: GearAtHand): string {
  const name = gearNames(gear);
  const conditions = study.conditions.filter(({ value }) => value).map((condition) => `${condition.name}: ${condition.value}`);
  const events = agenda.flatMap(({ key, runs, prepare, at, plugIn, end, unread, overnight }): EventAttributes[] => {
    const title = runs.map((run) => runInWords(run, study, name)).join('; ');
    const lines = [
      study.name,
      `Plug in at ${moment(plugIn)}, from ${study.startLevel} %.`,
      `Read ${cadenceInWords(study.cadence)}.`,
      ...(overnight ? [`It goes on while nobody is there; ${unread} readings are left out.`] : []),
      ...conditions,
    ];
    const times = { startOutputType: 'utc', endOutputType: 'utc' } as const;
    const run: EventAttributes = {
      ...times,
      uid: `${key}@${study.id}.inkpath-log`,
      title: runs.length > 1 ? `Race: ${title}` : title,
      description: lines.join('\n'),
      start: at * 1000,
      end: end * 1000,
      busyStatus: 'BUSY',
      alarms: [{ action: 'display', description: title, trigger: { minutes: 10, before: true } }],
    };
    if (prepare >= at) return [run];
    const devices = runs.map(({ cell }) => name(cell.device)).join(', ');
    return [
      {
        ...times,
        uid: `before-${run.uid ?? ''}`,
        title: `Drain and rest ${devices}`,
        description: `To ${study.startLevel} %, for ${title}.`,
        start: prepare * 1000,
        end: at * 1000,
        busyStatus: 'FREE',
      },
      run,
    ];
  });
  const { error, value } = createEvents(events, { calName: study.name, productId: '-//Inkpath Log//EN' });
  if (!value)
    throw new ImportError(`The calendar could not be written: ${String(error)}. Rename what is odd in the study, then try again.`);
  return value;
}

/** Writes the calendar of a study as CSV: a row a run, in the order of their times, local with their offset. @see RFC 4180, ISO 8601 */
export function writeAgenda(study: Study, agenda: readonly Appointment[], gear: GearAtHand): string {
  const name = gearNames(gear);
  const rows = agenda.flatMap(({ runs, prepare, at, plugIn, end, visits, unread, isPinned }, index) =>
    runs.map(({ cell, repeat }) => ({
      sitting: index + 1,
      'get ready from': moment(prepare),
      'sit down': moment(at),
      'plug in': moment(plugIn),
      'packed up': moment(end),
      device: escapeFormula(name(cell.device)),
      charger: escapeFormula(sourceOf(cell, name)),
      cable: cell.cable === undefined ? '' : escapeFormula(name(cell.cable)),
      state: cell.state,
      repeat,
      'start level (%)': study.startLevel,
      visits: visits.length,
      'readings left out': unread,
      pinned: isPinned ? 'yes' : 'no',
    })),
  );
  return `${Papa.unparse(rows, { newline: '\r\n' })}\r\n`;
}
