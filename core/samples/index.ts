export { isSameTimes, joined, type Logs, type Samples } from './column';
export { gapsOf, type Span } from './gaps';
export { centredOn, lookedAt, momentAt, panned, pinchZoom, pixelOf, stepFrom, wheelPan, wheelZoom, zoomed } from './looked';
export { rangeOf, type Dot } from './range';
