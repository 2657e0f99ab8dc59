<script setup lang="ts">
import { useMediaQuery } from '@vueuse/core';
import { defineAsyncComponent, ref, useTemplateRef, watch } from 'vue';
import type { BlockId, ComposedBlock } from '@core/report';

/** The blocks of a piece, in their order: moved by drag or by Alt and an arrow, hidden by H. */
const props = defineProps<{ blocks: readonly ComposedBlock[]; at: BlockId | undefined; canHide: (block: BlockId) => boolean }>();
const emit = defineEmits<{ go: [block: BlockId]; move: [block: BlockId, to: number]; hide: [block: BlockId, hidden: boolean] }>();

const DragList = defineAsyncComponent(() => import('../kit/DragList.vue'));
const list = useTemplateRef<HTMLElement>('list');
const canDrag = useMediaQuery('(pointer: fine)');

/** What stands behind its name. */
function saysOf({ id, kind, isHidden, isEmpty, isStale }: ComposedBlock): string {
  if (isHidden) return 'hidden';
  if (isEmpty !== undefined) return 'nothing yet';
  if (isStale) return 'look again';
  return id === 'corrections' || kind === 'words' ? '' : kind;
}

const focusOn = (block: BlockId) => list.value?.querySelector<HTMLElement>(`[data-block="${block}"] > button`)?.focus();
/** A block that is moved by keys keeps the focus where it comes to stand. */
const moved = ref<BlockId>();
watch(
  () => props.blocks.map(({ id }) => id).join(),
  () => {
    if (moved.value) focusOn(moved.value);
    moved.value = undefined;
  },
  { flush: 'post' },
);

function key(event: KeyboardEvent, { id, isHidden }: ComposedBlock): void {
  const at = props.blocks.findIndex((each) => each.id === id);
  const by = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
  const isPlain = !event.ctrlKey && !event.metaKey && !event.altKey;
  if (by !== 0 && event.altKey) {
    if (at + by < 0 || at + by >= props.blocks.length) return;
    moved.value = id;
    emit('move', id, at + by);
  } else if (by !== 0) {
    const next = props.blocks[at + by];
    if (next) focusOn(next.id);
  } else if (event.key.toLowerCase() === 'h' && isPlain && props.canHide(id)) {
    emit('hide', id, !isHidden);
  } else return;
  event.preventDefault();
  event.stopPropagation();
}
</script>

<template>
  <nav aria-label="Blocks" data-acts>
    <ol ref="list">
      <li v-for="(block, place) in blocks" :key="block.id" :data-block="block.id" :class="{ at: at === block.id, hidden: block.isHidden }">
        <span class="grip" aria-hidden="true">⠿</span>
        <button type="button" :aria-current="at === block.id" @click="emit('go', block.id)" @keydown="key($event, block)">
          <span>{{ block.title }}</span>
          <small :class="block.isStale && !block.isHidden ? 'due' : 'soft'">{{ saysOf(block) }}</small>
        </button>
        <span class="moves">
          <button type="button" :disabled="place === 0" :aria-label="`Move ${block.title} up`" @click="emit('move', block.id, place - 1)">
            ↑
          </button>
          <button
            type="button"
            :disabled="place === blocks.length - 1"
            :aria-label="`Move ${block.title} down`"
            @click="emit('move', block.id, place + 1)"
          >
            ↓
          </button>
        </span>
      </li>
    </ol>
    <p class="soft"><kbd>Alt</kbd> <kbd>↑</kbd> <kbd>↓</kbd> moves a block, <kbd>H</kbd> hides it</p>
    <DragList
      v-if="canDrag && list"
      :container="list"
      handle=".grip"
      items="li"
      @moved="(item, to) => emit('move', item.dataset.block as BlockId, to)"
    />
  </nav>
</template>

<style scoped>
nav {
  position: sticky;
  top: 0;
  align-self: start;
  min-width: 0;
  border-inline-end: 1px solid rgb(var(--v-theme-line));
}

ol {
  list-style: none;
}

li {
  position: relative;
  display: flex;
  align-items: stretch;
  border-inline-start: 3px solid transparent;
}

li.at {
  background: rgb(var(--v-theme-desk));
  border-inline-start-color: rgb(var(--v-theme-due));
}

.grip {
  align-self: center;
  padding-inline: 0.5rem 0.2rem;
  color: rgb(var(--v-theme-soft));
  cursor: grab;
}

button {
  font: inherit;
  color: inherit;
  background: none;
  border: 0;
  cursor: pointer;
}

li > button {
  display: flex;
  flex: 1;
  flex-wrap: wrap;
  gap: 0 0.5rem;
  align-items: baseline;
  justify-content: space-between;
  min-width: 0;
  padding: 0.45rem 0.3rem;
  text-align: start;
  overflow-wrap: anywhere;
}

li.at > button {
  font-weight: 700;
}

li.hidden > button > span {
  text-decoration: line-through;
  color: rgb(var(--v-theme-soft));
}

.moves {
  position: absolute;
  inset-block: 0;
  inset-inline-end: 0;
  display: flex;
  align-items: center;
  background: rgb(var(--v-theme-paper));
  opacity: 0;
}

.moves button {
  padding: 0.2rem 0.3rem;
  color: rgb(var(--v-theme-soft));
}

.moves button:disabled {
  opacity: 0.3;
  cursor: default;
}

li:hover .moves,
li:focus-within .moves {
  opacity: 1;
}

p {
  padding: 0.8rem 1rem;
  font-size: 0.85rem;
}

@media (max-width: 56.25em) {
  nav {
    position: static;
    border-inline-end: 0;
    border-bottom: 1px solid rgb(var(--v-theme-line));
  }

  .moves {
    position: static;
    opacity: 1;
  }
}
</style>
