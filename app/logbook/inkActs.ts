import { entrySays, type Draft, type Entry, type RunInk } from '@core/ink';
import { upperFirst } from '@core/quantity';
import { did } from '../kit/undo';
import type { Opened } from '../workers/opened';
import { useLanes } from './lanes';
import { useLogbook } from './runs';

interface Wrote {
  runId: string;
  entry: Entry;
}

/** What was done by writing an entry: `Struck`, `Discarded`, `Noted “screen woken”`. */
function says(entry: Entry): string {
  switch (entry.kind) {
    case 'strike':
      return entry.reason === 'put back' ? 'Put the run back' : 'Struck an entry';
    case 'discard':
      return 'Discarded the run';
    case 'reading':
      return `Logged ${entrySays(entry)}`;
    case 'event':
      return `Noted ${entrySays(entry)}`;
    case 'label':
      return 'Changed tags and note';
    case 'list':
      return 'Changed the list of what is tried';
    default:
      return `Wrote ${entrySays(entry)}`;
  }
}

const pairs = (ids: readonly string[], entries: readonly Entry[]): Wrote[] =>
  entries.map((entry, index) => ({ runId: ids[index] ?? '', entry }));

/** Ink that a person writes: every entry of it can be taken back in this tab, by a strike that says so. Nothing is ever deleted. */
export function useInkActs() {
  const lanes = useLanes();
  const logbook = useLogbook();
  const runOf = async (runId: string): Promise<RunInk> =>
    lanes.records.find(({ header }) => header.id === runId) ?? (await logbook.open(runId)).run;

  /** Why what was written cannot be struck any more. */
  async function refuses(wrote: readonly Wrote[]): Promise<string | undefined> {
    for (const { runId, entry } of wrote) {
      const run = await runOf(runId).catch(() => undefined);
      if (!run) return 'The run is no longer in this logbook. Nothing was undone.';
      if (run.crossed.some((each) => each.entry.id === entry.id) || !run.entries.some(({ id }) => id === entry.id))
        return `${upperFirst(entrySays(entry))} was struck since. Nothing was undone.`;
    }
    return undefined;
  }

  /** Strikes what was written, live or filed by now: on all its runs or on none. @throws {StorageTrouble} */
  const strike = (wrote: readonly Wrote[]) =>
    lanes.writeTogether(
      wrote.map(({ runId, entry }) => ({ runId, draft: { kind: 'strike', at: entry.at, target: entry.id, reason: 'undone' } })),
    );

  function note(wrote: readonly Wrote[], what?: string): void {
    const [first] = wrote;
    if (!first) return;
    did({
      says: what ?? (wrote.length > 1 ? `${says(first.entry)}, on ${wrote.length} runs` : says(first.entry)),
      refuses: () => refuses(wrote),
      undo: () => strike(wrote),
      isQuiet: first.entry.kind === 'reading' || first.entry.kind === 'trial',
    });
  }

  /** Writes on a live run. @throws {StorageTrouble} */
  async function writeLive(runId: string, draft: Draft, what?: string): Promise<void> {
    note([{ runId, entry: await lanes.write(runId, draft) }], what);
  }

  /** Writes on several live runs: on all or on none. @throws {StorageTrouble} */
  async function writeTogether(drafts: readonly { runId: string; draft: Draft }[]): Promise<void> {
    const entries = await lanes.writeTogether(drafts);
    note(
      pairs(
        drafts.map(({ runId }) => runId),
        entries,
      ),
    );
  }

  /** Where another tab has taken runs up again meanwhile, what was written on them is on their lanes: shown here too. */
  async function showLive(ids: readonly string[]): Promise<void> {
    if (ids.some((runId) => !logbook.isListed(runId))) await lanes.follow();
  }

  /**
   * Writes on a filed run.
   *
   * @returns it as it is now; `undefined` where it is on the board by now, with what was written
   * @throws {StorageTrouble}
   */
  async function writeFiled(run: RunInk, draft: Draft): Promise<Opened | undefined> {
    const now = await logbook.write(run, draft);
    const entry = now?.run.entries.at(-1);
    if (entry) note([{ runId: run.header.id, entry }]);
    await showLive([run.header.id]);
    return now;
  }

  /** Writes the same on several filed runs: on all or on none. @throws {StorageTrouble} */
  async function writeToAll(ids: readonly string[], make: (id: string) => Draft, what?: string): Promise<void> {
    const entries = await logbook.writeToAll(ids, make);
    note(pairs(ids, entries), what);
    await showLive(ids);
  }

  /** Takes runs that were a mistake off every list; they can be put back for a while. @throws {StorageTrouble} */
  const discard = (ids: readonly string[]) =>
    writeToAll(ids, () => ({ kind: 'discard', at: Date.now() }), ids.length === 1 ? 'Discarded the run' : `Discarded ${ids.length} runs`);

  /** Puts a discarded run back in the lists. @throws {StorageTrouble} */
  async function putBack(id: string): Promise<void> {
    const { run } = await logbook.open(id);
    const gone = run.entries.findLast(({ kind }) => kind === 'discard');
    if (gone) await writeToAll([id], () => ({ kind: 'strike', at: Date.now(), target: gone.id, reason: 'put back' }));
  }

  return { writeLive, writeTogether, writeFiled, writeToAll, discard, putBack };
}
