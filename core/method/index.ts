export { cadenceInWords, checks, dueTimes, nextDue, type Check } from './cadence';
export { readCadence, writeCadence, type CadenceText } from './cadenceText';
export { SCHOOLS, type School } from './schools';
export { HOT, withRule } from './rule';
export { ENDINGS, WANTS, type Rule } from './ruleSchema';
export { cadenceSchema, type Cadence } from './cadenceSchema';
export { AMBIENT, CONDITIONS, keptAmbient, REST, shownCondition } from './conditions';
export { type Condition } from './conditionSchema';
export { ownMethodSchema, type OwnMethod } from './ownMethod';
