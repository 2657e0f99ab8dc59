<script setup lang="ts">
import { computed, onMounted, ref } from 'vue';
import { writeCadence, type Condition, type School } from '@core/method';
import { momentText } from '../kit/dates';
import type { MethodChoice } from '../logbook/methodChoice';
import { useMethods } from '../logbook/methods';
import { useLogbook } from '../logbook/runs';
import CadenceFields from './CadenceFields.vue';
import MethodSheet from './MethodSheet.vue';

/** The method of a run: a school of the trade or one’s own, with a line on why, or the times of an earlier run; all can be adjusted and kept. */
defineProps<{ error: string; conditions?: readonly Condition[] }>();
const emit = defineEmits<{ taken: [method: School] }>();
const choice = defineModel<MethodChoice>({ required: true });

const logbook = useLogbook();
const AS_EARLIER = 'as-earlier';
const methods = useMethods();
const sheet = ref(false);
onMounted(() => methods.load());
const offered = computed(() => [
  ...methods.all.map(({ id, name, goodFor }) => ({ value: id, title: name, props: { subtitle: goodFor } })),
  { value: AS_EARLIER, title: 'The check times of an earlier run', props: { subtitle: 'to set a run beside one that was taken before' } },
]);
const school = computed(() => methods.byId(choice.value.school));
const earlierRuns = computed(() =>
  logbook.summaries.map(({ id, device, charger, plugInAt }) => ({
    value: id,
    title: `${device} on ${charger}, ${momentText(plugInAt)}`,
  })),
);

function take(id: string): void {
  const chosen = methods.byId(id);
  choice.value = { school: chosen?.id, timing: writeCadence(chosen?.cadence ?? { kind: 'marks', at: [300] }) };
  if (chosen) emit('taken', chosen);
}

function keep(method: School): void {
  sheet.value = false;
  take(method.id);
}

async function remove(id: string): Promise<void> {
  await methods.remove(id);
  choice.value = { ...choice.value, school: methods.all[0]?.id };
}

/** Takes over when the earlier run was read, so that the two can be laid side by side. */
async function takeTimes(id: string): Promise<void> {
  const {
    run: { readings },
  } = await logbook.open(id);
  const at = [...new Set(readings.map(({ seconds }) => Math.round(seconds)).filter((seconds) => seconds >= 30))];
  choice.value = { earlier: id, timing: writeCadence({ kind: 'marks', at }) };
}
</script>

<template>
  <v-select
    :model-value="choice.school ?? AS_EARLIER"
    :items="offered"
    label="Method"
    :menu-props="{ maxHeight: 600 }"
    @update:model-value="take"
  />
  <p v-if="school" class="soft">
    Good for {{ school.goodFor }}. Weak at: {{ school.weakAt }}. Start at {{ school.start }}; write down {{ school.records }}; stop
    {{ school.stops }}.
  </p>
  <v-autocomplete
    v-else
    :model-value="choice.earlier"
    :items="earlierRuns"
    label="Copy check times from"
    auto-select-first
    no-data-text="No finished runs yet."
    @update:model-value="takeTimes"
  />
  <CadenceFields :model-value="choice.timing" :error="error" @update:model-value="(timing) => (choice = { ...choice, timing })" />
  <div v-if="school" class="own">
    <v-btn variant="text" size="small" @click="sheet = true">{{
      methods.isOwn(school.id) ? 'Change my method' : 'Save as a method of my own'
    }}</v-btn>
    <v-btn v-if="methods.isOwn(school.id)" variant="text" size="small" @click="remove(school.id)">Remove the method</v-btn>
  </div>
  <MethodSheet v-if="sheet && school" :base="school" :choice="choice" :conditions="conditions" @kept="keep" @close="sheet = false" />
</template>

<style scoped>
p {
  font-size: 0.9rem;
}
</style>
