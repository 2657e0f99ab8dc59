<script setup lang="ts">
import { defineAsyncComponent, ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import DueLine from '../run/DueLine.vue';
import { useLanes } from '../run/lanes';
import PlaceRail from './PlaceRail.vue';
import { readyChime } from './chime';
import { HELP, PLACES } from './places';
import { useSettings } from './settings';
import { useKeys } from './shortcuts';

const ShortcutSheet = defineAsyncComponent(() => import('./ShortcutSheet.vue'));

const router = useRouter();
const route = useRoute();
const lanes = useLanes();
const settings = useSettings();
const sheet = ref(false);
const go = (path: string) => () => void router.push(path);

useKeys({
  ...Object.fromEntries([...PLACES, HELP].map(({ key, path }) => [`Shift+${key}`, go(path)])),
  n: (event) => {
    event.preventDefault();
    void router.push('/run/new');
  },
  'Shift+?': () => (sheet.value = true),
  '?': () => (sheet.value = true),
});
</script>

<template>
  <v-app :theme="settings.theme" @keydown.capture="readyChime" @pointerdown.capture="readyChime">
    <a class="skip" href="#place">To the page</a>
    <div class="frame" :class="{ live: lanes.records.length > 0 }">
      <PlaceRail @shortcuts="sheet = true" />
      <main id="place" tabindex="-1"><RouterView :key="route.path" /></main>
      <DueLine v-if="lanes.records.length > 0" />
    </div>
    <ShortcutSheet v-if="sheet" v-model="sheet" />
  </v-app>
</template>

<style scoped>
.skip {
  position: absolute;
  left: -100rem;
  z-index: 10;
  padding: 0.5rem 1rem;
  background: rgb(var(--v-theme-paper));
}

.skip:focus {
  left: 0;
}

.frame {
  display: grid;
  grid-template: 1fr auto / 5.8rem 1fr;
  height: 100dvh;
}

.frame > nav {
  grid-row: 1 / -1;
}

main {
  overflow: auto;
  min-width: 0;
  border-left: 1px solid rgb(var(--v-theme-line));
  background: rgb(var(--v-theme-paper));
  outline: none;
}

@media (max-width: 640px) {
  .frame {
    grid-template: auto 1fr auto / 1fr;
  }

  .frame > nav {
    grid-row: auto;
  }

  main {
    border-left: 0;
  }
}
</style>
