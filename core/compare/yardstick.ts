import { LEVELS } from '../curve/quoted';
import { nominal } from '../quantity/duration';
import { lowerFirst } from '../quantity/letters';
import type { Measure } from './cells';
import type { About, MeasureColumn } from './measures';

/** What setups are set against each other by: the time to a level, what was gained by a mark, or the power of an energy sample. */
export interface Yardstick {
  /** The level in %, or the id of the figure. */
  id: string;
  /** As it is chosen: `time to 80 %`. */
  title: string;
  /** As it stands in a sentence: `to 80 %`, `in 1 h`. */
  says: string;
  /** Of a time to a level, in %. */
  level: number | undefined;
}

/** When a mark is, in seconds; `undefined` of another figure than a gain. */
const markOf = (id: string): number | undefined => (id.startsWith('gain-') ? Number(id.slice(5)) : undefined);

/** By a figure that is no time, as it stands in a sentence: `in 1 h`; `undefined` of one that setups are not set against each other by. */
export function figureSays(id: string): string | undefined {
  const mark = markOf(id);
  return mark === undefined ? (id === 'sampled' ? 'by energy sample' : undefined) : `in ${nominal(mark)}`;
}

const levels: readonly Yardstick[] = LEVELS.map((level) => ({
  id: String(level),
  title: `time to ${level} %`,
  says: `to ${level} %`,
  level,
}));
const FULL = levels.filter(({ level }) => level === 100);

/** What setups that have these figures can be set against each other by. */
export function yardsticksOf(measures: readonly Pick<Measure, 'id' | 'title'>[]): Yardstick[] {
  const passed = measures.find(({ id }) => id === 'light out' || id === 'power gone');
  // A device that shows no level is full when its light goes out.
  const times =
    passed && !measures.some(({ id }) => id.startsWith('level-'))
      ? FULL.map((full) => ({ ...full, title: lowerFirst(passed.title) }))
      : levels;
  const figures = measures.flatMap(({ id, title }) => {
    const says = figureSays(id);
    return says === undefined ? [] : [{ id, title: lowerFirst(title), says, level: undefined }];
  });
  return [...times, ...figures];
}

/** What they are set against each other by unless it is chosen: the end of a window, the power of a sample, else the time to full. */
export function usualYardstick(columns: readonly MeasureColumn[], about: About): string {
  const count = ({ cells }: MeasureColumn) => cells.filter(({ mean }) => mean && !mean.isLeast).length;
  const known = columns.filter((column) => count(column) > 1);
  if (about === 'power' && known.some(({ measure }) => measure.id === 'sampled')) return 'sampled';
  const gains = about === 'gains' || about === 'work' ? known.filter(({ measure }) => markOf(measure.id) !== undefined) : [];
  const most = Math.max(...gains.map(count));
  // The last mark by which most of them have a gain.
  return gains.findLast((column) => count(column) === most)?.measure.id ?? '100';
}
