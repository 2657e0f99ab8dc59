import { expect, it } from 'vitest';
import type { Kept } from '@core/bench';
import { SHELF_COLUMNS } from './columns';

const shown = (kept: Kept) => SHELF_COLUMNS[kept.shelf].map(({ shows }) => shows(kept));

it('shows of each piece of gear what tells it from its neighbours', () => {
  const gear: [Kept, string[]][] = [
    [
      {
        shelf: 'device',
        gear: {
          id: 'd',
          name: 'Sedge 5',
          kind: 'phone',
          wattHours: 17,
          health: 90,
          inputLimit: 25,
          deliveryVolts: 9,
          families: ['2.4 A'],
          connectors: ['USB-C', 'bay'],
        },
      },
      ['15.3 Wh', '25 W', 'PD 9 V · 2.4 A · bay', '—'],
    ],
    [
      {
        shelf: 'charger',
        gear: {
          id: 'c',
          name: 'Quern 30',
          kind: 'adapter',
          watts: 30,
          ports: [
            { name: 'C1', connector: 'USB-C', label: 'OUT 5V=3A' },
            { connector: 'USB-A', data: 'USB 2.0' },
          ],
          price: 34,
        },
      },
      ['30 W', 'C1 5V⎓3A · USB-A USB 2.0', '—', '34'],
    ],
    [
      {
        shelf: 'cable',
        gear: { id: 'l', name: 'short', chargerEnd: 'USB-C', deviceEnd: 'USB-C', marker: '5 A', family: 'Swiftreed', length: 0.5 },
      },
      ['USB-C to USB-C', '5 A, Swiftreed', '0.5 m', '—'],
    ],
    [
      { shelf: 'meter', gear: { id: 'm', name: 'Tidepole', voltsResolution: 0.01, accuracyPercent: 0.5, accuracyDigits: 2, interval: 1 } },
      ['0.010 V, —', '± 0.5 % ± 2 digits', '1 s'],
    ],
  ];
  for (const [kept, cells] of gear) expect(shown(kept)).toEqual(cells);
});

it('sorts what is unknown behind what is known', () => {
  const [battery] = SHELF_COLUMNS.device;
  const sorts = (wattHours?: number) => battery?.sorts?.({ shelf: 'device', gear: { id: 'd', name: 'd', kind: 'phone', wattHours } });
  expect([sorts(31), sorts(17), sorts()].sort((one, other) => Number(one) - Number(other))).toEqual([17, 31, Infinity]);
});
