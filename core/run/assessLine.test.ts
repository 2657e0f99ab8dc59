import { describe, expect, it } from 'vitest';
import { exampleHeader } from '../ink/example';
import { foldRun } from '../ink/fold';
import { inkOf, type Jotted } from '../ink/build';
import { parseEntryLine } from '../quantity/entryLine';
import { dueOf, inOrderOfDue } from './due';
import { assessLine, type AssessedLine } from './assessLine';

const header = exampleHeader();
const minute = (minutes: number) => header.plugInAt + minutes * 60_000;
const runOf = (...jotted: Jotted[]) => foldRun(header, inkOf(header, jotted));
const assessed = (text: string, options: { now?: number; marked?: number; run?: ReturnType<typeof runOf> } = {}): AssessedLine => {
  const line = parseEntryLine(text);
  if (!line.ok) throw new Error(line.error);
  return assessLine(line.values, options.run ?? runOf({ seconds: 0, percent: 40 }), options.now ?? minute(10), options.marked);
};

describe('a line on its way to becoming ink', () => {
  it('is seen when it is entered, when it was marked, or when it says', () => {
    expect(assessed('42')).toEqual({ verdict: 'log', draft: { kind: 'reading', at: minute(10), percent: 42 }, remark: undefined });
    expect(assessed('42', { marked: minute(9) })).toMatchObject({ draft: { at: minute(9) } });
    expect(assessed('42 @4:30', { marked: minute(9) })).toMatchObject({ draft: { at: minute(4.5) } });
  });

  it('is refused before plug-in, in the future, and after the stop', () => {
    expect(assessed('42 @14:40')).toMatchObject({ verdict: 'refuse', error: expect.stringContaining('the run is at 10 min') as string });
    expect(assessed('42', { marked: minute(-1) })).toMatchObject({
      verdict: 'refuse',
      error: expect.stringContaining('before plug-in') as string,
    });
    const stop = { kind: 'stop', seq: 9, id: 's', at: minute(8), written: minute(8), because: 'full' } as const;
    const run = foldRun(header, [...inkOf(header, [{ seconds: 0, percent: 40 }]), stop]);
    expect(assessed('100', { run })).toMatchObject({ verdict: 'refuse', error: expect.stringContaining('stopped at 8 min') as string });
  });

  it('asks once about more watts than the charger has, and keeps the answer', () => {
    expect(assessed('42 900w')).toMatchObject({
      verdict: 'ask',
      question: expect.stringContaining('900 W from Cobble 20, which is rated 20 W?') as string,
      draft: { watts: 900, sure: true },
    });
    expect(assessed('42 9v 10a')).toMatchObject({ verdict: 'ask' });
    expect(assessed('42 21.5w')).toMatchObject({ verdict: 'log' });
  });

  it('asks about watts that are not volts times amps', () => {
    expect(assessed('42 9v 2a 18.3w')).toMatchObject({ verdict: 'log' });
    expect(assessed('42 9v 2a 8w')).toMatchObject({ verdict: 'ask', question: expect.stringContaining('9 V × 2 A is 18 W') as string });
  });

  it('keeps a level lower than before, and flags it', () => {
    expect(assessed('39')).toMatchObject({ verdict: 'log', remark: expect.stringContaining('lower than the 40 %') as string });
    expect(assessed('40')).toMatchObject({ verdict: 'log', remark: undefined });
    expect(assessed('39 @0:00')).toMatchObject({ verdict: 'log', remark: undefined });
    const fallen = runOf({ seconds: 0, percent: 40 }, { seconds: 60, percent: 39 });
    expect(assessed('39', { run: fallen })).toMatchObject({ remark: expect.stringContaining('lower than the 40 %') as string });
    expect(runOf({ seconds: 0, percent: 40 }, { seconds: 60, percent: 39 }).falls).toHaveLength(1);
  });

  it('makes a note of a line that holds nothing else', () => {
    expect(assessed('# case off')).toEqual({ verdict: 'log', draft: { kind: 'note', at: minute(10), text: 'case off' } });
  });
});

describe('which lane wants a reading next', () => {
  it('is the one most overdue, then the one due soonest', () => {
    const [one, other] = ['one', 'other'].map((id) => ({ ...header, id }));
    if (!one || !other) throw new Error('two headers');
    const runs = [foldRun(one, inkOf(one, [{ seconds: 300, percent: 40 }])), foldRun(other, inkOf(other, [{ seconds: 0, percent: 40 }]))];
    expect(inOrderOfDue(runs, minute(6))).toEqual([
      { runId: 'other', due: 300, wait: -60 },
      { runId: 'one', due: 600, wait: 240 },
    ]);
  });

  it('is none once stopped, or without a cadence', () => {
    expect(dueOf(foldRun({ ...header, cadence: undefined }, []), minute(1))).toBeUndefined();
  });
});

it('takes dead for what the display showed at plug-in, and not once it has shown a level there', () => {
  const none = runOf();
  expect(assessed('dead', { run: none })).toEqual({ verdict: 'log', draft: { kind: 'event', at: header.plugInAt, event: 'dead' } });
  expect(JSON.stringify(assessed('dead'))).toContain('It showed 40 % at plug-in');
  const later = runOf({ seconds: 450, percent: 1 });
  expect(assessed('dead', { run: later })).toMatchObject({ verdict: 'log' });
  expect(assessed('80!')).toMatchObject({ draft: { percent: 80, turning: true } });
});
