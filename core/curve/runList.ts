import type { Summary } from './summary';

/** In which order a list of runs stands, and how the order is called. */
export const RUN_ORDERS = [
  { id: 'newest', says: 'newest first' },
  { id: 'oldest', says: 'oldest first' },
  { id: 'device', says: 'by device' },
  { id: 'charger', says: 'by charger' },
  { id: 'eighty', says: 'quickest to 80 %' },
  { id: 'full', says: 'quickest to 100 %' },
  { id: 'longest', says: 'longest first' },
] as const;
export type RunOrder = (typeof RUN_ORDERS)[number]['id'];

/** What is looked for in a list of runs; what is left out may be anything. */
export interface RunFilter {
  /** Words that all stand somewhere in its names, tags or note. */
  words?: string | undefined;
  device?: string | undefined;
  charger?: string | undefined;
  /** The id of a study. */
  study?: string | undefined;
  method?: string | undefined;
  /** How it ended, in a word. */
  ending?: string | undefined;
  tag?: string | undefined;
  /** Plugged in from then on, and before then. Epoch milliseconds. */
  from?: number | undefined;
  before?: number | undefined;
}

const NATURAL = new Intl.Collator(undefined, { numeric: true, sensitivity: 'base' });
/** Names in the order that people expect: 7 before 12. */
export const byNatural = (one: string, other: string): number => NATURAL.compare(one, other);

/** The runs that fit, in the order they are in. */
export function runsFound(all: readonly Summary[], filter: RunFilter): Summary[] {
  const words = (filter.words ?? '').toLowerCase().split(/\s+/).filter(Boolean);
  const is = (wanted: string | undefined, value: string | undefined) => wanted === undefined || wanted === value;
  return all.filter(({ device, charger, study, method, stop, tags = [], note = '', plugInAt }) => {
    const text = [device, charger, ...tags, note].join(' ').toLowerCase();
    return (
      words.every((word) => text.includes(word)) &&
      is(filter.device, device) &&
      is(filter.charger, charger) &&
      is(filter.study, study?.id) &&
      is(filter.method, method) &&
      is(filter.ending, stop) &&
      (filter.tag === undefined || tags.includes(filter.tag)) &&
      plugInAt >= (filter.from ?? -Infinity) &&
      plugInAt < (filter.before ?? Infinity)
    );
  });
}

/** The runs in an order; those that have nothing to be ordered by come last, and what is alike stands newest first. */
export function runsInOrder(all: readonly Summary[], order: RunOrder): Summary[] {
  const time = ({ plugInAt }: Summary) => plugInAt;
  const least = (value: number | undefined) => value ?? Infinity;
  const compare: Readonly<Record<RunOrder, (one: Summary, other: Summary) => number>> = {
    newest: () => 0,
    oldest: (one, other) => time(one) - time(other),
    device: (one, other) => byNatural(one.device, other.device) || byNatural(one.charger, other.charger),
    charger: (one, other) => byNatural(one.charger, other.charger) || byNatural(one.device, other.device),
    eighty: (one, other) => difference(least(one.reached?.eighty), least(other.reached?.eighty)),
    full: (one, other) => difference(least(one.reached?.full), least(other.reached?.full)),
    longest: (one, other) => other.end - one.end,
  };
  return [...all].sort((one, other) => compare[order](one, other) || time(other) - time(one));
}

/** Two that are endless are alike. */
const difference = (one: number, other: number) => (one === other ? 0 : one - other);
