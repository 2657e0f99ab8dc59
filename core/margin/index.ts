export { shownMargin, standardUncertainty, type Bounds } from './bounds';
export { difference, rank, writeRank, type Difference, type Pooled, type Rank, type Spread } from './told';
