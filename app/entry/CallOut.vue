<script setup lang="ts">
import { useDocumentVisibility, useFavicon, useVibrate, useWakeLock } from '@vueuse/core';
import { computed, watch } from 'vue';
import { isHot } from '@core/curve';
import { isQuiet } from '@core/run';
import { chime } from '../kit/chime';
import { useSettings } from '../kit/settings';
import { useLanes } from '../logbook/lanes';

/** Calls for attention when a reading falls due: by icon always, and as chosen by sound, notice, vibration and voice. Draws nothing. */
const props = defineProps<{ due: readonly { runId: string; due: number }[] }>();

const settings = useSettings();
const lanes = useLanes();
const visibility = useDocumentVisibility();
const wakeLock = useWakeLock();
const { vibrate } = useVibrate({ pattern: [220, 90, 220] });
useFavicon(computed(() => (props.due.length > 0 ? '/mark-due.svg' : '/mark.svg')));

const keys = computed(() => props.due.map(({ runId, due }) => `${runId}@${due}`));
const isQuietNow = () => isQuiet(settings.quietFrom, settings.quietTo, new Date().getHours() * 60 + new Date().getMinutes());

watch(
  keys,
  (all, before) => {
    const fresh = props.due.filter((_, index) => !before?.includes(all[index] ?? ''));
    if (fresh.length > 0 && !isQuietNow()) call(fresh.map(({ runId }) => nameOf(runId)));
  },
  { immediate: true },
);

/** Heat that was just read: called at once, quiet hours or not. */
const hot = computed(() => lanes.records.filter(isHot).map(({ header }) => header.id));
watch(hot, (all, before) => {
  const fresh = all.filter((id) => !before.includes(id));
  if (fresh.length > 0) call(fresh.map(nameOf), 'Too hot');
});

function nameOf(runId: string): string {
  const device = lanes.records.find(({ header }) => header.id === runId)?.header.device.name ?? '';
  return lanes.records.length > 1 ? `${device}, lane ${lanes.letterOf(runId)}` : device;
}

function call(names: string[], what: 'Read' | 'Too hot' = 'Read'): void {
  chime(settings.loudness);
  // Browsers refuse it, and complain, until somebody has touched the page.
  if (settings.vibrate && navigator.userActivation.hasBeenActive) vibrate();
  if (settings.speak && 'speechSynthesis' in window) speechSynthesis.speak(new SpeechSynthesisUtterance(`${what} ${names.join(', ')}`));
  if (settings.notify && visibility.value === 'hidden' && 'Notification' in window && Notification.permission === 'granted')
    new Notification(what === 'Read' ? 'Reading due' : 'Too hot', { body: names.join('\n'), tag: 'inkpath-due', icon: '/mark-due.svg' });
}

// The screen stays on for as long as this stands: while a run is live.
watch(
  () => settings.awake,
  (awake) => {
    // Browsers refuse it on a low battery or in the background: then the screen goes dark as ever.
    void (awake ? wakeLock.request('screen') : wakeLock.release()).catch(() => undefined);
  },
  { immediate: true },
);
</script>

<template><span hidden /></template>
