// First: it puts the database in place that the others look for as they load.
import { emptyBrowser, newTab } from '../ledger/testBrowser';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { Source } from '@core/ink';
import { exampleHeader } from '../../core/ink/example';
import { remembered } from '../ledger/readAhead';
import { useLanes } from '../logbook/lanes';
import { penFor } from '../logbook/penFor';
import { useDueLine } from './dueLine';
import { useSitting } from './sitting';

const MINUTE = 60_000;
let plugInAt: number;
let ids: string[];

beforeEach(async () => {
  await emptyBrowser();
  plugInAt = Date.now() - 12 * MINUTE;
  ids = ['one', 'other'].map((name) => `${name}-${Math.random().toString(36).slice(2)}`);
  for (const [index, id] of ids.entries()) {
    await useLanes().start(exampleHeader({ id, plugInAt: plugInAt + index * 1000 }), [
      { kind: 'reading', at: plugInAt + index * 1000, percent: 2 },
    ]);
  }
});

const type = async (text: string) => {
  const line = useDueLine();
  line.text = text;
  await line.submit();
  return line;
};
const levels = (index: number) => useLanes().records[index]?.readings.map(({ reading }) => reading.percent);

describe('the due line', () => {
  it('is for the lane most overdue, and moves on once it is logged', async () => {
    const line = useDueLine();
    expect(line.runId).toBe(ids[0]);
    await type('20');
    expect(line.answer).toMatchObject({ kind: 'logged' });
    expect(line.answer?.text).toMatch(/^Logged at 12 min.* on Sedge 5/);
    expect(line.text).toBe('');
    expect(line.runId).toBe(ids[1]);
  });

  it('stays with the lane picked by hand until something is logged', async () => {
    const line = useDueLine();
    line.pick(ids[1] ?? '');
    await type('21');
    expect([levels(0), levels(1)]).toEqual([[2], [2, 21]]);
  });

  it('stays with the lane picked last where none wants a reading, and goes where one does', async () => {
    await emptyBrowser();
    const late = ['third', 'fourth'].map((name) => exampleHeader({ id: name, plugInAt, cadence: { kind: 'marks', at: [60] } }));
    for (const header of late) await useLanes().start(header, [{ kind: 'reading', at: plugInAt, percent: 2 }]);
    const line = useDueLine();
    const [first, second] = useLanes().records.map(({ header }) => header.id);
    expect([line.due, line.runId]).toEqual([undefined, first]);
    line.pick(second ?? '');
    await type('21');
    await type('22');
    expect(useLanes().records.map(({ readings }) => readings.length)).toEqual([1, 3]);
    await useLanes().start(exampleHeader({ id: 'due', plugInAt }), [{ kind: 'reading', at: plugInAt, percent: 2 }]);
    expect(line.runId).toBe('due');
  });

  it('keeps what is typed while something else is being stored', async () => {
    const line = useDueLine();
    line.text = '20';
    const logging = line.submit();
    line.text = '2021 w';
    await logging;
    expect(line.text).toBe('21 w');
    line.say('Noted at 12 min: unplugged.');
    expect(line.text).toBe('21 w');
    expect(line.answer?.text).toContain('Noted');
  });

  it('keeps the lane and the moment that a quick hand takes while something is being stored', async () => {
    const line = useDueLine();
    line.text = '20';
    const logging = line.submit();
    line.mark();
    const again = line.markedAt;
    line.pick(ids[1] ?? '');
    line.mark();
    const other = line.markedAt;
    await logging;
    expect([levels(0), line.text, line.runId, line.markedAt]).toEqual([[2, 20], '', ids[1], other]);
    await type('9');
    expect([levels(1), line.runId, line.markedAt]).toEqual([[2, 9], ids[0], again]);
  });

  it('strikes what was being stored when it was asked for, for the reason typed meanwhile; and nothing where that was refused', async () => {
    const line = useDueLine();
    line.pick(ids[0] ?? '');
    line.text = '20';
    const logging = line.submit();
    line.beginStrike();
    line.text = '20slipped';
    await logging;
    expect([line.striking?.entry, line.text]).toMatchObject([{ percent: 20 }, 'slipped']);
    await line.submit();
    expect(levels(0)).toEqual([2]);
    line.text = 'twenty';
    const refused = line.submit();
    line.beginStrike();
    await refused;
    expect([line.striking, line.answer?.kind, line.text]).toEqual([undefined, 'error', 'twenty']);
  });

  it('keeps the lane that a quick hand picks while a strike is being stored, and puts nothing of the struck lane there', async () => {
    const line = await type('20');
    line.beginStrike();
    line.text = 'slipped';
    const striking = line.submit();
    line.pick(ids[1] ?? '');
    await striking;
    expect([levels(0), line.striking, line.runId, line.text]).toEqual([[2], undefined, ids[1], '']);
  });

  it('logs at the moment that was marked', async () => {
    const line = useDueLine();
    line.mark();
    const marked = line.markedAt;
    vi.spyOn(Date, 'now').mockReturnValueOnce(Date.now() + 5 * MINUTE);
    await type('20');
    expect(useLanes().records[0]?.readings.at(-1)?.reading.at).toBe(marked);
    expect(line.markedAt).toBeUndefined();
  });

  it('marks the moment of every lane at once, asks for one after another, and keeps the marks through a reload', async () => {
    const line = useDueLine();
    line.markAll();
    const at = line.markedAt;
    await type('20');
    expect(line.runId).toBe(ids[1]);
    expect(line.markedAt).toBe(at);
    await vi.waitFor(async () => expect(await remembered('marks')).toEqual({ marks: { [ids[1] ?? '']: at } }));
    newTab();
    await useLanes().load();
    await useDueLine().load();
    expect(useDueLine().markedAt).toBe(at);
    await useLanes().claim(ids[1] ?? '');
    await type('9');
    expect(useLanes().records.map(({ readings }) => readings.at(-1)?.reading.at)).toEqual([at, at]);
    await vi.waitFor(async () => expect(await remembered('marks')).toEqual({ marks: {} }));
  });

  it('asks once, keeps on the second Enter, and asks again about another line', async () => {
    const line = await type('20 900w');
    expect(line.answer).toMatchObject({ kind: 'question' });
    await type('20 800w');
    expect(line.answer).toMatchObject({ kind: 'question' });
    expect(levels(0)).toEqual([2]);
    await type('20 800w');
    expect(useLanes().records[0]?.readings.at(-1)?.reading).toMatchObject({ watts: 800, sure: true });
  });

  it('keeps what was typed when it is refused or cannot be stored', async () => {
    const line = await type('twenty');
    expect(line.answer).toMatchObject({ kind: 'error' });
    expect(line.text).toBe('twenty');
    const full = vi.spyOn(IDBObjectStore.prototype, 'put').mockImplementationOnce(() => {
      throw new DOMException('full', 'QuotaExceededError');
    });
    await type('20');
    full.mockRestore();
    expect(line.answer).toMatchObject({ kind: 'trouble' });
    expect(line.text).toBe('20');
    expect(levels(0)).toEqual([2]);
  });

  it('strikes with a reason and offers the line again', async () => {
    const line = await type('29 18w @5:00');
    line.pick(ids[0] ?? '');
    line.beginStrike();
    expect(line.striking?.entry).toMatchObject({ percent: 29 });
    await type('');
    expect(line.answer?.text).toMatch(/Say why it is struck/);
    await type('slipped');
    expect(line.text).toBe('29 18w @5:00');
    expect(useLanes().records[0]?.struck[0]?.strike.reason).toBe('slipped');
    await type('19 18w @5:00');
    expect(levels(0)).toEqual([2, 19]);
  });

  it('has nothing to strike where everything was struck', async () => {
    const line = useDueLine();
    line.beginStrike();
    await type('wrong device');
    line.clear();
    line.pick(ids[0] ?? '');
    line.beginStrike();
    expect(line.answer?.text).toMatch(/Nothing to strike yet/);
  });

  it('points out a full display, a fall, and takes a note alone', async () => {
    const line = await type('100');
    expect(line.answer?.text).toContain('press S when you stop');
    line.pick(ids[0] ?? '');
    await type('# unplugged by mistake');
    expect(useLanes().records[0]?.notes[0]?.text).toBe('unplugged by mistake');
    expect(line.clear()).toBe(true);
    expect(line.clear()).toBe(false);
  });
});

it('gives a setup the pen it had, and a new one the lowest that is free', () => {
  const earlier = [
    { device: 'Sedge 5', charger: 'Cobble 20', pen: 3 },
    { device: 'Sedge 5', charger: 'Quern 30', pen: 0 },
  ];
  expect(penFor({ device: 'Sedge 5', charger: 'Cobble 20' }, earlier)).toBe(3);
  expect(penFor({ device: 'Sedge 5', charger: 'Puddle' }, earlier)).toBe(1);
  expect(penFor({ device: 'Sedge 5', charger: 'Puddle' }, [])).toBe(0);
});

describe('the due line of a spot check', () => {
  it('leaves in hand what was picked while a trial is being written', async () => {
    await emptyBrowser();
    const source = (name: string): Source => ({ charger: { id: name.replace(' ', '-'), name, kind: 'adapter' } });
    const sources = ['Quern 20', 'Quern 30', 'Quern 65'].map(source);
    const header = exampleHeader({ id: 'spot', plugInAt, method: 'spot-check', list: sources.map(({ charger }) => charger.id) });
    await useLanes().start(header, [{ kind: 'list', at: plugInAt, sources }]);
    const sitting = useSitting();
    const inHand = () => {
      const [run] = useLanes().records;
      return run && sitting.inHand(run)?.source.charger.name;
    };
    const written = type('9v 2a');
    sitting.pick('spot', source('Quern 65'));
    await written;
    expect(inHand()).toBe('Quern 65');
    // What was picked and logged is done with: the first that was not tried follows.
    await type('9v 2a');
    expect(inHand()).toBe('Quern 30');
  });
});
