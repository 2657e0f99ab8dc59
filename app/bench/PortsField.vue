<script setup lang="ts">
import { computed } from 'vue';
import { DATA_PORTS, PORT_CONNECTORS, portName, readLabel, writeOffer, type Port } from '@core/bench';
import { portRemarks } from '@core/power';

/** The ports of a charger: each label is read as it is typed, and what could not be read is shown. */
const props = defineProps<{ watts?: number | undefined; errors?: string[] | undefined }>();
const ports = defineModel<Port[] | undefined>();

const read = computed(() =>
  (ports.value ?? []).map((port, index) => {
    const [printed, probed] = [readLabel(port.label ?? '', port.connector), readLabel(port.probed ?? '', port.connector)];
    return {
      port,
      title: portName(port, index),
      offers: [...printed.offers.map(writeOffer), ...(probed.offers.length > 0 ? ['probed:', ...probed.offers.map(writeOffer)] : [])],
      unread: [...printed.unread, ...probed.unread],
      errors: [...printed.errors, ...probed.errors],
      remarks: props.watts === undefined ? [] : portRemarks(port, { watts: props.watts }),
    };
  }),
);

function change(index: number, part: Partial<Port>): void {
  ports.value = (ports.value ?? []).map((port, at) => {
    if (at !== index) return port;
    const changed: Record<string, unknown> = { ...port, ...part };
    return Object.fromEntries(Object.entries(changed).filter(([, value]) => value !== '' && value !== null)) as unknown as Port;
  });
}

function add(): void {
  ports.value = [...(ports.value ?? []), { connector: 'USB-C' }];
}

function remove(index: number): void {
  ports.value = (ports.value ?? []).filter((_, at) => at !== index);
}
</script>

<template>
  <div class="ports">
    <section v-for="({ port, title, offers, unread, errors: wrong, remarks }, index) in read" :key="index" :aria-label="title">
      <div class="fields">
        <v-text-field
          :model-value="port.name ?? ''"
          label="Port name"
          maxlength="20"
          @update:model-value="(name: string) => change(index, { name })"
        />
        <v-select
          :model-value="port.connector"
          :items="[...PORT_CONNECTORS]"
          label="Outlet"
          @update:model-value="(connector: Port['connector']) => change(index, { connector })"
        />
        <v-select
          :model-value="port.data"
          :items="[...DATA_PORTS]"
          label="Data port"
          clearable
          @update:model-value="(data: Port['data']) => change(index, { data })"
        />
        <v-text-field
          class="label"
          :model-value="port.label ?? ''"
          label="Label text"
          placeholder="e.g. 5V⎓3A 9V⎓2.22A PPS 3.3-11V⎓3A"
          maxlength="300"
          @update:model-value="(label: string) => change(index, { label })"
        />
        <v-text-field
          class="label"
          :model-value="port.probed ?? ''"
          label="As a tester found it"
          placeholder="leave empty if not probed"
          maxlength="300"
          @update:model-value="(probed: string) => change(index, { probed })"
        />
      </div>
      <p v-if="offers.length > 0" class="figures read"><span class="soft">read as</span> {{ offers.join('  ') }}</p>
      <p v-if="unread.length > 0" class="due" role="status">Not read: {{ unread.join(' ') }}</p>
      <p v-for="sentence in wrong" :key="sentence" class="due" role="status">{{ sentence }}</p>
      <p v-for="sentence in remarks" :key="sentence" class="soft" role="status">{{ sentence }}</p>
      <v-btn v-if="read.length > 1" size="small" variant="text" :aria-label="`Remove ${title}`" @click="remove(index)">Remove</v-btn>
    </section>
    <p v-for="error in errors" :key="error" class="due" role="alert">{{ error }}</p>
    <v-btn size="small" @click="add">Add a port</v-btn>
  </div>
</template>

<style scoped>
.ports {
  display: grid;
  gap: 0.75rem;
  justify-items: start;
}

section {
  width: 100%;
  padding: 0.75rem 0 0.5rem 0.75rem;
  border-inline-start: 2px solid rgb(var(--v-theme-rule));
  font-size: 0.9rem;
}

.fields {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 0.75rem;
}

.label {
  grid-column: 1 / -1;
}

.read {
  padding-top: 0.4rem;
  white-space: pre-wrap;
}

@media (max-width: 40em) {
  .fields {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
