import { describe, expect, it } from 'vitest';
import type { Charger } from '../bench/charger';
import type { Device } from '../bench/device';
import { expectationOf, expectations, lessons } from './expectations';
import { explain } from './sentence';

const phone: Device = {
  id: 'p',
  name: 'Sedge 5',
  kind: 'phone',
  inputLimit: 25,
  connectors: ['USB-C', 'wireless'],
  deliveryVolts: 9,
  chargingPort: true,
};
const charger = (name: string, watts: number, ports: Charger['ports'], rest: Partial<Charger> = {}): Charger => ({
  id: name,
  name,
  kind: 'adapter',
  watts,
  ports,
  ...rest,
});
const twin = charger('Twin', 65, [
  { name: 'A1', connector: 'USB-A', label: '5V⎓2.4A' },
  { name: 'C1', connector: 'USB-C', label: '5V⎓3A 9V⎓3A 20V⎓3.25A' },
]);

describe('what a device has to expect of a charger', () => {
  it('is its best port, by name where there are several', () => {
    expect(expectationOf(phone, twin)).toMatchObject({ port: 1, portName: 'C1', negotiated: { watts: 25 } });
    const single = charger('One', 20, [{ connector: 'USB-C', label: '5V⎓3A 9V⎓2.22A' }]);
    expect(expectationOf(phone, single).portName).toBeUndefined();
  });

  it('is one row a device and one column a charger', () => {
    const rows = expectations([phone, { ...phone, id: 'q', name: 'Other' }], [twin]);
    expect(rows.map((row) => row.map(({ negotiated }) => negotiated.device.name))).toEqual([['Sedge 5'], ['Other']]);
    expect(lessons([])).toEqual([]);
  });

  it('teaches where the cable or a missing language holds it back, and nothing where all is plain', () => {
    const laptop: Device = { id: 'l', name: 'Teasel 14', kind: 'laptop', inputLimit: 100, connectors: ['USB-C'], deliveryVolts: 20 };
    const brick = charger('Quern 100', 100, [{ connector: 'USB-C', label: '5V⎓3A 9V⎓3A 15V⎓3A 20V⎓5A' }]);
    expect(lessons([expectationOf(laptop, brick)])).toEqual(['The cable holds Teasel 14 back on Quern 100: a better one gives more.']);
    const old = charger('Old', 12, [{ connector: 'USB-A', label: '5V⎓2.4A' }]);
    expect(lessons([expectationOf(phone, old)])[0]).toMatch(/falls back on Old/);
    expect(lessons([expectationOf(phone, charger('One', 20, [{ connector: 'USB-C', label: '5V⎓3A 9V⎓2.22A' }]))])).toEqual([]);
  });
});

describe('the sentence of a pairing', () => {
  const said = (device: Device, from: Charger) => explain(expectationOf(device, from).negotiated);

  it('names the signalling', () => {
    expect(said({ ...phone, programmableVolts: 11 }, charger('P', 33, [{ connector: 'USB-C', label: '5V⎓3A PPS 3.3-11V⎓3A' }]))).toContain(
      'by a programmable supply (PPS)',
    );
    expect(said(phone, charger('Pad', 15, [{ connector: 'pad', label: '15W' }], { kind: 'pad' }))).toContain('through the coil');
    expect(said(phone, charger('PC', 5, [{ connector: 'USB-A', data: 'USB 2.0' }], { kind: 'computer' }))).toBe(
      '5 V × 0.50 A = 2.5 W by the USB default of a data port. The standard is the limit: a data port gives no more.',
    );
    const own = charger('Sluice', 40, [{ connector: 'USB-A', label: 'Swiftreed: 10V⎓4A' }], { cableIncluded: true });
    expect(said({ ...phone, inputLimit: 40, families: ['Swiftreed'] }, own)).toContain('10 V × 4.00 A = 40 W by Swiftreed.');
  });

  it('says plainly when it will not charge, or only asleep', () => {
    const weak = charger('Cobble', 20, [{ connector: 'USB-C', label: '5V⎓3A 9V⎓2.22A' }]);
    const laptop: Device = { id: 'l', name: 'Teasel 14', kind: 'laptop', inputLimit: 65, connectors: ['USB-C'], deliveryVolts: 20 };
    expect(said({ ...laptop, leastWatts: 27 }, weak)).toContain('connected but will not charge: it needs at least 27 W.');
    expect(said({ ...laptop, awakeWatts: 24 }, weak)).toContain('awake Teasel 14 uses about 24 W itself');
  });
});
