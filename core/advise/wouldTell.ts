import { min, range } from 'd3-array';
import { writeApart } from '../compare/amounts';
import type { MeasureColumn } from '../compare/measures';
import type { SetupRuns } from '../compare/setups';
import { difference, type Pooled } from '../margin/told';
import type { Cadence } from '../method/cadenceSchema';
import { KEEPABLE, INTERVALS_AT_FULL, smallestDifference, runCountsOf } from '../plan/tell';
import { nominal } from '../quantity/duration';
import { listed } from '../quantity/listed';
import { again, headerOf, type Finding, type Group } from './question';

/** So many more runs of each setup at most are asked for. */
const MOST_MORE = 5;
/** A difference of a smaller share of the figure is not worth more runs. */
const WORTH_TELLING = 0.1;
/** A run may be so much quicker than the quickest so far, and still be read finely in time. */
const QUICKER = 0.9;

/** One of the two that are to be told apart. */
interface Side {
  name: string;
  setup: SetupRuns;
  mean: Pooled;
}

/** Runs that would tell, and how they are read. */
interface Way {
  /** How many more of the one and of the other. */
  more: readonly [number, number];
  /** Interval of finer checks; `undefined` where they are read as the others were. */
  every: number | undefined;
}

/**
 * What would tell apart those that tie for the best: of the two that lie furthest apart, the fewest runs more that bring both to the same number,
 * read as they were where that does, else with finer checks. They are taken to differ by as much as was seen; `undefined` where that is less than
 * a tenth, or five more runs of each would not tell it.
 *
 * @param best indexes of the cells that tie
 * @see docs/numbers.md, *Tells apart from*.
 */
export function whatWouldTell(group: Group, { measure, cells }: MeasureColumn, best: readonly number[]): Finding['settle'] {
  const sides = best
    .flatMap((index): Side[] => {
      const [setup, cell] = [group.setups[index], cells[index]];
      return setup && cell?.mean ? [{ name: group.names[index] ?? '', setup, mean: cell.mean }] : [];
    })
    .sort((one, other) => one.mean.value - other.mean.value);
  const [low, high] = [sides[0], sides.at(-1)];
  if (!low || !high || low === high) return undefined;
  const differ = difference(low.mean, high.mean);
  const scales = [Math.abs(low.mean.scale), Math.abs(high.mean.scale)];
  if (!(differ.value > 0) || differ.value < WORTH_TELLING * Math.min(...scales)) return undefined;

  const others = cells.flatMap(({ mean }) => (mean && mean !== low.mean && mean !== high.mean ? [mean.runs] : []));
  const level = measure.id.startsWith('level-') ? Number(measure.id.slice(6)) : undefined;
  const interval = Math.max(intervalOf(low.setup) ?? 0, intervalOf(high.setup) ?? 0);
  const finer = level === undefined ? [] : KEEPABLE.filter((every) => every < interval);
  const tells = ({ more, every = interval }: Way) => {
    const runs = [low.mean.runs + more[0], high.mean.runs + more[1]] as const;
    const left = Math.max(readAfter(low.mean, more[0], every / (interval || 1)), readAfter(high.mean, more[1], every / (interval || 1)));
    const least = level === 100 && Math.max(...runs) < 2 ? INTERVALS_AT_FULL * every : 0;
    return (
      Math.max(
        least,
        smallestDifference(Math.max(...scales), Math.sqrt(12 * left), runs, runCountsOf([...runs, ...others]), low.mean.spread),
      ) <= differ.value
    );
  };
  const have = Math.min(low.mean.runs, high.mean.runs);
  const ways = range(have + 1, have + MOST_MORE + 1).flatMap((runs) =>
    [undefined, ...finer].map((every): Way => ({ more: [Math.max(0, runs - low.mean.runs), Math.max(0, runs - high.mean.runs)], every })),
  );
  const way = ways.find(tells);
  if (!way) return undefined;
  const cadence = way.every === undefined || level === undefined ? undefined : finerFrom([low, high], level, interval, way.every);
  const by = writeApart(differ, measure.unit).value;
  return {
    says: `If they truly differ by the ${by} that was seen, ${runsInWords([low, high], way)}, ${cadence ? cadence.says : 'read as these were,'} would tell.`,
    runs: [low, high].flatMap(({ setup }, at) => {
      const runs = way.more[at] ?? 0;
      return runs > 0 ? [again(setup, runs, cadence && { cadence: cadence.cadence })] : [];
    }),
  };
}

/** What reading leaves open of one run, as a variance, once so many more were made with checks so much finer. */
function readAfter({ uncertainty, varies, checks, runs }: Pooled, more: number, finer: number): number {
  const now = Math.max(0, uncertainty ** 2 - varies) * checks;
  return (now * (runs + more * finer ** 2)) / (runs + more);
}

/** How far apart checks of a setup lie, in seconds; `undefined` where they are at marks, or a meter streamed. */
function intervalOf(setup: SetupRuns): number | undefined {
  const { cadence } = headerOf(setup);
  if (cadence?.kind === 'fixed') return cadence.every;
  return cadence?.kind === 'coarse then fine' ? cadence.then : undefined;
}

/** Checks as they were, and finer ones from a level on that a coarse check is sure to show before the one asked about. */
function finerFrom(sides: readonly Side[], level: number, interval: number, every: number): { says: string; cadence: Cadence } {
  const by = QUICKER * (min(sides, ({ mean }) => mean.value) ?? 0) - interval;
  const shown = sides.flatMap(({ setup }) =>
    setup.runs.map(
      ({ run }) => run.readings.findLast(({ reading, seconds }) => reading.percent !== undefined && seconds <= by)?.reading.percent ?? 1,
    ),
  );
  const from = Math.max(1, Math.min(level - 1, Math.floor(min(shown) ?? 1)));
  return {
    says: `with checks every ${nominal(every)} from ${from} % on,`,
    cadence: { kind: 'coarse then fine', every: interval, level: from, then: every },
  };
}

/** `2 more runs of each`, `one more run of Quern 30`. */
function runsInWords(sides: readonly Side[], { more: [one, other] }: Way): string {
  if (one === other) return `${runsMore(one)} of each`;
  return listed([one, other].flatMap((more, at) => (more > 0 ? [`${runsMore(more)} of ${sides[at]?.name ?? ''}`] : [])));
}
const runsMore = (more: number) => (more === 1 ? 'one more run' : `${more} more runs`);
