// First: it puts the database in place that the others look for as they load.
import { emptyBrowser, newTab, storedKeys } from '../ledger/testBrowser';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { belongingTo, logbookOf, namesIn, NOTHING_ELSE, readLogbook, restOf, writeLogbook, type Logbook } from '@core/exchange';
import { inkOf } from '@core/ink';
import { exampleHeader } from '../../core/ink/example';
import { useSettings } from '../kit/settings';
import { remove, save } from '../ledger/acts';
import { KINDS, kindsThat } from '../ledger/kinds';
import { incomingOf } from '../ledger/incoming';
import { keyOf } from '../ledger/keys';
import { rowOf } from '../ledger/shapes';
import { bringIn, differingSettings, hasWork } from './bringIn';
import { everyMapping } from './mappings';
import { useShelf } from './shelf';

vi.stubGlobal('matchMedia', () => ({ matches: false }));

const header = exampleHeader({ id: 'run-1' });
const other = { ...header, id: 'run-2', device: { ...header.device, id: 'another', name: 'Another' } };
const runs = [header, other].map((each) => ({ header: each, entries: inkOf(each, [{ seconds: 0, percent: 2 }]) }));
const remembered = [{ heading: 'V\tA', columns: ['volts:V', 'amps:A'], headingRow: 0 }];
const book = (changes: Partial<Logbook> = {}): Logbook =>
  readLogbook(
    writeLogbook({
      ...logbookOf(
        { devices: [header.device, other.device], chargers: [header.charger], remembered, settings: { scale: '°F', levels: [37] } },
        runs,
      ),
      ...changes,
    }),
    'van.json',
  );
const bring = (file: Logbook) => bringIn(restOf(file), incomingOf(file.runs));

beforeEach(async () => {
  await emptyBrowser();
});

describe('a logbook that comes in', () => {
  it('is restored with its settings where nothing is here yet, and with the columns that it remembers', async () => {
    expect(await hasWork()).toBe(false);
    await bring(book());
    expect(useSettings().all).toMatchObject({ scale: '°F', levels: [37], decimal: 'browser' });
    expect(await everyMapping()).toEqual(remembered);
    expect(
      useShelf()
        .devices.map(({ name }) => name)
        .sort(),
    ).toEqual([other.device.name, header.device.name].sort());
    expect(await hasWork()).toBe(true);
  });

  it('never changes settings of a logbook that holds something, and says in which it differs', async () => {
    await save([rowOf('device', header.device)]);
    newTab();
    expect(differingSettings(book())).toEqual(['levels asked for', 'temperatures']);
    await bring(book());
    expect(useSettings().all).toMatchObject({ scale: '°C', levels: [] });
    expect(differingSettings(logbookOf({}))).toEqual([]);
  });

  it('that was saved of some runs has what belongs to them alone', () => {
    const names = new Set<string>();
    namesIn(runs[0], names);
    const whole = { ...NOTHING_ELSE, ...book() };
    const comparison = { schema: 3, id: 'c', name: 'Both', at: 0, runs: ['run-1', 'run-2'] } as Logbook['comparisons'][number];
    const part = belongingTo(new Set(['run-1']), names, { ...whole, comparisons: [comparison] });
    expect(part).toMatchObject({
      devices: [header.device],
      chargers: [header.charger],
      comparisons: [],
      remembered: [],
      settings: { scale: '°F' },
    });
  });

  it('names settings and lists that no file may hold', () => {
    const bad = (changes: object) => () => book(changes);
    expect(bad({ settings: { spread: 5 } })).toThrow(/settings\.spread.* is more than 0\.2/);
    expect(bad({ settings: { pager: true } })).toThrow(/nothing is known of/);
    expect(bad({ remembered: [{ heading: 'x', columns: [7] }] })).toThrow(/remembered\[0\]\.columns\[0\]/);
  });
});

describe('the kinds', () => {
  it('that are work of a person’s are all in the file of a logbook, and in the second copy', () => {
    for (const kind of kindsThat(({ isWork }) => isWork))
      expect(KINDS[kind]).toMatchObject({ isCopied: true, inFile: expect.not.stringMatching('no') as string });
  });

  it('that belong to a run all go when it is removed', async () => {
    const ofRun = kindsThat(({ isOfRun }) => isOfRun);
    await save(
      ofRun
        .flatMap((kind) => [[keyOf(kind, 'run-1'), {}] as const, [keyOf(kind, 'run-1', '000000001', 'x'), {}] as const])
        .map(([key, value]) => [key, value]),
    );
    await save([[keyOf('run', 'run-10'), {}]]);
    await remove('run-1');
    expect(await storedKeys(undefined)).toEqual(['run/run-10', 'unnamed/run/run-1']);
  });
});
