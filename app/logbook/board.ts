import { defineStore } from 'pinia';
import { computed, shallowReactive, shallowRef } from 'vue';
import { did } from '../kit/undo';
import { save } from '../ledger/acts';
import { keyOf } from '../ledger/keys';
import { remembered } from '../ledger/readAhead';
import type { Opened } from '../workers/opened';
import { useLanes } from './lanes';
import { useLogbook } from './runs';

interface Board {
  /** Lanes as they were dragged. */
  order: string[];
  /** The earlier run under each, by run. */
  ghosts: Record<string, string>;
}
const NAME = 'board';

/** How the board is laid: lanes in the order they were dragged into, and the earlier run that lies under each. It loses nothing that was logged. */
export const useBoard = defineStore('board', () => {
  const lanes = useLanes();
  const logbook = useLogbook();
  const kept = shallowRef<Board>({ order: [], ghosts: {} });
  const opened = shallowReactive(new Map<string, Opened>());

  /** Lanes that were never moved come last, in the order of their start. */
  const shown = computed(() => {
    const place = (id: string) => (kept.value.order.includes(id) ? kept.value.order.indexOf(id) : Infinity);
    return [...lanes.records].sort((one, other) => {
      const [left, right] = [place(one.header.id), place(other.header.id)];
      return left === right ? 0 : left - right;
    });
  });

  async function load(): Promise<void> {
    kept.value = (await remembered<Board>(NAME)) ?? kept.value;
    await Promise.all(Object.values(kept.value.ghosts).map(open));
  }

  function keep(changed: Partial<Board>): void {
    kept.value = { ...kept.value, ...changed };
    // Should it not be kept, it holds for as long as the page is open.
    save([[keyOf('setting', NAME), kept.value]]).catch(() => undefined);
  }

  /** Moves a lane to a place on the board, from 0. */
  function move(runId: string, to: number): void {
    const ids = shown.value.map(({ header }) => header.id).filter((id) => id !== runId);
    ids.splice(Math.max(0, Math.min(ids.length, to)), 0, runId);
    const before = kept.value.order;
    keep({ order: ids });
    did({
      says: 'Moved a lane',
      refuses: () => (kept.value.order === ids ? undefined : 'The lanes were moved since. Nothing was undone.'),
      undo: () => {
        keep({ order: before });
      },
    });
  }

  /** Lays an earlier run under a lane, or takes it away. */
  async function lay(runId: string, earlier: string | undefined): Promise<void> {
    const ghosts = Object.fromEntries(Object.entries(kept.value.ghosts).filter(([id]) => id !== runId));
    if (earlier !== undefined) await open(earlier);
    keep({ ghosts: earlier === undefined ? ghosts : { ...ghosts, [runId]: earlier } });
  }

  async function open(id: string): Promise<void> {
    // One that is no longer in the logbook is left out.
    const found = await logbook.open(id).catch(() => undefined);
    if (found) opened.set(id, found);
  }

  const ghostUnder = (runId: string): Opened | undefined => opened.get(kept.value.ghosts[runId] ?? '');

  return { shown, load, move, lay, ghostUnder };
});
