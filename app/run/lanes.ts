import { defineStore } from 'pinia';
import { computed, shallowReactive, shallowRef, triggerRef, type ComputedRef, type ShallowRef } from 'vue';
import { foldRun, inOrderOfDue, LANE_LETTERS, newsOf, type Draft, type Entry, type Header, type RunRecord } from '@core';
import { useLogbook } from '../curve/logbook';
import { useNow } from '../frame/clock';
import { onTabs, tellTabs } from '../ledger/channel';
import { append, entryOf, file, liveRuns, reopen, startRun, startTogether, tidy } from '../ledger/ledger';
import { holdRun } from '../ledger/locks';
import { NOT_LOGGED, StorageTrouble } from '../ledger/storageTrouble';

/** One live run on the board. */
interface Lane {
  header: Header;
  entries: ShallowRef<Entry[]>;
  record: ComputedRef<RunRecord>;
  /** Whether this tab writes its ink; another tab's lanes are followed. */
  mine: ShallowRef<boolean>;
  release: () => void;
}

const byStart = ({ header: one }: Lane, { header: other }: Lane) => one.plugInAt - other.plugInAt || (one.id < other.id ? -1 : 1);

/** The live runs. Holds ids and ink; what they mean is folded from it by core. */
export const useLanes = defineStore('lanes', () => {
  const lanes = shallowReactive(new Map<string, Lane>());
  const now = useNow();
  const logbook = useLogbook();

  const inOrder = computed(() => [...lanes.values()].sort(byStart));
  const records = computed(() => inOrder.value.map(({ record }) => record.value));
  const due = computed(() => inOrderOfDue(records.value, now.value));
  const letterOf = (runId: string) => LANE_LETTERS[inOrder.value.findIndex(({ header }) => header.id === runId)] ?? '';

  /** Brings back what is live; files what was stopped when a crash came between. */
  async function load(): Promise<void> {
    await Promise.all(
      (await liveRuns()).map(async ({ header, entries }) => {
        if (entries.some(({ kind }) => kind === 'stop') && foldRun(header, entries).stop) await finish(header.id);
        else if (!lanes.has(header.id)) await open(header, entries);
      }),
    );
    await tellSets();
  }

  /** Files what a crash left behind of amendments; not needed before the first picture. */
  async function tidyUp(): Promise<void> {
    if ((await tidy()) > 0) await logbook.changed();
  }

  async function open(header: Header, ink: Entry[]): Promise<void> {
    const entries = shallowRef(ink);
    const lane: Lane = {
      header,
      entries,
      record: computed(() => foldRun(header, entries.value)),
      mine: shallowRef(false),
      release: () => undefined,
    };
    lanes.set(header.id, lane);
    await hold(lane, false);
  }

  async function hold(lane: Lane, take: boolean): Promise<void> {
    const { held, release } = await holdRun(lane.header.id, take, () => {
      lane.mine.value = false;
    });
    [lane.mine.value, lane.release] = [held, release];
  }

  /** Adds to the ink in place: a long run costs no more than a short one. */
  function add(lane: Lane, entry: Entry): void {
    lane.entries.value.push(entry);
    triggerRef(lane.entries);
  }

  function laneOf(runId: string): Lane {
    const lane = lanes.get(runId);
    if (!lane) throw new StorageTrouble('This run is no longer live. Find it under Curve, and add to it there.', NOT_LOGGED);
    if (!lane.mine.value) throw new StorageTrouble('Another tab has this run. Log it there, or take it over here first.', NOT_LOGGED);
    return lane;
  }

  /** Takes a run over from the tab that has it; that tab stops writing at once. */
  async function takeOver(runId: string): Promise<void> {
    const lane = lanes.get(runId);
    if (!lane) return;
    await hold(lane, true);
    const stored = (await liveRuns()).find(({ header }) => header.id === runId);
    if (stored) lane.entries.value = stored.entries;
  }

  /** Starts a run. Resolves once it is stored. @throws {StorageTrouble} */
  async function start(header: Header, drafts: readonly Draft[]): Promise<void> {
    const entries = drafts.map((draft, index) => entryOf(draft, index + 1));
    await startRun(header, entries);
    await open(header, entries);
    tellTabs({ about: 'runs' });
  }

  /** Starts several runs at one instant: all of them or none. Resolves once they are stored. @throws {StorageTrouble} */
  async function startSet(runs: readonly { header: Header; drafts: readonly Draft[] }[]): Promise<void> {
    const begun = runs.map(({ header, drafts }) => ({ header, entries: drafts.map((draft, index) => entryOf(draft, index + 1)) }));
    await startTogether(begun);
    for (const { header, entries } of begun) await open(header, entries);
    tellTabs({ about: 'runs' });
  }

  /** Writes ink. Resolves once it is stored, and only then is it shown. @throws {StorageTrouble} */
  async function write(runId: string, draft: Draft): Promise<Entry> {
    const entry = await ink(runId, draft);
    // Logging does not wait for it, and only a set has anything to tell.
    if (lanes.get(runId)?.header.group !== undefined) telling = telling.then(tellSets);
    return entry;
  }

  /** One telling after another, so that nothing is told twice. */
  let telling = Promise.resolve();

  /** Tells the lanes of a set when the first of them has made all of them fine. Told again at the next entry or start, should it fail now. */
  async function tellSets(): Promise<void> {
    for (const { runId, draft } of newsOf(records.value)) if (lanes.get(runId)?.mine.value) await ink(runId, draft).catch(() => undefined);
  }

  async function ink(runId: string, draft: Draft): Promise<Entry> {
    const lane = laneOf(runId);
    const entry = entryOf(draft, (lane.entries.value.at(-1)?.seq ?? 0) + 1);
    await append(runId, entry);
    add(lane, entry);
    tellTabs({ about: 'ink', runId, entry });
    return entry;
  }

  /** Stops a run and files it. @throws {StorageTrouble} */
  async function stop(runId: string, draft: Extract<Draft, { kind: 'stop' }>): Promise<void> {
    await write(runId, draft);
    await finish(runId);
  }

  async function finish(runId: string): Promise<void> {
    await file(runId);
    lanes.get(runId)?.release();
    lanes.delete(runId);
    await logbook.changed();
  }

  /** Takes back the stop of a run that was filed: it counts on from its plug-in. @throws {StorageTrouble} */
  async function takeUp(record: RunRecord): Promise<void> {
    const { header, entries, stop: stopped } = record;
    if (!stopped) return;
    const strike = entryOf(
      { kind: 'strike', at: Date.now(), target: stopped.id, reason: 'stopped too soon' },
      (entries.at(-1)?.seq ?? 0) + 1,
    );
    const ink = [...entries, strike];
    await reopen(header, ink);
    await open(header, ink);
    await logbook.changed();
  }

  onTabs((message) => {
    if (message.about === 'ink') {
      const lane = lanes.get(message.runId);
      if (lane && !lane.mine.value) add(lane, message.entry);
    } else if (message.about === 'runs') void follow();
  });

  /** Shows what another tab has started, and lets go of what it has filed. */
  async function follow(): Promise<void> {
    const live = new Set((await liveRuns()).map(({ header }) => header.id));
    for (const [id, lane] of lanes) if (!live.has(id) && !lane.mine.value) lanes.delete(id);
    await load();
  }

  return { inOrder, records, due, letterOf, load, tidyUp, takeOver, start, startSet, write, stop, takeUp };
});
