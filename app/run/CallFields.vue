<script setup lang="ts">
import { computed, ref } from 'vue';
import { canChime, chime, LOUDNESS, readyChime } from '../kit/chime';
import { useSettings } from '../kit/settings';
import DateField from '../kit/DateField.vue';

/** How a reading that falls due calls; to be tried before a run. */
const settings = useSettings();
const said = ref('');

const MARKS = [
  { key: 'vibrate', label: 'Vibrate, where the device can' },
  { key: 'speak', label: 'Speak the name of the lane' },
  { key: 'awake', label: 'Keep the screen on while a run is live' },
] as const;
const canNotify = computed(() => 'Notification' in window);

function test(): void {
  readyChime();
  if (settings.loudness === 'off') said.value = 'Sound is off: choose how loud it is to be.';
  else {
    chime(settings.loudness);
    said.value = canChime()
      ? 'It was sounded just now. Nothing heard? Turn the volume up.'
      : 'This browser keeps it silent: allow sound for this address.';
  }
}

async function notify(on: boolean | null): Promise<void> {
  settings.notify = on === true && (await Notification.requestPermission()) === 'granted';
  if (on === true && !settings.notify) said.value = 'This browser does not allow notices: allow them for this address.';
}
</script>

<template>
  <div class="calls">
    <div class="sound">
      <v-select v-model="settings.loudness" :items="[...LOUDNESS]" label="Sound" density="compact" />
      <v-btn @click="test">Sound the chime</v-btn>
    </div>
    <p v-if="said" role="status" class="soft">{{ said }}</p>
    <v-checkbox
      v-if="canNotify"
      :model-value="settings.notify"
      label="Show a system notification while this page is hidden"
      density="compact"
      @update:model-value="notify"
    />
    <v-checkbox v-for="{ key, label } in MARKS" :key="key" v-model="settings[key]" :label="label" density="compact" />
    <div class="sound">
      <DateField v-model="settings.quietFrom" label="Quiet from" type="time" density="compact" />
      <DateField v-model="settings.quietTo" label="until" type="time" density="compact" />
    </div>
  </div>
</template>

<style scoped>
.sound {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0.75rem;
  align-items: center;
  max-width: 24rem;
}

p {
  font-size: 0.9rem;
}
</style>
