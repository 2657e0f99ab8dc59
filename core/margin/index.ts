export { shownMargin, standardUncertainty, type Bounds } from './bounds';
export { difference, rank, writeRank, type Difference, type Pooled, type Rank } from './told';
export { type Spread } from './assumed';
