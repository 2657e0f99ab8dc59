import { startOfDay } from 'date-fns';
import type { Appointment, Stretch } from '@core/plan';
import { dayText } from '../kit/dates';

/** A run, or the part of it that falls on a day, as it is drawn: shares of the width of the paper, 0 to 1. */
export interface Mark {
  appointment: Appointment;
  /** Which row of the day it is drawn in, from 0. */
  row: number;
  left: number;
  width: number;
  /** Where getting ready begins, left of it. */
  ready: number;
  /** Whether this is where it is plugged in. */
  isStart: boolean;
}

/** A day of the calendar as it is drawn. */
export interface PaperDay {
  /** Midnight, epoch seconds. */
  midnight: number;
  name: string;
  /** When somebody is there. */
  attended: { left: number; width: number }[];
  marks: Mark[];
  rows: number;
}

/** The calendar as lanes on paper: days under one another, hours to the right. */
export interface CalendarPaper {
  /** The first and the last hour of every day, whole hours. */
  from: number;
  to: number;
  days: PaperDay[];
}

const HOUR = 3600;
const midnightOf = (seconds: number) => startOfDay(seconds * 1000).getTime() / 1000;
/** Seconds after midnight, by the clock on the wall of a day without a change of summer time. */
const intoDay = (seconds: number) => seconds - midnightOf(seconds);

/** Lays a calendar out on paper: as many days as it takes, each as wide as the longest of them needs. */
export function calendarPaperOf(agenda: readonly Appointment[], windows: readonly Stretch[]): CalendarPaper {
  const last = Math.max(windows[0]?.to ?? 0, ...agenda.map(({ end }) => end));
  const shown = windows.filter((each) => each.from <= last);
  const isLong = agenda.some(({ overnight }) => overnight);
  const from = isLong ? 0 : Math.floor(Math.min(...shown.map((each) => intoDay(each.from))) / HOUR);
  const to = isLong ? 24 : Math.ceil(Math.max(...shown.map((each) => intoDay(each.to - 1))) / HOUR);
  const midnights = [...new Set([...shown.map((each) => midnightOf(each.from)), ...agenda.flatMap(nights)])].sort(
    (one, other) => one - other,
  );
  const days = midnights.map((midnight) => {
    const share = (seconds: number) => Math.min(1, Math.max(0, (seconds - midnight - from * HOUR) / ((to - from) * HOUR)));
    const across = (stretch: Stretch) => ({ left: share(stretch.from), width: share(stretch.to) - share(stretch.from) });
    const ends: number[] = [];
    const marks = agenda.flatMap((appointment): Mark[] => {
      const { at, end, prepare } = appointment;
      const { left, width } = across({ from: at, to: end });
      if (end <= midnight || at >= midnight + 24 * HOUR || width <= 0) return [];
      const isStart = at >= midnight;
      const ready = isStart ? share(prepare) : left;
      const free = ends.findIndex((each) => each <= ready + 1e-9);
      const row = free < 0 ? ends.length : free;
      ends[row] = left + width;
      return [{ appointment, row, left, width, ready, isStart }];
    });
    return {
      midnight,
      name: dayText(midnight * 1000, { weekday: true }),
      attended: shown.filter((each) => midnightOf(each.from) === midnight).map(across),
      marks,
      rows: Math.max(1, ends.length),
    };
  });
  return { from, to, days };
}

/** The midnights before the days that a run touches. */
function nights({ at, end }: Appointment): number[] {
  const midnights: number[] = [];
  for (let midnight = midnightOf(at); midnight < end; midnight = midnightOf(midnight + 30 * HOUR)) midnights.push(midnight);
  return midnights;
}

/** The moment at a share of the width of a day, to five minutes. Epoch seconds. */
export function momentOnPaper({ from, to }: CalendarPaper, midnight: number, share: number): number {
  const seconds = from * HOUR + Math.min(1, Math.max(0, share)) * (to - from) * HOUR;
  return midnight + Math.round(seconds / 300) * 300;
}
