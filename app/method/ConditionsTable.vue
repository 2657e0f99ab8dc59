<script setup lang="ts">
import { ref } from 'vue';
import { AMBIENT, keptAmbient, shownCondition, type Condition } from '@core/method';

/** The settings that must match from run to run. They are confirmed at the start of each. */
const props = defineProps<{ conditions: Condition[] }>();
const emit = defineEmits<{ change: [conditions: Condition[]] }>();

const write = (index: number, part: Partial<Condition>) =>
  emit(
    'change',
    props.conditions.map((each, at) => (at === index ? { ...each, ...part } : each)),
  );

/** How warm the room is, as it is being typed in the chosen scale: it is kept in another. */
const ambient = ref<string>();
function kept({ name }: Condition, typed: string): string {
  if (name !== AMBIENT) return typed;
  ambient.value = typed;
  return keptAmbient(typed);
}
const shown = (condition: Condition) =>
  condition.name === AMBIENT && ambient.value !== undefined ? ambient.value : shownCondition(condition).value;
</script>

<template>
  <section aria-labelledby="conditions-title">
    <h2 id="conditions-title">What must match</h2>
    <p class="soft">Confirmed at the start of every run. Remove what does not apply.</p>
    <ul>
      <li v-for="(condition, index) in conditions" :key="index">
        <v-text-field
          :model-value="shown(condition)"
          :label="shownCondition(condition).name"
          maxlength="80"
          density="compact"
          @update:model-value="(typed: string) => write(index, { value: kept(condition, typed) })"
        />
        <v-btn
          variant="text"
          size="small"
          :aria-label="`Remove ${condition.name}`"
          @click="
            emit(
              'change',
              conditions.filter((_, at) => at !== index),
            )
          "
          >Remove</v-btn
        >
      </li>
    </ul>
  </section>
</template>

<style scoped>
section {
  padding: 1.1rem 1.5rem 2rem;
  border-top: 1px solid rgb(var(--v-theme-line));
}

ul {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(100%, 17rem), 1fr));
  gap: 0.6rem 1rem;
  padding-top: 0.75rem;
  list-style: none;
}

li {
  display: flex;
  align-items: center;
}
</style>
