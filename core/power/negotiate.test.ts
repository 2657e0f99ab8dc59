import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Cable } from '../bench/cable';
import type { Charger, Port } from '../bench/charger';
import type { Device } from '../bench/device';
import { writeOffer } from '../bench/offer';
import { expectationOf, lessons } from './expectations';
import { portRemarks, shareOf } from './offers';
import { feedOf } from './feed';
import { explain } from './sentence';
import { negotiate } from './negotiate';
import { leastOffers } from './standards';

const device = (rest: Partial<Device> = {}): Device => ({ id: 'd', name: 'Sedge 5', kind: 'phone', connectors: ['USB-C'], ...rest });
const charger = (watts: number, port: Partial<Port> & { label?: string } = {}, rest: Partial<Charger> = {}): Charger => ({
  id: `c${watts}`,
  name: `Quern ${watts}`,
  kind: 'adapter',
  watts,
  ports: [{ connector: 'USB-C', ...port }],
  ...rest,
});
const cable = (rest: Partial<Cable> = {}): Cable => ({
  id: 'l',
  name: 'short',
  chargerEnd: 'USB-C',
  deviceEnd: 'USB-C',
  marker: 'none',
  ...rest,
});
const FULL = '5V⎓3A 9V⎓3A 15V⎓3A 20V⎓5A';
const everything = device({ deliveryVolts: 48, programmableVolts: 21, families: ['2.1 A', '2.4 A'] });

describe('what a supply of a rating must offer', () => {
  // USB Power Delivery R3.x, power rules for fixed supplies (from memory).
  it.each([
    [15, ['5V⎓3A']],
    [18, ['5V⎓3A', '9V⎓2A']],
    [27, ['5V⎓3A', '9V⎓3A']],
    [30, ['5V⎓3A', '9V⎓3A', '15V⎓2A']],
    [45, ['5V⎓3A', '9V⎓3A', '15V⎓3A']],
    [60, ['5V⎓3A', '9V⎓3A', '15V⎓3A', '20V⎓3A']],
    [100, ['5V⎓3A', '9V⎓3A', '15V⎓3A', '20V⎓5A']],
  ])('is, at %i W, %j', (watts, offers) => {
    expect(leastOffers(watts).map(writeOffer)).toEqual(offers);
    expect(negotiate({ device: everything, charger: charger(watts), cable: cable({ marker: '5 A' }) }).watts).toBeCloseTo(watts, 9);
  });
});

it('does not know what a source gives above 100 W whose label nobody wrote down', () => {
  const laptop = device({ name: 'Teasel 14', inputLimit: 140, deliveryVolts: 28 });
  const through = cable({ marker: '240 W' });
  const open = negotiate({ device: laptop, charger: charger(140), cable: through });
  expect([open.watts, open.knownTo]).toEqual([100, 100]);
  expect(explain(open)).toContain('What Quern 140 gives above 100 W is not known: nobody wrote its label down. Teasel 14 would take more.');
  // With its label, on a source of 100 W, and for a device that takes no more, nothing is open.
  for (const [of, on] of [
    [laptop, charger(140, { label: `${FULL} 28V⎓5A` })],
    [laptop, charger(100)],
    [device({ inputLimit: 65, deliveryVolts: 20 }), charger(140)],
  ] as const)
    expect(negotiate({ device: of, charger: on, cable: through }).knownTo).toBeUndefined();
});

it('offers the range of a maker’s own family to that family alone', () => {
  const own = charger(60, { label: 'Swiftreed: 3.6-20V⎓3A; 5V⎓2A' });
  const reed = negotiate({
    device: device({ families: ['Swiftreed'], inputLimit: 40 }),
    charger: own,
    cable: cable({ family: 'Swiftreed' }),
  });
  expect([reed.by, reed.family]).toEqual(['family', 'Swiftreed']);
  const other = negotiate({ device: device({ programmableVolts: 21, inputLimit: 40 }), charger: own, cable: cable() });
  expect(other.by).not.toBe('PPS');
  expect(other.watts).toBeLessThanOrEqual(10);
});

describe('what one signalling carries', () => {
  const taken = (port: Partial<Port>, rest: Partial<Device> = {}, watts = 100) => {
    const { volts = 0, amps = 0, by, limit } = negotiate({ device: device(rest), charger: charger(watts, port), cable: undefined });
    return { volts, amps: Number(amps.toFixed(2)), by, limit };
  };

  // USB 2.0 / USB 3.2 (from memory): 500 mA / 900 mA at 5 V, two-lane 1.5 A.
  it.each([
    ['USB 2.0', 0.5],
    ['USB 3.2', 0.9],
    ['USB 3.2 two-lane', 1.5],
  ] as const)('is from a %s data port %f A at 5 V, and the standard is the limit', (data, amps) => {
    expect(taken({ connector: 'USB-A', data })).toEqual({ volts: 5, amps, by: 'USB default', limit: 'standard' });
  });

  // USB Battery Charging 1.2 (from memory): up to 1.5 A at 5 V. 2.1 and 2.4 A by makers' own signalling: common practice, no source.
  it('is 1.5 A of a 2.4 A port for a device that does not know its signalling, and 2.4 A for one that does', () => {
    expect(taken({ connector: 'USB-A', label: '5V/2.4A' })).toMatchObject({ amps: 1.5, by: 'BC 1.2', limit: 'mismatch' });
    expect(taken({ connector: 'USB-A', label: '5V/2.4A' }, { families: ['2.4 A'] })).toMatchObject({ amps: 2.4, by: 'family' });
    expect(taken({ connector: 'USB-A', label: '5V/2.4A' }, { families: ['2.1 A'] })).toMatchObject({ amps: 2.1 });
    expect(taken({ connector: 'USB-A', label: '5V/2.4A' }, { chargingPort: false, typeCAmps: 3 })).toMatchObject({ amps: 0.5 });
  });

  // USB Type-C R2.x (from memory): default, 1.5 A, 3.0 A.
  it.each([
    ['5V⎓3A', 3],
    ['5V⎓2A', 1.5],
    ['5V⎓1A', 1],
  ])('is, of %s on a Type-C port without Power Delivery, %f A', (label, amps) => {
    expect(taken({ label }).amps).toBe(amps);
  });

  // USB PD R3.x, PPS: 9 V prog is 3.3–11 V (from memory).
  it('is the device’s highest voltage within a programmable range', () => {
    expect(taken({ label: '5V⎓3A 9V⎓2A PPS 3.3-11V⎓3A' }, { deliveryVolts: 9, programmableVolts: 10, inputLimit: 40 })).toMatchObject({
      volts: 10,
      amps: 3,
      by: 'PPS',
    });
    expect(taken({ label: '5V⎓3A 9V⎓2A PPS 3.3-11V⎓3A' }, { deliveryVolts: 9, inputLimit: 40 })).toMatchObject({ volts: 9, by: 'PD' });
  });

  // Qi (from memory): baseline 5 W, extended 15 W, magnetic 15 W.
  it('is on a pad the best profile both know', () => {
    const pad = charger(15, { connector: 'pad', label: '15W magnetic' });
    const watts = (wireless: Device['wireless']) =>
      negotiate({ device: device({ connectors: ['USB-C', 'wireless'], wireless }), charger: pad }).watts;
    expect([watts(['magnetic', 'baseline']), watts(['extended', 'baseline']), watts(['baseline'])]).toEqual([15, 5, 5]);
  });

  it('is nothing where plugs or barrel voltages differ', () => {
    const brick = charger(65, { connector: 'DC barrel', label: '19V⎓3.42A' });
    const laptop = device({ connectors: ['DC barrel'], barrelVolts: 19.5, inputLimit: 65 });
    expect(negotiate({ device: laptop, charger: brick }).watts).toBeCloseTo(64.98, 9);
    expect(negotiate({ device: { ...laptop, barrelVolts: 12 }, charger: brick }).outcome).toBe('does not fit');
    expect(negotiate({ device: device(), charger: charger(30), cable: cable({ chargerEnd: 'USB-A' }) }).outcome).toBe('does not fit');
    expect(explain(negotiate({ device: device(), charger: brick }))).toMatch(/does not go together/);
  });
});

describe('cables', () => {
  // USB PD R3.x, USB Type-C R2.x (from memory): without marker 3 A; 20 V over 3 A needs 5 A; 28 V and more need a marked 240 W cable.
  it('cap at 3 A without a marker, at 5 A with one, and reach over 20 V only when marked for 240 W', () => {
    const laptop = device({ inputLimit: 140, deliveryVolts: 28 });
    const brick = charger(140, { label: `${FULL} 28V⎓5A` });
    const watts = (marker: Cable['marker']) => negotiate({ device: laptop, charger: brick, cable: cable({ marker }) });
    expect([watts('none'), watts('3 A'), watts('5 A'), watts('240 W')].map((each) => each.watts)).toEqual([60, 60, 100, 140]);
    expect([watts('none'), watts('240 W')].map(({ limit }) => limit)).toEqual(['cable', 'device']);
  });

  // Common practice, no source: proprietary fast charging needs its own charger and its own cable, else it falls back, often to 5 V.
  it('of another family let fast charging fall back', () => {
    const own = charger(40, { label: '5V⎓2A; Swiftreed: 10V⎓4A' });
    const phone = device({ families: ['Swiftreed'], inputLimit: 40 });
    expect(negotiate({ device: phone, charger: own, cable: cable({ family: 'Swiftreed' }) })).toMatchObject({
      watts: 40,
      volts: 10,
      limit: 'device',
    });
    expect(negotiate({ device: phone, charger: own, cable: cable() })).toMatchObject({ volts: 5, limit: 'cable' });
    const other = negotiate({ device: { ...phone, deliveryVolts: 9 }, charger: charger(65, { label: FULL }) });
    expect(other).toMatchObject({ volts: 9, limit: 'mismatch' });
    expect(explain(other)).toMatch(/share no faster signalling/);
  });
});

describe('what limits it', () => {
  it('is the device once the charger gives all it takes, and says that a bigger one changes nothing', () => {
    const phone = device({ inputLimit: 25, deliveryVolts: 9 });
    expect(explain(negotiate({ device: phone, charger: charger(30, { label: FULL }) }))).toBe(
      '9 V × 2.78 A = 25 W by Power Delivery. Sedge 5 is the limit: a bigger charger changes nothing.',
    );
    expect(negotiate({ device: phone, charger: charger(20, { label: '5V⎓3A 9V⎓2.22A' }) }).limit).toBe('charger');
  });

  it('is not said to be the device alone where a programmable supply would give it more', () => {
    const phone = device({ inputLimit: 45, deliveryVolts: 9, programmableVolts: 11 });
    const found = negotiate({ device: phone, charger: charger(65, { label: FULL }), cable: cable({ marker: '5 A' }) });
    expect(found.watts).toBe(27);
    expect(found.better).toEqual({ watts: 45, by: 'PPS' });
    expect(explain(found)).not.toContain('changes nothing');
    expect(explain(found)).toContain('would give it 45 W');
  });

  // Common practice, no source: a phone asks for 9 V, a laptop for 20.
  it('names, of voltages that serve alike, the one a device would take', () => {
    const small = { inputLimit: 15, deliveryVolts: 20 };
    expect(negotiate({ device: device(small), charger: charger(45, { label: FULL }) })).toMatchObject({ volts: 9, watts: 15 });
    expect(negotiate({ device: device({ ...small, kind: 'laptop' }), charger: charger(45, { label: FULL }) })).toMatchObject({ volts: 20 });
  });

  // Labels print a little more than the nominal voltage (common practice, no source).
  it('takes voltages a little off nominal for what they stand for', () => {
    const laptop = device({ name: 'Teasel 14', kind: 'laptop', inputLimit: 87, deliveryVolts: 20 });
    const off = charger(87, { label: '20.2V⎓4.3A 9V⎓3A 5.2V⎓2.4A' });
    expect(negotiate({ device: laptop, charger: off, cable: cable({ marker: '5 A' }) })).toMatchObject({ by: 'PD', volts: 20.2 });
    expect(
      negotiate({ device: device({ deliveryVolts: 0, chargingPort: true, typeCAmps: 1.5 }), charger: charger(12, { label: '5.2V⎓2.4A' }) })
        .watts,
    ).toBeGreaterThan(7);
  });

  it('tells an under-powered laptop from one that charges', () => {
    const laptop = device({ name: 'Teasel 14', kind: 'laptop', inputLimit: 65, deliveryVolts: 20, leastWatts: 20, awakeWatts: 30 });
    const row = [18, 30, 65, 100].map((watts) => expectationOf(laptop, charger(watts), cable({ marker: '5 A' })));
    expect(row.map(({ negotiated }) => negotiated.outcome)).toEqual([
      'connected, will not charge',
      'charges only asleep',
      'charges',
      'charges',
    ]);
    expect(lessons(row)).toEqual([
      'Above 65 W nothing changes for Teasel 14: Quern 65 and Quern 100 will tie.',
      'Quern 30 will not charge Teasel 14 awake.',
      'Teasel 14 will connect to Quern 18 and not charge.',
    ]);
  });

  it('names what it had to assume', () => {
    expect(explain(negotiate({ device: { id: 'd', name: 'Sedge 5', kind: 'phone', inputLimit: 25 }, charger: charger(20) }))).toMatch(
      /Taken to be as usual.*USB-C.*PD up to 9 V.*least its rating asks/,
    );
  });
});

// Common practice, no source: a power source shared by two ports gives each less.
it('gives a shared port what the rule says, and without one an even share', () => {
  const twin = charger(
    65,
    {},
    {
      ports: [
        { name: 'C1', connector: 'USB-C', label: FULL },
        { name: 'C2', connector: 'USB-C', label: FULL },
      ],
      sharing: 'C1+C2: 45+20',
    },
  );
  expect([shareOf(twin, 0), shareOf(twin, 0, [0, 1]), shareOf(twin, 1, [0, 1])]).toMatchObject([
    { watts: 65 },
    { watts: 45 },
    { watts: 20 },
  ]);
  expect(shareOf({ ...twin, sharing: undefined }, 0, [0, 1])).toEqual({ watts: 32.5, assumed: true });
  expect(negotiate({ device: everything, charger: twin, port: 1, inUse: [0, 1] }).watts).toBe(20);
});

it('points out a label that contradicts itself, its rating, its tester or the cable it needs', () => {
  const remarks = portRemarks({ connector: 'USB-C', label: '5V⎓3A 20V⎓5A', probed: '5V⎓3A 20V⎓5A 9V⎓3A' }, { watts: 65 });
  expect(remarks).toEqual([
    'Found by the tester, but not printed: 9V⎓3A.',
    '20V⎓5A is 100 W, more than the 65 W it is rated.',
    'A 65 W supply must offer 15 V by the rules of Power Delivery; the label shows none.',
    'Over 3 A needs a cable marked for 5 A.',
  ]);
});

// USB Power Delivery R3.x, PPS (from memory): 5 V prog 3.3–5.9 V, 9 V prog 3.3–11 V, 15 V prog 3.3–16 V, 20 V prog 3.3–21 V.
it('points out a programmable range that PPS does not allow', () => {
  const remarks = (label: string) =>
    portRemarks({ connector: 'USB-C', label: `5V⎓3A ${label}` }, { watts: 100 }).filter((each) => each.includes('outside'));
  for (const sound of ['3.3-5.9V⎓3A', '3.3-11V⎓3A', '3.3-16V⎓3A', '3.3-21V⎓3A']) expect(remarks(`PPS ${sound}`)).toEqual([]);
  expect(remarks('PPS 3.3-22V⎓3A')).toHaveLength(1);
  expect(remarks('PPS 3-11V⎓3A')).toHaveLength(1);
});

const volts = fc.constantFrom(5, 9, 12, 15, 20, 28);
const offer = fc.record({ volts, amps: fc.integer({ min: 1, max: 50 }).map((tenths) => tenths / 10) });
const label = fc.array(offer, { maxLength: 5 }).map((offers) => offers.map((each) => `${each.volts}V⎓${each.amps}A`).join(' '));
const anyDevice = fc.record({
  inputLimit: fc.option(fc.integer({ min: 5, max: 140 }), { nil: undefined }),
  deliveryVolts: fc.option(volts, { nil: undefined }),
  programmableVolts: fc.option(fc.constantFrom(11, 21), { nil: undefined }),
  families: fc.subarray(['2.1 A', '2.4 A']),
});
const connector = fc.constantFrom<('USB-C' | 'USB-A')[]>('USB-C', 'USB-A');
const marker = fc.constantFrom<Cable['marker'][]>('none', '3 A', '5 A', '240 W');

describe('expected watts, whatever the gear', () => {
  it('never exceed the charger, the cable, the device or the standard', () => {
    fc.assert(
      fc.property(anyDevice, fc.integer({ min: 5, max: 140 }), label, connector, marker, (rest, watts, text, plug, mark) => {
        const found = negotiate({
          device: device(rest),
          charger: charger(watts, { connector: plug, label: text }),
          cable: cable({ chargerEnd: plug, marker: mark }),
        });
        expect(found.watts).toBeLessThanOrEqual(Math.min(watts, rest.inputLimit ?? Infinity) + 1e-9);
        expect(found.amps ?? 0).toBeLessThanOrEqual((mark === '5 A' || mark === '240 W' ? 5 : 3) + 1e-9);
        if (found.by === 'BC 1.2') expect(found.amps).toBeLessThanOrEqual(1.5 + 1e-9);
        if ((found.volts ?? 0) > 20) expect(mark === '240 W' || found.by === 'PPS').toBe(true);
      }),
    );
  });

  it('are never lowered by one offer more, or by a better marked cable', () => {
    const markers: Cable['marker'][] = ['none', '3 A', '5 A', '240 W'];
    fc.assert(
      fc.property(anyDevice, label, offer, connector, marker, (rest, text, extra, plug, mark) => {
        const watts = (labelled: string, marked: Cable['marker']) =>
          negotiate({
            device: device(rest),
            charger: charger(140, { connector: plug, label: labelled }),
            cable: cable({ chargerEnd: plug, marker: marked }),
          }).watts;
        fc.pre(text !== '');
        expect(watts(`${text} ${extra.volts}V⎓${extra.amps}A`, mark)).toBeGreaterThanOrEqual(watts(text, mark) - 1e-9);
        const better = markers[Math.min(3, markers.indexOf(mark) + 1)] ?? mark;
        expect(watts(text, better)).toBeGreaterThanOrEqual(watts(text, mark) - 1e-9);
      }),
    );
  });
});

describe('a source that has one of its own', () => {
  const pad = (rest: Partial<Charger> = {}): Charger => ({ id: 'p', name: 'Puddle', kind: 'pad', watts: 15, ...rest });

  // Common practice, no source (checks.md): a pad takes 9 V × 1.4 A = 12.6 W from a weaker adapter, and passes on 74 to 79 %.
  it('takes what is printed on its input and what feeds it can give, and passes on a part of that', () => {
    const fed = feedOf(pad({ input: '5V⎓2A 9V⎓1.4A' }), { charger: charger(20, { label: '5V⎓3A 9V⎓2.22A' }) });
    expect(fed.watts).toBeCloseTo(12.6, 6);
    expect(fed.passes / fed.watts).toBeGreaterThan(0.73);
    expect(fed.passes / fed.watts).toBeLessThan(0.8);
    const phone = device({ connectors: ['USB-C', 'wireless'], wireless: ['extended'], wirelessLimit: 15 });
    const negotiated = negotiate({ device: phone, charger: pad(), fed });
    expect(negotiated).toMatchObject({ limit: 'feed', watts: fed.passes });
    expect(explain(negotiated)).toContain('Puddle draws 12.6 W from Quern 20.');
  });

  it('is not held back by one that gives enough, and falls to 5 V on one that gives no more', () => {
    const phone = device({ connectors: ['wireless'], wireless: ['extended'], wirelessLimit: 15 });
    const by = (watts: number, label: string) =>
      negotiate({ device: phone, charger: pad(), fed: feedOf(pad(), { charger: charger(watts, { label }) }) });
    expect(by(30, FULL)).toMatchObject({ watts: 15, limit: 'device' });
    // USB Type-C R2.x (from memory): a port of 2 A may say no more than 1.5 A.
    expect(by(10, '5V⎓2A').watts).toBeCloseTo(0.75 * 7.5, 6);
  });
});
