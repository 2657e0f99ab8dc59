import { tinykeys } from 'tinykeys';
import { onBeforeUnmount, onMounted } from 'vue';
import { useSettings } from './settings';

/** A key and what it does, as the `?` sheet lists it. Keys are those of tinykeys. */
export interface Shortcut {
  keys: string;
  /** How the key is printed. */
  shown: string;
  does: string;
}

/** Every shortcut, in one place: the sheet lists these, and nothing else listens to keys. */
export const SHORTCUTS = {
  places: {
    keys: 'Shift+B',
    shown: 'Shift B P L R M I U S H',
    does: 'go to Bench, Plan, Live, Runs, coMpare, pIeces, sUms, Settings, Help',
  },
  start: { keys: 'n', shown: 'N', does: 'start a run' },
  mark: { keys: 'Space', shown: 'Space', does: 'mark this moment; type the values after' },
  markAll: { keys: 'Shift+Space', shown: 'Shift Space', does: 'mark this moment on every lane; then one lane after another' },
  entry: { keys: '0', shown: '0 – 9', does: 'type a reading: the digit lands in the due line' },
  toEntry: { keys: 'Shift+E', shown: 'Shift E', does: 'go to the entry line, from anywhere' },
  lane: { keys: 'a', shown: 'A – L', does: 'pick a lane, in the empty due line' },
  alone: { keys: 'o', shown: 'O', does: 'fill the board with one lane, and back' },
  event: { keys: 'v', shown: 'V', does: 'note what happened; one more key says what' },
  picture: { keys: 'p', shown: 'P', does: 'add a picture to the last reading of the lane, by camera or from a file' },
  strike: { keys: 'x', shown: 'X', does: 'strike what was entered last, whatever it was, on the lane picked or logged on last' },
  clock: { keys: 't', shown: 'T', does: 'say that the clock was changed, when the due line asks' },
  stop: { keys: 's', shown: 'S', does: 'stop the run of the lane' },
  log: { keys: 'Enter', shown: 'Enter', does: 'log the line' },
  undo: {
    keys: '$mod+KeyZ',
    shown: 'Ctrl Z',
    does: 'undo what was done last in this tab, up to twenty acts; in a field it is the field’s own',
  },
  save: { keys: '$mod+Enter', shown: 'Ctrl Enter', does: 'save the gear that is being written down' },
  strip: { keys: 'ArrowRight', shown: '← → Home End', does: 'on a strip: go from reading to reading; with Shift by ten' },
  look: { keys: '+', shown: '+ − Page ↑ ↓', does: 'on a strip: look closer, see more, move along; Esc shows the whole' },
  drag: { keys: 'ArrowUp', shown: '↑ ↓', does: 'on the grip of a lane: move it' },
  block: { keys: 'Alt+ArrowUp', shown: 'Alt ↑ ↓', does: 'on a block of a piece: move it; H hides it, or shows it again' },
  seen: { keys: 'f', shown: 'letters', does: 'on a spot check: each says what it does, as the card shows; A turns the state' },
  leave: { keys: 'Escape', shown: 'Esc', does: 'clear the due line, then leave it' },
  copy: { keys: 'Shift+C', shown: 'Shift C', does: 'copy what is pointed at or has the focus: a table, the verdict, a picture' },
  print: { keys: '$mod+KeyP', shown: 'Ctrl P', does: 'print what is on the screen' },
  sheet: { keys: '?', shown: '?', does: 'show this sheet' },
} as const satisfies Record<string, Shortcut>;

/** Whether a key pressed here belongs to a field or a control rather than to the page. A field may let commands through while it is empty. */
function isTyping(event: KeyboardEvent): boolean {
  const target = event.target instanceof Element ? event.target : null;
  if (target?.hasAttribute('data-commands')) return false;
  return Boolean(
    target?.closest('input, textarea, select, [contenteditable="true"], [role="combobox"], [role="listbox"], [role="dialog"]'),
  );
}

/** Listens for single keys on the page while the calling component lives, unless the person has turned them off. */
export function useKeys(keys: Record<string, (event: KeyboardEvent) => void>): void {
  const settings = useSettings();
  let stop = (): void => undefined;
  onMounted(() => {
    const guarded = Object.fromEntries(
      Object.entries(keys).map(([key, act]) => [
        key,
        (event: KeyboardEvent) => {
          if (settings.singleKeys && !isTyping(event) && !event.defaultPrevented) act(event);
        },
      ]),
    );
    stop = tinykeys(window, guarded);
  });
  onBeforeUnmount(() => {
    stop();
  });
}
