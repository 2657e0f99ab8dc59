export { expectationOf, expectations, lessons, type Expectation } from './expectations';
export { feedOf } from './feed';
export { portRemarks } from './offers';
export { explain } from './sentence';
export { negotiate, type Limit, type Outcome, type FeedDraw, type Negotiated } from './negotiate';
