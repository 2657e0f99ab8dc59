<script setup lang="ts">
import { toTypedSchema } from '@vee-validate/yup';
import { useForm } from 'vee-validate';
import { computed, ref } from 'vue';
import { CHARGER_KINDS, chargerSchema, DEVICE_KINDS, deviceSchema } from '@core';
import { StorageTrouble } from '../ledger/storageTrouble';
import { vFocus } from '../frame/vFocus';
import { useShelf, type GearDraft, type Shelf } from './shelf';

/** Writes a device or a charger down, or changes one. */
const props = defineProps<{ shelf: Shelf; gear: GearDraft }>();
const emit = defineEmits<{ done: [] }>();

const gearShelf = useShelf();
const isDevice = computed(() => props.shelf === 'device');
const isNew = props.gear.name === undefined;
const title = computed(() => `${isNew ? 'A new' : 'Change this'} ${props.shelf}`);
const trouble = ref('');

const { defineField, handleSubmit, isSubmitting } = useForm<GearDraft>({
  validationSchema: toTypedSchema(isDevice.value ? deviceSchema : chargerSchema),
  initialValues: { ...props.gear, kind: props.gear.kind ?? (isDevice.value ? 'phone' : 'adapter') },
});
const field = (state: { errors: string[] }) => ({ props: { 'error-messages': state.errors } });

const texts = isDevice.value
  ? ([
      ['milliampHours', 'Battery, mAh', 'as printed; with nominal volts'],
      ['nominalVolts', 'Nominal volts', 'such as 3.85'],
      ['wattHours', 'or battery, Wh', 'instead of mAh and volts'],
      ['inputLimit', 'Input limit, W', 'the most it takes, if you know'],
    ] as const)
  : ([
      ['watts', 'Watts', 'as rated'],
      ['label', 'Label text', 'as printed: 5V⎓3A 9V⎓2.22A'],
      ['price', 'Price', 'in your own currency'],
    ] as const);
const [name, nameProps] = defineField('name', field);
const [kind, kindProps] = defineField('kind', field);
const fields = texts.map(([key, label, hint]) => {
  const [model, bound] = defineField(key, field);
  return { key, label, hint, model, bound };
});

const save = handleSubmit(async (given) => {
  trouble.value = '';
  try {
    const schema = isDevice.value ? deviceSchema : chargerSchema;
    const gear = schema.cast({ ...given, id: props.gear.id });
    await gearShelf.put({ shelf: props.shelf, gear } as Parameters<typeof gearShelf.put>[0]);
    emit('done');
  } catch (error) {
    if (!(error instanceof StorageTrouble)) throw error;
    trouble.value = error.message.replace('Not logged.', 'Not put on the shelf.');
  }
});
</script>

<template>
  <v-dialog :model-value="true" max-width="480" aria-labelledby="gear-title" @update:model-value="emit('done')">
    <v-card>
      <form novalidate @submit.prevent="save">
        <h2 id="gear-title">{{ title }}</h2>
        <v-text-field v-model="name" v-focus v-bind="nameProps" label="Name" maxlength="81" />
        <v-select v-model="kind" v-bind="kindProps" :items="[...(isDevice ? DEVICE_KINDS : CHARGER_KINDS)]" label="Kind" />
        <v-text-field
          v-for="{ key, label, hint, model, bound } in fields"
          :key="key"
          v-bind="bound.value"
          :model-value="model.value"
          :label="label"
          :hint="hint"
          persistent-hint
          :inputmode="key === 'label' ? 'text' : 'decimal'"
          @update:model-value="(value: unknown) => (model.value = value as never)"
        />
        <p v-if="trouble" class="due" role="alert">{{ trouble }}</p>
        <div class="buttons">
          <v-btn type="submit" variant="flat" color="primary" :loading="isSubmitting">{{
            isNew ? 'Put on the shelf' : 'Keep the change'
          }}</v-btn>
          <v-btn @click="emit('done')">Leave it</v-btn>
        </div>
        <p v-if="!isNew" class="soft">Runs that used it keep it as it was.</p>
      </form>
    </v-card>
  </v-dialog>
</template>
