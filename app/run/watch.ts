import { defineStore } from 'pinia';
import { computed, ref, shallowRef } from 'vue';
import { clockJump, momentOf, SLEPT, spell, type RunRecord, type Tick } from '@core';
import { doubt, onTick } from '../frame/clock';
import { beat, lastBeat } from '../ledger/ledger';
import { useLanes } from './lanes';

/** How often it is kept that the program is here, in milliseconds. */
const BEAT = 15_000;

/** A jump of the wall clock that a person has still to judge. `away` are the entries it was taken for, by run: the program had been gone. */
interface Jump {
  by: number;
  away: { runId: string; entry: string }[];
  /** It came with a start of the program: how much of it was the clock cannot be known. */
  acrossStart: boolean;
}

const tick = (): Tick => ({ wall: Date.now(), steady: performance.now() });

/** Watches the clock while runs are live: what the machine sleeps through is kept as not watched, and a clock that was changed is asked about (numbers.md, *Clock*). */
export const useWatch = defineStore('watch', () => {
  const lanes = useLanes();
  const jump = shallowRef<Jump>();
  const isBusy = ref(false);
  let last = tick();
  let beaten = 0;
  let isStarted = false;

  const mine = () => lanes.inOrder.filter((lane) => lane.mine.value);

  /** Looks back to when the program was last here, then goes on watching. */
  async function start(): Promise<void> {
    if (isStarted) return;
    isStarted = true;
    const before = await lastBeat();
    last = tick();
    if (before !== undefined && mine().length > 0) await judge(before, last.wall, last.wall - before, true);
    onTick(look);
  }

  function look(): void {
    const now = tick();
    const by = clockJump(last, now);
    const from = last.wall;
    last = now;
    if (mine().length === 0) return;
    if (by !== 0) void judge(from, now.wall, by, false);
    if (Math.abs(now.wall - beaten) < BEAT) return;
    beaten = now.wall;
    // What cannot be kept of it is kept the next time; nothing that was logged hangs on it.
    beat(now.wall).catch(() => undefined);
    void lanes.gather();
  }

  /** From one moment of the wall clock to another the program did not see; `by` is what of it no time that went by accounts for. */
  async function judge(from: number, to: number, by: number, acrossStart: boolean): Promise<void> {
    if (by < 0) {
      doubt(by);
      jump.value = { by, away: [], acrossStart };
      return;
    }
    if (by < (acrossStart ? 4 * BEAT : SLEPT)) return;
    const away: Jump['away'] = [];
    for (const { header, record } of mine()) {
      const [at, until] = [Math.max(momentOf(record.value, from), header.plugInAt), momentOf(record.value, to)];
      if (until <= at) continue;
      const entry = await lanes.write(header.id, { kind: 'event', event: 'away', at, until });
      away.push({ runId: header.id, entry: entry.id });
    }
    if (away.length > 0) jump.value = { by, away, acrossStart };
  }

  /** Takes a jump for a changed clock: every run counts on as if it had not been. */
  const changed = () =>
    settle(async ({ by, away }) => {
      for (const { runId, entry } of away)
        await lanes.write(runId, { kind: 'strike', at: momentIn(runId), target: entry, reason: 'the clock was changed' });
      const runs = by < 0 ? mine().map(({ header }) => header.id) : away.map(({ runId }) => runId);
      for (const runId of runs)
        await lanes.write(runId, { kind: 'event', event: 'clock', at: momentIn(runId, by < 0 ? 0 : by), shift: by });
    });

  /** Takes the wall clock as it is. */
  const asItIs = () => settle(() => Promise.resolve());

  async function settle(work: (judged: Jump) => Promise<void>): Promise<void> {
    const { value: judged } = jump;
    if (!judged || isBusy.value) return;
    isBusy.value = true;
    try {
      await work(judged);
      doubt(0);
      jump.value = undefined;
    } finally {
      isBusy.value = false;
    }
  }

  const recordOf = (runId: string): RunRecord | undefined => lanes.records.find(({ header }) => header.id === runId);
  /** This moment of a run, with a jump back in doubt and one ahead taken off. */
  function momentIn(runId: string, ahead = 0): number {
    const run = recordOf(runId);
    const wall = Date.now() - ahead - Math.min(0, jump.value?.by ?? 0);
    return run ? momentOf(run, wall) : wall;
  }

  /** What is to be judged, in words; empty when nothing is. */
  const question = computed(() => {
    const { value: judged } = jump;
    if (!judged) return '';
    const seconds = Math.abs(judged.by) / 1000;
    const size = spell(seconds, seconds < 120 ? 1 : 60);
    if (judged.by < 0)
      return `The clock of this machine went back by ${judged.acrossStart ? 'at least ' : ''}${size}. The lanes count on as if it had not.`;
    const unknown = judged.acrossStart ? ' Whether the clock was changed meanwhile cannot be known.' : '';
    return `Not watched for ${size}: drawn as unseen.${unknown}`;
  });

  return { jump, question, start, changed, asItIs };
});
