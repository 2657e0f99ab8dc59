import { writeFileSync } from 'node:fs';
import { playBands, playKinds } from './bands';
import { playCeilings } from './ceilings';
import { playClaims } from './changes';
import { playLogs } from './logs';
import { playManners } from './manners';
import { playPages } from './pages';
import { playSentences } from './sentences';
import { CADENCES, REPEATS, SIGMAS } from './studies';
import {
  assumed,
  bandsBeyond,
  kindsBeyond,
  beyond,
  beyondBars,
  ceilingsBeyond,
  claimsBeyond,
  falseBeyond,
  logsBeyond,
  mannersBeyond,
  outcomesOf,
  playAll,
  written,
} from './table';

/** `npm run truth [-- studies devices]`: the whole draw; writes docs/truth.md and fails beyond a bar. */
const [studies = 500, devices = 100] = process.argv.slice(2).map(Number);
const whole = {
  all: playAll(studies, 1),
  manners: playManners(Math.ceil(studies / 2), 17),
  bands: playBands(devices, 7),
  kinds: playKinds(Math.ceil(2.5 * devices), 29),
  claims: playClaims(studies, 60, 11),
  ceilings: playCeilings(studies, 19),
  pages: playPages(2 * studies, 31),
  logs: playLogs(Math.ceil(studies / 2), 23),
  sentences: playSentences(
    SIGMAS.flatMap((sigma) => CADENCES.flatMap((cadence) => REPEATS.map((repeats) => ({ cadence, sigma, repeats })))),
    Math.ceil(studies / 10),
    13,
  ),
};
const table = written(whole, studies, devices);
console.log(table);
writeFileSync(new URL('../docs/truth.md', import.meta.url), table);
const broken = [
  ...beyondBars(outcomesOf(assumed(whole.all)), true),
  ...falseBeyond(outcomesOf(beyond(whole.all, true))),
  ...mannersBeyond(whole.manners, true),
  ...bandsBeyond(whole.bands, true),
  ...kindsBeyond(whole.kinds),
  ...claimsBeyond(whole.claims),
  ...ceilingsBeyond(whole.ceilings),
  ...logsBeyond(whole.logs),
  ...[...whole.pages.denials, ...whole.pages.untold, ...whole.pages.otherwise].map((each) => `a page says against itself: ${each}`),
  ...whole.sentences.wrong.map((each) => `says what is not told: ${each}`),
  ...whole.sentences.left.map((each) => `leaves out what is told: ${each}`),
];
for (const each of broken) console.log(`Beyond its bar: ${each}.`);
process.exitCode = broken.length > 0 ? 1 : 0;
