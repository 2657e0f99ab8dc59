import type { ObjectDirective } from 'vue';

/** Puts the cursor into a field as soon as it is there, before anyone can have typed elsewhere. */
export const vFocus: ObjectDirective<HTMLElement> = {
  mounted(element) {
    (
      element.querySelector<HTMLElement>('input:checked') ??
      element.querySelector<HTMLElement>('input:not([type="hidden"])') ??
      element
    ).focus();
  },
};
