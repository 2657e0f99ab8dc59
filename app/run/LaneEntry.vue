<script setup lang="ts">
import { computed } from 'vue';
import { useDueLine } from '../entry/dueLine';

/** The entry field of one lane: the same line as at the foot of the page, kept to this lane. */
const props = defineProps<{ runId: string; letter: string; isMine: boolean; isAlone?: boolean }>();

const line = useDueLine();
const text = computed(() => (line.runId === props.runId && !line.striking ? line.text : ''));

function type(event: Event): void {
  if (line.runId !== props.runId || line.striking) {
    line.clear();
    line.pick(props.runId);
  }
  line.text = event.target instanceof HTMLInputElement ? event.target.value : '';
}
</script>

<template>
  <form class="lane-entry" :class="{ alone: isAlone }" @submit.prevent="line.submit">
    <input
      :value="text"
      class="figures"
      type="text"
      autocomplete="off"
      autocapitalize="off"
      spellcheck="false"
      enterkeyhint="done"
      :aria-label="`What lane ${letter} shows`"
      :placeholder="`${letter}, e.g. 42 26.1w`"
      :disabled="!isMine"
      :data-commands="text === '' ? '' : undefined"
      @input="type"
      @keydown.esc="line.clear()"
    />
  </form>
</template>

<style scoped>
.lane-entry {
  width: min(13rem, 100%);
  padding: 0.15rem 0.25rem;
}

.lane-entry.alone {
  width: 100%;
  padding-block: 1rem 0.5rem;
}

.alone input {
  font-size: 1.35rem;
}

input {
  width: 100%;
  padding: 0.15rem 0.5rem;
  font-size: 0.95rem;
  color: inherit;
  background: rgb(var(--v-theme-paper) / 85%);
  border: 1px solid rgb(var(--v-theme-grid));
  border-bottom: 2px solid rgb(var(--v-theme-line));
}

input:placeholder-shown {
  text-overflow: ellipsis;
}

input::placeholder {
  color: rgb(var(--v-theme-soft));
  opacity: 1;
}

input:disabled {
  opacity: 0.5;
}
</style>
