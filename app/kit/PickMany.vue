<script setup lang="ts">
import { computed, ref } from 'vue';
import FieldName from './FieldName.vue';

/** Chooses several of many: a search, all that it finds or none, and a box for each. What is chosen stays in the order in which it was. */
const props = defineProps<{
  name: string;
  items: readonly { id: string; name: string }[];
  hint?: string | undefined;
  errorMessages?: string | string[] | undefined;
}>();
const chosen = defineModel<string[]>({ required: true });

/** So many are seen at a glance: no search is needed. */
const FEW_CHOICES = 8;
const found = ref('');
const shown = computed(() => props.items.filter(({ name }) => name.toLowerCase().includes(found.value.trim().toLowerCase())));
const error = computed(() => [props.errorMessages ?? []].flat().join(' '));
const all = () => (chosen.value = [...new Set([...chosen.value, ...shown.value.map(({ id }) => id)])]);
</script>

<template>
  <fieldset class="pick" :class="{ wrong: error }">
    <legend>{{ name }}</legend>
    <p class="tools">
      <span class="soft">{{ chosen.length === 0 ? (hint ?? 'none chosen') : `${chosen.length} of ${items.length}` }}</span>
      <v-btn size="small" variant="text" :aria-label="`All ${name}${found ? ' found' : ''}`" @click="all">{{
        found ? 'All found' : 'All'
      }}</v-btn>
      <v-btn v-if="chosen.length > 0" size="small" variant="text" :aria-label="`None of ${name}`" @click="chosen = []">None</v-btn>
    </p>
    <v-text-field
      v-if="items.length > FEW_CHOICES"
      v-model="found"
      type="search"
      label="Find"
      density="compact"
      class="find"
      @keydown.enter.prevent
    >
      <template #label><FieldName name="Find" :said="` in ${name}`" /></template>
    </v-text-field>
    <div class="boxes">
      <v-checkbox
        v-for="{ id, name: title } in shown"
        :key="id"
        :model-value="chosen.includes(id)"
        :label="title"
        density="compact"
        @update:model-value="(on: boolean | null) => (chosen = on ? [...chosen, id] : chosen.filter((each) => each !== id))"
      />
      <p v-if="shown.length === 0" class="soft">Nothing here is called so.</p>
    </div>
    <p v-if="error" class="due" role="alert">{{ error }}</p>
  </fieldset>
</template>

<style scoped>
.pick {
  width: 100%;
  min-width: 0;
  margin: 0;
  padding: 0;
  border: 0;
  border-bottom: 1px solid rgb(var(--v-theme-line));
}

.wrong {
  border-bottom: 2px solid rgb(var(--v-theme-due));
}

legend {
  float: inline-start;
  padding: 0;
  font-size: 0.8rem;
  line-height: 1.75rem;
  color: rgb(var(--v-theme-soft));
}

.tools {
  display: flex;
  gap: 0.25rem;
  align-items: center;
  justify-content: end;
  font-size: 0.85rem;
}

.boxes {
  clear: both;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(100%, 11rem), 1fr));
  max-height: 15rem;
  overflow-y: auto;
}

.boxes :deep(.v-selection-control) {
  min-height: 1.9rem;
}

.boxes :deep(.v-label) {
  overflow-wrap: anywhere;
  font-size: 0.95rem;
}
</style>
