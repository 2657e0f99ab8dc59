import Papa from 'papaparse';
import { expect, it } from 'vitest';
import { compatibility } from '../compare/compatibility';
import type { Entry } from '../ink/entry';
import { exampleHeader } from '../ink/example';
import { foldRun } from '../ink/fold';
import { writeCompatibility } from './compatibilityOut';

it('writes a row for each charger and state that was tried, and no formula for a spreadsheet to run', () => {
  const { plugInAt } = exampleHeader();
  const trial = (seq: number, name: string, rest: object): Entry => ({
    ...{ kind: 'trial', seq, id: `t${seq}`, at: plugInAt + seq * 1000, written: plugInAt, state: 'awake', status: 'fast' },
    source: { charger: { id: name, name, kind: 'adapter', watts: 20 } },
    ...rest,
  });
  const run = foldRun(exampleHeader(), [
    trial(1, '=Cobble 20', { volts: 9, amps: 2, chime: true, icon: false, percent: 40 }),
    trial(2, '=Cobble 20', { state: 'asleep', status: 'refuses', remark: '-?' }),
    trial(602, '=Cobble 20', { confirms: 't1', percent: 44 }),
    trial(3, 'Puddle', { state: 'off', volts: 9.123, amps: 1.4, voltsBefore: 5, wattsOut: 9.5, wattsOutAssumed: true, celsius: 30.04 }),
  ]);
  // RFC 4180, read back by a reader of its own.
  const { data } = Papa.parse<Record<string, string>>(writeCompatibility([{ device: 'Sedge 5', rows: compatibility(run) }]), {
    header: true,
  });
  expect(data).toMatchObject([
    {
      device: 'Sedge 5',
      source: "'=Cobble 20",
      state: 'awake',
      'what it does': 'charges fast; +4 % in 10 min',
      watts: '18',
      ohms: '4.5',
      'level (%)': '40',
      'level later (%)': '44',
      chime: 'yes',
      icon: 'no',
      meter: '',
      disagree: 'chime yes, icon no',
    },
    { state: 'asleep', 'what it does': 'refuses: nothing happens', watts: '', remark: "'-?" },
    {
      source: 'Puddle',
      state: 'off',
      'volts before': '5',
      watts: '12.77',
      output: 'assumed',
      'efficiency (%)': '74',
      other: 'temperature (°C) 30.04',
    },
  ]);
  expect(data[0]?.date).toBe(new Date(plugInAt + 1000).toISOString());
});
