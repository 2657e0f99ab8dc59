import { nanoid } from 'nanoid';
import { defineStore } from 'pinia';
import { computed, shallowRef } from 'vue';
import { type Summary } from '@core/curve';
import type { StoredRun } from '@core/exchange';
import type { Draft, Entry, RunInk } from '@core/ink';
import { askedNow, assumedNow, mannerNow } from '@core/quantity';
import { remove, write as writeInk, writeNext } from '../ledger/acts';
import { onTabs, tellTabs } from '../ledger/channel';
import { entryOf } from '../ledger/entries';
import { catalogue } from '../ledger/filed';
import type { ImportWays } from '../ledger/importing';
import type { Incoming } from '../ledger/incoming';
import type { RowsReader } from '../ledger/readAhead';
import type { Beside, Glimpse, Opened } from '../workers/opened';

/** How long what was discarded can be put back, in milliseconds. */
const KEPT_FOR = 30 * 24 * 3600 * 1000;

/** Rows that a strip draws of one track where few runs share it, and where many do: each has less of it to itself. */
const FEW_RUNS = 6;
const DRAWN = { ofFew: 1500, ofMany: 400 };

/** When what came in is worked out ahead, in milliseconds. */
const SEEN = 3000;

/** What was worked out, and of what. */
interface Kept<Value> {
  of: string;
  value: Value;
}

/** The filed runs: a list of summaries, and those that were opened. */
export const useLogbook = defineStore('logbook', () => {
  const listed = shallowRef<Summary[]>([]);
  const summaries = computed(() => listed.value.filter(({ discardedAt }) => discardedAt === undefined));
  /** Runs that were discarded and can still be put back. */
  const discarded = computed(() => listed.value.filter(({ discardedAt }) => discardedAt !== undefined));
  /**
   * What was worked out of runs, each by what it was worked out of: the ink of the run, and the settings by which figures are assumed, asked for and
   * written. One entry of one run forgets that run alone.
   */
  const [opened, besides] = [new Map<string, Kept<Opened>>(), new Map<string, Kept<Beside>>()];
  /** Lists made before their ink was noted are told apart by when they were read. */
  let loads = 0;
  const inkOf = computed(() => new Map(listed.value.map(({ id, ink }) => [id, ink])));
  /** Whether a run is filed: one that was discarded is, one that is live is not. */
  const isListed = (runId: string) => inkOf.value.has(runId);
  const stampOf = (runId: string) => JSON.stringify([inkOf.value.get(runId) ?? `as of ${loads}`, mannerNow(), assumedNow(), askedNow()]);
  function keptOf<Value>(kept: ReadonlyMap<string, Kept<Value>>, runId: string, key = runId): Value | undefined {
    const one = kept.get(key);
    return one?.of === stampOf(runId) ? one.value : undefined;
  }
  let arriving = Promise.resolve();

  async function load(reading?: RowsReader): Promise<void> {
    listed.value = await catalogue(reading);
    loads += 1;
  }

  /** Runs are still coming in: none is called missing before they are here. */
  function expect(arrival: Promise<void>): void {
    arriving = arrival.then(() => load());
  }

  /** Resolves when all that is still coming in is here. */
  const arrived = () => arriving;

  /**
   * A filed run and all that was worked out of it.
   *
   * @param first is told what can be drawn of a streamed run, before its figures are worked out
   * @throws {StorageTrouble} when there is none of that id
   */
  async function open(runId: string, first?: (glimpse: Glimpse) => void): Promise<Opened> {
    const known = keptOf(opened, runId);
    if (known) return known;
    await arriving;
    const of = stampOf(runId);
    const { openRun } = await import('../workers/openRun');
    const value = await openRun(runId, first);
    opened.set(runId, { of, value });
    return value;
  }

  /**
   * Filed runs to be laid beside each other, by their ids, without those that are not here or cannot be read.
   *
   * @param tell is told how many are there
   */
  async function openForComparison(ids: readonly string[], tell: (done: number) => void): Promise<ReadonlyMap<string, Beside>> {
    const most = ids.length > FEW_RUNS ? DRAWN.ofMany : DRAWN.ofFew;
    await arriving;
    const known = new Map<string, Beside>(
      ids.flatMap((id) => {
        const one = keptOf(opened, id) ?? keptOf(besides, id, `${most} ${id}`);
        return one ? [[id, one] as const] : [];
      }),
    );
    const missing = ids.filter((id) => !known.has(id));
    if (missing.length > 0) {
      const { openBeside } = await import('../workers/openRun');
      const of = new Map(missing.map((id) => [id, stampOf(id)]));
      const found = await openBeside(missing, most, (done) => {
        tell(known.size + done);
      });
      for (const [id, value] of found) {
        known.set(id, value);
        besides.set(`${most} ${id}`, { of: of.get(id) ?? '', value });
      }
    }
    return known;
  }

  /** Has what came in worked out for comparisons, once whoever brought it has seen it. */
  function workAhead(ids: readonly string[]): void {
    setTimeout(() => {
      // It is done when it is asked for, where it fails.
      void import('../workers/openRun').then((workers) => workers.workAhead(ids, DRAWN.ofMany)).catch(() => undefined);
    }, SEEN);
  }

  /** Works a run out again: other figures are asked for. */
  function openAgain(runId: string): Promise<Opened> {
    opened.delete(runId);
    return open(runId);
  }

  /**
   * Adds ink to a filed run.
   *
   * @returns it as it is now; `undefined` where another tab has taken it up again meanwhile: it is on the board then, with what was added
   * @throws {StorageTrouble}
   */
  async function write({ header, entries }: RunInk, draft: Draft): Promise<Opened | undefined> {
    await writeInk([{ runId: header.id, entry: entryOf(draft, (entries.at(-1)?.seq ?? 0) + 1) }]);
    await changed();
    return isListed(header.id) ? open(header.id) : undefined;
  }

  /** Adds the same ink to several filed runs, such as tags: to all of them or to none. @throws {StorageTrouble} */
  async function writeToAll(ids: readonly string[], make: (id: string) => Draft): Promise<Entry[]> {
    const { entries } = await writeNext(ids.map((runId) => ({ runId, draft: make(runId) })));
    await changed();
    return entries;
  }

  /** Removes for good what was discarded long enough ago. */
  async function clearOut(now = Date.now()): Promise<void> {
    const old = discarded.value.filter(({ discardedAt = now }) => now - discardedAt > KEPT_FOR);
    if (old.length === 0) return;
    for (const { id } of old) await remove(id);
    await (await import('../ledger/sweep')).sweepRemoved();
    await changed();
  }

  /** Imports runs and what comes with them: all of it or nothing. @throws {ImportError | StorageTrouble} saying what is stored */
  async function importAll(incoming: Incoming, ways?: ImportWays): Promise<void> {
    const importing = await import('../ledger/importing');
    const { ids } = await importing.importAll(incoming, ways);
    await changed();
    workAhead(ids);
  }

  /** Imports runs that were made here. @throws {ImportError | StorageTrouble} with nothing stored */
  async function importRuns(runs: readonly StoredRun[], ways?: ImportWays): Promise<void> {
    await importAll((await import('../ledger/incoming')).incomingOf(runs), ways);
  }

  /** Splits a filed run in two, at a moment in seconds from plug-in: both are stored, or nothing is. @returns the id of the second @throws {StorageTrouble} */
  async function split(id: string, seconds: number): Promise<string> {
    const { halvesOf } = await import('../ledger/incoming');
    const half = nanoid(12);
    await importRuns(await halvesOf(id, seconds, half));
    return half;
  }

  /** Reads the list again here and in the other tabs, after a run was filed or taken up again. */
  async function changed(): Promise<void> {
    await load();
    tellTabs({ about: 'runs' });
  }

  onTabs(({ about }) => {
    if (about === 'runs') void load();
  });

  return {
    summaries,
    discarded,
    isListed,
    clearOut,
    writeToAll,
    load,
    expect,
    arrived,
    open,
    openForComparison,
    openAgain,
    stampOf,
    write,
    importAll,
    importRuns,
    split,
    changed,
  };
});
