<script setup lang="ts">
import { toTypedSchema } from '@vee-validate/yup';
import { useForm } from 'vee-validate';
import { computed, nextTick, ref, useTemplateRef } from 'vue';
import {
  batteryDoubt,
  batteryFacts,
  FACTS,
  factsSay,
  SCHEMAS,
  type Device,
  type FactGroup,
  type Gear,
  type Kept,
  type Shelf,
} from '@core/bench';
import { fixed, inManner, readDecimal } from '@core/quantity';
import DraftOffer from '../kit/DraftOffer.vue';
import FieldName from '../kit/FieldName.vue';
import FigureField from '../kit/FigureField.vue';
import { useDraft } from '../kit/drafts';
import { focusFirstError } from '../kit/firstError';
import { vFocus } from '../kit/vFocus';
import { useShelf } from '../logbook/shelf';
import { troubleOf } from '../logbook/trouble';
import PortsField from './PortsField.vue';

/** Writes a piece of gear down, or changes one. Which facts it asks for stands in core’s FACTS. */
const props = defineProps<{ shelf: Shelf; gear: Partial<Gear> & { id: string } }>();
const emit = defineEmits<{ done: []; saved: [name: string, isOn: boolean] }>();

const bench = useShelf();
const isNew = !bench.all.some(({ gear: { id } }) => id === props.gear.id);
/** The first device is asked for its charger at once. */
const leads = isNew && props.shelf === 'device' && bench.chargers.length === 0;
const isOn = ref(false);
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
const groups = FACTS[props.shelf].map((group) => ({
  group,
  facts: group.facts.map((fact) => ({ fact, ...bind(fact.key) })),
}));
/** Groups of rarer facts that are folded to one line. */
const folded = ref(new Set(FACTS[props.shelf].filter(({ isRare }) => isRare).map(({ title: heading }) => heading)));
const nameOf = (id: string) => bench.all.find(({ gear }) => gear.id === id)?.gear.name;
const says = (group: FactGroup) => factsSay(group, values, nameOf);
const form = useTemplateRef<HTMLFormElement>('form');

function unfold({ title: heading }: FactGroup): void {
  folded.value.delete(heading);
}
async function change(group: FactGroup): Promise<void> {
  unfold(group);
  await nextTick();
  form.value?.querySelector<HTMLElement>(`[data-group="${group.title}"] :is(input, textarea)`)?.focus();
}

/** Other gear that this one can go with. */
const linkable = (of: Shelf) => bench.all.flatMap((each) => (each.shelf === of && each.gear.id !== props.gear.id ? [each.gear] : []));

/** What the figures so far say of each other, as they are typed. */
const remark = computed(() => {
  if (props.shelf !== 'device') return '';
  const number = (value: unknown) => (value === '' || value === undefined || value === null ? undefined : readDecimal(String(value)));
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

/** The first error is unfolded, scrolled to, and takes the focus. */
async function lead({ errors }: { errors: Partial<Record<string, string>> }): Promise<void> {
  for (const { group } of groups)
    if (group.facts.some(({ key }) => Object.keys(errors).some((path) => path.split(/[.[]/)[0] === key))) unfold(group);
  await focusFirstError();
}

const save = handleSubmit(async (given) => {
  trouble.value = '';
  try {
    const gear = SCHEMAS[props.shelf].cast({ ...given, id: props.gear.id }, { stripUnknown: true });
    await bench.put({ shelf: props.shelf, gear } as Kept);
    end();
    if (isNew) emit('saved', gear.name, isOn.value);
  } catch (error) {
    trouble.value = troubleOf(error, 'Not saved.');
  }
}, lead);
</script>

<template>
  <v-dialog :model-value="true" max-width="1040" scrollable aria-labelledby="gear-title" @update:model-value="close">
    <v-card>
      <form ref="form" novalidate @submit.prevent="save" @keydown.ctrl.enter="save">
        <h2 id="gear-title">{{ title }}</h2>
        <DraftOffer :draft="offer" />
        <v-text-field
          v-model="name.model.value"
          v-focus
          v-bind="name.bound.value"
          label="Name"
          class="name"
          aria-required="true"
          hint="Required. All else can follow."
          persistent-hint
          maxlength="81"
        />
        <div v-for="{ group, facts } in groups" :key="group.title" :data-group="group.title">
          <p v-if="folded.has(group.title)" class="folded">
            <strong>{{ group.title }}</strong>
            <span class="soft">{{ says(group) || 'not said' }}</span>
            <v-btn variant="text" size="small" :aria-label="`${says(group) ? 'Change' : 'Add'}: ${group.title}`" @click="change(group)">{{
              says(group) ? 'Change' : 'Add'
            }}</v-btn>
          </p>
          <fieldset v-else>
            <legend :class="{ 'unseen-text': !group.isRare }">{{ group.title }}</legend>
            <template v-for="{ fact, model, bound } in facts" :key="fact.key">
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
                :label="fact.name"
                :suffix="fact.unit ?? ''"
                :hint="fact.hint"
                :persistent-hint="Boolean(fact.hint)"
                :multiple="fact.type === 'choices'"
                :clearable="fact.key !== 'kind'"
              >
                <template #label><FieldName :name="fact.name" :said="fact.unit ? `, ${fact.unit}` : ''" /></template>
              </v-select>
              <v-autocomplete
                v-else-if="fact.of"
                v-model="model.value as never"
                v-bind="bound.value"
                :items="linkable(fact.of)"
                item-title="name"
                item-value="id"
                :label="fact.name"
                :hint="fact.hint"
                :persistent-hint="Boolean(fact.hint)"
                clearable
              />
              <v-combobox
                v-else-if="fact.type === 'names'"
                v-model="model.value as never"
                v-bind="bound.value"
                :items="[...(fact.choices ?? [])]"
                :label="fact.name"
                :hint="fact.hint"
                persistent-hint
                multiple
                chips
                closable-chips
              />
              <v-checkbox v-else-if="fact.type === 'yes'" v-model="model.value" v-bind="bound.value" :label="fact.name" />
              <v-textarea
                v-else-if="fact.type === 'lines'"
                v-model="model.value"
                v-bind="bound.value"
                :label="fact.name"
                :hint="fact.hint"
                persistent-hint
                rows="2"
                auto-grow
              />
              <FigureField
                v-else-if="fact.type === 'figure'"
                :model-value="inManner(String(model.value ?? ''))"
                v-bind="bound.value"
                :name="fact.name"
                :unit="fact.unit"
                :hint="fact.hint"
                :persistent-hint="Boolean(fact.hint)"
                @update:model-value="(typed: string) => (model.value = typed)"
              />
              <v-text-field
                v-else
                v-model="model.value"
                v-bind="bound.value"
                :label="fact.name"
                :hint="fact.hint"
                :persistent-hint="Boolean(fact.hint)"
              />
            </template>
            <p v-if="remark && group.title === 'Battery'" class="soft wide" role="status">{{ remark }}</p>
          </fieldset>
        </div>
        <p v-if="trouble" class="due" role="alert">{{ trouble }}</p>
        <div class="buttons foot">
          <v-btn type="submit" variant="flat" color="primary" :loading="isSubmitting">Save</v-btn>
          <v-btn v-if="leads" :loading="isSubmitting" @click="((isOn = true), save())">Save and add a charger</v-btn>
          <v-btn variant="text" @click="end">Cancel</v-btn>
          <span class="soft">{{ isNew ? '' : 'Runs that used it keep it as it was. ' }}<kbd>Ctrl</kbd> <kbd>Enter</kbd> saves</span>
        </div>
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

.name :deep(input) {
  font-size: 1.25rem;
}

.folded {
  display: grid;
  grid-template-columns: minmax(0, 10rem) minmax(0, 1fr) auto;
  gap: 0.25rem 1rem;
  align-items: center;
  padding-block: 0.15rem;
  border-top: 1px solid rgb(var(--v-theme-grid));
  font-size: 0.92rem;
}

.foot .soft {
  margin-inline-start: auto;
  font-size: 0.85rem;
}

@media (max-width: 40em) {
  .folded {
    grid-template-columns: minmax(0, 1fr) auto;
  }

  .folded .soft {
    grid-row: 2;
    grid-column: 1 / -1;
  }

  .foot .soft {
    display: none;
  }
}
</style>
