export { compatibility, likelyStatus, sourceKey, type Compatible, type Tried } from './compatibility';
export { speedUp, type SpeedUp } from './speedUp';
export { compareRuns, type Row, type Standing } from './compare';
