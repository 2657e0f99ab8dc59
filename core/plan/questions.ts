/** A question that reviewers ask, what they vary to answer it, and the methods that fit, the fittest first. */
export interface StudyQuestion {
  id: string;
  asks: string;
  varies: string;
  /** Ids of schools (method/schools.ts). */
  methods: readonly string[];
}

/** The questions of the trade (common practice, no source). */
export const QUESTIONS: readonly StudyQuestion[] = [
  {
    id: 'how-it-charges',
    asks: 'How does this device charge?',
    varies: 'nothing: one device on its best charger',
    methods: ['instrumented-log', 'fixed-interval'],
  },
  {
    id: 'which-charger',
    asks: 'Which charger for this device? Is the dearer or bigger one worth it?',
    varies: 'the charger',
    methods: ['coarse-then-fine', 'fixed-interval', 'milestone-checks'],
  },
  {
    id: 'which-device',
    asks: 'Which device charges fastest?',
    varies: 'the device, each with its own charger',
    methods: ['top-up-window', 'milestone-checks', 'coarse-then-fine'],
  },
  {
    id: 'will-it-work',
    asks: 'Will this charger work at all?',
    varies: 'the charger, many, briefly',
    methods: ['spot-check', 'energy-sample'],
  },
  {
    id: 'light-charger',
    asks: 'Which light charger is still enough on a trip?',
    varies: 'the charger',
    methods: ['fixed-hour-from-half', 'top-up-window'],
  },
  { id: 'weak-dock', asks: 'Does a weak dock slow the machine down?', varies: 'the source, under load', methods: ['load-test'] },
  { id: 'how-much', asks: 'How much does it use? How big a pack or panel do I need?', varies: 'the workload', methods: ['consumption'] },
  { id: 'cable-or-pad', asks: 'Cable or wireless pad?', varies: 'the path', methods: ['fixed-interval', 'instrumented-log'] },
  {
    id: 'old-chargers',
    asks: 'Should I throw the old chargers away?',
    varies: 'the charger, oldest to newest',
    methods: ['coarse-then-fine', 'milestone-checks'],
  },
];
