<script setup lang="ts">
import FieldName from './FieldName.vue';

/** A field for a figure: its unit stands at its end, and is said with its name. */
defineProps<{ name: string; unit?: string | undefined; modelValue: string | number | undefined }>();
defineEmits<{ 'update:modelValue': [typed: string] }>();
</script>

<template>
  <v-text-field
    :model-value="modelValue"
    :suffix="unit ?? ''"
    :label="name"
    inputmode="decimal"
    @update:model-value="(typed: string) => $emit('update:modelValue', typed)"
  >
    <template #label><FieldName :name="name" :said="unit ? `, ${unit}` : ''" /></template>
  </v-text-field>
</template>
