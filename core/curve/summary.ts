import { gearOfRun } from '../ink/corrected';
import { endingWord } from '../ink/endings';
import { sourceSays } from '../ink/entrySays';
import type { RunRecord } from '../ink/fold';
import type { Header } from '../ink/entry';
import { chargedBy } from '../ink/sequence';
import { sighting } from '../ink/track';
import { gapsOf } from '../samples/gaps';
import { rangeOf, type Dot } from '../samples/range';
import { milestoneTime } from './milestone';
import { displayedLevels, lightOut, milestoneOf, powerGone } from './milestones';
import { PASSAGES, writeMilestone, writePassage } from './timeWords';
import { quantityOf, type Quantity } from '../quantity/quantity';
import { extent } from 'd3-array';

/** What a list shows of a run without opening it. Worked out from its ink when it is filed; thrown away and made anew at will. */
export interface Summary {
  id: string;
  /** Of which ink it was made: how many entries, and the id of the last. Ink is only ever added to. Absent in lists made before it was noted. */
  ink?: string;
  /** Epoch milliseconds. */
  plugInAt: number;
  device: string;
  charger: string;
  /** Ids of all gear it used; absent in lists made before it was noted. */
  gear?: string[];
  /** The cell of a study that it fills. */
  study?: Header['study'];
  pen: number;
  /** How it was taken: the id of a school, or the name of a method of one’s own. */
  method?: string | undefined;
  /** Whose logbook it came from; none of one’s own. */
  owner?: string | undefined;
  tags?: readonly string[] | undefined;
  note?: string | undefined;
  /** When it was discarded, epoch milliseconds: it stands in no list then. */
  discardedAt?: number | undefined;
  /** Seconds to 80 and 100 %, where they were shown: what lists are sorted by. */
  reached?: { eighty: number | undefined; full: number | undefined };
  /** Seconds from plug-in. */
  end: number;
  startLevel?: number | undefined;
  lastLevel?: number | undefined;
  /** How it ended; `undefined` for a run that was never stopped. */
  stop?: string | undefined;
  /** Time to 80 and 100 %, in words; of a device that shows no level, when its light went out or its power was gone. */
  timeTo80: string;
  timeTo100: string;
  /** A few levels along the run, for the strip in a list; of a device that shows none, its watts or amps. */
  outline: Dot[];
  outlineOf?: Quantity;
  /** What was read, in words: the first level and the last, or the range of power or current. Absent in lists made earlier. */
  reads?: string;
}

const OUTLINE_POINTS = 40;

/** A summary by the names of today: in lists made earlier the two times went by others. */
export function presentSummary({ eighty, full, ...summary }: Summary & { eighty?: string; full?: string }): Summary {
  return { ...summary, timeTo80: eighty ?? summary.timeTo80, timeTo100: full ?? summary.timeTo100 };
}

/** How many sources a spot check tried. */
function triedOf({ trials }: RunRecord): string {
  const count = new Set(trials.map(({ source }) => sourceSays(source))).size;
  return count === 1 ? '1 source' : `${count} sources`;
}

/** When a device that shows no level was full, as far as anything tells. */
function withoutLevels(run: RunRecord): string {
  const passage = lightOut(run) ?? powerGone(run);
  return passage ? `${writePassage(passage).value}, ${PASSAGES[passage.what].toLowerCase()}` : '—';
}

/** What was read of a run, with points, for it is stored: `2 → 80 %`, `from 12 → 80 %` where the first level came after plug-in, `9.8–24.0 W`. */
function readsOf({ tracks }: RunRecord, drawn: Quantity): string {
  const track = tracks[drawn];
  const [first, last] = [sighting(track, 0), sighting(track, track.seconds.length - 1)];
  if (!first || !last) return '—';
  if (drawn === 'percent') return `${first.seconds === 0 ? '' : 'from '}${first.value} → ${last.value} %`;
  const [low = 0, high = 0] = extent(Array.from(track.values));
  const [from, to] = [low.toFixed(1), high.toFixed(1)];
  return `${from === to ? to : `${from}–${to}`} ${quantityOf(drawn).unit}`;
}

/** Sums a run up for a list. */
export function summarise(run: RunRecord): Summary {
  const { percent } = run.tracks;
  const levels = displayedLevels(run);
  const drawn = (['percent', 'watts', 'amps'] as const).find((quantity) => run.tracks[quantity].values.length > 0) ?? 'percent';
  const outlined = run.tracks[drawn];
  const inWords = (level: number) => writeMilestone(milestoneOf(levels, level)).value ?? '—';
  const secondsTo = (level: number) => milestoneTime(milestoneOf(levels, level));
  const start = sighting(percent, 0);
  return {
    id: run.header.id,
    ink: `${run.entries.length} ${run.entries.at(-1)?.id ?? ''}`,
    plugInAt: run.header.plugInAt,
    device: run.header.device.name,
    charger: run.header.list ? `spot check, ${triedOf(run)}` : chargedBy(run),
    gear: [...new Set(gearOfRun(run).map(({ gear }) => gear.id))],
    ...(run.header.study && { study: run.header.study }),
    ...(run.header.method && { method: run.header.method }),
    ...(run.header.owner && { owner: run.header.owner }),
    ...(run.label && run.label.tags.length > 0 && { tags: run.label.tags }),
    ...(run.label?.text && { note: run.label.text }),
    ...(run.discardedAt !== undefined && { discardedAt: run.discardedAt }),
    reached: { eighty: secondsTo(80), full: secondsTo(100) },
    pen: run.header.pen,
    end: run.end,
    startLevel: start?.seconds === 0 ? start.value : undefined,
    lastLevel: sighting(percent, percent.seconds.length - 1)?.value,
    stop: run.stop && endingWord(run.stop),
    timeTo80: inWords(80),
    timeTo100: start === undefined ? withoutLevels(run) : inWords(100),
    outline: rangeOf(outlined, { max: OUTLINE_POINTS, ...(run.sampled.has(drawn) && { gaps: gapsOf(outlined) }) }),
    ...(drawn !== 'percent' && { outlineOf: drawn }),
    reads: readsOf(run, drawn),
  };
}
