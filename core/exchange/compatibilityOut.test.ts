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
  ]);
  // RFC 4180, read back by a reader of its own.
  const { data } = Papa.parse<Record<string, string>>(writeCompatibility(compatibility(run)), { header: true });
  expect(data).toMatchObject([
    {
      charger: "'=Cobble 20",
      device: 'awake',
      'what it does': 'charges fast',
      watts: '18',
      'level (%)': '40',
      chime: 'yes',
      icon: 'no',
      meter: '',
      disagree: 'chime yes, icon no',
    },
    { device: 'asleep', 'what it does': 'refuses: nothing happens', watts: '', remark: "'-?" },
  ]);
});
