<script setup lang="ts">
import { computed } from 'vue';

/** Shown instead of the program when the logbook cannot be opened: nothing could be kept, so nothing is offered. */
const props = defineProps<{ trouble: unknown }>();
const said = computed(() => (props.trouble instanceof Error ? props.trouble.message : String(props.trouble)));

/** What stood in the way, in words of its own for each: what it means, and what to do. */
const WORDS: Readonly<Record<string, { means: string; todo: string }>> = {
  full: {
    means: 'The disk, or the room that this browser may take on it, is full.',
    todo: 'Free some space, then try again.',
  },
  blocked: {
    means: 'This browser keeps nothing for this address: it is a private window, or site data is blocked.',
    todo: 'Use an ordinary window, or allow site data for this address, then try again.',
  },
  newer: {
    means: 'It was written by a newer Inkpath Log than this one.',
    todo: 'Close all its windows and open it again, so that the newer program is fetched; or start the newer one.',
  },
  silent: {
    means: 'The storage of this browser has not answered for ten seconds. It may be busy, or another window may hold it.',
    todo: 'It opens by itself as soon as there is an answer. If none comes, close the other windows of Inkpath Log, or the browser, and try again.',
  },
  other: {
    means: 'The browser would not open its storage: its files may be damaged, or out of reach.',
    todo: 'Close the browser and open it again, then try once more.',
  },
};
const kind = computed(() => {
  const { trouble } = props;
  const of = typeof trouble === 'object' && trouble !== null && 'kind' in trouble ? String(trouble.kind) : '';
  if (of && of !== 'other') return of;
  return /newer Inkpath Log/.test(said.value) ? 'newer' : 'other';
});
const words = computed(() => WORDS[kind.value] ?? WORDS.other);
const reload = () => {
  location.reload();
};
</script>

<template>
  <main class="first-step" role="alert">
    <h1>The logbook of this address cannot be opened</h1>
    <p>{{ words?.means }} Nothing you logged now would be kept, so logging is closed. What was stored before is untouched.</p>
    <p>{{ words?.todo }}</p>
    <v-btn @click="reload">Try again</v-btn>
    <p v-if="kind !== 'silent'" class="soft">The browser said: {{ said }}</p>
  </main>
</template>
