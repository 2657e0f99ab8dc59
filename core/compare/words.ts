import { spell } from '../quantity/duration';
import { difference } from '../margin/told';
import { toldFigures, writeApart } from './amounts';
import { writeDifference, type Cell, type Measure } from './cells';
import type { Row, Standing } from './compare';
import { gainRate, type Goal, type WithMargin } from './speedUp';
import { figureSays } from './yardstick';

/** What came to pass where no level is shown, as a comparison goes by it. */
const BY: Readonly<Record<Exclude<Goal, number>, string>> = {
  boot: 'by the boot',
  'light out': 'by the light',
  'power gone': 'by the power',
};

/** What times are taken to, in words: `to 80 %`, `by the light`. */
export const goalSays = (goal: Goal): string => (typeof goal === 'number' ? `to ${goal} %` : BY[goal]);

/** Where a setup was not seen to come. */
const there = (goal: Goal) => (typeof goal === 'number' ? `at ${goal} %` : `done ${BY[goal]}`);

/** How a setup stands to the baseline: what it comes to, and what is to be known of it. */
export function writeStanding({ standing }: Row, baseline: string): { first: string; rest: string[] } {
  switch (standing.state) {
    case 'baseline':
      return { first: 'baseline', rest: [] };
    case 'sequence':
      return { first: '—', rest: ['several sources fed it: not ranked'] };
    case 'no time':
      return { first: '—', rest: [`no times ${goalSays(standing.level)} to compare`] };
    case 'tie':
      return {
        first: 'a tie',
        rest: [...(standing.saved ? [`differs by ${writeApart(standing.saved, 's').both}`] : []), goalSays(standing.level)],
      };
    case 'only this one':
      return { first: `over ${floored(standing.atLeast)} sooner`, rest: [`${baseline} was not seen ${there(standing.level)}`] };
    case 'only the baseline':
      return { first: `over ${floored(standing.atLeast)} later`, rest: [`not seen ${there(standing.level)}`] };
    case 'told apart':
      return toldApart(standing);
  }
}

/**
 * How a setup stands to the baseline by a figure that is no time: what was gained by a mark, or power.
 *
 * @param cells of the figure, one a setup; @param index of the setup; @param zero of the baseline
 */
function writeAgainst(
  cells: readonly Cell[],
  index: number,
  zero: number,
  { id, unit }: Pick<Measure, 'id' | 'unit'>,
): { first: string; rest: string[] } {
  const by = figureSays(id) ?? '';
  const [cell, base] = [cells[index], cells[zero]];
  if (index === zero) return { first: 'baseline', rest: [] };
  if (!cell?.mean || !base?.mean) return { first: '—', rest: [`nothing ${by} to compare`] };
  if (!cell.rank || !base.rank) return { first: '—', rest: ['a percent of one battery is not a percent of another: take Wh'] };
  const differ = difference(base.mean, cell.mean);
  const { value = '', range } = writeDifference(cell, base, unit);
  const told = id === 'sampled' ? by : `gained ${by}`;
  if (differ.told === 'tie') return { first: value, rest: [`differs by ${range.replace(/^[+−]/, '')}`, told] };
  const rate = gainRate(cell.mean, base.mean, differ);
  return { first: value, rest: [range, told, ...(rate ? [`rate ${inShare(rate)} ${by}`] : [])] };
}

/** How the shares of a standing come about, of times or of another figure. */
export const sharesSay = ({ unit }: Pick<Measure, 'unit'>): string =>
  `${
    unit === 's'
      ? 'Time is t ÷ t₀ − 1 and rate t₀ ÷ t − 1, with t₀ the time of the baseline.'
      : 'Rate is g ÷ g₀ − 1, with g₀ the figure of the baseline.'
  } In their margins the squares of both relative uncertainties add.`;

/** How each setup stands to the baseline: by a figure, or by times. @param zero of the baseline */
export const standingsOf = (
  rows: readonly Row[],
  names: readonly string[],
  zero: number,
  by: { measure: Measure; cells: readonly Cell[] } | undefined,
): { first: string; rest: string[] }[] =>
  rows.map((row, index) =>
    by && !row.isSequence ? writeAgainst(by.cells, index, zero, by.measure) : writeStanding(row, names[zero] ?? ''),
  );

function toldApart({ saved, share, rate, level }: Extract<Standing, { state: 'told apart' }>): { first: string; rest: string[] } {
  const told = writeApart(saved, 's');
  const shares = [
    { name: 'time', of: share },
    { name: 'rate', of: rate },
  ].flatMap(({ name, of }) => (of ? [`${name} ${inShare(of)} ${goalSays(level)}`] : []));
  return { first: `${told.value} ${saved.value > 0 ? 'saved' : 'lost'}`, rest: [told.range, ...shares] };
}

/** `−22 ± 3 %`. */
function inShare({ value, margin }: WithMargin): string {
  const told = toldFigures(Math.abs(value) * 100, margin * 100, 0);
  const sign = value > 0 && told.value !== '0' ? '+' : value < 0 ? '−' : '';
  return told.isJust ? `${sign}${told.value} %` : `${sign}${told.value} ± ${told.margin} %`;
}

/** "At least" rounds down. */
const floored = (seconds: number) => spell(Math.floor(seconds / 60) * 60);
