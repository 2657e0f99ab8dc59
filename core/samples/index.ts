export { longestBridge, type Samples } from './column';
export { rangeOf, type Dot } from './range';
