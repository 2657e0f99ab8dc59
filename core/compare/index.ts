export { compatibility, likelyStatus, sourceKey, type Compatible, type Tried } from './compatibility';
export { type SpeedUp, type WithMargin } from './speedUp';
export { compareRuns, type Compared, type Row, type Standing } from './compare';
export { writeGained, writePeak, writeStanding, writeTimeTo, writeWhen } from './words';
