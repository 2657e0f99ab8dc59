<script setup lang="ts">
import { toTypedSchema } from '@vee-validate/yup';
import { useForm } from 'vee-validate';
import { computed, ref } from 'vue';
import { batteryDoubt, batteryFacts, FACTS, SCHEMAS, type Device, type Gear, type Kept, type Shelf } from '@core/bench';
import { fixed } from '@core/quantity';
import DraftOffer from '../kit/DraftOffer.vue';
import { useDraft } from '../kit/drafts';
import { vFocus } from '../kit/vFocus';
import { useShelf } from '../logbook/shelf';
import { troubleOf } from '../logbook/trouble';
import PortsField from './PortsField.vue';
import { labelOf } from './words';

/** Writes a piece of gear down, or changes one. Which facts it asks for stands in core’s FACTS. */
const props = defineProps<{ shelf: Shelf; gear: Partial<Gear> & { id: string } }>();
const emit = defineEmits<{ done: [] }>();

const bench = useShelf();
const isNew = !bench.all.some(({ gear: { id } }) => id === props.gear.id);
const title = `${isNew ? 'A new' : 'Change this'} ${props.shelf}`;
const trouble = ref('');
const FIRST: Readonly<Record<Shelf, object>> = {
  device: { kind: 'phone', connectors: ['USB-C'] },
  charger: { kind: 'adapter', ports: [{ connector: 'USB-C' }] },
  cable: { chargerEnd: 'USB-C', deviceEnd: 'USB-C', marker: 'none' },
  meter: {},
};

const { defineField, handleSubmit, isSubmitting, setValues, values } = useForm<Record<string, unknown>>({
  validationSchema: toTypedSchema(SCHEMAS[props.shelf]),
  initialValues: { ...FIRST[props.shelf], ...(JSON.parse(JSON.stringify(props.gear)) as object) },
});
const { offer, close, end } = useDraft(
  `gear/${isNew ? props.shelf : props.gear.id}`,
  () => ({ ...values }),
  (given) => {
    setValues(given, false);
  },
  () => {
    emit('done');
  },
);
const bind = (key: string) => {
  const [model, bound] = defineField(key, (state: { errors: string[] }) => ({ props: { 'error-messages': state.errors } }));
  return { model, bound };
};
const name = bind('name');
const groups = FACTS[props.shelf].map(({ title: heading, facts }) => ({
  heading,
  facts: facts.map((fact) => ({ fact, label: labelOf(fact), ...bind(fact.key) })),
}));

/** Other gear that this one can go with. */
const linkable = (of: Shelf) => bench.all.flatMap((each) => (each.shelf === of && each.gear.id !== props.gear.id ? [each.gear] : []));

/** What the figures so far say of each other, as they are typed. */
const remark = computed(() => {
  if (props.shelf !== 'device') return '';
  const number = (value: unknown) => (value === '' || value === undefined || value === null ? undefined : Number(value));
  const given: Pick<Device, 'milliampHours' | 'nominalVolts' | 'wattHours'> = {
    milliampHours: number(values.milliampHours),
    nominalVolts: number(values.nominalVolts),
    wattHours: number(values.wattHours),
  };
  if ([given.milliampHours, given.nominalVolts, given.wattHours].some((each) => each !== undefined && !(each > 0))) return '';
  const doubt = batteryDoubt(given);
  if (doubt) return doubt;
  const { wattHours, milliampHours } = batteryFacts(given);
  if (given.wattHours === undefined && wattHours !== undefined) return `That is ${fixed(wattHours, 1)} Wh.`;
  if (given.milliampHours === undefined && milliampHours !== undefined) return `That is ${fixed(milliampHours)} mAh.`;
  return '';
});

const save = handleSubmit(async (given) => {
  trouble.value = '';
  try {
    const gear = SCHEMAS[props.shelf].cast({ ...given, id: props.gear.id }, { stripUnknown: true });
    await bench.put({ shelf: props.shelf, gear } as Kept);
    end();
  } catch (error) {
    trouble.value = troubleOf(error, 'Not saved.');
  }
});
</script>

<template>
  <v-dialog :model-value="true" max-width="760" scrollable aria-labelledby="gear-title" @update:model-value="close">
    <v-card>
      <form novalidate @submit.prevent="save">
        <h2 id="gear-title">{{ title }}</h2>
        <DraftOffer :draft="offer" />
        <v-text-field v-model="name.model.value" v-focus v-bind="name.bound.value" label="Name" maxlength="81" />
        <fieldset v-for="group in groups" :key="group.heading">
          <legend>{{ group.heading }}</legend>
          <template v-for="{ fact, label, model, bound } in group.facts" :key="fact.key">
            <PortsField
              v-if="fact.type === 'ports'"
              v-model="model.value as never"
              class="wide"
              :watts="Number(values.watts) || undefined"
              :errors="bound.value['error-messages']"
            />
            <v-select
              v-else-if="fact.type === 'choice' || fact.type === 'choices'"
              v-model="model.value as never"
              v-bind="bound.value"
              :items="[...(fact.choices ?? [])]"
              :label="label"
              :hint="fact.hint"
              :persistent-hint="Boolean(fact.hint)"
              :multiple="fact.type === 'choices'"
              :clearable="fact.key !== 'kind'"
            />
            <v-autocomplete
              v-else-if="fact.of"
              v-model="model.value as never"
              v-bind="bound.value"
              :items="linkable(fact.of)"
              item-title="name"
              item-value="id"
              :label="label"
              :hint="fact.hint"
              :persistent-hint="Boolean(fact.hint)"
              clearable
            />
            <v-combobox
              v-else-if="fact.type === 'names'"
              v-model="model.value as never"
              v-bind="bound.value"
              :items="[...(fact.choices ?? [])]"
              :label="label"
              :hint="fact.hint"
              persistent-hint
              multiple
              chips
              closable-chips
            />
            <v-checkbox v-else-if="fact.type === 'yes'" v-model="model.value" v-bind="bound.value" :label="label" />
            <v-textarea
              v-else-if="fact.type === 'lines'"
              v-model="model.value"
              v-bind="bound.value"
              :label="label"
              :hint="fact.hint"
              persistent-hint
              rows="2"
              auto-grow
            />
            <v-text-field
              v-else
              v-model="model.value"
              v-bind="bound.value"
              :label="label"
              :hint="fact.hint"
              :persistent-hint="Boolean(fact.hint)"
              :inputmode="fact.type === 'figure' ? 'decimal' : 'text'"
            />
          </template>
          <p v-if="group.heading === 'Battery' && remark" class="soft wide" role="status">{{ remark }}</p>
        </fieldset>
        <p v-if="trouble" class="due" role="alert">{{ trouble }}</p>
        <div class="buttons">
          <v-btn type="submit" variant="flat" color="primary" :loading="isSubmitting">Save</v-btn>
          <v-btn @click="end">Cancel</v-btn>
        </div>
        <p v-if="!isNew" class="soft">Runs that used it keep it as it was.</p>
      </form>
    </v-card>
  </v-dialog>
</template>

<style scoped>
fieldset {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(100%, 13.5rem), 1fr));
  gap: 0.75rem;
  align-items: start;
  min-width: 0;
  margin: 0;
  padding: 0;
  border: 0;
}

legend {
  padding-bottom: 0.5rem;
  font-size: 0.85rem;
  font-weight: 700;
}

.wide {
  grid-column: 1 / -1;
}
</style>
