import type { Pinia } from 'pinia';
import { CABLES, CHARGERS, DEVICES, saltmarshLive, METERS } from '../../demo/saltmarsh';
import type { Kept } from '@core/bench';
import { remove, save } from '../ledger/acts';
import { keyOf } from '../ledger/keys';
import { rowOf } from '../ledger/shapes';
import type { RowsReader } from '../ledger/readAhead';
import { useLanes } from '../logbook/lanes';
import { useLogbook } from '../logbook/runs';
import { useShelf } from '../logbook/shelf';
import { isToured, TOURED } from './toured';

const KEY = 'demo';
/** Nobody waits to be told that the demo is stored, and nothing is lost with it. */
const EARLY = { isAnsweredEarly: true };
/** Raised whenever the scenario changes, so that it is laid anew. */
const EDITION = 5;
/** The ids of its live runs: this, and the moment they were laid at. */
const LIVE = 'saltmarsh-live-';
/** A live run older than this, in milliseconds, is stale. */
const STALE = 3 * 3600 * 1000;

interface Laid {
  edition: number;
  at: number;
}

/**
 * Makes ready to lay the demo scenario: whatever of it has gone stale is cleared away.
 *
 * @returns what is to be laid once the logbook is open; `undefined` when all of it is there and fresh
 */
export async function readyDemo(
  { rows }: Pick<RowsReader, 'rows'>,
  now = Date.now(),
): Promise<((pinia: Pinia) => Promise<void>) | undefined> {
  const [settings, live] = await Promise.all([rows('setting'), rows('live')]);
  const laid = settings.find(([key]) => key === KEY)?.[1] as Laid | undefined;
  isToured.value = settings.some(([key]) => key === TOURED);
  const isNew = laid?.edition !== EDITION;
  const isFresh = (at: number) => now - at < STALE && now >= at;
  if (!isNew && isFresh(laid.at)) return undefined;
  // A page left before all was laid has laid its live run already, and somebody may have logged on it: the run’s id says when.
  const stale = live.map(([id]) => id).filter((id) => id.startsWith(LIVE) && !isFresh(Number(id.slice(LIVE.length))));
  for (const id of stale) await remove(id, EARLY);
  const isLive = live.some(([id]) => id.startsWith(LIVE) && !stale.includes(id));
  // Charged here, while the logbook is still being opened.
  const run = isLive ? undefined : saltmarshLive(now);
  return async (pinia) => {
    useLogbook(pinia).expect(layFinished(isNew, now));
    await Promise.all([
      run && useLanes(pinia).start(run.header, run.entries, EARLY),
      isNew &&
        save(
          gear().map(({ shelf, gear: each }) => rowOf(shelf, each)),
          EARLY,
        ).then(() => useShelf(pinia).load()),
    ]);
  };
}

const gear = (): Kept[] => [
  ...DEVICES.map((each) => ({ shelf: 'device' as const, gear: each })),
  ...CHARGERS.map((each) => ({ shelf: 'charger' as const, gear: each })),
  ...CABLES.map((each) => ({ shelf: 'cable' as const, gear: each })),
  ...METERS.map((each) => ({ shelf: 'meter' as const, gear: each })),
];

/** The finished runs come in behind, once the board has been drawn. */
async function layFinished(isNew: boolean, now: number): Promise<void> {
  await new Promise((resolve) => setTimeout(resolve, 400));
  if (isNew) {
    const [{ importAll }, { incomingOf }, { finishedRuns, PIECES, STUDIES }] = await Promise.all([
      import('../ledger/importing'),
      import('../ledger/incoming'),
      import('../../demo/finished'),
    ]);
    const rows = [...STUDIES.map((study) => rowOf('study', study)), ...PIECES.map((piece) => rowOf('piece', piece))];
    await importAll(incomingOf(finishedRuns(), { isChecked: true }), { rows });
  }
  await save([[keyOf('setting', KEY), { edition: EDITION, at: now } satisfies Laid]]);
}
