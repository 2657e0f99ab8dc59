import { transferHandlers, type Remote } from 'comlink';
import { ImportError } from '@core/exchange';
import { report } from '../kit/failures';
import { remoteOf, WorkerLost } from '../kit/remote';
import { StorageTrouble } from '../ledger/storageTrouble';

/** Classes of errors that are told apart on this side, by the name they carry. */
const CLASSES: Readonly<Record<string, new (message: string) => Error>> = { ImportError, StorageTrouble };

/** What Comlink sends of something that was thrown. */
interface Thrown {
  isError: boolean;
  value: { name: string; message: string };
}
const plain = transferHandlers.get('throw');
// An error would keep its message on the way out of a worker, but not its class.
if (plain)
  transferHandlers.set('throw', {
    ...plain,
    deserialize: (thrown: Thrown) => {
      const Known = thrown.isError ? CLASSES[thrown.value.name] : undefined;
      if (Known) throw new Known(thrown.value.message);
      return plain.deserialize(thrown);
    },
  });

/**
 * The far side of a worker of this room: what it throws keeps its class. What fails in it uncaught ends where all failures do, and whoever waits for
 * it hears of it.
 *
 * @param onLost told when that has happened
 */
export const wrappedWorker = <Api>(worker: Worker, onLost: () => void = () => undefined): Remote<Api> =>
  remoteOf<Api>(worker, (why) => {
    report(new WorkerLost(why));
    onLost();
  });
