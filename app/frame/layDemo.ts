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

/**
 * Lays the demo scenario into an empty logbook, and its live run anew when it has gone stale.
 *
 * @returns once the shelf and the live run are there: the finished runs, whose arrival it gives back, come in behind, once the board
 *          has been drawn
 */
export async function layDemo(now = Date.now()): Promise<{ finished: Promise<void> }> {
  const laid = await shelfBook.getItem<Laid>(KEY);
  const isNew = laid?.edition !== EDITION;
  if (!isNew && now - laid.at < STALE && now >= laid.at) return { finished: Promise.resolve() };
  const { header, entries } = liveRun(now);
  const stale = (await liveBook.keys()).filter((id) => id.startsWith('saltmarsh-live-'));
  const gear = [...DEVICES.map((each) => ['device', each] as const), ...CHARGERS.map((each) => ['charger', each] as const)];
  await Promise.all([
    startRun(header, entries),
    ...stale.map(forgetLive),
    ...(isNew ? gear.map(([shelf, each]) => store(shelfBook, `${shelf}/${each.id}`, { shelf, gear: each })) : []),
  ]);
  return { finished: layFinished(isNew, now) };
}

async function layFinished(isNew: boolean, now: number): Promise<void> {
  await new Promise((resolve) => setTimeout(resolve, 100));
  if (isNew) await takeIn(finishedRuns());
  await store(shelfBook, KEY, { edition: EDITION, at: now } satisfies Laid);
}
