import { expect, it } from 'vitest';
import { batteryOf } from './battery';
import { chargerSchema, deviceSchema } from './gear';

const device = { id: 'd', name: 'Sedge 5', kind: 'phone' as const };
const charger = { id: 'c', name: 'Quern 30', kind: 'adapter' as const, watts: 30 };
const complaint = (schema: typeof deviceSchema | typeof chargerSchema, given: object): string => {
  try {
    schema.validateSync(given);
    return '';
  } catch (error) {
    return (error as Error).message;
  }
};

it('takes a battery by mAh and volts, by Wh, or not at all', () => {
  expect(batteryOf(deviceSchema.validateSync({ ...device, milliampHours: 4000, nominalVolts: 3.85 }))).toBeCloseTo(15.4, 10);
  expect(batteryOf(deviceSchema.validateSync({ ...device, wattHours: 52 }))).toBe(52);
  expect(batteryOf(deviceSchema.validateSync({ ...device, wattHours: '' }))).toBeUndefined();
});

it('says what is missing or cannot be, field by field', () => {
  expect(complaint(deviceSchema, { ...device, name: '  ' })).toMatch(/Give it a name/);
  expect(complaint(deviceSchema, { ...device, milliampHours: 4000 })).toMatch(/nominal volts too/);
  expect(complaint(deviceSchema, { ...device, wattHours: 0 })).toMatch(/more than 0 Wh/);
  expect(complaint(deviceSchema, { ...device, inputLimit: 'lots' })).toMatch(/Write a number of W/);
  expect(complaint(chargerSchema, { ...charger, watts: undefined })).toMatch(/Give its watts/);
  expect(complaint(chargerSchema, { ...charger, price: -1 })).toMatch(/cannot be below zero/);
  expect(complaint(chargerSchema, charger)).toBe('');
});
