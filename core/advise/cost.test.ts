import { expect, it } from 'vitest';
import type { Cable } from '../bench/cable';
import type { Charger } from '../bench/charger';
import { setupsOf } from '../compare/setups';
import { readRun } from '../curve/figures';
import { exampleHeader } from '../ink/example';
import { foldRun } from '../ink/fold';
import { inkOf } from '../ink/build';
import type { Header } from '../ink/entry';
import { costOfSetup, type Cost } from './cost';

const FAMILY = 'Swiftreed';
/** A phone that charges fast by a maker’s own signalling, and a charger of that maker. */
const reed = { ...exampleHeader().device, connectors: ['USB-C' as const], families: [FAMILY], inputLimit: 40 };
const own = (rest: Partial<Charger> = {}): Charger => ({
  id: 'reed',
  name: 'Reed 60',
  kind: 'adapter',
  watts: 60,
  ports: [{ connector: 'USB-C', label: `${FAMILY}: 3.6-20V⎓3A; 5V⎓2A` }],
  price: 30,
  ...rest,
});
const plain = (rest: Partial<Charger> = {}): Charger => ({ ...exampleHeader().charger, price: 19.5, ...rest });
const cable = (rest: Partial<Cable> = {}): Cable => ({
  id: 'short',
  name: 'Short cable',
  chargerEnd: 'USB-C',
  deviceEnd: 'USB-C',
  marker: 'none',
  price: 8,
  ...rest,
});

/** What a run of a header costs, with what is on the shelf by now. */
function costOf(header: Partial<Header>, shelf: { chargers?: Charger[]; cables?: Cable[] } = {}): Cost {
  const whole = exampleHeader(header);
  const [setup] = setupsOf([readRun(foldRun(whole, inkOf(whole, [{ seconds: 0, percent: 2 }])))]);
  if (!setup) throw new Error('A run is a setup.');
  return costOfSetup(setup, { devices: [], chargers: [], cables: [], ...shelf });
}

it.each<[string, Partial<Header>, number | undefined, string]>([
  ['charger and cable', { charger: plain(), cable: cable() }, 27.5, 'Cobble 20 19.50, Short cable 8'],
  ['the cable where the charger is at home', { charger: plain({ owned: true }), cable: cable() }, 8, 'Cobble 20 at home, Short cable 8'],
  [
    'the charger where the cable is at home',
    { charger: plain(), cable: cable({ owned: true }) },
    19.5,
    'Cobble 20 19.50, Short cable at home',
  ],
  ['the charger alone where its cable comes with it', { charger: plain({ cableIncluded: true }), cable: cable() }, 19.5, 'Cobble 20 19.50'],
  ['a pad, which takes no cable', { charger: plain({ kind: 'pad' }), cable: cable() }, 19.5, 'Cobble 20 19.50'],
  ['what is known of it where no cable is', { charger: plain() }, 19.5, 'Cobble 20 19.50, its cable not counted'],
  [
    'no sum where the charger has no price',
    { charger: plain({ price: undefined }), cable: cable() },
    undefined,
    'Cobble 20: no price, Short cable 8',
  ],
  [
    'no sum where the cable has no price',
    { charger: plain(), cable: cable({ price: undefined }) },
    undefined,
    'Cobble 20 19.50, Short cable: no price',
  ],
])('a setup costs %s', (_what, header, value, says) => {
  expect(costOf(header)).toEqual({ value, says });
});

it('goes by what the shelf says now, and by the run where the shelf has no such gear', () => {
  const header = { charger: plain(), cable: cable() };
  expect(costOf(header, { chargers: [plain({ price: 15 })], cables: [cable({ price: 5 })] }).value).toBe(20);
  expect(costOf(header, { chargers: [plain({ id: 'other', price: 15 })], cables: [cable({ id: 'other', price: 5 })] }).value).toBe(27.5);
});

it('names the pair that a maker’s own fast charging needs, and what both cost though one is at home', () => {
  const through = cable({ family: FAMILY, name: 'Reed cable' });
  const pair = (rest: Partial<Charger>, wire?: Partial<Cable>) =>
    costOf({ device: reed, charger: own(rest), cable: { ...through, ...wire } }).pair;
  expect(pair({})).toEqual({ family: FAMILY, value: 38, cable: 'Reed cable' });
  expect(pair({ owned: true })).toEqual({ family: FAMILY, value: 38, cable: 'Reed cable' });
  expect(pair({ price: undefined })).toEqual({ family: FAMILY, value: undefined, cable: 'Reed cable' });
  expect(pair({}, { price: undefined })).toEqual({ family: FAMILY, value: undefined, cable: 'Reed cable' });
  // With the cable in its box the charger is the pair.
  expect(pair({ cableIncluded: true })).toEqual({ family: FAMILY, value: 30, cable: undefined });
});

it('finds no pair in what charges by a standard, nor by an old port of 2.4 A', () => {
  const standard = { device: reed, charger: plain({ ports: [{ connector: 'USB-C', label: '5V⎓3A 9V⎓3A' }] }), cable: cable() };
  expect(costOf(standard).pair).toBeUndefined();
  const old = plain({ ports: [{ connector: 'USB-A', label: '5V/2.4A' }], cableIncluded: true });
  expect(costOf({ device: { ...reed, families: ['2.4 A'] }, charger: old }).pair).toBeUndefined();
});
