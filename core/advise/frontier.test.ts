import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { frontierOf, regrets } from './frontier';

/** Two figures of each of some setups, each with its margin: told apart where margins do not overlap. */
const some = fc.array(fc.record({ x: fc.integer({ min: 0, max: 9 }), y: fc.integer({ min: 0, max: 9 }) }), { minLength: 1, maxLength: 7 });

describe('the frontier of two figures', () => {
  it('is what exhaustive search finds: nothing on it is beaten by another on it, all off it is beaten by one on it', () => {
    fc.assert(
      fc.property(some, fc.integer({ min: 0, max: 3 }), (points, margin) => {
        const cheaper = (one: number, other: number) => (points[one]?.x ?? 0) < (points[other]?.x ?? 0);
        const sooner = (one: number, other: number) => (points[one]?.y ?? 0) + margin < (points[other]?.y ?? 0);
        const beats = (one: number, other: number) =>
          (cheaper(one, other) || sooner(one, other)) && !cheaper(other, one) && !sooner(other, one);
        const all = points.map((_, index) => index);
        const stable = Array.from({ length: 2 ** points.length }, (_, bits) => all.filter((index) => bits & (1 << index))).filter(
          (set) =>
            set.every((one) => !set.some((other) => beats(other, one))) &&
            all.every((one) => set.includes(one) || set.some((other) => beats(other, one))),
        );
        // Prices are exact, so that none is beaten in a circle, and there is one such set.
        expect(stable).toHaveLength(1);
        expect(frontierOf(points.length, [sooner, cheaper])).toEqual(stable[0]);
      }),
    );
  });

  it('keeps all of those that beat each other in turn, and what is exact is the usual one', () => {
    const inTurn = (one: number, other: number) => (one + 1) % 3 === other;
    expect(frontierOf(3, [inTurn, () => false])).toEqual([0, 1, 2]);
    const price = [12, 19, 45, 99];
    const minutes = [89, 60, 51, 51];
    const less = (of: readonly number[]) => (one: number, other: number) => (of[one] ?? 0) < (of[other] ?? 0);
    expect(frontierOf(4, [less(minutes), less(price)])).toEqual([0, 1, 2]);
  });
});

describe('least regret', () => {
  const matrix = fc
    .record({ devices: fc.integer({ min: 1, max: 4 }), choices: fc.integer({ min: 1, max: 5 }) })
    .chain(({ devices, choices }) =>
      fc.array(fc.array(fc.oneof(fc.integer({ min: 1, max: 50 }), fc.constant(Infinity)), { minLength: devices, maxLength: devices }), {
        minLength: choices,
        maxLength: choices,
      }),
    );

  it('is what exhaustive search finds', () => {
    fc.assert(
      fc.property(matrix, (values) => {
        const found = regrets(
          values.map((_, index) => index),
          (choice) => values[choice] ?? [],
        );
        let least = Infinity;
        for (const row of values) {
          let worst = 0;
          for (const [device, value] of row.entries()) {
            const best = Math.min(...values.map((each) => each[device] ?? Infinity));
            if (Number.isFinite(best)) worst = Math.max(worst, value / best - 1);
          }
          least = Math.min(least, worst);
        }
        expect(found[0]?.max).toBe(least);
        expect(found.map(({ max }) => max)).toEqual(found.map(({ max }) => max).sort((one, other) => one - other));
      }),
    );
  });

  // Worked by hand: A is best for one and twice as slow for the other; B is a tenth off for both.
  it('is that of the one that is nowhere far off', () => {
    const [first] = regrets(['A', 'B'], (choice) => (choice === 'A' ? [50, 100] : [55, 55]));
    expect(first).toEqual({ choice: 'B', each: [0.10000000000000009, 0], max: 0.10000000000000009 });
  });
});
