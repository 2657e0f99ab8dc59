import { describe, expect, it } from 'vitest';
import { figuresOf } from '../curve/figures';
import { writePassage } from '../curve/timeWords';
import { writeFigures } from '../curve/words';
import { isHot, notices } from '../curve/notices';
import { parseEntryLine } from '../quantity/entryLine';
import { expectedRun } from './expected';
import { assessLine } from './assessLine';
import type { Rule } from '../method/ruleSchema';
import { inkOf, type Jotted } from '../ink/build';
import { entriesSchema, type Entry, type Event } from '../ink/entry';
import { EVENTS, eventSays, type EventId } from '../ink/events';
import { exampleHeader } from '../ink/example';
import { chargingTime, foldRun, sourceAt, type RunRecord } from '../ink/fold';

const written = (run: RunRecord) => writeFigures(figuresOf(run));

const header = exampleHeader();
const readings = inkOf(header, [
  { seconds: 0, percent: 2, volts: 5.1 },
  { seconds: 600, percent: 12, volts: 5.1 },
  { seconds: 1800, percent: 30 },
]);
const event = (seconds: number, id: EventId, more: Partial<Event> = {}): Event =>
  ({
    kind: 'event',
    event: id,
    at: header.plugInAt + seconds * 1000,
    written: header.plugInAt + seconds * 1000,
    seq: 100 + seconds,
    id: `${id.replaceAll(' ', '-')}-${seconds}`,
    ...more,
  }) as Event;
const run = (...events: Entry[]) => foldRun(header, [...readings, ...events]);
const strong = { charger: { id: 'q', name: 'Quern 65', kind: 'adapter' as const, watts: 65 } };

describe('what happens during a run', () => {
  it('is ink of its own, each kind with a key and words of its own', () => {
    const keys = EVENTS.flatMap(({ key }) => key || []);
    expect(new Set(keys).size).toBe(keys.length);
    const scores = [{ name: 'render', value: 41.5, unit: 's', better: 'less' as const }];
    const all = EVENTS.map(({ id }, index) =>
      event(index, id, id === 'swapped' ? { source: strong } : id === 'work ended' ? { scores } : {}),
    );
    expect(entriesSchema.validateSync(all, { strict: true })).toHaveLength(EVENTS.length);
    expect(() => entriesSchema.validateSync([event(0, 'exploded' as EventId)], { strict: true })).toThrow();
    expect(run(event(900, 'work ended', { remark: 'rendering', scores })).events[0]).toMatchObject({ scores });
    expect(() => entriesSchema.validateSync([event(0, 'booted', { scores })], { strict: true })).toThrow();
  });

  it('keeps elapsed and charging time apart while it is unplugged', () => {
    const away = run(event(300, 'unplugged'), event(360, 'unplugged'), event(420, 'replugged'), event(1500, 'unplugged'));
    expect(away.unplugged).toEqual([
      { from: 300, to: 420 },
      { from: 1500, to: Infinity },
    ]);
    expect([200, 350, 1000, 1800].map((moment) => chargingTime(away, moment))).toEqual([200, 300, 880, 1380]);
    expect(notices(away).filter(({ kind }) => kind === 'unplugged')).toMatchObject([{ to: 420 }, { to: 1800 }]);
    expect(run(event(300, 'replugged')).unplugged).toEqual([]);
  });

  it('charges from another source from a swap on: for what is expected, and for what is doubted', () => {
    const swapped = run(event(900, 'swapped', { source: strong }));
    expect(sourceAt(swapped, 899).charger.name).toBe('Cobble 20');
    expect(sourceAt(swapped, 900).charger.name).toBe('Quern 65');
    expect(expectedRun(swapped)?.seconds[0]).toBe(1800);
    const now = header.plugInAt + 1900 * 1000;
    expect(assessLine({ watts: 40 }, swapped, now).verdict).toBe('log');
    expect(assessLine({ watts: 40 }, run(), now).verdict).toBe('ask');
    expect(notices(swapped).map(({ text }) => text)).toContain('15 min: source or cable swapped, to Quern 65');
  });

  it('counts for nothing once it is struck', () => {
    const woken = event(700, 'woken');
    const strike: Entry = { kind: 'strike', at: woken.at, written: woken.at, seq: 900, id: 's', target: woken.id, reason: 'wrong lane' };
    expect(run(woken, strike).events).toEqual([]);
    expect(eventSays('woken')).toBe('screen woken');
  });
});

describe('a reading that is assessed', () => {
  const now = header.plugInAt + 1860 * 1000;

  it('asks once about a level that no battery reaches in the time: 30 % in a minute', () => {
    expect(assessLine({ percent: 60 }, run(), now)).toMatchObject({
      verdict: 'ask',
      question: expect.stringMatching(/^From 30 to 60 % in 1 min/) as string,
    });
    expect(assessLine({ percent: 34 }, run(), now).verdict).toBe('log');
  });

  it('says that a counter began anew, and then gives its energy as a least', () => {
    const counted = foldRun(
      header,
      inkOf(header, [
        { seconds: 0, wattHours: 1 },
        { seconds: 600, wattHours: 4 },
      ]),
    );
    expect(assessLine({ wattHours: 0.5 }, counted, now)).toMatchObject({
      remark: expect.stringMatching(/^0.5 Wh is less than the 4 before/) as string,
    });
    const anew = foldRun(
      header,
      inkOf(header, [
        { seconds: 0, wattHours: 1 },
        { seconds: 600, wattHours: 4 },
        { seconds: 900, wattHours: 0.5 },
        { seconds: 1200, wattHours: 2 },
      ]),
    );
    expect(written(anew).find(({ id }) => id === 'counter')).toMatchObject({
      value: 'at least 5.00 Wh',
      detail: expect.stringContaining('began anew at 15 min') as string,
    });
  });

  it('keeps surfaces and battery apart, and calls either hot', () => {
    const hot = foldRun(
      header,
      inkOf(header, [
        { seconds: 600, frontCelsius: 38, backCelsius: 40.8 },
        { seconds: 900, batteryCelsius: 44.2 },
      ]),
    );
    expect(
      written(hot)
        .filter(({ id }) => id.startsWith('hottest'))
        .map(({ label, value }) => [label, value]),
    ).toEqual([
      ['Hottest, front', '38.0 °C'],
      ['Hottest, back', '40.8 °C'],
      ['Hottest, battery', '44.2 °C'],
    ]);
    expect(notices(hot).map(({ text }) => text)).toContain('Above 40 °C between 10 min and 15 min, up to 44.2 °C');
    const rule: Rule = { ends: 'full', wants: ['level'], hot: 42 };
    const cooler = foldRun(header, [
      ...hot.entries,
      ...inkOf(header, [{ seconds: 1200, frontCelsius: 39 }]).map((entry) => ({ ...entry, seq: 9 })),
    ]);
    expect([isHot(hot), isHot({ ...hot, header: { ...header, rule: { ...rule, hot: 45 } } }), isHot(cooler)]).toEqual([true, false, false]);
    expect(notices({ ...hot, header: { ...header, rule } }).map(({ text }) => text)).toContain('Above 42 °C at 15 min, up to 44.2 °C');
  });

  it('suggests the handshake when volts step', () => {
    expect(assessLine({ percent: 31, volts: 9.02 }, run(), now)).toMatchObject({
      remark: 'Volts stepped from 5.1 to 9.0 V: V, then H, notes the handshake.',
    });
    expect(assessLine({ percent: 31, volts: 5.3 }, run(), now)).toMatchObject({ remark: undefined });
  });
});

describe('a charge light', () => {
  const camera = (readings: Jotted[], ...events: Event[]) =>
    figuresOf(foldRun(header, [...inkOf(header, readings), ...events])).passages[0];

  it('that was watched going out went out in the last 5 s', () => {
    expect(camera([], event(13_560, 'light went out'))).toMatchObject({ what: 'light out', bounds: { low: 13_555, high: 13_560 } });
  });

  it('is bounded by where it was seen lit, or took 0.1 A, and by nothing else that was read', () => {
    expect(camera([{ seconds: 600, amps: 0.6 }], event(300, 'light on'), event(3600, 'light off'))?.bounds).toEqual({
      low: 600,
      high: 3600,
    });
    expect(camera([{ seconds: 900, amps: 0.05 }], event(300, 'light on'), event(3600, 'light off'))?.bounds).toEqual({
      low: 300,
      high: 3600,
    });
  });

  it('that nobody saw lit has no earliest: it is told, and never ranked', () => {
    // A true 20 min, found out after four hours: it was 2 h 02 ± 1 h 57.
    const out = camera([{ seconds: 60, celsius: 24 }], event(14_340, 'light off'));
    expect(out).toMatchObject({ hasNoEarliest: true });
    expect(out && writePassage(out).value).toBe('by 3 h 59');
  });
});

it('reads the charge light from the entry line', () => {
  expect(parseEntryLine('light out! @14:40')).toEqual({ ok: true, values: { light: 'went out', seen: 880 } });
  expect(parseEntryLine('Light lit # green')).toEqual({ ok: true, values: { light: 'on', note: 'green' } });
  const line = parseEntryLine('light out');
  const run = foldRun(header, readings);
  expect(line.ok && assessLine(line.values, run, header.plugInAt + 2_000_000)).toMatchObject({
    draft: { kind: 'event', event: 'light off' },
  });
});
