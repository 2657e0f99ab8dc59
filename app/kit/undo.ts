import { shallowRef } from 'vue';

/** Something that was done in this tab, and how it is taken back. */
export interface Act {
  /** What was done, as a sentence without its full stop: `Struck 42 %`. */
  says: string;
  /** Why it cannot be taken back any more, in a sentence: what it left has changed since. */
  refuses?: () => string | undefined | Promise<string | undefined>;
  /** Takes it back. */
  undo: () => unknown;
  /** It is not told where it was done: a reading is logged every few minutes. */
  isQuiet?: boolean;
  /** Names what it is about, where acts that follow each other at once are one: a field that is typed into. */
  about?: string;
}

/** So many acts can be taken back, one after the other. */
const MOST_ACTS = 20;
/** Acts on one thing that follow each other so soon are one, in milliseconds. */
const AT_ONCE = 2000;

let acts: readonly Act[] = [];
let lastAt = 0;
/** What the frame says of the last act, and whether it can be taken back from there. */
export const undoNote = shallowRef<{ says: string; canUndo: boolean }>();

/** Notes what was done. It is forgotten with the page. */
export function did(act: Act, now = Date.now()): void {
  const before = acts.at(-1);
  const isSame = act.about !== undefined && before?.about === act.about && now - lastAt < AT_ONCE;
  // What stood before the first of them is what comes back; what the last of them left is what must still stand.
  acts = isSame ? [...acts.slice(0, -1), { ...act, undo: before.undo }] : [...acts.slice(1 - MOST_ACTS), act];
  lastAt = now;
  // What stands there is always of the last act: a quiet one clears it.
  undoNote.value = act.isQuiet ? undefined : { says: `${act.says}.`, canUndo: true };
}

/** Takes back what was done last, and says so; where that is not possible, it says why. */
export async function undoLast(): Promise<void> {
  const act = acts.at(-1);
  if (!act) {
    undoNote.value = { says: 'There is nothing to undo in this tab.', canUndo: false };
    return;
  }
  acts = acts.slice(0, -1);
  const why = await act.refuses?.();
  if (why === undefined) await act.undo();
  undoNote.value = { says: why ?? `Undone: ${act.says}.`, canUndo: false };
}
