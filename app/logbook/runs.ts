import { defineStore } from 'pinia';
import { shallowRef } from 'vue';
import { type Summary } from '@core/curve';
import { type StoredRun } from '@core/exchange';
import type { Draft, RunInk } from '@core/ink';
import type { Arriving } from '../ledger/arrivals';
import { onTabs, tellTabs } from '../ledger/channel';
import { amend, catalogue } from '../ledger/filing';
import { entryOf } from '../ledger/ledger';
import type { Reading } from '../ledger/readAhead';
import type { Opened } from '../workers/opened';

/** The filed runs: a list of summaries, and those that were opened. */
export const useLogbook = defineStore('logbook', () => {
  const summaries = shallowRef<Summary[]>([]);
  const opened = new Map<string, Opened>();
  let arriving = Promise.resolve();

  async function load(reading?: Reading): Promise<void> {
    opened.clear();
    summaries.value = await catalogue(reading);
  }

  /** Runs are still coming in: none is called missing before they are here. */
  function expect(arrival: Promise<void>): void {
    arriving = arrival.then(() => load());
  }

  /** Resolves when all that is still coming in is here. */
  const arrived = () => arriving;

  /** A filed run and all that was worked out of it. @throws {StorageTrouble} when there is none of that id */
  async function open(runId: string): Promise<Opened> {
    const known = opened.get(runId);
    if (known) return known;
    await arriving;
    const { openRun } = await import('../workers/openRun');
    const found = await openRun(runId);
    opened.set(runId, found);
    return found;
  }

  /** Adds ink to a filed run. @throws {StorageTrouble} */
  async function write({ header, entries }: RunInk, draft: Draft): Promise<Opened> {
    await amend(header.id, entryOf(draft, (entries.at(-1)?.seq ?? 0) + 1));
    await changed();
    return open(header.id);
  }

  /** Imports runs and what comes with them: all of it or nothing. @throws {ImportError | StorageTrouble} saying what is stored */
  async function importAll(
    runs: readonly StoredRun[],
    others: readonly Arriving[] = [],
    progress?: (share: number) => void,
  ): Promise<void> {
    const arrivals = await import('../ledger/arrivals');
    await arrivals.importAll(runs, others, progress);
    await changed();
  }

  /** Reads the list again here and in the other tabs, after a run was filed or taken up again. */
  async function changed(): Promise<void> {
    await load();
    tellTabs({ about: 'runs' });
  }

  onTabs(({ about }) => {
    if (about === 'runs') void load();
  });

  return { summaries, load, expect, arrived, open, write, importAll, changed };
});
