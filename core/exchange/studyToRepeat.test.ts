import { expect, it } from 'vitest';
import { cellsOf, studySchema, studySetupsOf } from '../plan';
import { STUDIES } from '../../demo/finished';
import { CABLES, CHARGERS, DEVICES, METERS } from '../../demo/saltmarsh';
import { NOTHING_ELSE } from './logbook';
import { studyIn, studyRepeated, studyToRepeat } from './studyToRepeat';

const whole = { ...NOTHING_ELSE, devices: DEVICES, chargers: CHARGERS, cables: CABLES, meters: METERS, studies: STUDIES };

it('a study leaves with just the gear that it names, and comes to the same matrix on gear that stands in for it', () => {
  for (const study of STUDIES) {
    const out = studyToRepeat(study, whole);
    expect(studyIn(out, [])?.id).toBe(study.id);
    expect(studyIn(out, ['a run'])).toBeUndefined();
    expect(out.devices.map(({ id }) => id).sort()).toEqual([...study.devices].sort());
    const [device] = study.devices;
    const [charger] = study.chargers;
    const [crossed] = cellsOf(study);
    const here = studyRepeated(
      { ...out, studies: [{ ...study, crossed: [{ cell: crossed?.key ?? '', reason: 'not there' }] }] },
      { [device ?? '']: 'my-device', [charger ?? '']: 'my-charger' },
      'mine',
    );
    const [repeated] = here.studies;
    if (!repeated) throw new Error('There is no study.');
    expect(studySchema.isValidSync(repeated)).toBe(true);
    expect([repeated.id, repeated.devices[0], repeated.chargers[0]]).toEqual(['mine', 'my-device', 'my-charger']);
    expect(here.devices.some(({ id }) => id === device)).toBe(false);
    expect(cellsOf(repeated)).toHaveLength(cellsOf(study).length);
    // What was left out of the matrix still is.
    expect(cellsOf(repeated).filter(({ reason }) => reason === 'not there')).toHaveLength(1);
  }
});

it('a study that is repeated has the setups of the one it was made of', () => {
  for (const study of STUDIES) {
    const out = studyToRepeat(study, whole);
    const [repeated] = studyRepeated(out, {}, 'mine').studies;
    if (!repeated) throw new Error('There is no study.');
    // Where a study names no cable, each run takes one that fits: of all that are there.
    const said = (setups: ReturnType<typeof studySetupsOf>) => setups.map(({ expected }) => JSON.stringify(expected));
    expect(said(studySetupsOf(repeated, { ...out, cables: CABLES }))).toEqual(said(studySetupsOf(study, whole)));
  }
});
