import type { Quantity } from '@core/quantity';
import { clipped } from '@core/quantity';
import type { Trace } from '../trace';
import { boxOf, fitted, isFree, say, type Drawing, type Layer } from './drawing';
import type { TrackFrame } from './frame';
import { mainTrack, type Size } from './look';
import type { WordLook } from './surface';

const SMALL = { size: 11, family: 'words' } as const;

/** Places on the paper, beneath what is drawn: checks that were missed, stretches that nobody watched, stages, and the one pointed out. */
export const places: Layer = (drawing) => {
  const { frame, traces, look, palette, to } = drawing;
  const main = mainTrack(traces);
  const [only] = traces;
  if (traces.length === 1 && only && look.size !== 'row') {
    for (const [index, { from, to: until }] of only.missed.entries())
      stretch(drawing, main, from, until, index === 0 ? missedWord(only.missed.length) : '', palette.due);
    for (const [index, { from, to: until }] of only.unwatched.entries())
      for (const { track } of frame.tracks)
        stretch(drawing, track, from, until, track === main && index === 0 ? 'not watched' : '', palette.soft);
  }
  if (traces.length === 1 && only)
    for (const { from, to: until } of only.unseen)
      stretch(drawing, 'watts', from, until, look.size === 'row' ? '' : 'unseen', palette.soft);
  const power = frame.trackOf('watts');
  if (power)
    for (const [index, { from, to: until }] of (look.stages ?? []).entries()) {
      const at = across(drawing, power, from, until);
      if (!at) continue;
      if (index % 2 === 0) to.rect(at, { fill: `${palette.rule}33` });
      const number = { ...SMALL, colour: palette.soft };
      if (isFree(drawing, boxOf(to, String(index + 1), at.left + 3, power.top + 11, number)))
        say(drawing, 'marks', String(index + 1), at.left + 3, power.top + 11, number);
    }
  const { band } = look;
  if (!band) return;
  for (const track of frame.tracks) {
    const at = across(drawing, track, band.from, band.to);
    if (!at) continue;
    to.rect(at, { fill: `${palette.due}1F` });
    if (band.from === band.to)
      to.line({ colour: palette.due, width: 1.5 }, (path) => {
        path.moveTo(at.left, at.top);
        path.lineTo(at.left, at.bottom);
      });
  }
};

/** A stretch of time on the paper of a track; nothing where it lies beside it. */
function across({ frame }: Drawing, { top, bottom }: TrackFrame, from: number, until: number) {
  if (until < frame.from || from > frame.until) return undefined;
  return { left: Math.max(frame.left, frame.xOf(from)), right: Math.min(frame.right, frame.xOf(until)), top, bottom };
}

/** A stretch of the paper with a word on it: something that is not there. */
function stretch(drawing: Drawing, line: Quantity, from: number, until: number, word: string, colour: string): void {
  const track = drawing.frame.trackOf(line);
  const at = track && across(drawing, track, from, until);
  if (!at) return;
  drawing.to.rect(at, { fill: `${colour}14` });
  if (word === '') return;
  const look: WordLook = { ...SMALL, colour, align: 'middle' };
  const half = drawing.to.widthOf(word, look) / 2;
  const { left, right } = drawing.frame;
  const middle = Math.min(Math.max((at.left + at.right) / 2, left + half + 2), right - half - 2);
  const y = [13, 28, 43].map((down) => at.top + down).find((each) => isFree(drawing, boxOf(drawing.to, word, middle, each, look)));
  if (y !== undefined) say(drawing, 'marks', word, middle, y, look);
}

/** The word on the first of the checks that were missed: how many there are, for each of thirty would say it thirty times. */
const missedWord = (count: number) => (count > 1 ? `missed, ${count} stretches` : 'missed');

/** What happened, over what is drawn: a line at its moment with a word at its foot; the level pointed out; levels that were reached, ringed. */
export const events: Layer = (drawing) => {
  const { frame, traces, look, palette, to } = drawing;
  const level = frame.trackOf('percent');
  if (level && look.band?.level !== undefined) {
    const at = level.yOf(look.band.level);
    to.line({ colour: palette.due, width: 1.25, dash: [2, 3] }, (path) => {
      path.moveTo(frame.left, at);
      path.lineTo(frame.right, at);
    });
  }
  if (level)
    for (const { at, level: reached, isLit } of look.marks ?? []) {
      if (at < frame.from || at > frame.until) continue;
      const ring = { fill: '#00000000', stroke: isLit ? palette.due : palette.soft, width: isLit ? 2 : 1 };
      to.nib('circle', frame.xOf(at), level.yOf(reached), isLit ? 10 : 7, ring);
    }
  if (traces.length !== 1 || look.size === 'row') return;
  for (const [at, words] of groupedEvents(traces[0]?.events ?? [], (frame.until - frame.from) * SIDE_BY_SIDE))
    if (at >= frame.from && at <= frame.until) happened(drawing, frame.xOf(at), shortened(words, look.size));
};

/** Events this close, as a share of the paper, have their words side by side at one line. */
const SIDE_BY_SIDE = 0.015;

/** Events in order, those within a span of the first of them in one: when it was, and what they say. */
export function groupedEvents(all: Trace['events'], span: number): [at: number, words: string[]][] {
  const lines: [number, string[]][] = [];
  for (const { at, says } of all) {
    const last = lines.at(-1);
    if (last && at - last[0] <= span * Math.min(3, last[1].length)) last[1].push(says);
    else lines.push([at, [says]]);
  }
  return lines;
}

/** Words that find room beside each other; the others fold into a count. Each is as long as its paper is high. */
function shortened(words: readonly string[], size: Size): string[] {
  const told = words.length > 3 ? [...words.slice(0, 2), `and ${words.length - 2} more`] : words;
  return told.map((word) => clipped(word, size === 'sheet' ? 40 : 18));
}

/** How far the words of one line stand from it and from each other, in pixels. */
const [BESIDE, NEXT] = [4, 13];

/** A line at its moment, and words that read upwards from its foot: on its left, on its right where there is no room, else a way up. */
function happened(drawing: Drawing, at: number, words: readonly string[]): void {
  const { to, frame, palette } = drawing;
  to.line({ colour: palette.ink, width: 1, dash: [1, 3] }, (path) => {
    path.moveTo(at, frame.top);
    path.lineTo(at, frame.bottom);
  });
  const look: WordLook = { ...SMALL, colour: palette.ink, turned: 1 };
  const high = (frame.bottom - frame.top) * 0.9;
  const told = words.map((word) => fitted(to, word, high, look)).filter(Boolean);
  const placed = (isLeft: boolean, foot: number) =>
    told.map((word, index) => {
      const x = isLeft ? at - BESIDE - NEXT * (told.length - 1 - index) : at + BESIDE + 8 + NEXT * index;
      return { word, x, y: foot, box: boxOf(to, word, x, foot, look) };
    });
  const longest = Math.max(0, ...told.map((word) => to.widthOf(word, look)));
  const feet = [frame.bottom - 4, frame.bottom - 8 - (frame.bottom - frame.top - longest) / 2, frame.top + longest + 4];
  const found = feet
    .flatMap((foot) => [placed(true, foot), placed(false, foot)])
    .find((all) => all.every(({ box }) => isFree(drawing, box)));
  for (const { word, x, y, box } of found ?? []) {
    to.rect({ left: box.left - 1, right: box.right + 1, top: box.top - 2, bottom: box.bottom + 2 }, { fill: `${palette.paper}CC` });
    say(drawing, 'marks', word, x, y, look);
  }
}
