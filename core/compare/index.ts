export { compatibility, notSeenSays, type Compatible, type Tried } from './compatibility';
export { writeTried, type WrittenTried } from './triedSays';
export { type SpeedUp, type WithMargin } from './speedUp';
export { compareRuns, type Row } from './compare';
export { baselineOf, setupsOf, usualBaseline, withoutSequences, type SetupRuns } from './setups';
export { writeAmount, type MeasureUnit } from './amounts';
export { whiskersOf, workingOf, writeDifference, type Cell, type Measure } from './cells';
export {
  aboutOf,
  GAIN_UNITS,
  columnsOf,
  gainUnitsOf,
  measuresOf,
  usualGainUnit,
  usualMeasures,
  type About,
  type GainUnit,
  type MeasureColumn,
} from './measures';
export { goalSays, sharesSay, standingsOf, writeStanding } from './words';
export { usualYardstick, yardsticksOf, type Yardstick } from './yardstick';
export { aheadOf, turnOf, type Ahead } from './ahead';
export { unlikeIn, type Unlike } from './unlike';
export { loadsOf, type Load, type Worked } from './loads';
export { gathered, padsOf, type PadResult, type RatingGroup } from './gathered';
export { matrixOf, type FigureMatrix } from './matrix';
export { figureTable, matrixTable } from './figureTable';
export { byDevice, sharedSources, type RowsOfDevice } from './byDevice';
export { namesOf } from './names';
export { comparisonSchema, isOf, type Comparison, type Edit } from './comparison';
