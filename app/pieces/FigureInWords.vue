<script setup lang="ts">
import { computed, ref } from 'vue';
import { stateOf, type KnownFigure, type WordPart } from '@core/report';
import { isolated } from '@core/quantity';

/** A figure in running text, with its margin. Pressed, it tells how it came about; where it is another by now, what can be done. */
const props = defineProps<{ part: WordPart; known: ReadonlyMap<string, KnownFigure> }>();
const emit = defineEmits<{ settle: [isUsed: boolean] }>();

const open = ref(false);
const isTelling = ref(false);
const figure = computed(() => (props.part.ref === undefined ? undefined : props.known.get(props.part.ref)));
const state = computed(() => stateOf(props.part, props.known));
const isNow = computed(() => figure.value?.text === props.part.text);

function settle(isUsed: boolean): void {
  open.value = false;
  emit('settle', isUsed);
}
/** Leaving it closes it. */
function leave({ relatedTarget, currentTarget }: FocusEvent): void {
  if (relatedTarget instanceof Node && currentTarget instanceof HTMLElement && !currentTarget.contains(relatedTarget)) open.value = false;
}
</script>

<template>
  <span class="around" @focusout="leave" @keydown.esc="open = false"
    ><button type="button" class="figure" :class="state.is" :aria-expanded="open" @click="open = !open">{{ part.text }}</button
    ><span v-if="isNow && figure?.margin" class="margin">{{ ` (${figure.margin})` }}</span
    ><span v-if="open" class="told" role="group" :aria-label="`About ${part.text}`" data-acts
      ><template v-if="state.is === 'changed'">
        <span class="line">Now {{ state.now }}: {{ figure?.of }}.</span>
        <span class="line">
          <button type="button" @click="settle(true)">Use {{ state.now }}</button>
          <button type="button" @click="settle(false)">Keep my words</button>
          <button type="button" :aria-expanded="isTelling" @click="isTelling = !isTelling">Show working</button>
        </span>
      </template>
      <span v-else-if="state.is === 'gone'" class="line">No run that is here has this figure any more. It stands as you wrote it.</span>
      <span v-else class="line">{{ figure ? isolated(figure.of) : '' }}</span>
      <template v-if="figure && (isTelling || state.is !== 'changed')">
        <span v-for="each in figure.working()" :key="each" class="line soft">{{ each }}</span>
        <span class="line">
          <RouterLink v-for="(run, index) in figure.runs" :key="run" :to="`/runs/${run}`">run {{ index + 1 }}</RouterLink>
        </span>
      </template></span
    ></span
  >
</template>

<style scoped>
.around {
  position: relative;
  white-space: nowrap;
}

.figure {
  padding: 0;
  font: inherit;
  color: inherit;
  background: none;
  border: 0;
  border-bottom: 1px dotted currentColor;
  cursor: pointer;
}

.changed,
.gone {
  background: rgb(var(--v-theme-due) / 12%);
  border-bottom: 2px solid rgb(var(--v-theme-due));
}

.margin {
  font-size: 0.88em;
  color: rgb(var(--v-theme-soft));
}

.told {
  position: absolute;
  z-index: 4;
  inset-block-start: 1.7em;
  inset-inline-start: 0;
  display: grid;
  gap: 0.3rem;
  width: max-content;
  max-width: min(26rem, 80vw);
  padding: 0.6rem 0.8rem;
  font: 400 0.88rem/1.4 var(--words);
  white-space: normal;
  color: rgb(var(--v-theme-paper));
  background: rgb(var(--v-theme-ink));
  border-radius: 3px;
}

.told .soft,
.told a {
  color: inherit;
}

.line {
  display: flex;
  flex-wrap: wrap;
  gap: 0.2rem 0.9rem;
}

.line button {
  padding: 0;
  font: inherit;
  font-weight: 700;
  color: inherit;
  text-decoration: underline;
  background: none;
  border: 0;
  cursor: pointer;
}
</style>
