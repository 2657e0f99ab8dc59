<script setup lang="ts">
import { ref } from 'vue';
import type { Draft, RunInk } from '@core/ink';
import { AMBIENT, CONDITIONS, keptAmbient, shownCondition } from '@core/method';
import FormSheet from '../logbook/FormSheet.vue';

/** The settings that a run was taken with, as they really were. */
const props = defineProps<{ run: RunInk; write: (draft: Draft) => Promise<void> }>();
const open = defineModel<boolean>({ required: true });

const { plugInAt, conditions: before = [] } = props.run.header;
const names = [...new Set([...before, ...CONDITIONS].map(({ name }) => name))];
const valueOf = (name: string) => before.find((each) => each.name === name)?.value ?? '';
/** As they are shown: how warm the room is in the chosen scale. */
const typed = ref(
  names.map((name) => ({
    name,
    title: shownCondition({ name, value: '' }).name,
    value: shownCondition({ name, value: valueOf(name) }).value,
  })),
);

async function save(): Promise<string | undefined> {
  const conditions = typed.value
    .map(({ name, value }) => ({ name, value: name === AMBIENT ? keptAmbient(value) : value.trim() }))
    .filter(({ value }) => value !== '');
  await props.write({ kind: 'conditions', at: plugInAt, conditions });
  return undefined;
}
</script>

<template>
  <FormSheet v-model="open" name="settings" title="Settings of this run" action="Save" :width="560" :task="save">
    <p class="soft">As they really were; empty where it is not known. What stood before stays in its ink.</p>
    <div class="facts">
      <v-text-field v-for="each in typed" :key="each.name" v-model="each.value" :label="each.title" maxlength="80" density="compact" />
    </div>
  </FormSheet>
</template>

<style scoped>
.facts {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(13rem, 1fr));
  gap: 0.6rem 1rem;
}
</style>
