<script setup lang="ts">
import { computed } from 'vue';
import { isFed } from '@core/bench';
import { SCHOOLS, writeCadence, type School } from '@core/method';
import { ORDERS, QUESTIONS, STATES, type Study } from '@core/plan';
import FigureField from '../kit/FigureField.vue';
import type { MethodChoice } from '../logbook/methodChoice';
import PickMany from '../kit/PickMany.vue';
import { useShelf } from '../logbook/shelf';
import MethodFields from '../method/MethodFields.vue';

/** What a study is: the question first, then how runs are taken, and from what. */
const props = defineProps<{ study: Study; method: MethodChoice; errors: Record<string, string> }>();
const emit = defineEmits<{ change: [part: Partial<Study>]; method: [choice: MethodChoice] }>();

const shelf = useShelf();
const question = computed(() => QUESTIONS.find(({ asks }) => asks === props.study.question));
const fitting = computed(() => (question.value?.methods ?? []).flatMap((id) => SCHOOLS.find((school) => school.id === id) ?? []));

/** A method is taken with the start and the conditions it asks for. */
function taken({ startLevel, conditions }: School): void {
  emit('change', { ...(startLevel !== undefined && { startLevel }), ...(conditions && { conditions }) });
}

function take(id: string): void {
  const school = SCHOOLS.find((each) => each.id === id);
  if (!school) return;
  emit('method', { school: id, timing: writeCadence(school.cadence) });
  taken(school);
}

/** Chargers of the study that have a source of their own. */
const fed = computed(() => shelf.chargers.filter((charger) => props.study.chargers.includes(charger.id) && isFed(charger)));
const feedsOf = (id: string) => (props.study.feeds ?? []).flatMap(({ charger, by }) => (charger === id ? [by] : []));
const feedsWith = (id: string, by: readonly string[]) => [
  ...(props.study.feeds ?? []).filter(({ charger }) => charger !== id),
  ...by.map((each) => ({ charger: id, by: each })),
];

/** One device on several chargers: with as many units of it they race, one on each. */
const twins = computed(() => {
  const { devices, chargers, races } = props.study;
  const device = devices.length === 1 ? shelf.devices.find(({ id }) => id === devices[0]) : undefined;
  const enough = (device?.units ?? 1) >= chargers.length;
  if (!device || chargers.length < 2 || (races && enough)) return undefined;
  const says = enough ? `Race ${chargers.length} units of ${device.name}` : `I have ${chargers.length} of ${device.name}: race them`;
  return { device, count: chargers.length, says: `${says}, one on each charger` };
});

async function raceUnits(): Promise<void> {
  if (!twins.value) return;
  const { device, count } = twins.value;
  if ((device.units ?? 1) < count) await shelf.put({ shelf: 'device', gear: { ...device, units: count } });
  emit('change', { races: true });
}

const number = (typed: string) => (typed.trim() === '' ? Number.NaN : Number(typed.replace(',', '.')));
const shown = (value: number) => (Number.isNaN(value) ? '' : String(value));
</script>

<template>
  <form class="fields" aria-label="The study" @submit.prevent>
    <v-combobox
      :model-value="study.question"
      :items="QUESTIONS.map(({ asks }) => asks)"
      label="The question"
      hint="Choose one, or write your own."
      persistent-hint
      :error-messages="errors.question"
      @update:model-value="(asks: string | null) => emit('change', { question: asks ?? '' })"
    />
    <div v-if="question" class="fitting">
      <p class="soft">You vary {{ question.varies }}. Methods that fit:</p>
      <ul>
        <li v-for="{ id, name, goodFor, weakAt } in fitting" :key="id">
          <button type="button" :aria-pressed="study.method === id" @click="take(id)">{{ name }}</button>
          <span class="soft">good for {{ goodFor }}; weak at: {{ weakAt }}</span>
        </li>
      </ul>
    </div>
    <v-text-field
      :model-value="study.name"
      label="Name of the study"
      hint="Required."
      persistent-hint
      aria-required="true"
      maxlength="81"
      :error-messages="errors.name"
      @update:model-value="(name: string) => emit('change', { name })"
    />
    <MethodFields
      :model-value="method"
      :error="errors.cadence ?? ''"
      :conditions="study.conditions"
      @update:model-value="(choice) => emit('method', choice)"
      @taken="taken"
    />
    <FigureField
      :model-value="shown(study.startLevel)"
      name="Every run starts at"
      unit="%"
      :error-messages="errors.startLevel"
      @update:model-value="(typed: string) => emit('change', { startLevel: number(typed) })"
    />
    <PickMany
      :model-value="study.devices"
      :items="shelf.devices"
      name="Devices"
      :error-messages="errors.devices"
      @update:model-value="(devices: string[]) => emit('change', { devices })"
    />
    <PickMany
      :model-value="study.chargers"
      :items="shelf.chargers"
      name="Chargers"
      :error-messages="errors.chargers"
      @update:model-value="(chargers: string[]) => emit('change', { chargers })"
    />
    <v-select
      v-for="charger in fed"
      :key="charger.id"
      :model-value="feedsOf(charger.id)"
      :items="shelf.chargers.filter(({ id }) => id !== charger.id)"
      item-title="name"
      item-value="id"
      :label="`What feeds ${charger.name}`"
      hint="several: each is a setup of its own"
      persistent-hint
      multiple
      @update:model-value="(by: string[]) => emit('change', { feeds: feedsWith(charger.id, by) })"
    />
    <v-btn v-if="twins" variant="text" @click="raceUnits">{{ twins.says }}</v-btn>
    <PickMany
      v-if="shelf.cables.length > 0"
      :model-value="study.cables"
      :items="shelf.cables"
      name="Cables"
      hint="none: one that fits"
      @update:model-value="(cables: string[]) => emit('change', { cables })"
    />
    <PickMany
      v-if="shelf.meters.length > 0"
      :model-value="study.meters"
      :items="shelf.meters"
      name="Meters at hand"
      hint="none: power is not read"
      @update:model-value="(meters: string[]) => emit('change', { meters })"
    />
    <v-select
      :model-value="study.states"
      :items="[...STATES]"
      label="States"
      multiple
      :error-messages="errors.states"
      @update:model-value="(states: Study['states']) => emit('change', { states })"
    />
    <v-text-field
      :model-value="shown(study.repeats)"
      label="Runs of each"
      inputmode="numeric"
      :error-messages="errors.repeats"
      @update:model-value="(typed: string) => emit('change', { repeats: number(typed) })"
    />
    <v-select
      :model-value="study.order"
      :items="[...ORDERS]"
      label="Order"
      @update:model-value="(order: Study['order']) => emit('change', { order })"
    />
    <v-checkbox
      :model-value="study.races"
      label="Start together, from one strip, what shares no gear"
      @update:model-value="(races: boolean | null) => emit('change', { races: races === true })"
    />
  </form>
</template>

<style scoped>
.fields {
  display: grid;
  gap: 0.8rem;
  align-content: start;
  padding: 1.25rem 1.5rem 2rem;
}

.fitting {
  font-size: 0.9rem;
}

ul {
  list-style: none;
}

li {
  padding-top: 0.35rem;
}

li button {
  padding: 0 0.35rem 0 0;
  font: inherit;
  font-weight: 700;
  color: inherit;
  text-decoration: underline;
  background: none;
  border: 0;
  cursor: pointer;
}

li button[aria-pressed='true'] {
  text-decoration: none;
}
</style>
