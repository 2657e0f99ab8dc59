import { spell } from '../quantity/duration';
import { withMargin } from '../quantity/figures';
import { writeAmount, writeTold } from './cells';
import type { Row, Standing } from './compare';
import type { Goal, WithMargin } from './speedUp';

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
    case 'no time':
      return { first: '—', rest: [`no times ${goalSays(standing.level)} to compare`] };
    case 'tie':
      return { first: 'a tie', rest: [...(standing.saved ? [`differs by ${between(standing.saved)}`] : []), goalSays(standing.level)] };
    case 'only this one':
      return { first: `over ${floored(standing.atLeast)} sooner`, rest: [`${baseline} was not seen ${there(standing.level)}`] };
    case 'only the baseline':
      return { first: `over ${floored(standing.atLeast)} later`, rest: [`not seen ${there(standing.level)}`] };
    case 'told apart':
      return toldApart(standing);
  }
}

function toldApart({ saved, share, rate, level }: Extract<Standing, { state: 'told apart' }>): { first: string; rest: string[] } {
  const { value, margin } = writeTold(Math.abs(saved.value), saved.margin, 's');
  const shares = [
    { name: 'time', of: share },
    { name: 'rate', of: rate },
  ].flatMap(({ name, of }) => (of ? [`${name} ${inShare(of)} ${goalSays(level)}`] : []));
  return { first: `${value} ${saved.value > 0 ? 'saved' : 'lost'}`, rest: [`± ${margin}`, ...shares] };
}

/** `−22 ± 3 %`. */
function inShare(of: WithMargin): string {
  const { value, margin } = withMargin(of.value * 100, of.margin * 100, 0);
  return `${of.value > 0 && value !== '0' ? '+' : ''}${value} ± ${margin} %`;
}

/** `−2 ± 6 min`, whichever way. */
function between(of: WithMargin): string {
  const { value, margin } = writeAmount(Math.abs(of.value), of.margin, 's');
  return `${value} ± ${margin}`;
}

/** "At least" rounds down. */
const floored = (seconds: number) => spell(Math.floor(seconds / 60) * 60);
