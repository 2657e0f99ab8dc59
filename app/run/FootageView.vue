<script setup lang="ts">
import { computed, ref, shallowRef } from 'vue';
import { useRouter } from 'vue-router';
import { ValidationError } from 'yup';
import { elapsedIn, footageSchema, type Footage, type Header } from '@core/ink';
import { clock, parseClock, spell, readDecimal } from '@core/quantity';
import DateField from '../kit/DateField.vue';
import { focusFirstError } from '../kit/firstError';
import BetweenFields from '../logbook/BetweenFields.vue';
import GearField from '../logbook/GearField.vue';
import { newHeader } from '../logbook/headers';
import { useLogbook } from '../logbook/runs';
import { useShelf } from '../logbook/shelf';
import { troubleOf } from '../logbook/trouble';

/** A run that was filmed is written up afterwards: what was charged, and how the time of the clip becomes the time of the run. */
const router = useRouter();
const shelf = useShelf();
const logbook = useLogbook();
const device = ref<string>();
const charger = ref<string>();
const between = shallowRef<Pick<Header, 'port' | 'cable' | 'meter'>>({});
const plugInAt = ref('');
const offset = ref('0:00');
const speed = ref('1');
const cuts = ref<{ at: string; missing: string }[]>([]);
const errors = shallowRef<Record<string, string>>({});

const pair = computed(() => ({
  device: shelf.devices.find(({ id }) => id === device.value),
  charger: shelf.chargers.find(({ id }) => id === charger.value),
}));

const footage = computed<Footage | undefined>(() => {
  const given = {
    offset: parseClock(offset.value.trim()),
    speed: readDecimal(speed.value),
    cuts: cuts.value.map(({ at, missing }) => ({ at: parseClock(at.trim()), missing: readDecimal(missing) * 60 })),
  };
  return footageSchema.isValidSync(given, { strict: true }) ? given : undefined;
});
/** What a minute of the clip comes to: the check that offset, speed and cuts are meant as typed. */
const example = computed(() => {
  const { value } = footage;
  if (!value) return '';
  const [clip, last] = [value.offset + 60, value.cuts.at(-1)];
  const after = last ? `; just after the last cut, ${spell(elapsedIn(value, last.at), 1)}` : '';
  return `At ${clock(clip)} of the clip the run is at ${spell(elapsedIn(value, clip), 1)}${after}.`;
});

/** Which field mends what the schema of a run refuses. */
const FIELDS: Readonly<Record<string, string>> = { plugInAt: 'when', 'footage.offset': 'offset', 'footage.speed': 'speed' };

async function begin(): Promise<void> {
  const found: Record<string, string> = {};
  if (!pair.value.device) found.device = 'Choose the device that charged.';
  if (!pair.value.charger) found.charger = 'Choose what it charged from.';
  if (parseClock(offset.value.trim()) === undefined) found.offset = 'Write the time of the clip, as 0:12.';
  if (!(readDecimal(speed.value) > 0)) found.speed = 'Write how many times as fast it plays: 1 as filmed, 60 for an hour in a minute.';
  for (const [index, { at, missing }] of cuts.value.entries()) {
    if (parseClock(at.trim()) === undefined) found[`at-${index}`] = 'Write the time of the clip, as 12:30.';
    if (!(missing.trim() && readDecimal(missing) >= 0)) found[`missing-${index}`] = 'Write how many minutes are missing.';
  }
  const at = new Date(plugInAt.value).getTime();
  if (!Number.isFinite(at)) found.when = 'Say when it was plugged in: by the clock in the picture, or when the clip was filmed.';
  else if (at > Date.now()) found.when = 'That is still to come: write when it was plugged in.';
  errors.value = found;
  if (Object.keys(found).length > 0) void focusFirstError();
  if (Object.keys(found).length > 0 || !footage.value || !pair.value.device || !pair.value.charger) return;
  const { device, charger } = pair.value;
  const header = newHeader({ device, charger, ...between.value, plugInAt: at, footage: footage.value });
  try {
    await logbook.importRuns([{ header, entries: [] }]);
    await router.push(`/runs/${header.id}`);
  } catch (error) {
    const field = error instanceof ValidationError ? FIELDS[error.path ?? ''] : undefined;
    errors.value = { [field ?? 'form']: error instanceof ValidationError ? error.message : troubleOf(error) };
  }
}
</script>

<template>
  <section class="sheet">
    <header>
      <h1>From footage</h1>
      <p class="soft">a run that was filmed, written up afterwards</p>
    </header>
    <form class="body stacked" novalidate @submit.prevent="begin">
      <GearField v-model="device" of="device" label="Device" :error-messages="errors.device" />
      <GearField v-model="charger" of="charger" label="Charger" :error-messages="errors.charger" />
      <BetweenFields v-if="pair.device && pair.charger" v-model="between" :device="pair.device" :charger="pair.charger" />
      <DateField v-model="plugInAt" label="Plugged in at" type="datetime-local" :error-messages="errors.when" />
      <v-text-field
        v-model="offset"
        label="Time of the clip at plug-in"
        :error-messages="errors.offset"
        hint="As the player shows it: 0:12, or 1:02:05."
        persistent-hint
      />
      <v-text-field
        v-model="speed"
        label="Speed"
        inputmode="decimal"
        :error-messages="errors.speed"
        hint="1 as filmed; 60 for a time lapse that shows an hour in a minute."
        persistent-hint
      />
      <div v-for="(cut, index) in cuts" :key="index" class="cut">
        <v-text-field v-model="cut.at" :label="`Cut ${index + 1}, at time of the clip`" :error-messages="errors[`at-${index}`]" />
        <v-text-field v-model="cut.missing" label="Minutes missing" inputmode="decimal" :error-messages="errors[`missing-${index}`]" />
        <v-btn variant="text" :aria-label="`Take cut ${index + 1} out`" @click="cuts.splice(index, 1)">Remove</v-btn>
      </div>
      <v-btn variant="text" @click="cuts.push({ at: '', missing: '' })">The camera stopped in between: add a cut</v-btn>
      <p v-if="errors.form" class="due" role="alert">{{ errors.form }}</p>
      <p v-if="example" class="soft" role="status">{{ example }}</p>
      <v-btn type="submit" variant="flat" color="primary" size="large">Write it up</v-btn>
    </form>
  </section>
</template>

<style scoped>
.cut {
  display: grid;
  grid-template-columns: 1fr 1fr auto;
  gap: 0.5rem;
  align-items: start;
  width: 100%;
}
</style>
