import ICAL from 'ical.js';
import Papa from 'papaparse';
import { expect, it } from 'vitest';
import { SCHEMA } from '../ink/version';
import type { Appointment } from '../plan/agenda';
import type { Study } from '../plan/study';
import { writeAgenda, writeICalendar } from './calendarOut';

const study = {
  schema: SCHEMA,
  id: 's',
  name: 'Van; chargers, "one"',
  startLevel: 2,
  states: ['asleep'],
  cadence: { kind: 'fixed', every: 300 },
  conditions: [{ name: 'case', value: 'off' }],
} as unknown as Study;
const gear = {
  devices: [{ id: 'd', name: '=Sedge, 5', kind: 'phone' as const }],
  chargers: [{ id: 'c', name: 'Quern 30', kind: 'adapter' as const, watts: 30 }],
  cables: [],
  meters: [],
};
const cell = { key: 'd/c//asleep', device: 'd', charger: 'c', cable: undefined, state: 'asleep' };
const at = Date.UTC(2027, 2, 1, 9) / 1000;
const agenda: Appointment[] = [
  {
    key: 'd/c//asleep#1',
    runs: [{ cell, repeat: 1 }],
    prepare: at - 4500,
    at,
    plugIn: at + 120,
    end: at + 7200,
    visits: [{ from: at, to: at + 140 }],
    unread: 3,
    overnight: true,
    isPinned: true,
  },
];

// RFC 5545, read back by an independent reader.
it('is read by another program as the events it holds', () => {
  const calendar = new ICAL.Component(ICAL.parse(writeICalendar(study, agenda, gear)) as unknown[]);
  const events = calendar.getAllSubcomponents('vevent').map((each) => new ICAL.Event(each));
  expect(events.map(({ summary }) => summary)).toEqual(['Drain and rest =Sedge, 5', '=Sedge, 5 on Quern 30']);
  expect(events[1]?.startDate.toUnixTime()).toBe(at);
  expect(events[1]?.endDate.toUnixTime()).toBe(at + 7200);
  expect(events[1]?.description).toMatch(/Van; chargers, "one"\n.*from 2 %\.\nRead every 5 min\.\n.*3 readings are left out\.\ncase: off/);
  expect(events[0]?.startDate.toUnixTime()).toBe(at - 4500);
  expect(new Set(events.map(({ uid }) => uid)).size).toBe(2);
  expect(calendar.getAllSubcomponents('vevent')[1]?.getFirstSubcomponent('valarm')).toBeTruthy();
});

it('is a row a run as CSV, with what a spreadsheet would run made harmless', () => {
  const { data } = Papa.parse<Record<string, string>>(writeAgenda(study, agenda, gear).trim(), { header: true });
  expect(data).toHaveLength(1);
  expect(data[0]).toMatchObject({ device: "'=Sedge, 5", charger: 'Quern 30', repeat: '1', pinned: 'yes', 'readings left out': '3' });
  expect(new Date(data[0]?.['plug in'] ?? '').getTime() / 1000).toBe(at + 120);
});
