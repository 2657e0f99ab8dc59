import { writeFileSync } from 'node:fs';
import { playClaims } from './changes';
import { playSentences } from './sentences';
import { CADENCES, REPEATS, SIGMAS } from './studies';
import { assumed, bandsBeyond, beyond, beyondBars, claimsBeyond, falseBeyond, outcomesOf, playAll, playBands, written } from './table';

/** `npm run truth [-- studies devices]`: the whole draw; writes docs/truth.md and fails beyond a bar. */
const [studies = 500, devices = 100] = process.argv.slice(2).map(Number);
const [all, bands] = [playAll(studies, 1), playBands(devices, 7)];
const claims = playClaims(studies, 60, 11);
const sentences = playSentences(
  SIGMAS.flatMap((sigma) => CADENCES.flatMap((cadence) => REPEATS.map((repeats) => ({ cadence, sigma, repeats })))),
  Math.ceil(studies / 10),
  13,
);
const table = written(all, bands, claims, sentences, studies, devices);
console.log(table);
writeFileSync(new URL('../docs/truth.md', import.meta.url), table);
const broken = [
  ...beyondBars(outcomesOf(assumed(all)), true),
  ...falseBeyond(outcomesOf(beyond(all, true))),
  ...bandsBeyond(bands, true),
  ...claimsBeyond(claims),
  ...sentences.wrong.map((each) => `says what is not told: ${each}`),
  ...sentences.left.map((each) => `leaves out what is told: ${each}`),
];
for (const each of broken) console.log(`Beyond its bar: ${each}.`);
process.exitCode = broken.length > 0 ? 1 : 0;
