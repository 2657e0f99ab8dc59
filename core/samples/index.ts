export { isSameTimes, joined, type Logs, type Samples } from './column';
export { gapsOf, type Span } from './gaps';
export { rangeOf, type Dot } from './range';
