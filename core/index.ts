/** The one face of the computation. Rooms in the order in which they may use each other: later ones use earlier ones. */
export { requireAtLeast } from './quantity/require';
export { apparentLoad, averagePower, batteryEnergy, celsiusFromFahrenheit, power } from './quantity/electric';
export { readDecimal } from './quantity/decimal';
export { clock, countdown, nominal, parseClock, spell } from './quantity/duration';
export { decimalsFor, fixed, signedShare } from './quantity/figures';
export { parseEntryLine, type LineValues, type ParsedLine } from './quantity/entryLine';
export { writeEntryLine } from './quantity/writeLine';
export { listed } from './quantity/listed';
export { QUANTITIES, quantityOf, TEMPERATURES, TRACKED, type Quantity } from './quantity/quantity';
export { batteryDoubt, batteryFacts, batteryOf } from './bench/battery';
export { type Cable } from './bench/cable';
export { DATA_PORTS, PORT_CONNECTORS, type Charger, type Port } from './bench/charger';
export { portName } from './bench/portName';
export { portsOf } from './bench/ports';
export { type Device } from './bench/device';
export { FACTS, factsOf, type Fact, type FactGroup } from './bench/facts';
export { readLabel, type ReadLabel } from './bench/label';
export { type Meter } from './bench/meter';
export { writePort } from './bench/portText';
export { offerWatts, writeOffer, type Offer } from './bench/offer';
export { SCHEMAS } from './bench/schemas';
export { SHELVES, type Gear, type GearOn, type Kept, type Shelf } from './bench/shelf';
export { expectationOf, expectations, lessons, type Expectation } from './power/expectations';
export { portRemarks } from './power/offers';
export { explain } from './power/sentence';
export { negotiate, type Limit, type Outcome, type Negotiated } from './power/negotiate';
export { simulate, type Course } from './simulate/charge';
export { displayed, expectedCharge, parametersOf, vary, type Circumstances, type Expected } from './simulate/expected';
export { type ChargeParameters } from './simulate/parameters';
export { seeded } from './simulate/seeded';
export { isTie, rank, standardUncertainty, surelyBelow, writeRank, type Bounds, type Rank } from './margin/bounds';
export { cadenceInWords, checks, dueTimes, nextDue, type Check } from './method/cadence';
export { readCadence, writeCadence, type CadenceText } from './method/cadenceText';
export { SCHOOLS, type School } from './method/schools';
export { HOT } from './method/rule';
export { ENDINGS, WANTS, type Rule } from './method/ruleSchema';
export { cadenceSchema, type Cadence } from './method/cadenceSchema';
export { AMBIENT, CONDITIONS, REST } from './method/conditions';
export { type Condition } from './method/conditionSchema';
export { ownMethodSchema, withRule, type OwnMethod } from './method/ownMethod';
export {
  entriesSchema,
  headerSchema,
  type Draft,
  type Event,
  type Entry,
  type Header,
  type Note,
  type Reading,
  type Score,
  type Source,
  type Stop,
  type Strike,
  type Picture,
  type Trial,
} from './ink/entry';
export { endingSays, endingWord, RUN_ENDING_IDS, RUN_ENDINGS, type EndingId } from './ink/endings';
export { EVENTS, eventDetails, eventSays, type EventId } from './ink/events';
export { entrySays } from './ink/entrySays';
export { elapsedIn, footageSchema, type Footage } from './ink/footage';
export { SECOND_LOOK, SETTLE, STATUSES, statusSays, type StatusId } from './ink/statuses';
export { SCHEMA } from './ink/version';
export { EMPTY_TRACK, sighting, sightings, trackOf, type Samples, type Sighting, type Track } from './ink/track';
export { chargingTime, elapsedAt, foldRun, momentOf, sourceAt, valueIn, type RunRecord, type Seen, type Struck } from './ink/fold';
export { inkOf, type Jotted } from './ink/build';
export { isPlainReading } from './ink/plainReading';
export { milestone, type Milestone } from './curve/milestone';
export { gainAt, levelAt, type Gain } from './curve/valueAt';
export { energy, unseenSpans, type Energy, type Span } from './curve/energy';
export { peak, type Peak } from './curve/peak';
export { merged } from './curve/merged';
export { projection } from './curve/energySample';
export { stalls } from './curve/stall';
export { splitInWords, workloads, type Workload } from './curve/workloads';
export { gearOf, presentSummary, summarise, thin, type Summary } from './curve/summary';
export { checksOf, isHot, notices, watched, type Notice } from './curve/notices';
export { figuresOf, GAIN_TIMES, LEVELS, milestoneTime, writeGain, writeMilestone, type Figure } from './curve/figures';
export { type Working } from './curve/working';
export { expectedRun } from './run/expected';
export { forecasts, type Forecast } from './run/forecast';
export { clockJump, SLEPT, type Tick } from './run/clockJump';
export { worthReading } from './run/extra';
export { ghostOf, writeGhost, type Ghost } from './run/ghost';
export { isQuiet } from './run/quiet';
export { lastEntered } from './run/lastEntered';
export { castOf, MOST_ACTORS, scoreOf, standIn, type Actor, type ReadingScore } from './run/rehearsal';
export { missing, ruleOf, stopOffer } from './run/stopping';
export { newsOf } from './run/together';
export { assessLine, type AssessedLine } from './run/assessLine';
export { dueOf, inOrderOfDue, decidedAt, LANE_LETTERS, type Due } from './run/due';
export { compatibility, likelyStatus, sourceKey, type Compatible, type Tried } from './compare/compatibility';
export { speedUp, type SpeedUp } from './compare/speedUp';
export { compareRuns, type Row, type Standing } from './compare/compare';
export { QUESTIONS, type Question } from './plan/questions';
export { lowerBound } from './plan/bound';
export { agendaOf, movesOf, nextRun, oneAfterAnother, tallyOf, type Appointment, type Move } from './plan/agenda';
export { attended, DAYS, usualCalendar, type Stretch } from './plan/calendar';
export { calendarSchema, type Calendar, type Hours } from './plan/calendarSchema';
export { differing } from './plan/differing';
export { endsAttended } from './plan/ends';
export { readHours, writeHours } from './plan/hoursText';
export { costOf } from './plan/cost';
export { type Placed, type Problem } from './plan/jobs';
export { layOut, type LayOut } from './plan/layOut';
export { cellsOf, progressOf, runKey, type PlannedRun, type Progress } from './plan/matrix';
export { restored, search, type Found } from './plan/search';
export { gearNames, runInWords, setupsOf, willNotCharge, type GearAtHand, type Setup } from './plan/setups';
export { ORDERS, STATES, studySchema, type Study } from './plan/study';
export { cheapestChange, powerTelling, tellings, type Change } from './plan/tell';
export { namesOf, unfairness, verdict } from './advise/verdict';
export { CAUTIONS } from './advise/cautions';
export { writeCompatibility } from './exchange/compatibilityOut';
export { writeAgenda, writeICalendar } from './exchange/calendarOut';
export { ImportError } from './exchange/importError';
export { LONGEST_ROW, MOST_VALUES } from './exchange/limits';
export { migrate } from './exchange/migrate';
export { CsvReader, readCsv, type CsvOptions, type CsvRun } from './exchange/csvIn';
export { writeCsv } from './exchange/csvOut';
export { readGearCsv, writeGearCsv, type NewGear, type ReadGear } from './exchange/gearCsv';
export { joinInk } from './exchange/joinInk';
export { logbookHead, logbookOf, logbookParts, writeLogbook, type Logbook, type LogbookHead, type StoredRun } from './exchange/logbook';
export { LogbookReader, readLogbook } from './exchange/readLogbook';
export { entryMisfit, runMisfit } from './exchange/runMisfit';
export { type Misfit } from './exchange/fits';
export { replay, type Line } from './exchange/replay';
export { runFromCsv } from './exchange/runFromCsv';
