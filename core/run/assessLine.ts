import { max } from 'd3-array';
import type { Draft, Source } from '../ink/entry';
import { LIGHTS } from '../ink/events';
import { sourceAt, valueIn, type RunRecord } from '../ink/fold';
import { sighting } from '../ink/track';
import { firstAfter } from '../samples/column';
import { clock, spell } from '../quantity/duration';
import type { LineValues } from '../quantity/entryLine';
import { fixed } from '../quantity/figures';
import { quantityOf } from '../quantity/quantity';
import type { Moment } from '../quantity/times';

/** Meters and ratings differ by this much without anyone having slipped. */
const RATING_TOLERANCE = 1.15;
const PRODUCT_TOLERANCE = 0.1;
/** No battery gains more than so many percent a minute, nor so many at once whatever the time. */
const JUMP = { perMinute: 10, atOnce: 15 };
/** Volts that step by more than this are a handshake rather than a droop. */
const STEP = 1.5;

type ReadingDraft = Extract<Draft, { kind: 'reading' }>;

export type AssessedLine =
  | { verdict: 'log'; draft: Draft; remark?: string | undefined }
  | { verdict: 'ask'; draft: Draft; question: string }
  | { verdict: 'refuse'; error: string };

/**
 * Weighs a line against the run it is meant for, before it becomes ink.
 *
 * @param values what the line says
 * @param run    the run so far
 * @param now    epoch milliseconds
 * @param marked the moment marked for it, epoch milliseconds, if one was
 * @returns ink to write; or a question to ask once, with the ink to write if the answer is yes; or what is wrong
 */
export function assessLine(values: LineValues, run: RunRecord, now: Moment, marked?: Moment): AssessedLine {
  const { plugInAt } = run.header;
  const { seen, note, dead, light, ...figures } = values;
  if (dead) return deadAtPlugIn(run, note);
  const at = seen === undefined ? (marked ?? now) : Math.round(plugInAt + seen * 1000);
  const elapsed = (at - plugInAt) / 1000;
  const beyond = outsideOf(run, at, now);
  if (beyond) return { verdict: 'refuse', error: beyond };
  if (light) return { verdict: 'log', draft: { kind: 'event', at, event: LIGHTS[light], ...(note && { remark: note }) } };
  if (Object.keys(figures).length === 0) return { verdict: 'log', draft: { kind: 'note', at, text: note ?? '' } };
  const draft: ReadingDraft = { kind: 'reading', at, ...figures, ...(note && { note }) };
  const question = questionOf(draft, run, elapsed);
  if (question) return { verdict: 'ask', draft: { ...draft, sure: true }, question };
  return { verdict: 'log', draft, remark: fall(draft, run, elapsed) ?? step(draft, run, elapsed) ?? reset(draft, run, elapsed) };
}

/** Why a moment cannot be one of a run; nothing where it can. @param at epoch milliseconds */
export function outsideOf(run: RunRecord, at: number, now: Moment): string | undefined {
  const { plugInAt } = run.header;
  const elapsed = (at - plugInAt) / 1000;
  const last = run.stop?.seconds ?? (now - plugInAt) / 1000;
  if (elapsed < 0) return 'That moment is before plug-in. Give the time since plug-in, as @14:40.';
  if (elapsed <= last + 1) return undefined;
  const reach = run.stop ? `the run was stopped at ${spell(last, 1)}` : `the run is at ${spell(last, 1)}`;
  return `@${clock(elapsed)} is still to come: ${reach}. Give the time since plug-in at which it was seen.`;
}

/** That it was dead is said of plug-in, and only before it has shown a level. */
function deadAtPlugIn(run: RunRecord, note: string | undefined): AssessedLine {
  const first = sighting(run.tracks.percent, 0);
  if (run.isDead) return { verdict: 'refuse', error: 'That it was dead at plug-in is logged already.' };
  if (first?.seconds === 0)
    return {
      verdict: 'refuse',
      error: `It showed ${short(first.value)} % at plug-in, so it was not dead. Strike that reading first if it was a slip.`,
    };
  return { verdict: 'log', draft: { kind: 'event', at: run.header.plugInAt, event: 'dead', ...(note && { remark: note }) } };
}

/** Something that can be, but is more often a slip. */
function questionOf(draft: ReadingDraft, run: RunRecord, elapsed: number): string | undefined {
  return jump(draft, run, elapsed) ?? powerQuestion(draft, sourceAt(run, elapsed));
}

/** Power that a source is not rated for, or that is not volts times amps. */
export function powerQuestion(read: Pick<LineValues, 'volts' | 'amps' | 'watts'>, { charger }: Source): string | undefined {
  const { volts, amps } = read;
  const watts = valueIn(read, 'watts');
  if (watts !== undefined && charger.watts !== undefined && watts > charger.watts * RATING_TOLERANCE) {
    return `${short(watts)} W from ${charger.name}, which is rated ${short(charger.watts)} W? Enter again keeps it; or correct the line.`;
  }
  if (read.watts === undefined || volts === undefined || amps === undefined) return undefined;
  if (Math.abs(volts * amps - read.watts) <= PRODUCT_TOLERANCE * Math.max(volts * amps, 1)) return undefined;
  return `${short(volts)} V × ${short(amps)} A is ${short(volts * amps)} W, not ${short(read.watts)} W. Enter again keeps all three; or correct the line.`;
}

/** A level that was not to be expected in the time since the one before. */
function jump({ percent }: ReadingDraft, { tracks }: RunRecord, elapsed: number): string | undefined {
  const before = sighting(tracks.percent, firstAfter(tracks.percent, elapsed) - 1);
  if (percent === undefined || !before) return undefined;
  const [gain, minutes] = [percent - before.value, (elapsed - before.seconds) / 60];
  if (!isJump(gain, minutes)) return undefined;
  return `From ${short(before.value)} to ${short(percent)} % in ${spell(elapsed - before.seconds, 1)}? Enter again keeps it; or correct the line.`;
}

/** Volts that stepped since they were last read. */
function step({ volts }: ReadingDraft, { tracks }: RunRecord, elapsed: number): string | undefined {
  const before = sighting(tracks.volts, firstAfter(tracks.volts, elapsed) - 1);
  if (volts === undefined || !before || Math.abs(volts - before.value) < STEP) return undefined;
  return `Volts stepped from ${short(before.value)} to ${short(volts)} V: V, then H, notes the handshake.`;
}

/** A counter of the meter that began anew. */
function reset(draft: ReadingDraft, { tracks }: RunRecord, elapsed: number): string | undefined {
  for (const quantity of ['wattHours', 'milliampHours'] as const) {
    const { unit } = quantityOf(quantity);
    const [value, before] = [draft[quantity], sighting(tracks[quantity], firstAfter(tracks[quantity], elapsed) - 1)];
    if (value !== undefined && before && value < before.value)
      return `${short(value)} ${unit} is less than the ${short(before.value)} before: the counter began anew. Its energy is then a least.`;
  }
  return undefined;
}

function fall({ percent }: ReadingDraft, { tracks, falls }: RunRecord, elapsed: number): string | undefined {
  // A reading of this very second takes the place of the one before it, so only whole seconds before count.
  const before = firstAfter(tracks.percent, Math.floor(elapsed) - 1e-6);
  const { values } = tracks.percent;
  const highest = falls.length === 0 ? (values[before - 1] ?? 0) : (max(Array.from(values).slice(0, before)) ?? 0);
  if (percent === undefined || percent >= highest) return undefined;
  return `${short(percent)} % is lower than the ${short(highest)} % seen before it: kept, and flagged. Strike it if it slipped.`;
}

/** A level that no battery could reach in the time since the reading before it. */
export const isJump = (gain: number, minutes: number) => Math.abs(gain) > JUMP.atOnce + JUMP.perMinute * minutes;

const short = (value: number) => fixed(value, Number.isInteger(value) ? 0 : 1);
