import { proxy } from 'comlink';
import { format } from 'date-fns';
import { NOTHING_ELSE, type Rest } from '@core/exchange';
import { askedNow, assumedNow, mannerNow } from '@core/quantity';
import { fileName, saveBlob } from '../kit/saveFile';
import { useSettings } from '../kit/settings';
import type { Progress } from '../kit/work';
import { KINDS } from '../ledger/kinds';
import { readNow } from '../ledger/readAhead';
import { LIST_KINDS, SHAPES } from '../ledger/shapes';
import { noteBackup } from '../logbook/backupState';
import { everyMapping } from '../logbook/mappings';
import { wrappedWorker } from '../workers/wrapped';
import type { Exported, Exporter } from './exporter';
import { EXPORTS, type ExportId } from './exports';
import type { Target } from './target';

const exporterWorker = () => new Worker(new URL('./exporter.ts', import.meta.url), { type: 'module' });
/** One that has begun already, for the next file. */
let spare: Worker | undefined;

/** Has a worker begin while it is still being chosen what is exported. @returns puts it away where nothing was */
export function readyExporter(): () => void {
  const worker = (spare = exporterWorker());
  const putAway = () => {
    if (spare !== worker) return;
    worker.terminate();
    spare = undefined;
  };
  // One that cannot begin would never answer: the next is begun when it is asked, and says so.
  worker.addEventListener('error', putAway);
  return putAway;
}

/**
 * Makes a file of something, in a worker.
 *
 * @param progress how many runs are written
 * @param signal   calls it off: nothing comes of it then
 */
export async function makeFile(
  id: ExportId,
  target: Target,
  progress: Progress = () => undefined,
  signal?: AbortSignal,
): Promise<Exported & { name: string }> {
  const worker = spare ?? exporterWorker();
  spare = undefined;
  const remote = wrappedWorker<Exporter>(worker);
  const end = () => {
    worker.terminate();
  };
  signal?.addEventListener('abort', end);
  try {
    const ways = { manner: mannerNow(), assumed: assumedNow(), asked: askedNow() };
    const plain = JSON.parse(JSON.stringify(target)) as Target;
    const made = await remote.write(id, plain, ways, proxy(everythingElse), proxy(progress));
    const { ending } = EXPORTS.find((each) => each.id === id) ?? { ending: 'txt' };
    const isDated = target.of === 'logbook' || target.of === 'shelf' || target.of === 'runs';
    const name = `${fileName(target.name, ...(isDated ? [format(Date.now(), 'yyyy-MM-dd')] : []))}.${ending}`;
    return { ...made, name };
  } finally {
    end();
  }
}

/** Makes a file of something, and hands it to the person. @returns what was made */
export async function exportFile(...asked: Parameters<typeof makeFile>): Promise<Exported & { name: string }> {
  const made = await makeFile(...asked);
  if (asked[3]?.aborted) return made;
  saveBlob(made.name, made.file);
  // It was read back before it was handed over.
  if (asked[0] === 'logbook' && asked[1].of === 'logbook' && made.aside.length === 0) await noteBackup(Date.now()).catch(() => undefined);
  return made;
}

/** All lists, what was chosen, and what is remembered. What cannot be read of it is not what the runs should wait for. */
export async function everythingElse(): Promise<Rest> {
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
