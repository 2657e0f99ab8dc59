export { expectationOf, expectations, lessons, type Expectation } from './expectations';
export { portRemarks } from './offers';
export { explain } from './sentence';
export { negotiate, type Limit, type Outcome, type Negotiated } from './negotiate';
