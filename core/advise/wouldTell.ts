import { differenceUnit, writeAmount, type Cell } from '../compare/cells';
import type { MeasureColumn } from '../compare/measures';
import { difference } from '../margin/told';
import { KEEPABLE, INTERVALS_AT_FULL, smallestDifference } from '../plan/tell';
import { nominal } from '../quantity/duration';
import { again, headerOf, type Finding, type Group } from './question';

/** So many more runs of each setup at most are asked for. */
const MOST_MORE = 5;
/** A difference of a smaller share of the figure is not worth more runs. */
const WORTH_TELLING = 0.1;

/** How far apart checks of a run lie, in seconds; `undefined` where they are at marks, or a meter streamed. */
function intervalOf(group: Group, index: number): number | undefined {
  const setup = group.setups[index];
  const cadence = setup && headerOf(setup).cadence;
  if (cadence?.kind === 'fixed') return cadence.every;
  return cadence?.kind === 'coarse then fine' ? cadence.then : undefined;
}

/**
 * What would tell apart those that tie for the best: of the two that lie furthest apart, finer checks where they suffice, else repeats. They are
 * taken to differ by as much as was seen; `undefined` where that is less than a tenth, or five more runs of each would not tell it.
 *
 * @param best indexes of the cells that tie
 * @see docs/numbers.md, *Tells apart from*.
 */
export function whatWouldTell(group: Group, { measure, cells }: MeasureColumn, best: readonly number[]): Finding['settle'] {
  const ordered = [...best].sort((one, other) => (cells[one]?.mean?.value ?? 0) - (cells[other]?.mean?.value ?? 0));
  const [low, high] = [ordered[0], ordered.at(-1)];
  if (low === undefined || high === undefined || low === high) return undefined;
  const [one, other] = [cells[low], cells[high]];
  const [first, second] = [group.setups[low], group.setups[high]];
  if (!one?.mean || !other?.mean || !first || !second) return undefined;
  const differ = difference(one.mean, other.mean, one.spread);
  const seen = differ.value;
  const figure = Math.max(Math.abs(one.mean.scale), Math.abs(other.mean.scale));
  if (!(seen > 0) || seen < WORTH_TELLING * Math.min(Math.abs(one.mean.scale), Math.abs(other.mean.scale))) return undefined;
  // What reading one run leaves open, as the width of bounds.
  const widthOf = ({ mean }: Cell) => (mean ? Math.sqrt(12 * Math.max(0, mean.uncertainty ** 2 - mean.varies) * mean.runs) : 0);
  const width = Math.max(widthOf(one), widthOf(other));
  const repeated = cells.filter(({ mean }) => mean).length;
  const isFull = measure.id === 'level-100';
  const tells = (wide: number, runs: number, interval: number) =>
    Math.max(runs < 2 && isFull ? INTERVALS_AT_FULL * interval : 0, smallestDifference(figure, wide, runs, repeated, one.spread)) <= seen;

  const have = Math.min(one.mean.runs, other.mean.runs);
  const interval = Math.max(intervalOf(group, low) ?? 0, intervalOf(group, high) ?? 0);
  const level = measure.id.startsWith('level-') ? Number(measure.id.slice(6)) : undefined;
  const finer =
    level !== undefined && interval > 0
      ? KEEPABLE.find((every) => every < interval && tells((width * every) / interval, Math.max(1, have), every))
      : undefined;
  let runs: number | undefined;
  for (let more = have + 1; more <= have + MOST_MORE && runs === undefined; more += 1) if (tells(width, more, interval)) runs = more;

  const by = writeAmount(seen, differ.margin, differenceUnit(measure.unit)).value;
  const says: string[] = [];
  if (finer !== undefined)
    says.push(`${have > 1 ? `${have} runs` : 'one run'} of each with checks every ${nominal(finer)} near ${level ?? 0} %`);
  if (runs !== undefined) says.push(`${runs} runs of each${finer === undefined ? '' : ' taken as these were'}`);
  if (says.length === 0) return undefined;
  const wanted = runs ?? 2 * have;
  return {
    says: `If they truly differ by the ${by} that was seen, ${says.join(', or ')} would tell.`,
    runs: [again(first, Math.max(1, wanted - one.mean.runs)), again(second, Math.max(1, wanted - other.mean.runs))],
  };
}
