import fc from 'fast-check';
import { expect, it } from 'vitest';
import type { Kept } from '../bench/shelf';
import { readGearCsv, shelved, writeGearCsv } from './gearCsv';
import { ImportError } from './importError';

const SHELF: Kept[] = [
  {
    shelf: 'device',
    gear: {
      id: 'd',
      name: '=Sedge, 5',
      kind: 'phone',
      milliampHours: 4500,
      nominalVolts: 3.85,
      connectors: ['USB-C', 'wireless'],
      families: ['2.4 A'],
      chargingPort: false,
    },
  },
  {
    shelf: 'charger',
    gear: {
      id: 'c',
      name: 'Quern 65',
      kind: 'adapter',
      watts: 65,
      ports: [
        { name: 'C1', connector: 'USB-C', label: '5V⎓3A 20V⎓3.25A', probed: '5V⎓3A' },
        { connector: 'USB-A', data: 'USB 3.2 two-lane' },
      ],
      sharing: 'C1+port 2: 45+15',
      traits: ['folding pins', 'light'],
      retired: true,
    },
  },
  { shelf: 'cable', gear: { id: 'l', name: 'short', chargerEnd: 'USB-C', deviceEnd: 'own plug', marker: '5 A', length: 0.5 } },
  { shelf: 'meter', gear: { id: 'm', name: 'in-line', voltsResolution: 0.01, accuracyPercent: 0.5, accuracyDigits: 2 } },
];

it('brings gear of every shelf back from CSV as it went out, but for its id', () => {
  const { gear, refused, ignored } = readGearCsv(writeGearCsv(SHELF), 'gear.csv');
  expect(refused).toEqual([]);
  expect(ignored).toEqual([]);
  expect(gear.map((each) => ({ ...each, gear: { ...each.gear, id: '' } }))).toEqual(
    SHELF.map((each) => ({ ...each, gear: { ...each.gear, id: '' }, links: [] })),
  );
});

it('names other gear by its name, and finds it on the shelf where it is put', () => {
  const pad: Kept = {
    shelf: 'charger',
    gear: { id: 'p', name: 'Puddle', kind: 'pad', watts: 15, fedBy: 'c', fedThrough: 'l', owned: true },
  };
  const { gear } = readGearCsv(writeGearCsv([...SHELF, pad]), 'gear.csv');
  const ids: Readonly<Record<string, string>> = { 'charger/Puddle': 'new', 'charger/Quern 65': 'here' };
  const [put] = shelved([...gear].reverse(), (shelf, name) => ids[`${shelf}/${name}`]);
  expect(put?.gear).toEqual({ ...pad.gear, id: 'new', fedBy: 'here', fedThrough: undefined });
});

it('refuses each bad row by its place, and keeps the others', () => {
  const csv = [
    'shelf,name,kind,watts (w),ports,colour,battery energy (wh)',
    'charger,Cobble,adapter,20,(USB-C) 5V⎓3A,grey,',
    'charger,Pebble,adapter,0,,,',
    'toaster,Crumb,adapter,20,,,',
    'charger,Cobble,adapter,12,,,',
    'device,Sedge,phone,,,,twelve',
    'device,Reed,phone',
    'charger,Boulder,adapter,65,C1 5V⎓3A,,',
    'device,Curlew,camera,,,,14',
  ].join('\n');
  const { gear, refused, ignored } = readGearCsv(csv, 'van.csv');
  expect(gear.map((each) => each.gear.name)).toEqual(['Cobble', 'Curlew']);
  expect(ignored).toEqual(['colour']);
  expect(refused).toEqual([
    'Row 3 of van.csv: column “watts (w)”: Must be more than 0 W, or left empty if unknown.',
    'Row 4 of van.csv: “toaster” is no shelf. Write device, charger, cable or meter in column “shelf”.',
    'Row 5 of van.csv: a charger called Cobble stands in an earlier row. Give it another name.',
    expect.stringContaining('Row 6 of van.csv: column “battery energy (wh)”: Write a number of Wh'),
    'Row 7 of van.csv: it has 3 columns where the heading has 7. Mend the row.',
    'Row 8 of van.csv: “C1 5V⎓3A” is not a port. Write it as C1 (USB-C) 5V⎓3A.',
  ]);
});

it.each([
  ['a\0b', /not a text file/],
  ['name,watts\nx,1', /heads no column “shelf”/],
  ['shelf,name', /heading but no rows/],
])('refuses %j as a whole', (text, sentence) => {
  expect(() => readGearCsv(text, 'van.csv')).toThrow(sentence);
  expect(() => readGearCsv(text, 'van.csv')).toThrow(ImportError);
});

it('brings any sound device or charger back as it went out', () => {
  const text = fc.stringMatching(/^[\p{L}\d][\p{L}\d ,;"'=+@-]{0,20}$/u).map((each) => each.trim());
  const size = fc.integer({ min: 1, max: 9999 }).map((tenths) => tenths / 10);
  const device = fc.record(
    {
      id: fc.constant('x'),
      name: text.filter((each) => each !== ''),
      kind: fc.constantFrom('phone' as const, 'camera' as const),
      wattHours: size,
      inputLimit: size,
      price: size,
      chargingPort: fc.boolean(),
      connectors: fc.subarray(['USB-C', 'wireless', 'bay'] as const, { minLength: 1 }),
    },
    { requiredKeys: ['id', 'name', 'kind'] },
  );
  fc.assert(
    fc.property(fc.uniqueArray(device, { selector: ({ name }) => name, maxLength: 6, minLength: 1 }), (devices) => {
      const kept = devices.map((gear): Kept => ({
        shelf: 'device',
        gear: { ...gear, connectors: gear.connectors && [...gear.connectors] },
      }));
      const { gear, refused } = readGearCsv(writeGearCsv(kept), 'gear.csv');
      expect(refused).toEqual([]);
      expect(gear.map((each) => ({ ...each.gear, id: 'x' }))).toEqual(devices);
    }),
  );
});
