import { expose } from 'comlink';
import { readCsv, readLogbook } from '@core';

/** Files are read here, so that a large one never stops the clock. */
const exchange = { readCsv, readLogbook };
export type Exchange = typeof exchange;

expose(exchange);
