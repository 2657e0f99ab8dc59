import { defineStore } from 'pinia';
import { computed, shallowReactive, shallowRef, triggerRef, watch, type ComputedRef, type ShallowRef } from 'vue';
import { foldMore, foldRun, type Draft, type Entry, type Header, type RunInk, type RunRecord } from '@core/ink';
import { freeLetter, inOrderOfDue, lettersOf, newsOf } from '@core/run';
import { useNow } from '../kit/clock';
import { onTabs, tellTabs } from '../ledger/channel';
import { adoptInk, file, reopen as reopenRun, start as startRuns, write as writeInk } from '../ledger/acts';
import type { Ways } from '../ledger/act';
import { entryOf } from '../ledger/entries';
import { filedInk, runsNotListed } from '../ledger/filed';
import { asideOf, inkWithoutRun, liveHeaders, type SetAside } from '../ledger/live';
import { holdRun, type Hold } from '../ledger/locks';
import { readNow, type RowsReader } from '../ledger/readAhead';
import { missedInk, SNAPSHOT_SIZE, takeSnapshots as takeInkSnapshots } from '../ledger/snapshots';
import { NOT_LOGGED, StorageTrouble, whyOf } from '../ledger/storageTrouble';
import { useLogbook } from './runs';

/** One live run on the board. */
interface Lane {
  header: Header;
  entries: ShallowRef<Entry[]>;
  record: ComputedRef<RunRecord>;
  /** Whether this tab writes its ink; another tab's lanes are followed. */
  mine: ShallowRef<boolean>;
  hold: Hold | undefined;
  /** How many entries it had when snapshots were last taken. */
  inSnapshots: number;
}

/** What is so where a run was stopped and could not be filed. */
const STOPPED = 'The stop is stored, but the run could not be filed yet.';

/** How long something that was typed waits for a run that another page is only just leaving, in milliseconds. */
const LEAVING = 1500;

const byStart = ({ header: one }: Lane, { header: other }: Lane) => one.plugInAt - other.plugInAt || (one.id < other.id ? -1 : 1);

/** The live runs. Holds ids and ink; what they mean is folded from it by core. */
export const useLanes = defineStore('lanes', () => {
  const lanes = shallowReactive(new Map<string, Lane>());
  /** Runs that could not be read or filed. They never stop the rest. */
  const aside = shallowReactive(new Map<string, SetAside>());
  const now = useNow();
  const logbook = useLogbook();

  const inOrder = computed(() => [...lanes.values()].sort(byStart));
  const records = computed(() => inOrder.value.map(({ record }) => record.value));
  const due = computed(() => inOrderOfDue(records.value, now.value));
  const letters = computed(() => lettersOf(inOrder.value.map(({ header }) => header)));
  /** Whether this tab writes a run. */
  const isMine = (runId: string) => lanes.get(runId)?.mine.value ?? false;
  const letterOf = (runId: string) => letters.value.get(runId) ?? '';

  /** Runs that begin, each with a letter that no lane has. */
  function lettered(headers: readonly Header[]): Header[] {
    const taken = new Set(letters.value.values());
    return headers.map((header) => {
      const lane = freeLetter(taken);
      taken.add(lane);
      return lane ? { ...header, lane } : header;
    });
  }

  /** Brings back what is live; files what was stopped when a crash came between. */
  async function load(reading: RowsReader = readNow): Promise<void> {
    const found = await liveHeaders(reading);
    setAside(found.aside);
    await Promise.all(
      found.headers.map(async (stored) => {
        try {
          const lane = laneFrom(stored, await reading.ink(stored.id));
          // Folded while the ink of other lanes is still being read.
          if (lane.record.value.stop) await finish(stored.id);
          else if (!lanes.has(stored.id)) await open(lane);
        } catch (error) {
          setAside([asideOf(stored.id, stored, error)]);
        }
      }),
    );
    await tellSets();
  }

  function setAside(runs: readonly SetAside[]): void {
    for (const run of runs) aside.set(run.id, run);
  }

  /**
   * Looks through what was shown at once, names what has lost its place, and sweeps what a kill left unnamed; not needed before the first picture.
   */
  async function tidyUp(): Promise<void> {
    await lookThroughAll();
    await adoptInk();
    setAside([...(await inkWithoutRun()), ...(await runsNotListed())]);
    await logbook.clearOut();
    await (await import('../ledger/sweep')).sweep();
  }

  /** Tries once more to read or file a run that was set aside. @returns whether it went well */
  async function tryAgain(id: string): Promise<boolean> {
    aside.delete(id);
    await load();
    await tidyUp();
    return !aside.has(id);
  }

  /** What was set aside has been removed. */
  async function forget(id: string): Promise<void> {
    aside.delete(id);
    await logbook.changed();
  }

  /** Adds to what is shown of a lane whatever is stored and was not shown. */
  async function lookThrough({ header, entries }: Lane): Promise<void> {
    const whole = await missedInk(header.id, entries.value);
    if (whole) entries.value = whole;
  }

  async function lookThroughAll(): Promise<void> {
    for (const lane of inOrder.value) await lookThrough(lane);
  }

  function laneFrom(header: Header, ink: Entry[]): Lane {
    const entries = shallowRef(ink);
    /** How many entries were folded: ink is added in place. */
    let folded = 0;
    const record = computed<RunRecord>((before) => {
      const { value: all } = entries;
      const more = before && folded + 1 === all.length ? foldMore(before, all) : undefined;
      folded = all.length;
      return more ?? foldRun(header, all);
    });
    return { header, entries, record, mine: shallowRef(false), hold: undefined, inSnapshots: 0 };
  }

  /** Shows a lane and holds its run. One that is shown already, for it was read while it was still being stored, is looked through. */
  async function open(lane: Lane): Promise<void> {
    const shown = lanes.get(lane.header.id);
    if (shown) return lookThrough(shown);
    lanes.set(lane.header.id, lane);
    let isFirst = true;
    lane.hold = await holdRun(lane.header.id, (isHere) => {
      lane.mine.value = isHere;
      // Another tab may have written since this one read it.
      if (isHere && !isFirst) void lookThrough(lane);
    });
    isFirst = false;
  }

  const isShown = (lane: Lane, { id }: Entry) => lane.entries.value.some((each) => each.id === id);

  /**
   * Adds to the ink in place: a long run costs no more than a short one. What was looked through while the second copy was still being written is
   * there already.
   */
  function add(lane: Lane, entry: Entry): void {
    if (isShown(lane, entry)) return;
    lane.entries.value.push(entry);
    triggerRef(lane.entries);
  }

  /** A lane that this tab may write to; one that a page which is being left still has is waited for. `undefined` of a run that is no longer live. */
  async function laneOf(runId: string): Promise<Lane | undefined> {
    const lane = lanes.get(runId);
    if (lane && !lane.mine.value) await until(lane.mine, LEAVING);
    if (lane && !lane.mine.value)
      throw new StorageTrouble(`Another tab has ${lane.header.device.name}. Log it there, or take it over here first.`, NOT_LOGGED);
    return lane;
  }

  /** The last place in the ink of a run: of one that was filed meanwhile, as it lies there. */
  const lastSeq = async (runId: string, lane: Lane | undefined): Promise<number> =>
    (lane?.entries.value ?? (await filedInk(runId)).entries).at(-1)?.seq ?? 0;

  /** Takes a run over from the tab that has it; that tab stops writing at once. */
  async function claim(runId: string): Promise<void> {
    const lane = lanes.get(runId);
    await lane?.hold?.take();
    if (lane) await lookThrough(lane);
  }

  /** Starts a run. Resolves once it is stored. @throws {StorageTrouble} */
  const start = (header: Header, drafts: readonly Draft[], ways?: Ways): Promise<void> => startSet([{ header, drafts }], ways);

  /** Starts several runs at one instant: all of them or none. Resolves once they are stored. @throws {StorageTrouble} */
  async function startSet(runs: readonly { header: Header; drafts: readonly Draft[] }[], ways?: Ways): Promise<void> {
    const headers = lettered(runs.map(({ header }) => header));
    const begun = runs.map(({ header: given, drafts }, index) => ({
      header: headers[index] ?? given,
      entries: drafts.map((draft, index) => entryOf(draft, index + 1)),
    }));
    await startRuns(begun, ways);
    for (const { header, entries } of begun) await open(laneFrom(header, entries));
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
    for (const { runId, draft } of newsOf(records.value)) if (isMine(runId)) await ink(runId, draft).catch(() => undefined);
  }

  async function ink(runId: string, draft: Draft): Promise<Entry> {
    const [entry] = await writeTogether([{ runId, draft }]);
    return entry as Entry;
  }

  /**
   * Writes ink of several lanes at once: on all of them or on none. What is written on a lane that was filed meanwhile is in its run: a picture that
   * was still being made small, say.
   *
   * @returns what was written, in its order
   * @throws {StorageTrouble}
   */
  async function writeTogether(drafts: readonly { runId: string; draft: Draft }[]): Promise<Entry[]> {
    const all = await Promise.all(drafts.map(({ runId }) => laneOf(runId)));
    const last = new Map<string, number>();
    for (const [index, { runId }] of drafts.entries()) last.set(runId, await lastSeq(runId, all[index]));
    const written = drafts.map(({ runId, draft }) => {
      const seq = (last.get(runId) ?? 0) + 1;
      last.set(runId, seq);
      return { runId, entry: entryOf(draft, seq) };
    });
    await writeInk(written);
    for (const [index, { entry }] of written.entries()) {
      const lane = all[index];
      if (lane) add(lane, entry);
    }
    // One that was taken up again meanwhile may have been read before.
    for (const [index, { runId }] of written.entries()) {
      const lane = all[index] ? undefined : lanes.get(runId);
      if (lane) await lookThrough(lane);
    }
    // Whoever wrote it has the answer first; the other tabs are told after.
    setTimeout(() => {
      for (const each of written) tellTabs({ about: 'ink', ...each });
    });
    if (written.some(({ runId }) => !lanes.has(runId))) await logbook.changed();
    return written.map(({ entry }) => entry);
  }

  /** Makes the next start quick; called now and then while runs are live. */
  async function takeSnapshots(): Promise<void> {
    for (const lane of inOrder.value) {
      const { length } = lane.entries.value;
      if (!lane.mine.value || length < lane.inSnapshots + SNAPSHOT_SIZE) continue;
      lane.inSnapshots = length;
      // Should it fail, the entries are all there.
      await takeInkSnapshots(lane.header.id).catch(() => undefined);
    }
  }

  /** Stops a run and files it. @throws {StorageTrouble} saying whether the stop is stored */
  async function stop(runId: string, draft: Extract<Draft, { kind: 'stop' }>): Promise<void> {
    await write(runId, draft);
    try {
      await finish(runId, STOPPED);
    } catch (error) {
      throw new StorageTrouble(`${whyOf(error)} It is tried again at the next start, and from the board.`, STOPPED, {
        cause: error,
      });
    }
  }

  /** Files a run that was stopped. What cannot be filed leaves the board all the same, and is set aside with its ink. */
  async function finish(runId: string, stored = ''): Promise<void> {
    const lane = lanes.get(runId);
    try {
      await file(runId);
      aside.delete(runId);
    } catch (error) {
      const header = lane?.header ?? (await liveHeaders()).headers.find(({ id }) => id === runId);
      const found = asideOf(runId, header, error);
      setAside([{ ...found, why: `${stored} ${found.why}`.trim() }]);
      throw error;
    } finally {
      if (lane) letGo(lane);
    }
    await logbook.changed();
  }

  function letGo(lane: Lane): void {
    lane.hold?.release();
    lanes.delete(lane.header.id);
  }

  /** Takes back the stop of a run that was filed: it counts on from its plug-in. @throws {StorageTrouble} */
  async function reopen(record: RunInk): Promise<void> {
    const { asStarted, stop: stopped } = record;
    // One whose stop was struck already needs no more.
    const { header, entries } = await reopenRun(asStarted.id, lettered([asStarted])[0]?.lane, stopped && { stop: stopped.id });
    await open(laneFrom(header, entries));
    await logbook.changed();
  }

  onTabs((message) => {
    if (message.about === 'ink') {
      const lane = lanes.get(message.runId);
      // What was read from the store just now is not told again; what was told before this tab could hear is read. A tab that has just lost
      // a run tells this way what it was storing meanwhile.
      if (!lane || isShown(lane, message.entry)) return;
      const isNext = message.entry.seq === (lane.entries.value.at(-1)?.seq ?? 0) + 1;
      add(lane, message.entry);
      if (!isNext) void lookThrough(lane);
    } else if (message.about === 'runs') void follow();
  });

  /** Shows what another tab has started, and lets go of what it has filed. */
  async function follow(): Promise<void> {
    const live = new Set((await liveHeaders()).headers.map(({ id }) => id));
    for (const [id, lane] of lanes) if (!live.has(id) && !lane.mine.value) letGo(lane);
    await load();
    await lookThroughAll();
  }

  return {
    inOrder,
    records,
    due,
    isMine,
    aside,
    letterOf,
    letters,
    load,
    follow,
    tidyUp,
    tryAgain,
    forget,
    claim,
    start,
    startSet,
    write,
    writeTogether,
    takeSnapshots,
    stop,
    reopen,
  };
});

/** Resolves when something has become so, or after so many milliseconds. */
function until(state: ShallowRef<boolean>, max: number): Promise<void> {
  return new Promise((resolve) => {
    const stop = watch(state, done, { flush: 'sync' });
    const timer = setTimeout(done, max);
    function done(): void {
      stop();
      clearTimeout(timer);
      resolve();
    }
  });
}
