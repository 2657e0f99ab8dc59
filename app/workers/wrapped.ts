import { transferHandlers, wrap, type Remote } from 'comlink';
import { ImportError } from '@core/exchange';
import { watched } from '../kit/failures';
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

/** The far side of a worker of this room: what it throws keeps its class, and what fails in it ends where all failures do. */
export const wrapped = <Api>(worker: Worker): Remote<Api> => wrap<Api>(watched(worker));
