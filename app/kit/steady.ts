import { computed, type ComputedRef } from 'vue';

/** A list that is another only where its items are: what is worked out of it stands while it is made anew. */
export const steady = <Item>(make: () => Item[]): ComputedRef<Item[]> =>
  computed<Item[]>((before) => {
    const now = make();
    return before?.length === now.length && now.every((item, index) => Object.is(item, before[index])) ? before : now;
  });
