export { usualBaseline } from './setups';
export { compatibility, type Compatible, type Tried } from './compatibility';
export { writeTried, type WrittenTried } from './triedSays';
export { type SpeedUp, type WithMargin } from './speedUp';
export { compareRuns, type Compared, type Row, type Standing } from './compare';
export { goalSays, writeGained, writePeak, writeSampled, writeStanding, writeTimeTo, writeWhen } from './words';
