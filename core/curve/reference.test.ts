import { deviation, mean } from 'd3-array';
import { describe, expect, it } from 'vitest';
import { segmentsOf } from './segments';

/** Flow of the Nile at Aswan, 1871 to 1970, in 1e8 m³ (Durbin & Koopman 2001; the data set Nile of R; from memory). */
const NILE = [
  ...[1120, 1160, 963, 1210, 1160, 1160, 813, 1230, 1370, 1140, 995, 935, 1110, 994, 1020, 960, 1180, 799, 958, 1140],
  ...[1100, 1210, 1150, 1250, 1260, 1220, 1030, 1100, 774, 840, 874, 694, 940, 833, 701, 916, 692, 1020, 1050, 969],
  ...[831, 726, 456, 824, 702, 1120, 1100, 832, 764, 821, 768, 845, 864, 862, 698, 845, 744, 796, 1040, 759],
  ...[781, 865, 845, 944, 984, 897, 822, 1010, 771, 676, 649, 846, 812, 742, 801, 1040, 860, 874, 848, 890],
  ...[744, 749, 838, 1050, 918, 986, 797, 923, 975, 815, 1020, 906, 901, 1170, 912, 746, 919, 718, 714, 740],
];

describe('break points', () => {
  it('of the Nile’s flow come after the 28th year, 1898, where one is looked for (R package strucchange, breakpoints(Nile ~ 1); from memory)', () => {
    const weights = NILE.map(() => 1);
    const found = segmentsOf({ values: NILE, weights }, { constant: 400_000, line: Infinity });
    expect(found.map(({ from, to }) => [from, to])).toEqual([
      [0, 28],
      [28, 100],
    ]);
    expect(found.map(({ first }) => Math.round(first * 100) / 100)).toEqual([1097.75, 849.97]);
  });
});

describe('mean and deviation', () => {
  // NIST Statistical Reference Datasets, univariate: 1001 values, the first at the mean and the others a tenth below and above in turn.
  const numAcc = (whole: number) => [whole + 0.2, ...Array.from({ length: 1000 }, (_, index) => whole + (index % 2 === 0 ? 0.1 : 0.3))];

  it('of NIST NumAcc3 are 1000000.2 and 0.1', () => {
    expect(mean(numAcc(1_000_000))).toBeCloseTo(1_000_000.2, 8);
    expect(deviation(numAcc(1_000_000))).toBeCloseTo(0.1, 9);
  });

  it('of NIST NumAcc4 are 10000000.2 and 0.1', () => {
    expect(mean(numAcc(10_000_000))).toBeCloseTo(10_000_000.2, 6);
    expect(deviation(numAcc(10_000_000))).toBeCloseTo(0.1, 6);
  });
});
