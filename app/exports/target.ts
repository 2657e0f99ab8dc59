import type { Appointment, GearAtHand, Study } from '@core/plan';
import type { PiecePage } from '@core/report';

/** What can be exported. */
export type ExportOf = 'run' | 'runs' | 'study' | 'comparison' | 'shelf' | 'calendar' | 'piece' | 'logbook';

/** One thing to export: what it is, what a person calls it, and what belongs to it. */
export interface Target {
  of: ExportOf;
  /** As it stands in the list of what can be exported: `This run`, `Study “Vans”: 15 runs`. */
  says: string;
  /** What its file is called by. */
  name: string;
  /** Ids of its runs; all where they are not said. */
  runs?: readonly string[] | undefined;
  /** Id of the study. */
  study?: string | undefined;
  /** Whether chargers were tried in it one after another. */
  isSpot?: boolean | undefined;
  /** Whether what meters gave is left out: it lies in files of its own. */
  isWithoutSamples?: boolean | undefined;
  /** A piece as readers get it. */
  piece?: PiecePage | undefined;
  /** A calendar as it stands on the page. */
  calendar?: { study: Study; agenda: readonly Appointment[]; gear: GearAtHand } | undefined;
}

/** All that lies in this logbook. */
export const WHOLE: Target = { of: 'logbook', says: 'Everything in this logbook', name: 'inkpath logbook' };

const countOf = (runs: readonly string[]) => (runs.length === 1 ? '1 run' : `${runs.length} runs`);

/** Some runs, as a list calls them: `The 3 that are picked`. */
export const runsTarget = (says: string, runs: readonly string[]): Target => ({ of: 'runs', says, name: 'inkpath runs', runs });

/** A study and its runs. */
export const studyTarget = (id: string, name: string, runs: readonly string[]): Target => ({
  ...{ of: 'study', study: id, name, runs },
  says: `The study ${name}, with ${countOf(runs)}`,
});

/** The runs of a comparison. */
export const comparisonTarget = (name: string, runs: readonly string[]): Target => ({
  ...{ of: 'comparison', name, runs },
  says: `What is compared: ${countOf(runs)}`,
});

/** A piece as it stands on the page: no run of it is read again. */
export const pieceTarget = (name: string, piece: PiecePage): Target => ({ of: 'piece', name, piece, says: 'This piece, as it stands' });
