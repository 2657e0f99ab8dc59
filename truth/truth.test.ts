import { expect, it } from 'vitest';
import { playBands, playKinds } from './bands';
import { playCeilings } from './ceilings';
import { playClaims } from './changes';
import { playLogs } from './logs';
import { playManners } from './manners';
import { playClips } from './clips';
import { playPages } from './pages';
import { playSentences } from './sentences';
import { CADENCES, REPEATS } from './studies';
import {
  assumed,
  bandsBeyond,
  beyondBars,
  ceilingsBeyond,
  claimsBeyond,
  logsBeyond,
  mannersBeyond,
  kindsBeyond,
  outcomesOf,
  playAll,
} from './table';

/** A smaller draw of `npm run truth`, whose whole table is docs/truth.md: cells are too small here to be held to theirs. */
const played = playAll(30, 20261126);

it('names no winner that is none, and misses none that is clear', () => {
  expect(beyondBars(outcomesOf(assumed(played)), false)).toEqual([]);
});

it('would not pass by the rule that the smaller number wins', () => {
  expect(Math.min(...outcomesOf(assumed(played)).map(({ naive }) => naive))).toBeGreaterThan(0.2);
});

it('holds what its bands say of runs to come', () => {
  expect(bandsBeyond(playBands(20, 20261126), false)).toEqual([]);
});

/** Checks far apart and few earlier runs: where bands once held in half of the runs and fewer. */
it('holds what its bands say of each kind of run', () => {
  const kinds = [...playKinds(90, 20261130, [2], [15]), ...playKinds(90, 20261201, [8], [15])];
  expect(kinds.filter(({ held }) => held.length >= 60).length).toBeGreaterThan(80);
  expect(kindsBeyond(kinds, 60)).toEqual([]);
});

/** A third with every test; `npm run thorough` reads all. */
it('writes no page that denies itself or its table, nor a figure that is of nothing', () => {
  const { denials, untold, otherwise, claims } = playPages(process.env.THOROUGH ? 1000 : 333, 20261130);
  expect([...denials, ...untold, ...otherwise]).toEqual([]);
  expect(claims).toBeGreaterThan(10_000);
});

it('says of winners what the rule tells, all of it and no more', () => {
  const cells = CADENCES.flatMap((cadence) => REPEATS.map((repeats) => ({ cadence, sigma: 0.02, repeats })));
  const { wrong, left, named } = playSentences(cells, 8, 20261126);
  expect(wrong).toEqual([]);
  expect(left).toEqual([]);
  expect(named).toBeGreaterThan(1000);
});

it('tells what the plan says a change of method will tell', () => {
  expect(claimsBeyond(playClaims(40, 30, 20261126))).toEqual([]);
});

it('keeps to its bars however studies are read', () => {
  expect(mannersBeyond(playManners(25, 20261130), false)).toEqual([]);
});

it('names no ceiling that is none', () => {
  const found = playCeilings(60, 20261130);
  expect(ceilingsBeyond(found)).toEqual([]);
  expect(found.said).toBeGreaterThan(20);
});

it('lays a log where it lies, and takes none of another charge for the run’s own', () => {
  const all = playLogs(40, 20261130);
  expect(logsBeyond(all)).toEqual([]);
});

it('claims no time of a filmed run better than a second of its clip, and holds what it claims', () => {
  const { times, gains } = playClips(process.env.THOROUGH ? 2000 : 300, 20261201);
  expect(times.of).toBeGreaterThan(500);
  expect(times.held / times.of).toBeGreaterThan(0.95);
  expect(times.narrow).toBe(0);
  expect(gains.of).toBeGreaterThan(300);
  expect(gains.held / gains.of).toBeGreaterThan(0.95);
});
