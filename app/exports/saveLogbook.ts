import { proxy } from 'comlink';
import { format } from 'date-fns';
import { logbookHead } from '@core/exchange';
import { fileName, saveBlob } from '../kit/saveFile';
import { everyRun } from '../ledger/filed';
import type { SetAside } from '../ledger/live';
import { everyPicture } from '../ledger/pictures';
import { useComparisons } from '../logbook/comparisons';
import { useMethods } from '../logbook/methods';
import { useShelf } from '../logbook/shelf';
import { useStudies } from '../logbook/studies';
import { exchangeWorker } from '../workers/readFile';

/**
 * Saves the whole logbook as a file: gear, methods, studies, comparisons, runs and pictures, one after another, written in a worker and read back there before
 * the file is handed over.
 *
 * @param progress how much of it is written, as a share
 * @param signal   calls it off
 * @param only     ids of the runs that are wanted, if not all are
 * @returns the runs that could not be read, and are not in it
 */
export async function saveLogbook(
  progress: (share: number) => void = () => undefined,
  signal?: AbortSignal,
  only?: ReadonlySet<string>,
): Promise<SetAside[]> {
  const [studies, methods, comparisons] = [useStudies(), useMethods(), useComparisons()];
  // What cannot be read of these is not what the runs should wait for.
  await Promise.allSettled([studies.load(), methods.load(), comparisons.load()]);
  const head = logbookHead(useShelf().everything(), {
    methods: methods.own,
    studies: studies.all,
    comparisons: comparisons.all,
  });
  const aside: SetAside[] = [];
  const names = new Map<string, string>();
  const runs = everyRun(aside, progress, only);
  const pictures = everyPicture();
  const { remote, end } = exchangeWorker();
  signal?.addEventListener('abort', end);
  try {
    const { file, unfit } = await remote.write(
      JSON.parse(JSON.stringify(head)) as typeof head,
      proxy({
        run: async () => {
          const next = await runs.next();
          if (next.done) return undefined;
          const { header, entries } = next.value;
          names.set(header.id, `${header.device.name} on ${header.charger.name}`);
          return { ...next.value, entries: [...entries] };
        },
        picture: async () => {
          const next = await pictures.next();
          return next.done ? undefined : next.value;
        },
      }),
    );
    saveBlob(`${fileName('inkpath logbook', format(Date.now(), 'yyyy-MM-dd'))}.json`, file);
    return [...aside, ...unfit.map(([id, why]) => ({ id, why, name: names.get(id) ?? id }))];
  } finally {
    end();
  }
}
