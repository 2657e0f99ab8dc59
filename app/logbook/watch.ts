import { defineStore } from 'pinia';
import { computed, ref, shallowRef } from 'vue';
import { elapsedAt, momentOf, type Draft, type RunRecord } from '@core/ink';
import { spell } from '@core/quantity';
import { clockJump, SLEPT, type Tick } from '@core/run';
import { onTick, setClockJump } from '../kit/clock';
import { save } from '../ledger/acts';
import { keyOf } from '../ledger/keys';
import { remembered } from '../ledger/readAhead';
import { useLanes } from './lanes';

/** How often it is kept that the program is here, in milliseconds. */
const HEARTBEAT_EVERY = 15_000;

/** When the program was last here, epoch milliseconds, and the runs that were live then: it says nothing of others. */
export interface Heartbeat {
  at: number;
  runs?: string[];
}
const HEARTBEAT = 'here';

/** Keeps that the program is here while runs are live. @throws {StorageTrouble} */
export const keepHeartbeat = (heartbeat: Heartbeat): Promise<unknown> => save([[keyOf('setting', HEARTBEAT), heartbeat]]);

/** An entry of a run's ink. */
interface Written {
  runId: string;
  entry: string;
}

/** What is to be written on a lane. */
interface Drafted {
  runId: string;
  draft: Draft;
}

/** A jump of the wall clock that a person has still to judge. */
interface Jump {
  by: number;
  /** Which runs it befell: those that were live before it. */
  runs: readonly string[];
  /** What it was taken for meanwhile: the program had been gone. */
  unwatched: Written[];
  /** It came with a start of the program: how much of it was the clock cannot be known. */
  acrossStart: boolean;
}

const tick = (): Tick => ({ wall: Date.now(), steady: performance.now() });

/** Watches the clock while runs are live: what the machine sleeps through is kept as not watched, and a clock that was changed is asked about (numbers.md, *Clock*). */
export const useWatch = defineStore('watch', () => {
  const lanes = useLanes();
  const jump = shallowRef<Jump>();
  /** The jump that was judged last, and what was written of it: it can be undone. */
  const judged = shallowRef<{ jump: Jump; written: Written[]; says: string }>();
  const isBusy = ref(false);
  let last = tick();
  let lastHeartbeatAt = 0;
  let isStarted = false;

  const mine = () => lanes.inOrder.filter((lane) => lane.mine.value);

  /** Looks back to when the program was last here, then goes on watching. Whatever fails of looking back, it watches. */
  async function start(): Promise<void> {
    if (isStarted) return;
    isStarted = true;
    last = tick();
    onTick(look);
    const before = await remembered<Heartbeat>(HEARTBEAT).catch(() => undefined);
    if (!before) return;
    // A heartbeat says nothing of a run that was plugged in after it.
    // Lanes that a page which is being left still has are among them: writing to them waits.
    const known = lanes.inOrder.filter(({ header }) => before.runs?.includes(header.id) ?? header.plugInAt <= before.at);
    const runs = known.map(({ header }) => header.id);
    if (runs.length > 0) await classifyGap(before.at, last.wall, last.wall - before.at, runs, true);
  }

  function look(): void {
    const now = tick();
    const by = clockJump(last, now);
    const from = last.wall;
    last = now;
    const runs = mine().map(({ header }) => header.id);
    if (runs.length === 0) return;
    if (by !== 0) void classifyGap(from, now.wall, by, runs, false);
    if (Math.abs(now.wall - lastHeartbeatAt) < HEARTBEAT_EVERY) return;
    lastHeartbeatAt = now.wall;
    // What cannot be kept of it is kept the next time; nothing that was logged hangs on it.
    keepHeartbeat({ at: now.wall, runs }).catch(() => undefined);
    void lanes.takeSnapshots();
  }

  /** From one moment of the wall clock to another the program did not see; `by` is what of it no time that went by accounts for. */
  async function classifyGap(from: number, to: number, by: number, runs: readonly string[], acrossStart: boolean): Promise<void> {
    if (by < 0) {
      setClockJump(by);
      jump.value = { by, runs, unwatched: [], acrossStart };
      return;
    }
    if (by < (acrossStart ? 4 * HEARTBEAT_EVERY : SLEPT)) return;
    const unwatched: Written[] = [];
    for (const runId of runs) {
      const run = recordOf(runId);
      if (!run) continue;
      const [at, until] = [Math.max(momentOf(run, from), run.header.plugInAt), momentOf(run, to)];
      if (until <= at) continue;
      // A lane that cannot be written to now is not judged; the others are.
      const entry = await lanes.write(runId, { kind: 'event', event: 'away', at, until }).catch(() => undefined);
      if (entry) unwatched.push({ runId, entry: entry.id });
    }
    if (unwatched.length > 0) jump.value = { by, runs: unwatched.map(({ runId }) => runId), unwatched, acrossStart };
  }

  /** Takes a jump for a changed clock: every run counts on as if it had not been. */
  const changed = () =>
    answer('The clock was changed: the lanes count on as if it had not been.', ({ by, runs, unwatched }) => [
      ...unwatched.map(({ runId, entry }) => ({
        runId,
        draft: { kind: 'strike' as const, at: momentHere(runId, by), target: entry, reason: 'the clock was changed' },
      })),
      ...runs.flatMap((runId) => shifted(runId, by < 0 ? by : Math.min(by, most(runId)))),
    ]);

  /** Takes the wall clock as it is; but no run counts from before its plug-in, or from before what was seen of it. */
  const asItIs = () =>
    answer('The clock is taken as it is.', ({ by, runs }) =>
      by > 0 ? [] : runs.flatMap((runId) => shifted(runId, Math.min(0, most(runId, 0)))),
    );

  const shifted = (runId: string, shift: number): Drafted[] =>
    shift === 0 ? [] : [{ runId, draft: { kind: 'event', event: 'clock', at: momentHere(runId, shift), shift } }];

  /** Answers once, and for all lanes that are live here still: what it says is written on all of them, or on none. */
  async function answer(says: string, draftsOf: (about: Jump) => Drafted[]): Promise<void> {
    const { value: about } = jump;
    if (!about || isBusy.value) return;
    isBusy.value = true;
    try {
      setClockJump(0);
      const drafts = draftsOf(about).filter(({ runId }) => mine().some(({ header }) => header.id === runId));
      const entries = await lanes.writeTogether(drafts);
      const written = entries.map(({ id }, index) => ({ runId: drafts[index]?.runId ?? '', entry: id }));
      jump.value = undefined;
      judged.value = { jump: about, written, says };
    } catch (trouble) {
      setClockJump(Math.min(0, about.by));
      throw trouble;
    } finally {
      isBusy.value = false;
    }
  }

  /** Undoes the last answer: what was written of it is struck, and the question stands again. */
  async function undo(): Promise<void> {
    const { value: about } = judged;
    if (!about || isBusy.value) return;
    isBusy.value = true;
    try {
      await lanes.writeTogether(
        about.written.map(({ runId, entry }) => ({
          runId,
          draft: { kind: 'strike', at: momentHere(runId, 0), target: entry, reason: 'answered otherwise' },
        })),
      );
      setClockJump(Math.min(0, about.jump.by));
      [jump.value, judged.value] = [about.jump, undefined];
    } finally {
      isBusy.value = false;
    }
  }
  /** The answer stands. */
  const accept = () => (judged.value = undefined);

  const recordOf = (runId: string): RunRecord | undefined => lanes.records.find(({ header }) => header.id === runId);
  /** This moment of a run, with its clock shifted by so much more. */
  function momentHere(runId: string, shift: number): number {
    const run = recordOf(runId);
    const wall = Date.now() - shift;
    return Math.max(run?.header.plugInAt ?? 0, Math.round(run ? momentOf(run, wall) : wall));
  }

  /** The most that a run's clock can be shifted ahead so that nothing seen of it is still to come, in milliseconds. */
  function most(runId: string, none = Infinity): number {
    const run = recordOf(runId);
    return run ? Math.floor((elapsedAt(run, Date.now()) - lastKnown(run)) * 1000) : none;
  }

  /** What is to be judged, in words; empty when nothing is. */
  const question = computed(() => {
    const { value: about } = jump;
    if (!about) return '';
    const seconds = Math.abs(about.by) / 1000;
    const size = spell(seconds, seconds < 120 ? 1 : 60);
    if (about.by < 0)
      return `The clock of this machine went back by ${about.acrossStart ? 'at least ' : ''}${size}. The lanes count on as if it had not.`;
    const unknown = about.acrossStart ? ' Whether the clock was changed meanwhile cannot be known.' : '';
    return `Not watched for ${size}: drawn as unseen.${unknown}`;
  });

  return { jump, judged, question, start, changed, asItIs, undo, accept };
});

/** The last moment of a run at which anything was seen or done by a person, in seconds from plug-in: not the times in which the program was away. */
const lastKnown = ({ readings, events, trials }: RunRecord): number =>
  Math.max(
    0,
    readings.at(-1)?.seconds ?? 0,
    events.findLast(({ event }) => event !== 'away' && event !== 'clock')?.seconds ?? 0,
    trials.at(-1)?.seconds ?? 0,
  );
