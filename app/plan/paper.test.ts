import { expect, it } from 'vitest';
import type { Appointment } from '@core/plan';
import { momentOnPaper, calendarPaperOf } from './paper';

const midnight = new Date(2027, 2, 1).getTime() / 1000;
const hour = (hours: number) => midnight + hours * 3600;
const run = (key: string, from: number, to: number, more: Partial<Appointment> = {}): Appointment => ({
  key,
  runs: [],
  prepare: hour(from - 1),
  at: hour(from),
  plugIn: hour(from),
  end: hour(to),
  visits: [],
  unread: 0,
  overnight: false,
  isPinned: false,
  ...more,
});
const windows = [0, 1, 2].map((day) => ({ from: hour(24 * day + 9), to: hour(24 * day + 17) }));

it('lays runs that overlap under one another, and shows the days up to the last run', () => {
  const paper = calendarPaperOf([run('a', 9, 11), run('b', 10, 12), run('c', 12, 13), run('d', 33, 34)], windows);
  expect([paper.from, paper.to, paper.days.length]).toEqual([9, 17, 2]);
  expect(paper.days[0]?.marks.map(({ row }) => row)).toEqual([0, 1, 0]);
  expect(paper.days[0]?.marks[2]).toMatchObject({ left: 3 / 8, width: 1 / 8, ready: 2 / 8 });
  expect(paper.days[0]?.attended).toEqual([{ left: 0, width: 1 }]);
});

it('draws what goes on overnight on every day that it touches, midnight to midnight', () => {
  const paper = calendarPaperOf([run('night', 16, 34, { overnight: true })], windows);
  expect([paper.from, paper.to]).toEqual([0, 24]);
  const [first, second] = paper.days.map(({ marks }) => marks[0]);
  expect([first?.isStart, second?.isStart, second?.left]).toEqual([true, false, 0]);
  expect(first?.width).toBeCloseTo(8 / 24, 9);
  expect(second?.width).toBeCloseTo(10 / 24, 9);
});

it('tells the moment at a place on the paper, to five minutes', () => {
  const paper = calendarPaperOf([run('a', 9, 11)], windows);
  expect(momentOnPaper(paper, midnight, 0.5)).toBe(hour(13));
  expect(momentOnPaper(paper, midnight, 0.1234)).toBe(hour(10));
  expect(momentOnPaper(paper, midnight, -1)).toBe(hour(9));
});
