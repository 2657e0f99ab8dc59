import { proxy } from 'comlink';
import { format } from 'date-fns';
import { NOTHING_ELSE, type Rest } from '@core/exchange';
import { fileName, saveBlob } from '../kit/saveFile';
import { useSettings } from '../kit/settings';
import type { Progress } from '../kit/work';
import { KINDS } from '../ledger/kinds';
import type { SetAside } from '../ledger/live';
import { readNow } from '../ledger/readAhead';
import { LIST_KINDS, SHAPES } from '../ledger/shapes';
import { everyMapping } from '../logbook/mappings';
import { exchangeWorker } from '../workers/readFile';

/**
 * Saves the whole logbook as a file: runs, pictures, gear, methods, studies, comparisons, what was chosen and what is remembered, read, written and
 * read back in a worker before the file is handed over. Of some runs it saves them and what belongs to them.
 *
 * @param progress how many of its runs are written
 * @param signal   calls it off
 * @param only     ids of the runs that are wanted, if not all are
 * @returns the runs that could not be read, and are not in it
 */
export async function saveLogbook(
  progress: Progress = () => undefined,
  signal?: AbortSignal,
  only?: ReadonlySet<string>,
): Promise<SetAside[]> {
  const { remote, end } = exchangeWorker();
  signal?.addEventListener('abort', end);
  try {
    const { file, aside } = await remote.write(only, proxy(everythingElse), proxy(progress));
    saveBlob(`${fileName('inkpath logbook', format(Date.now(), 'yyyy-MM-dd'))}.json`, file);
    return aside;
  } finally {
    end();
  }
}

/** All lists, what was chosen, and what is remembered. What cannot be read of it is not what the runs should wait for. */
async function everythingElse(): Promise<Rest> {
  const rest = {
    ...NOTHING_ELSE,
    settings: JSON.parse(JSON.stringify(useSettings().all)) as Rest['settings'],
    remembered: await everyMapping(),
  };
  for (const kind of LIST_KINDS) {
    const things = (await readNow.rows(kind)).flatMap(([, stored]) => {
      try {
        return [SHAPES[kind].read(stored)];
      } catch {
        return [];
      }
    });
    Object.assign(rest, { [KINDS[kind].inFile]: things });
  }
  return rest;
}
