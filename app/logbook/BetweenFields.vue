<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { isFed, portName, portsOf, type Charger, type Device } from '@core/bench';
import { type Header } from '@core/ink';
import { expectationOf, explain, feedOf, negotiate } from '@core/power';
import { useShelf } from './shelf';

/** What lies between a device and its charger: what feeds it, port, cable and meter, and what the pairing is then expected to give. */
const props = defineProps<{ device: Device; charger: Charger; withoutMeter?: boolean }>();
const between = defineModel<Pick<Header, 'port' | 'cable' | 'meter' | 'feed'>>({ required: true });

const shelf = useShelf();
const port = ref<number | undefined>(between.value.port);
const cable = ref<string | undefined>(between.value.cable?.id);
const meter = ref<string | undefined>(between.value.meter?.id);
const feeder = ref<string | undefined>(between.value.feed?.charger.id ?? props.charger.fedBy);
const feed = computed<Header['feed']>(() => {
  const charger = isFed(props.charger) ? shelf.chargers.find(({ id }) => id === feeder.value) : undefined;
  const cable = shelf.cables.find(({ id }) => id === props.charger.fedThrough);
  return charger && { charger, ...(cable && { cable }) };
});
const feeders = computed(() => shelf.chargers.filter(({ id }) => id !== props.charger.id));
const chosenCable = computed(() => shelf.cables.find(({ id }) => id === cable.value));
const chosenMeter = computed(() => shelf.meters.find(({ id }) => id === meter.value));
const ports = computed(() => portsOf(props.charger).map((each, value) => ({ value, title: portName(each, value) })));
/** The port chosen, else the one that gives the device most. */
const expectation = computed(() => {
  const best = expectationOf(props.device, props.charger, chosenCable.value, feed.value);
  if (port.value === undefined) return best;
  return {
    port: port.value,
    negotiated: negotiate({
      device: props.device,
      charger: props.charger,
      port: port.value,
      cable: chosenCable.value,
      fed: feed.value && feedOf(props.charger, feed.value),
    }),
  };
});

watch(
  () => props.charger.id,
  () => ([port.value, feeder.value] = [undefined, props.charger.fedBy]),
);
watch(
  [expectation, chosenCable, chosenMeter, feed],
  () => {
    between.value = {
      ...(ports.value.length > 1 && { port: expectation.value.port }),
      ...(chosenCable.value && { cable: chosenCable.value }),
      ...(feed.value && { feed: feed.value }),
      ...(chosenMeter.value && { meter: chosenMeter.value }),
    };
  },
  { immediate: true },
);
</script>

<template>
  <v-autocomplete
    v-if="isFed(charger)"
    v-model="feeder"
    :items="feeders"
    item-title="name"
    item-value="id"
    :label="`What feeds ${charger.name}`"
    placeholder="not noted"
    clearable
  />
  <v-select v-if="ports.length > 1" v-model="port" :items="ports" label="Port" :placeholder="ports[expectation.port]?.title" clearable />
  <v-select
    v-if="shelf.cables.length > 0"
    v-model="cable"
    :items="shelf.cables"
    item-title="name"
    item-value="id"
    label="Cable"
    placeholder="its own, or one of 3 A that fits"
    clearable
  />
  <v-select
    v-if="shelf.meters.length > 0 && !withoutMeter"
    v-model="meter"
    :items="shelf.meters"
    item-title="name"
    item-value="id"
    label="Meter"
    placeholder="none"
    clearable
  />
  <p class="soft" role="status">To expect: {{ explain(expectation.negotiated) }}</p>
</template>
