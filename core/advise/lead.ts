import type { Row } from '../compare/compare';
import type { About } from '../compare/measures';
import { withoutSequences } from '../compare/setups';
import { figureSays } from '../compare/yardstick';
import { bestBy } from './best';
import { groupsOf, headerOf, over, type Group, type Question } from './question';
import { underLoad } from './tried';
import { verdict } from './verdict';

/** The figure that a time to a level goes by, of devices that show none by what came to pass. */
const timesTo = (level: number) => (group: Group) =>
  bestBy(group, `level-${level}`) ?? (level === 100 ? (bestBy(group, 'light out') ?? bestBy(group, 'power gone')) : undefined);

/**
 * What a comparison comes to by one yardstick, in a sentence or two; of several devices each by itself.
 *
 * @param rows      the same setups, set against each other by their times to a level
 * @param yardstick a level in %, or the id of a figure: `gain-3600`, `sampled`
 * @param about     what the methods of the runs are about, unless the yardstick was chosen: of work under load something else is asked
 */
export function leadOf(
  question: Pick<Question, 'setups' | 'unit' | 'baseline' | 'worked'>,
  rows: readonly Row[],
  yardstick: string,
  about?: About,
): string[] {
  const { worked } = question;
  const setups = withoutSequences(question.setups);
  const answers = about === 'work' ? underLoad(worked) : [];
  if (answers.length > 0) return answers.map(({ title, says }) => `${title}? ${says}.`);
  const figure = figureSays(yardstick);
  const level = Number(yardstick);
  const devices = new Set(setups.map((setup) => headerOf(setup).device.id)).size;
  // One device, or several with a charger each: one sentence speaks of all.
  if (setups.length < 2 || (figure === undefined && (devices === 1 || devices === setups.length)))
    return verdict(withoutSequences(rows), level);
  const all = groupsOf(question);
  const judged = all.filter((group) => group.setups.length > 1);
  const title = figure === undefined ? `To ${level === 100 ? 'full' : `${level} %`}` : figure.charAt(0).toUpperCase() + figure.slice(1);
  const by = figure === undefined ? timesTo(level) : (group: Group) => bestBy(group, yardstick);
  const found = over(judged, all.length === 1, 'lead', title, by);
  // A percent of one battery is not a percent of another; or fewer than two of a device were seen so far.
  if (found.length === 0) return [`${title}: nothing here can be ranked by that.`];
  return found.flatMap(({ title: whose, says, why }) => [
    `${whose}: ${says}.`,
    // The reasons of several devices are for the whole verdict.
    ...(all.length === 1 && why ? [why] : []),
  ]);
}
