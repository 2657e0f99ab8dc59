import { CHARGERS, DEVICES, finishedRuns, liveRun } from '../../demo/saltmarsh';
import { liveBook, shelfBook, store } from '../ledger/databases';
import { forgetLive, startRun, takeIn } from '../ledger/ledger';

const KEY = 'demo';
/** Raised whenever the scenario changes, so that it is laid anew. */
const EDITION = 1;
/** A live run older than this, in milliseconds, is stale. */
const STALE = 3 * 3600 * 1000;

interface Laid {
  edition: number;
  at: number;
}

/** Lays the demo scenario into an empty logbook, and its live run anew when it has gone stale. */
export async function layDemo(now = Date.now()): Promise<void> {
  const laid = await shelfBook.getItem<Laid>(KEY);
  const isFresh = laid?.edition === EDITION && now - laid.at < STALE && now >= laid.at;
  if (isFresh) return;
  const { header, entries } = liveRun(now);
  const stale = (await liveBook.keys()).filter((id) => id.startsWith('saltmarsh-live-'));
  const isNew = laid?.edition !== EDITION;
  await Promise.all([
    ...(isNew ? [takeIn(finishedRuns())] : []),
    ...(isNew ? DEVICES.map((gear) => store(shelfBook, `device/${gear.id}`, { shelf: 'device', gear })) : []),
    ...(isNew ? CHARGERS.map((gear) => store(shelfBook, `charger/${gear.id}`, { shelf: 'charger', gear })) : []),
    ...stale.map(forgetLive),
    startRun(header, entries),
  ]);
  await store(shelfBook, KEY, { edition: EDITION, at: now } satisfies Laid);
}
