import { beforeEach, describe, expect, it } from 'vitest';
import { did, undoNote, undoLast } from './undo';

const value = { now: 0 };
/** Sets it, and notes how it was. */
function set(to: number, more: { about?: string; at?: number } = {}): void {
  const before = value.now;
  value.now = to;
  did({ says: `Set to ${to}`, undo: () => (value.now = before), ...(more.about && { about: more.about }) }, more.at);
}

describe('undo', () => {
  beforeEach(async () => {
    for (let left = 0; left < 20; left += 1) await undoLast();
    value.now = 0;
  });

  it('takes back the last twenty acts, one after the other, and no more', async () => {
    for (let to = 1; to <= 25; to += 1) set(to);
    for (let left = 24; left >= 5; left -= 1) {
      await undoLast();
      expect(value.now).toBe(left);
      expect(undoNote.value).toEqual({ says: `Undone: Set to ${left + 1}.`, canUndo: false });
    }
    await undoLast();
    expect(value.now).toBe(5);
    expect(undoNote.value?.says).toBe('There is nothing to undo in this tab.');
  });

  it('counts what is typed at once into one field as one act', async () => {
    set(1, { about: 'currency', at: 1000 });
    set(2, { about: 'currency', at: 1400 });
    set(3, { about: 'currency', at: 9000 });
    await undoLast();
    expect(value.now).toBe(2);
    await undoLast();
    expect(value.now).toBe(0);
  });

  it('never offers to undo one act while another is the last', () => {
    set(1);
    expect(undoNote.value).toEqual({ says: 'Set to 1.', canUndo: true });
    did({ says: 'Logged 42 %', undo: () => undefined, isQuiet: true });
    expect(undoNote.value).toBeUndefined();
  });

  it('takes several acts on one thing back together, as long as what the last of them left still stands', async () => {
    const kept = { text: '' };
    const type = (text: string, at: number) => {
      const before = kept.text;
      kept.text = text;
      did(
        {
          says: 'Typed',
          about: 'name',
          refuses: () => (kept.text === text ? undefined : 'It was changed since.'),
          undo: () => (kept.text = before),
        },
        at,
      );
    };
    type('9', 1000);
    type('9-1', 1200);
    await undoLast();
    expect(kept.text).toBe('');
    type('8', 5000);
    kept.text = 'from elsewhere';
    await undoLast();
    expect([kept.text, undoNote.value?.says]).toEqual(['from elsewhere', 'It was changed since.']);
  });

  it('refuses with a sentence, and goes on to the one before', async () => {
    set(1);
    did({
      says: 'Changed Cobble 20',
      refuses: () => 'Cobble 20 was changed since. Nothing was undone.',
      undo: () => (value.now = 99),
    });
    await undoLast();
    expect(undoNote.value).toEqual({ says: 'Cobble 20 was changed since. Nothing was undone.', canUndo: false });
    await undoLast();
    expect(value.now).toBe(0);
  });
});
