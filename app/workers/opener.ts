import { expose } from 'comlink';
import { openFiled } from './opened';

/** Runs with a meter's stream are opened here, so that the clock goes on while a million rows are read. */
const opener = { open: openFiled };
export type Opener = typeof opener;

expose(opener);
