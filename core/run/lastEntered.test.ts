import { expect, it } from 'vitest';
import type { Draft } from '../ink/entry';
import { entrySays } from '../ink/entrySays';
import { exampleHeader } from '../ink/example';
import { foldRun } from '../ink/fold';
import { lastEntered } from './lastEntered';

const header = exampleHeader();
const at = header.plugInAt;
const last = (...drafts: Draft[]) => {
  const entries = drafts.map((draft, index) => ({ ...draft, seq: index + 1, id: `e${index + 1}`, written: at }));
  const found = lastEntered(foldRun(header, entries));
  return found && entrySays(found);
};

it('is whatever a person entered last: an answer about the clock is, what the program notes of itself is not', () => {
  expect(last()).toBeUndefined();
  expect(last({ kind: 'reading', at, percent: 42 })).toBe('42 %');
  expect(last({ kind: 'reading', at, percent: 42 }, { kind: 'note', at: at - 5, text: 'earlier, but entered after' })).toBe('the note');
  expect(last({ kind: 'reading', at, watts: 4 }, { kind: 'event', at, event: 'away', until: at + 5 })).toBe('the reading');
  expect(last({ kind: 'reading', at, watts: 4 }, { kind: 'event', at, event: 'clock', shift: 5 })).toBe('“the clock was changed”');
});

it('is the one before, once that is struck, and that one again once the strike is undone', () => {
  const [reading, woken]: Draft[] = [
    { kind: 'reading', at, percent: 42 },
    { kind: 'event', at, event: 'woken' },
  ];
  const strike = (target: string): Draft => ({ kind: 'strike', at, target, reason: 'slip' });
  if (!reading || !woken) throw new Error('two');
  expect(last(reading, woken, strike('e2'))).toBe('42 %');
  expect(last(reading, woken, strike('e2'), strike('e3'))).toBe('“screen woken”');
});
