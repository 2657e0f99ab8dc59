import { nextTick } from 'vue';

/** Scrolls to the first field that is wrong, in the dialog that is open or else on the page, and puts the cursor into it. */
export async function focusFirstError(): Promise<void> {
  await nextTick();
  const form = document.querySelector('.v-dialog.v-overlay--active') ?? document.querySelector('main');
  const field = form?.querySelector<HTMLElement>('.v-input--error :is(input, textarea)');
  field?.scrollIntoView({ block: 'center' });
  field?.focus({ preventScroll: true });
}
