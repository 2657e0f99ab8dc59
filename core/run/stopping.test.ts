import { describe, expect, it } from 'vitest';
import { inkOf, type Jotted } from '../ink/build';
import type { Entry, Header } from '../ink/entry';
import { exampleHeader } from '../ink/example';
import { foldRun } from '../ink/fold';
import { SCHOOLS } from '../method/schools';
import { endingShown, missing, stillReadable, stopOffer } from './stopping';

const by = (id: string, changes: Partial<Header> = {}) => {
  const school = SCHOOLS.find((each) => each.id === id);
  return exampleHeader({ method: id, cadence: school?.cadence, ...changes });
};
const run = (header: Header, jotted: Jotted[], more: Entry[] = []) => foldRun(header, [...inkOf(header, jotted), ...more]);
const minutes = (at: number, rest: Omit<Jotted, 'seconds'>): Jotted => ({ seconds: at * 60, ...rest });

describe('the stop, by the rule of the method', () => {
  it('comes when the display shows 100, but for a logged run not before power has died away', () => {
    const full = [minutes(0, { percent: 80 }), minutes(20, { percent: 100, watts: 6 })];
    expect(stopOffer(run(by('fixed-interval'), full), 1200)).toEqual({ because: 'full', says: 'the display shows 100 %' });
    const logged = by('instrumented-log');
    expect(stopOffer(run(logged, full), 1200)).toBeUndefined();
    const died = [...full, minutes(40, { watts: 0.2 }), minutes(44, { watts: 0.1 })];
    expect(stopOffer(run(logged, died), 2640)).toBeUndefined();
    expect(stopOffer(run(logged, [...died, minutes(46, { watts: 0.1 })]), 2760)).toMatchObject({
      because: 'power died away',
      says: 'power has died away since 40 min',
    });
  });

  it('comes when the window is over, once its last check was read or has gone by', () => {
    const topUp = by('top-up-window');
    expect(stopOffer(run(topUp, [minutes(30, { percent: 40 })]), 1790)).toBeUndefined();
    expect(stopOffer(run(topUp, [minutes(30, { percent: 40 })]), 1801)?.because).toBe('window over');
    expect(stopOffer(run(topUp, []), 1830)).toBeUndefined();
    expect(stopOffer(run(topUp, []), 1930)?.because).toBe('window over');
  });

  it('comes when the workload of a load test has ended, unless another has begun', () => {
    const load = by('load-test');
    const work = (event: 'work started' | 'work ended', seq: number): Entry => ({
      ...{ kind: 'event', seq, id: `w${seq}`, written: 0, event, remark: 'render' },
      at: load.plugInAt + seq * 60_000,
    });
    const begun = [work('work started', 2)];
    expect(stopOffer(run(load, [], begun), 200)).toBeUndefined();
    expect(stopOffer(run(load, [], [...begun, work('work ended', 9)]), 600)?.says).toBe('the workload has ended');
    expect(stopOffer(run(load, [], [...begun, work('work ended', 9), work('work started', 10)]), 700)).toBeUndefined();
  });

  // Common practice, no source: a camera shows no percentage; its light goes out, or its current falls away.
  it('comes when the light goes out or the current is spent, for a device that shows no percentage', () => {
    const camera = by('fixed-interval', { device: { id: 'c', name: 'Curlew', kind: 'camera', display: 'light' } });
    const light = (event: 'light on' | 'light off', seq: number, at: number): Entry => ({
      ...{ kind: 'event', seq, id: `l${seq}`, written: 0, event },
      at: camera.plugInAt + at * 60_000,
    });
    const lit = [light('light on', 8, 1), light('light off', 9, 206)];
    expect(stopOffer(run(camera, [minutes(10, { amps: 0.5 })], lit), 206 * 60)).toEqual({
      because: 'light out',
      says: 'the light went out at 3 h 26',
    });
    expect(stopOffer(run(camera, [minutes(10, { amps: 0.5 }), minutes(120, { amps: 0.02 })]), 7200)?.because).toBe('power died away');
    expect(stopOffer(run(camera, [minutes(10, { amps: 0.5 })]), 7200)).toBeUndefined();
    expect(missing(run(camera, [minutes(5, {}), minutes(10, { amps: 0.5 })]), 620)).toEqual([]);
  });

  // Common practice, no source: a pad run stuck at 81 % after 18 hours.
  it('says that a run will not finish once it has gained nothing for an hour', () => {
    const stuck = [0, 30, 60, 90, 120].map((at) => minutes(at, { percent: at < 30 ? 70 : 81 }));
    expect(stopOffer(run(by('fixed-interval', { cadence: { kind: 'fixed', every: 1800 } }), stuck), 7200)).toEqual({
      because: 'will not finish',
      says: 'no gain for 1 h 30',
    });
  });
});

it('takes as long for a stall as its method says', () => {
  const stuck = [0, 10, 20, 30].map((at) => minutes(at, { percent: 60 }));
  const patient = by('fixed-interval', { rule: { ends: 'full', wants: ['level'], stall: 1200 } });
  expect(stopOffer(run(patient, stuck), 1800)?.says).toBe('no gain for 30 min');
  expect(stopOffer(run(by('fixed-interval'), stuck), 1800)).toBeUndefined();
});

describe('what a run lacks', () => {
  it('names checks without a reading, and figures that were not read at them', () => {
    const logged = run(by('instrumented-log'), [
      minutes(10, { percent: 20, celsius: 31 }),
      minutes(20, { percent: 32 }),
      minutes(40, { backCelsius: 33 }),
    ]);
    expect(missing(logged, 2500)).toEqual([
      'no reading at 30 min',
      'no level at plug-in',
      'no level at 40 min',
      'no temperature at 20 min',
    ]);
  });

  it('wants the Wh at both ends of an energy sample, and counts what is too much to list', () => {
    expect(missing(run(by('energy-sample'), [minutes(5, { wattHours: 3 })]), 310)).toEqual(['no Wh at plug-in']);
    const late = run(by('fixed-interval'), [minutes(0, { percent: 1 }), minutes(60, { percent: 50 })]);
    expect(missing(late, 3600)).toEqual(['no reading at 5 min to 55 min (11 checks)']);
  });

  it('of a run of no method wants its levels', () => {
    expect(missing(run(exampleHeader(), [minutes(0, { percent: 1 }), minutes(5, { watts: 9 })]), 300)).toEqual(['no level at 5 min']);
  });
});

describe('the sheet of a stop', () => {
  const logged = run(by('instrumented-log'), [minutes(0, { percent: 5, celsius: 24 }), minutes(10, { percent: 20 })]);

  it('offers what can still be read at the check whose time is now, and nothing that is gone', () => {
    expect(stillReadable(logged, 620)).toBe('temperature at 10 min');
    expect(stillReadable(logged, 1205)).toBe('level and temperature at 20 min');
    const read = run(by('fixed-interval'), [minutes(0, { percent: 1 }), minutes(5, { percent: 9 })]);
    expect(stillReadable(read, 310)).toBeUndefined();
    expect(stillReadable(run(exampleHeader({ cadence: undefined }), []), 310)).toBeUndefined();
  });

  it('begins with the ending that the readings show', () => {
    expect(endingShown(run(by('fixed-interval'), [minutes(0, { percent: 57 })]), 60)).toBe('other');
    expect(endingShown(run(by('instrumented-log'), [minutes(9, { percent: 100, watts: 8 })]), 560)).toBe('full');
    expect(endingShown(run(by('top-up-window'), [minutes(30, { percent: 40 })]), 1801)).toBe('window over');
  });
});
