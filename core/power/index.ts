export { expectationOf, expectations, lessons, type Expectation } from './expectations';
export { fedBy } from './feed';
export { portRemarks } from './offers';
export { explain } from './sentence';
export { negotiate, type Limit, type Outcome, type Fed, type Negotiated } from './negotiate';
