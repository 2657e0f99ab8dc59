<script setup lang="ts">
import { computed, onMounted, ref, useTemplateRef } from 'vue';
import { findingParts, findingText, type Finding } from '@core/advise';
import type { Edit } from '@core/compare';
import { escapeHtml } from '@core/quantity';
import CopyButton from '../kit/CopyButton.vue';
import { printsAs } from '../kit/printing';

/** A sentence of the verdict with its reason; in one’s own words where one likes, what was worked out beside them. */
const props = defineProps<{
  finding: Finding;
  edit: Edit | undefined;
  /** Whether its reason is shown unasked. */
  isUnfolded: boolean;
}>();
const emit = defineEmits<{ write: [text: string]; keep: []; undo: []; plan: [] }>();

const isOpen = ref(false);
const isAsked = ref(false);
const isShown = computed(() => props.isUnfolded || isAsked.value);
const hasReason = computed(() => props.finding.why !== '' || props.finding.settle !== undefined);
const text = ref('');
const error = ref('');
const MOST_SENTENCE = 600;
const isStale = computed(() => props.edit !== undefined && props.edit.made !== `${props.finding.says}\n${props.finding.why}`);

/** On paper its reason is told, whether it is unfolded or not. */
const item = useTemplateRef<HTMLElement>('item');
onMounted(() => {
  if (item.value)
    printsAs(item.value, {
      html: () => {
        const { sentence, reasons } = findingParts(props.finding, props.edit?.text);
        const told = reasons.map((each) => `<p class="why">${escapeHtml(each)}</p>`).join('');
        return `<h2>${escapeHtml(props.finding.title)}</h2><p class="headline"><strong>${escapeHtml(sentence)}</strong></p>${told}`;
      },
    });
});

function open(): void {
  text.value = props.edit?.text ?? props.finding.says;
  error.value = '';
  isOpen.value = true;
}
function write(): void {
  if (text.value.trim() === '') {
    error.value = 'Write the sentence, or take the one that was worked out.';
    return;
  }
  emit('write', text.value.trim());
  isOpen.value = false;
}
</script>

<template>
  <li ref="item" data-copied>
    <h2>{{ finding.title }}</h2>
    <div class="said">
      <form v-if="isOpen" novalidate @submit.prevent="write" @keydown.esc.stop="isOpen = false">
        <v-textarea
          v-model="text"
          :label="`${finding.title}, in your own words`"
          :maxlength="MOST_SENTENCE"
          rows="2"
          auto-grow
          autofocus
          :error-messages="error"
        />
        <v-btn type="submit" size="small" variant="flat" color="primary">Save</v-btn>
        <v-btn size="small" variant="text" @click="isOpen = false">Cancel</v-btn>
      </form>
      <template v-else>
        <p class="headline">{{ edit?.text ?? finding.says }}</p>
        <p v-if="edit" class="made">Worked out: {{ finding.says }}</p>
        <p v-if="isStale" class="due" role="status">
          What this was written from has changed.
          <button type="button" class="link" @click="emit('keep')">Keep yours</button>
          <button type="button" class="link" @click="emit('undo')">Take the new one</button>
        </p>
      </template>
      <p v-if="hasReason && !isShown">
        <button type="button" class="link why" :aria-label="`Why: ${finding.title}`" @click="isAsked = true">Why</button>
      </p>
      <p v-if="finding.why && isShown" class="soft why">{{ finding.why }}</p>
      <p v-if="finding.settle && isShown" class="soft why">
        {{ finding.settle.says }}
        <button
          v-if="finding.settle.runs.length > 0"
          type="button"
          class="link"
          :aria-label="`Put it into the plan: ${finding.title}`"
          @click="emit('plan')"
        >
          Put it into the plan
        </button>
      </p>
    </div>
    <div v-if="!isOpen" class="own">
      <CopyButton :name="`the sentence: ${finding.title}`" :take="() => ({ text: findingText(finding, edit?.text) })" />
      <v-btn size="small" variant="text" :aria-label="`Edit: ${finding.title}`" @click="open">Edit</v-btn>
      <v-btn
        v-if="edit && !isStale"
        size="small"
        variant="text"
        :aria-label="`Take what was worked out: ${finding.title}`"
        @click="emit('undo')"
        >Undo</v-btn
      >
    </div>
  </li>
</template>

<style scoped>
li {
  display: grid;
  grid-template-columns: 8.5rem minmax(0, 1fr) auto;
  gap: 0 1rem;
  padding-block: 0.75rem;
  border-bottom: 1px solid rgb(var(--v-theme-line));
}

h2 {
  padding-top: 0.2rem;
  font-size: 0.85rem;
  color: rgb(var(--v-theme-soft));
}

.headline {
  font-size: 1.1rem;
  font-weight: 700;
  line-height: 1.3;
  white-space: pre-line;
  overflow-wrap: anywhere;
}

.made {
  font-size: 0.88rem;
  font-style: italic;
  color: rgb(var(--v-theme-pencil));
}

.why {
  white-space: pre-line;
  font-size: 0.88rem;
  overflow-wrap: anywhere;
}

.due {
  font-size: 0.88rem;
}

.link + .link {
  margin-inline-start: 0.7rem;
}

.own {
  display: flex;
  align-items: start;
}

@media (max-width: 43.75em) {
  li {
    grid-template-columns: minmax(0, 1fr) auto;
  }

  h2 {
    grid-column: 1 / -1;
  }
}
</style>
