import { describe, expect, it } from 'vitest';
import type { Schema } from 'yup';
import { batteryDoubt, batteryFacts, batteryOf } from './battery';
import { cableSchema } from './cable';
import { chargerSchema } from './charger';
import { portsOf } from './ports';
import { deviceSchema } from './device';
import { meterSchema } from './meter';
import { readSharing } from './sharing';

const device = { id: 'd', name: 'Sedge 5', kind: 'phone' as const };
const charger = { id: 'c', name: 'Quern 30', kind: 'adapter' as const, watts: 30 };
const cable = { id: 'l', name: 'short', chargerEnd: 'USB-C' as const, deviceEnd: 'USB-C' as const, marker: 'none' as const };
const complaint = (schema: Schema, given: object): string => {
  try {
    schema.validateSync(given);
    return '';
  } catch (error) {
    return (error as Error).message;
  }
};

describe('a battery', () => {
  it('is known by mAh and volts, by Wh, or not at all, and each is derived from the other', () => {
    expect(batteryOf(deviceSchema.validateSync({ ...device, milliampHours: 4000, nominalVolts: 3.85 }))).toBeCloseTo(15.4, 10);
    expect(batteryOf(deviceSchema.validateSync({ ...device, wattHours: 52, health: 85 }))).toBeCloseTo(44.2, 10);
    expect(batteryOf(deviceSchema.validateSync({ ...device, wattHours: '' }))).toBeUndefined();
    expect(batteryFacts({ wattHours: 15.4, nominalVolts: 3.85 }).milliampHours).toBeCloseTo(4000, 6);
    expect(batteryFacts({ wattHours: 15.4, milliampHours: 4000 }).nominalVolts).toBeCloseTo(3.85, 6);
  });

  it('is pointed out when charge and energy disagree by over 3 %', () => {
    expect(batteryDoubt({ milliampHours: 4000, nominalVolts: 3.85, wattHours: 15.8 })).toBeUndefined();
    expect(batteryDoubt({ milliampHours: 4000, nominalVolts: 3.85, wattHours: 17 })).toMatch(/is 15.4 Wh, not 17 Wh/);
  });
});

describe('gear that contradicts itself', () => {
  it.each([
    [deviceSchema, { ...device, name: '  ' }, /Give it a name/],
    [deviceSchema, { ...device, milliampHours: 4000 }, /nominal volts too/],
    [deviceSchema, { ...device, wattHours: 0 }, /more than 0 Wh/],
    [deviceSchema, { ...device, inputLimit: 'lots' }, /Write a number of W/],
    [deviceSchema, { ...device, inputLimit: 20, leastWatts: 30 }, /cannot need more than the 20 W/],
    [deviceSchema, { ...device, deliveryVolts: 7 }, /Power Delivery gives/],
    [chargerSchema, { ...charger, watts: 0 }, /more than 0 W/],
    [chargerSchema, { ...charger, price: -1 }, /cannot be below zero/],
    [
      chargerSchema,
      {
        ...charger,
        ports: [
          { connector: 'USB-C', name: 'C1' },
          { connector: 'USB-C', name: 'C1' },
        ],
      },
      /Two ports are called C1/,
    ],
    [chargerSchema, { ...charger, ports: [{ connector: 'USB-C', name: 'C1' }], sharing: 'C1+C2: 15+15' }, /no port called C2/],
    [cableSchema, { ...cable, chargerEnd: 'USB-A', marker: '5 A' }, /Only a cable with USB-C/],
    [meterSchema, { id: 'm', name: 'm', accuracyPercent: 50 }, /no meter/],
  ])('is refused at its field', (schema, given, sentence) => {
    expect(complaint(schema, given)).toMatch(sentence);
  });

  it('takes a field that was cleared for one that is unknown', () => {
    const cleared = { ...device, display: null, connectors: [], families: [], inputLimit: '', price: null };
    expect(deviceSchema.cast(cleared, { assert: false })).toEqual({ ...device });
    expect(complaint(deviceSchema, cleared)).toBe('');
    expect(complaint(deviceSchema, { ...device, kind: null })).toMatch(/Choose what kind/);
    expect(complaint(deviceSchema, { ...device, connectors: ['gold'] })).toMatch(/Choose connectors/);
  });

  it('leaves sound gear alone', () => {
    for (const [schema, given] of [
      [chargerSchema, charger],
      [cableSchema, cable],
      [deviceSchema, device],
      [meterSchema, { id: 'm', name: 'm' }],
    ] as const)
      expect(complaint(schema, given)).toBe('');
  });
});

it('gives a charger whose ports nobody wrote down one that suits its kind', () => {
  expect(portsOf(charger)).toEqual([{ connector: 'USB-C' }]);
  expect(portsOf({ ...charger, kind: 'pad' })).toEqual([{ connector: 'pad' }]);
});

it('reads rules for shared ports, and says what is wrong with the others', () => {
  const { rules, errors } = readSharing('C1+C2: 45+20; C1+A1: 45\nX: 5', ['C1', 'C2', 'A1']);
  expect(rules).toEqual([{ ports: ['C1', 'C2'], watts: [45, 20] }]);
  expect(errors).toEqual([expect.stringContaining('give watts for each of its 2 ports'), expect.stringContaining('no port called X')]);
});
