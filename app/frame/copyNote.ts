import { computed, ref, type ComputedRef } from 'vue';
import { save } from '../ledger/acts';
import { keyOf } from '../ledger/keys';
import { remembered } from '../ledger/readAhead';
import { isWithoutCopy } from '../ledger/secondCopy';

const NAME = 'without copy';

/** That this browser has no second copy is said once, until somebody has read it. */
export function useCopyNote(): { isShown: ComputedRef<boolean>; read: () => void } {
  const isRead = ref(true);
  remembered(NAME)
    .then((at) => (isRead.value = at !== undefined))
    .catch(() => undefined);
  return {
    isShown: computed(() => isWithoutCopy.value && !isRead.value),
    read: () => {
      isRead.value = true;
      // Should it not be stored, it is said once more.
      save([[keyOf('setting', NAME), { at: Date.now() }]]).catch(() => undefined);
    },
  };
}
