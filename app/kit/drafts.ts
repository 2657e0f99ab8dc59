import { onMounted, ref, toRaw } from 'vue';

/** What was half filled in when a form was closed by Esc or by a click outside it, by the name of the form. */
const kept = new Map<string, unknown>();

/** A copy that later typing does not change; files and the like stay what they are. */
const copyOf = <State>(state: State): State => {
  try {
    return structuredClone(toRaw(state));
  } catch {
    return JSON.parse(JSON.stringify(state)) as State;
  }
};

/**
 * Keeps what is half filled in of a form, and offers it when the form is opened again.
 *
 * @param name    tells this form, and what it is about, from others
 * @param current what is filled in now
 * @param fill    fills it in once more
 * @param leave   closes the form
 */
export function useDraft<State>(name: string, current: () => State, fill: (state: State) => void, leave: () => void) {
  const isOffered = ref(kept.has(name));
  let empty = '';
  onMounted(() => {
    empty = JSON.stringify(current());
  });

  /** Esc, or a click outside: what was filled in is kept. */
  function close(): void {
    const state = current();
    if (JSON.stringify(state) !== empty) kept.set(name, copyOf(state));
    leave();
  }

  /** Nothing of it is kept. */
  function drop(): void {
    kept.delete(name);
    isOffered.value = false;
  }

  /** The form was sent, or put away on purpose. */
  function end(): void {
    drop();
    leave();
  }

  /** Goes on with what was kept. */
  function goOn(): void {
    if (kept.has(name)) fill(kept.get(name) as State);
    drop();
  }

  return { offer: { isOffered, drop, goOn }, close, end };
}
