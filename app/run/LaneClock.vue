<script setup lang="ts">
import { computed } from 'vue';
import { chargingTime, elapsedAt, type RunRecord } from '@core/ink';
import { clock, countdown } from '@core/quantity';
import { useNow } from '../kit/clock';

/** What of a lane moves with every second, by itself: how long it has been charging, and the countdown to its next reading. */
const props = defineProps<{ run: RunRecord; dueAt: number | undefined; at?: number | undefined }>();

const wall = useNow();
const elapsed = computed(() => elapsedAt(props.run, props.at ?? wall.value));
</script>

<template>
  <p class="figures elapsed"><span class="unseen-text">elapsed </span>{{ clock(elapsed) }}</p>
  <p v-if="run.unplugged.length > 0" class="soft words">charging for {{ clock(chargingTime(run, elapsed)) }}</p>
  <p v-if="dueAt !== undefined" class="figures countdown">{{ countdown(dueAt - elapsed) }}</p>
</template>
