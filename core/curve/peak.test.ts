import { expect, it } from 'vitest';
import { trackOf } from '../ink/track';
import { peak } from './peak';

const stream = (watts: (second: number) => number, length: number, step = 1) =>
  trackOf(Array.from({ length: Math.floor(length / step) + 1 }, (_, index) => ({ seconds: index * step, value: watts(index * step) })));

it('is the highest single reading of those taken by hand', () => {
  const byHand = trackOf([
    { seconds: 0, value: 4.8 },
    { seconds: 300, value: 26.1 },
    { seconds: 600, value: 25.9 },
  ]);
  expect(peak(byHand, false)).toMatchObject({ kind: 'single reading', watts: 26.1, seconds: 300 });
  expect(peak(trackOf([]), false)).toBeUndefined();
});

it('is the highest minute of a stream, not its highest spike', () => {
  const spiky = stream((second) => (second === 100 ? 90 : second >= 300 && second <= 420 ? 26 : 15), 900);
  expect(peak(spiky, true)).toMatchObject({ kind: '60-second mean', watts: 26, seconds: 300 });
});

it('is the mean of the first minute of a power that falls evenly, whatever the sampling', () => {
  for (const step of [1, 7, 25, 60, 90]) {
    expect(
      peak(
        stream((second) => 30 - second / 60, 1800, step),
        true,
      )?.watts,
    ).toBeCloseTo(29.5, 9);
  }
});

it('is unknown for a stream shorter than a minute', () => {
  expect(
    peak(
      stream(() => 10, 45),
      true,
    ),
  ).toBeUndefined();
});

it('is never held across a time without samples', () => {
  const broken = trackOf(
    [...Array(200).keys()].map((second) => ({ seconds: second < 100 ? second : second + 900, value: second < 100 ? second / 10 : 9 })),
  );
  expect(peak(broken, true)).toMatchObject({ watts: 9, seconds: 1000 });
});
