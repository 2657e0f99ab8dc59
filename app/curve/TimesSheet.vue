<script setup lang="ts">
import { format } from 'date-fns';
import { computed, ref } from 'vue';
import type { Draft, RunInk } from '@core/ink';
import { clock, parseClock, spell } from '@core/quantity';
import DateField from '../kit/DateField.vue';
import FormSheet from '../logbook/FormSheet.vue';
import { useLogbook } from '../logbook/runs';

/** Sets when a run was plugged in, trims its ends, or splits it in two. What was read stays in its ink, and an entry there takes each back. */
const props = defineProps<{ run: RunInk; at: number | undefined; write: (draft: Draft) => Promise<void> }>();
const open = defineModel<boolean>({ required: true });
const emit = defineEmits<{ split: [id: string] }>();

const logbook = useLogbook();
const { header, end } = props.run;
const what = ref<'plug-in' | 'trim' | 'split'>('plug-in');
/** The moment that was pointed at last on the strip. */
const pointed = Math.min(Math.max(props.at ?? 0, 0), end);
const plugIn = ref(format(header.plugInAt + Math.round(pointed) * 1000, "yyyy-MM-dd'T'HH:mm:ss"));
const from = ref(clock(props.at !== undefined && pointed < end / 2 ? pointed : 0));
const to = ref(clock(props.at !== undefined && pointed >= end / 2 ? pointed : end));
const splitAt = ref(clock(pointed));

const epochAt = (seconds: number) => header.plugInAt + Math.round(seconds * 1000);
const plugInAt = computed(() => new Date(plugIn.value).getTime());
const moved = computed(() => {
  const by = (plugInAt.value - header.plugInAt) / 1000;
  return Number.isFinite(by) && by !== 0 ? `${spell(Math.abs(by), 1)} ${by < 0 ? 'earlier' : 'later'} than now` : 'as it is now';
});
const isClock = (typed: string) => (parseClock(typed) === undefined ? 'Write it as minutes and seconds, such as 12:30.' : undefined);

async function setPlugIn(): Promise<string | undefined> {
  if (!Number.isFinite(plugInAt.value)) return 'Fill in when it was plugged in, with its date.';
  if (plugInAt.value === header.plugInAt) return 'That is when it is plugged in already. Choose another time.';
  if (plugInAt.value >= epochAt(end)) return 'Nothing of the run would be left: it ends before. Choose an earlier time.';
  await props.write({ kind: 'plug-in', at: plugInAt.value });
  return undefined;
}

async function trim(): Promise<string | undefined> {
  const [first, last] = [parseClock(from.value), parseClock(to.value)];
  if (first === undefined || last === undefined) return isClock(from.value) ?? isClock(to.value);
  if (first >= last) return 'It would begin after its end. Choose an earlier beginning or a later end.';
  await props.write({ kind: 'trim', at: epochAt(first), until: epochAt(last) });
  return undefined;
}

async function split(): Promise<string | undefined> {
  const seconds = parseClock(splitAt.value);
  if (seconds === undefined) return isClock(splitAt.value);
  if (seconds <= 0 || seconds >= end) return `It is split between its beginning and its end: later than 0:00 and before ${clock(end)}.`;
  emit('split', await logbook.split(header.id, seconds));
  return undefined;
}

const task = () => ({ 'plug-in': setPlugIn, trim, split })[what.value]();
const actions = { 'plug-in': 'Set it', trim: 'Trim it', split: 'Split it' };
</script>

<template>
  <FormSheet v-model="open" name="times" title="Times of this run" :action="actions[what]" :width="520" :task="task">
    <v-radio-group v-model="what" hide-details label="What">
      <v-radio value="plug-in" label="set when it was plugged in" />
      <v-radio value="trim" label="trim its ends" />
      <v-radio value="split" label="split it in two" />
    </v-radio-group>
    <template v-if="what === 'plug-in'">
      <DateField v-model="plugIn" type="datetime-local" step="1" label="Plugged in at" />
      <p class="soft" role="status">{{ moved }}. What was seen before it counts for nothing.</p>
    </template>
    <div v-else-if="what === 'trim'" class="pair">
      <v-text-field v-model="from" label="Looked at from, min:s" class="figures" />
      <v-text-field v-model="to" label="to, min:s" class="figures" />
    </div>
    <template v-else>
      <v-text-field v-model="splitAt" label="At, min:s" class="figures" />
      <p class="soft">What comes after becomes a run of its own, plugged in then. This one ends there.</p>
    </template>
    <p class="soft">Struck in the ink below, it is as it was.</p>
  </FormSheet>
</template>

<style scoped>
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 1rem;
}
</style>
