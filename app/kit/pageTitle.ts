import { onBeforeUnmount, reactive, watchEffect } from 'vue';

/** What the window is called: what calls first, then the screen, then the program. */
const said = reactive({ call: '', own: '', screen: '' });
watchEffect(() => {
  document.title = [said.call, said.own || said.screen, 'Inkpath Log'].filter(Boolean).join(' · ');
});

/** Called by the frame at each change of screen. */
export const titledAs = (title: string): string => (said.screen = title);
/** What wants to be seen from another window; empty when it is over. */
export const calls = (what: string): string => (said.call = what);

/** The title of a screen that is about one thing of many: its name. */
export function usePageTitle(title: () => string): void {
  watchEffect(() => (said.own = title()));
  onBeforeUnmount(() => (said.own = ''));
}
