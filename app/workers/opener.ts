import { setAssumed, setManner, type Assumed, type Manner } from '@core/quantity';
import { expose } from 'comlink';
import { openFiled, type Opened } from './opened';

/** Runs with a meter's stream are opened here, so that the clock goes on while a million rows are read. */
const opener = {
  /** @param manner  how its remarks are written; @param assumed what its figures take for granted */
  open(id: string, manner: Manner, assumed: Assumed): Promise<Opened> {
    setManner(manner);
    setAssumed(assumed);
    return openFiled(id);
  },
};
export type Opener = typeof opener;

expose(opener);
