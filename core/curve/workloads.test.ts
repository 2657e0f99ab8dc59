import { describe, expect, it } from 'vitest';
import { inkOf, type Jotted } from '../ink/build';
import type { Entry } from '../ink/entry';
import { exampleHeader } from '../ink/example';
import { foldRun } from '../ink/fold';
import { splitInWords, workloads } from './workloads';

const header = exampleHeader();
const work = (
  seq: number,
  event: 'work started' | 'work ended',
  minutes: number,
  rest: Partial<Extract<Entry, { kind: 'event' }>> = {},
): Entry => {
  const at = header.plugInAt + minutes * 60_000;
  return { kind: 'event', seq, id: `w${seq}`, at, written: at, event, ...rest };
};
const run = (jotted: Jotted[], events: Entry[]) => foldRun(header, [...inkOf(header, jotted), ...events]);

describe('a load test', () => {
  // Common practice, no source: a 60 W dock, 55 W in at idle, 29 W of it into the battery; under load 2.3 W.
  it('splits 55 W in into 29 W for the battery and 26 W for the laptop', () => {
    const fps = { name: 'frames', value: 41.5, unit: 'fps', better: 'more' as const };
    const all = workloads(
      run(
        [
          { seconds: 60, watts: 55, batteryWatts: 29 },
          { seconds: 240, watts: 55, batteryWatts: 29 },
          { seconds: 400, watts: 58, batteryWatts: 2.3 },
        ],
        [
          work(10, 'work started', 0, { remark: 'idle' }),
          work(11, 'work ended', 5, { remark: 'idle' }),
          work(12, 'work started', 6, { remark: 'graphics' }),
          work(13, 'work ended', 8, { remark: 'graphics', scores: [fps] }),
        ],
      ),
    );
    expect(all).toMatchObject([
      { name: 'idle', inputWatts: 55, batteryWatts: 29, usedWatts: 26, input: 'charged', isOver: true },
      { name: 'graphics', inputWatts: 58, batteryWatts: 2.3, input: 'charged', scores: [fps] },
    ]);
  });

  it('stands in two parts where its source was swapped, and its scores with the last', () => {
    const quern = { charger: { id: 'q', name: 'Quern 65', kind: 'adapter', watts: 65 } } as const;
    const fps = { name: 'frames', value: 41.5, unit: 'fps', better: 'more' as const };
    const all = workloads(
      run(
        [
          { seconds: 120, watts: 28, batteryWatts: -4 },
          { seconds: 480, watts: 58, batteryWatts: 20 },
        ],
        [
          work(10, 'work started', 0, { remark: 'graphics' }),
          work(11, 'swapped' as never, 5, { source: quern }),
          work(12, 'work ended', 10, { scores: [fps] }),
        ],
      ),
    );
    expect(all).toMatchObject([
      { name: 'graphics', part: { place: 1, of: 2 }, source: header.charger.name, inputWatts: 28, input: 'helped', scores: [] },
      { part: { place: 2, of: 2 }, source: 'Quern 65', inputWatts: 58, input: 'charged', scores: [fps] },
    ]);
  });

  it('says that the battery helped when it drained, by its watts or by the level', () => {
    const events = [work(10, 'work started', 0, { remark: 'render' }), work(11, 'work ended', 10)];
    expect(workloads(run([{ seconds: 300, watts: 28, batteryWatts: -6 }], events))).toMatchObject([{ usedWatts: 34, input: 'helped' }]);
    const byLevel = run(
      [
        { seconds: 0, percent: 100, watts: 28 },
        { seconds: 600, percent: 97, watts: 28 },
      ],
      events,
    );
    expect(workloads(byLevel)).toMatchObject([{ gain: -3, input: 'helped', usedWatts: undefined }]);
    expect(workloads(run([{ seconds: 300, watts: 28 }], events))).toMatchObject([{ input: 'unknown' }]);
  });
});

// Common practice, no source: rendering at 20 V × 1.8 A for 5 min is about 3 Wh; light work of 3 Wh in 10 min is 18 W.
it('counts 3 Wh for five minutes of rendering at 36 W, from watts or from the counter of the meter', () => {
  const events = [work(10, 'work started', 0, { remark: 'rendering' }), work(11, 'work ended', 5)];
  const read = [0, 100, 200, 300].map((seconds) => ({ seconds, volts: 20, amps: 1.8 }));
  expect(workloads(run([...read], events))[0]?.inputWattHours).toBeCloseTo(3, 5);
  const counted = run(
    [
      { seconds: 10, wattHours: 12 },
      { seconds: 290, wattHours: 15 },
    ],
    events,
  );
  expect(workloads(counted)[0]?.inputWattHours).toBe(3);
});

it('says where the power goes', () => {
  const said = (jotted: Jotted) => workloads(run([jotted], [work(10, 'work started', 0, { remark: 'idle' })])).map(splitInWords);
  expect(said({ seconds: 60, watts: 55, batteryWatts: 29 })).toEqual(['idle: 55.0 W in, 29.0 W of it into the battery, 26.0 W used']);
  expect(said({ seconds: 60, watts: 28, batteryWatts: -6 })[0]).toMatch(/6.0 W more out of the battery, 34.0 W used. The battery helps/);
  expect(said({ seconds: 60, percent: 4 })).toEqual(['idle: no watts read yet']);
});

it('goes on while a workload runs, and ends one when the next begins', () => {
  const all = workloads(
    run(
      [
        { seconds: 60, watts: 30 },
        { seconds: 900, watts: 20 },
      ],
      [work(10, 'work started', 0, { remark: 'a' }), work(11, 'work started', 10, { remark: 'b' })],
    ),
  );
  expect(all).toMatchObject([
    { name: 'a', to: 600, isOver: true, inputWatts: 30 },
    { name: 'b', from: 600, to: 900, isOver: false, inputWatts: 20 },
  ]);
});

it('has a level only where one was read, and at 100 % none that tells', () => {
  const ofOne = (levels: Jotted[], from = 30, to = 60) =>
    workloads(run(levels, [work(10, 'work started', from, { remark: 'rendering' }), work(11, 'work ended', to)]))[0];
  // Full before, and nobody looked again: it was said to hold.
  expect(
    ofOne([
      { seconds: 0, percent: 100, watts: 20 },
      { seconds: 3000, watts: 20 },
    ]),
  ).toMatchObject({ gain: undefined, input: 'unknown' });
  const looked = [0, 1800, 3600].map((seconds) => ({ seconds, percent: 100, watts: 20 }));
  expect(ofOne(looked)).toMatchObject({ gain: undefined, input: 'unknown' });
  const drained = [100, 100, 96].map((percent, index) => ({ seconds: 1800 * index, percent }));
  expect(ofOne(drained)).toMatchObject({ gain: -4, input: 'helped' });
  // The level before it began was read 25 min earlier, and the next one is the one at its end: on the line between them.
  expect(
    ofOne([
      { seconds: 300, percent: 60 },
      { seconds: 3600, percent: 71 },
    ])?.gain,
  ).toBeCloseTo(6, 0);
  expect(ofOne([{ seconds: 300, percent: 60 }])?.gain).toBeUndefined();
});
