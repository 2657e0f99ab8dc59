export { writeCompatibility } from './compatibilityOut';
export { writeAgenda, writeICalendar } from './calendarOut';
export { ImportError, short } from './importError';
export { LONGEST_ROW, MOST_VALUES } from './limits';
export { migrate } from './migrate';
export { requireUnpacked } from './packed';
export { CsvReader, readCsv, type CsvOptions, type CsvRun } from './csvIn';
export { lastAt, readLogDate, type DateOrder } from './moments';
export { deviceIn, meanings, ofDevice, peek, tellsAll, type Mapping, type Peek } from './mapping';
export { writeCsv } from './csvOut';
export { readGearCsv, shelved, writeGearCsv, type NewGear, type ReadGear } from './gearCsv';
export { conflictsIn, differencesOf, joinInk, settleInk, type Choice, type Conflict } from './joinInk';
export {
  separateLog,
  foldStored,
  streamedOf,
  logbookOf,
  logbookParts,
  writeLogbook,
  type Logbook,
  NOTHING_ELSE,
  restOf,
  type Rest,
  type StoredRun,
} from './logbook';
export { LogbookReader, readLogbook } from './readLogbook';
export { LONGEST_HEADING, MOST_REMEMBERED, type Remembered, type Settings } from './settings';
export { belongingTo, namesIn, settingsFit } from './belonging';
export { studyIn, studyRepeated, studyToRepeat } from './studyToRepeat';
export { entryMisfit, runMisfit } from './runMisfit';
export { type Misfit } from './fits';
export { lineText, linesIn, replayLines, voidText, type Line } from './lines';
export { replay } from './replay';
export { splitRun } from './splitRun';
export { runFromCsv } from './runFromCsv';
export {
  cadenceOf,
  FROM_PAPER,
  MOST_PAPER,
  PAPER_GEAR,
  readColumns,
  readGrid,
  readTime,
  runFromPaper,
  tooMuch,
  type PaperColumn,
  type PaperFault,
  type PaperGrid,
} from './paper';
export {
  blankGrid,
  columnsIn,
  isBlank,
  pastedAt,
  restLikeFirst,
  withCell,
  withColumn,
  withFact,
  withGearSwapped,
  withoutColumn,
  withoutRow,
  withRow,
  withRowAsFact,
  type PasteAt,
} from './paperEdit';
export { cellFor, studyOfPaper } from './paperStudy';
export { gearOf, setupIn, type NewName, type PaperSetup } from './paperSetup';
