export { simulate, type Course } from './charge';
export { displayed, expectedCharge, parametersOf, vary, type Circumstances, type Expected } from './expected';
export { type ChargeParameters } from './parameters';
export { seeded } from './seeded';
