export {
  entriesSchema,
  headerSchema,
  type Draft,
  type Event,
  type Entry,
  type Header,
  type Correction,
  type Discard,
  type Label,
  type Log,
  type List,
  type Note,
  type Reading,
  type Score,
  type Source,
  type Stop,
  type Strike,
  type Picture,
  type Trial,
} from './entry';
export { endingSays, endingWord, RUN_ENDING_IDS, RUN_ENDINGS, type EndingId } from './endings';
export { EVENTS, eventSays, LIGHT_WAS, POWER_COMES, POWER_GOES, type EventId } from './events';
export { carried, gearOfRun } from './corrected';
export { correctionSays, correctsNothing } from './correctionSays';
export { entrySays, eventInWords, sourceSays, whatChanged } from './entrySays';
export { elapsedIn, footageSchema, type Footage } from './footage';
export { LONGEST_RUN } from './ranges';
export { SECOND_LOOK, SETTLE, STATUSES, statusSays, type StatusId } from './statuses';
export { TRIAL_STATES, type TrialState } from './trialStates';
export { clockSays, fromPlugIn, readPlace, reshapingSays } from './reshapingSays';
export { chargedBy } from './sequence';
export { sourceKey } from './sourceKey';
export { SCHEMA } from './version';
export { EMPTY_TRACK, sighting, sightings, trackOf, type Sighting, type Track } from './track';
export { type LaidLog } from './withLogs';
export {
  chargingTime,
  elapsedAt,
  foldRun,
  momentOf,
  sourceAt,
  valueIn,
  withoutTracks,
  type RunInk,
  type RunRecord,
  type Seen,
  type Struck,
} from './fold';
export { foldMore } from './foldMore';
export { inkOf, type Jotted } from './build';
export { isPlainReading } from './plainReading';
