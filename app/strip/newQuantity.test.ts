import { describe, expect, it, vi } from 'vitest';
import type { QuantityRow } from '../../core/quantity/quantities';

/** The worked example of CONTRIBUTING.md: a quantity that the program does not have is one row, and all that reads rows knows it. */
const HUMIDITY: QuantityRow = {
  ...{ named: 'humidities', unit: '% RH', typed: { rh: (value) => value }, min: 0, max: 100, mostTyped: 100 },
  heading: 'humidity (% RH)',
  headed: /^(relative )?humidity/,
  column: { title: '% RH', decimals: 0 },
  track: { title: 'humidity of the room', short: 'humidity', weight: 1, axis: 'hundred', mark: ' %' },
};
vi.mock('../../core/quantity/quantities', async (original) => {
  const { TABLE } = await original<typeof import('../../core/quantity/quantities')>();
  return { TABLE: { ...TABLE, humidity: HUMIDITY } };
});

const core = {
  ...(await import('@core/quantity')),
  ...(await import('@core/ink')),
  ...(await import('@core/exchange')),
};
const { exampleHeader } = await import('../../core/ink/example');
const { columnOf } = await import('../../core/exchange/columns');
const { frameOf } = await import('./layers/frame');
const { traceOf } = await import('./trace');
const humidity = 'humidity' as import('@core/quantity').Quantity;

describe('a quantity that was added as one row', () => {
  const header = exampleHeader();
  const reading = { kind: 'reading', seq: 1, id: 'first-one', at: header.plugInAt + 60_000, written: header.plugInAt + 60_000 } as const;
  const entries = [{ ...reading, percent: 42, [humidity]: 55 }];

  it('is read and written by the entry line', () => {
    expect(core.parseEntryLine('42 55rh')).toEqual({ ok: true, values: { percent: 42, humidity: 55 } });
    expect(core.parseEntryLine('120rh')).toEqual({ ok: false, error: '“120rh” is more than 100 % RH, the most that is kept.' });
    expect(core.writeEntryLine({ [humidity]: 55 })).toBe('55rh');
  });

  it('is let in by the schema within its range, and nothing beyond it', () => {
    expect(core.entryMisfit(entries[0])).toBeUndefined();
    expect(core.entryMisfit({ ...entries[0], humidity: 101 })).toMatchObject({ path: 'humidity' });
  });

  it('stands in the CSV, out and in', () => {
    const csv = core.writeCsv(core.foldRun(header, entries));
    expect(csv.split('\r\n')[0]).toContain('humidity (% RH)');
    expect(core.readCsv(csv, 'run.csv').entries[0]?.draft).toMatchObject({ humidity: 55 });
    expect(columnOf('Relative humidity [%]')).toMatchObject({ quantity: 'humidity' });
  });

  it('has its column in the table of ink and its track on the strip', () => {
    expect(core.quantityOf(humidity).column?.title).toBe('% RH');
    const trace = traceOf(core.foldRun(header, entries), 'x', 0);
    expect(trace.dots[humidity]).toEqual([[60, 55]]);
    const look = { size: 'sheet', theme: 'paper', until: 3600, penned: false } as const;
    const frame = frameOf([trace], look, { width: 900, height: 400 }, (text) => 7 * text.length);
    expect(frame.trackOf(humidity)).toMatchObject({ min: 0, max: 100 });
  });
});
