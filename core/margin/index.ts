export { isTie, rank, standardUncertainty, surelyBelow, writeRank, type Bounds, type Rank } from './bounds';
