/** What the logbook lay in before it was one database: a dozen of them, and one more for the ink of every live run (moveOld.ts). */
export const OLD = {
  shelf: 'inkpath-shelf',
  live: 'inkpath-live',
  runs: 'inkpath-runs',
  catalogue: 'inkpath-catalogue',
  studies: 'inkpath-studies',
  methods: 'inkpath-methods',
  comparisons: 'inkpath-comparisons',
  arriving: 'inkpath-arriving',
} as const;
/** Before the id of the run. */
export const OLD_INK = 'inkpath-ink-';
/** The folder of its second copy. */
export const OLD_COPY = 'second-copy';

export const isOldDatabase = (name: string): boolean =>
  name.startsWith(OLD_INK) || (Object.values(OLD) as readonly string[]).includes(name);
