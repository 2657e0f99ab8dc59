<script setup lang="ts">
import { computed } from 'vue';
import type { RunRecord } from '@core/ink';
import { wallTime } from '../kit/clock';
import { useBoard } from '../logbook/board';
import { useLogbook } from '../logbook/runs';

/** Chooses the earlier run that lies under a lane, in pencil: those of the same device first. */
const props = defineProps<{ run: RunRecord }>();

const logbook = useLogbook();
const board = useBoard();
const laid = computed(() => board.ghostUnder(props.run.header.id)?.run.header.id);
const earlier = computed(() => {
  const isSame = (device: string) => device === props.run.header.device.name;
  return [...logbook.summaries]
    .sort((one, other) => Number(isSame(other.device)) - Number(isSame(one.device)))
    .map(({ id, device, charger, plugInAt }) => ({ value: id, title: `${device} on ${charger}, ${wallTime(plugInAt, true)}` }));
});
</script>

<template>
  <div class="ghost">
    <v-autocomplete
      :model-value="laid"
      :items="earlier"
      label="Overlay an earlier run"
      clearable
      density="compact"
      hide-details
      no-data-text="No finished runs yet."
      @update:model-value="(id: string | null) => board.lay(run.header.id, id ?? undefined)"
    />
  </div>
</template>

<style scoped>
.ghost {
  padding-block: 0.75rem;
}
</style>
