import { nextTick } from 'vue';

/** Scrolls to the first field of a form that is wrong, and puts the cursor into it. */
export async function focusFirstError(form: HTMLElement | null | undefined): Promise<void> {
  await nextTick();
  const field = form?.querySelector<HTMLElement>('.v-input--error :is(input, textarea)');
  field?.scrollIntoView({ block: 'center' });
  field?.focus({ preventScroll: true });
}
