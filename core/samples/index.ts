export { type Samples } from './column';
export { gapsOf, type Span } from './gaps';
export { rangeOf, type Dot } from './range';
