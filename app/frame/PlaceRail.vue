<script setup lang="ts">
import { mdiKeyboardOutline, mdiMenu, mdiTuneVariant, mdiWeatherNight, mdiWhiteBalanceSunny } from '@mdi/js';
import { computed, ref, watch } from 'vue';
import { useRoute } from 'vue-router';
import { useSettings } from '../kit/settings';
import { useBackup } from '../logbook/backupState';
import { logbookKind } from '../logbook/kind';
import { useLanes } from '../logbook/lanes';
import { useLogbook } from '../logbook/runs';
import { useShelf } from '../logbook/shelf';
import { useOffline } from './offline';
import { HELP, PLACES, SETTINGS } from './places';

/** The places of the work, in its order. */
defineEmits<{ shortcuts: [] }>();

const route = useRoute();
const settings = useSettings();
const shelf = useShelf();
const logbook = useLogbook();
const lanes = useLanes();
const offline = useOffline();
const isDemo = logbookKind() === 'demo';
const backup = useBackup();

const counts = computed<Record<string, number>>(() => ({
  Bench: shelf.count,
  Runs: logbook.summaries.length,
}));
const isHere = (path: string) => route.path === path || route.path.startsWith(`${path}/`);
const isDark = computed(() => settings.theme === 'darkRoom');
/** On the narrowest screens the places unfold from one button. */
const isOpen = ref(false);
const hereName = computed(() => [...PLACES, SETTINGS, HELP].find(({ path }) => isHere(path))?.name ?? 'Inkpath Log');
watch(
  () => route.path,
  () => (isOpen.value = false),
);
const turn = () => (settings.theme = isDark.value ? 'paper' : 'darkRoom');
</script>

<template>
  <nav aria-label="Places" :class="{ open: isOpen }" @keydown.esc="isOpen = false">
    <button class="unfold" type="button" :aria-expanded="isOpen" :aria-label="`${hereName}, all places`" @click="isOpen = !isOpen">
      <svg viewBox="0 0 24 24" aria-hidden="true"><path :d="mdiMenu" /></svg>
      {{ hereName }}
      <span v-if="lanes.records.length > 0" class="live" />
    </button>
    <RouterLink to="/live" class="mark" aria-label="Inkpath Log, to the board">
      <svg viewBox="0 0 52 40" width="52" height="40" aria-hidden="true">
        <path class="path" d="M2 37c11 0 10-7 14-16S26 7 32 7" />
        <circle cx="33" cy="7" r="5" />
        <path class="ahead" d="M41 7h10" />
      </svg>
    </RouterLink>
    <ul>
      <li v-for="place in PLACES" :key="place.path">
        <RouterLink :to="place.path" :class="{ here: isHere(place.path) }" :aria-current="isHere(place.path) ? 'page' : undefined">
          {{ place.name }}
          <template v-if="place.name === 'Live'">
            <span v-if="lanes.records.length > 0" class="live" /><span v-if="lanes.records.length > 0" class="unseen-text">, live</span>
          </template>
          <span v-else-if="counts[place.name]" class="figures count" aria-hidden="true">{{ counts[place.name] }}</span>
        </RouterLink>
      </li>
      <li class="apart">
        <RouterLink :to="HELP.path" :class="{ here: isHere(HELP.path) }" :aria-current="isHere(HELP.path) ? 'page' : undefined">{{
          HELP.name
        }}</RouterLink>
      </li>
    </ul>
    <div class="foot">
      <RouterLink v-if="offline.waiting && lanes.records.length === 0" to="/help" class="soft demo">a newer one is ready</RouterLink>
      <p v-if="isDemo" class="soft demo">demo logbook</p>
      <RouterLink v-else-if="backup.says.value" :to="SETTINGS.path" class="soft demo">{{ backup.says.value }}</RouterLink>
      <button type="button" :aria-label="isDark ? 'Light theme' : 'Dark theme'" @click="turn">
        <svg viewBox="0 0 24 24" aria-hidden="true"><path :d="isDark ? mdiWhiteBalanceSunny : mdiWeatherNight" /></svg>
      </button>
      <RouterLink
        :to="SETTINGS.path"
        class="icon"
        :class="{ here: isHere(SETTINGS.path) }"
        :aria-label="SETTINGS.name"
        :aria-current="isHere(SETTINGS.path) ? 'page' : undefined"
      >
        <svg viewBox="0 0 24 24" aria-hidden="true"><path :d="mdiTuneVariant" /></svg>
      </RouterLink>
      <button type="button" aria-label="Shortcuts" @click="$emit('shortcuts')">
        <svg viewBox="0 0 24 24" aria-hidden="true"><path :d="mdiKeyboardOutline" /></svg>
      </button>
    </div>
  </nav>
</template>

<style scoped>
nav {
  display: flex;
  flex-direction: column;
  background: rgb(var(--v-theme-desk));
  min-width: 0;
}

.mark {
  display: block;
  padding: 0.8rem 1rem 1rem;
}

.mark path {
  fill: none;
  stroke: rgb(var(--v-theme-ink));
  stroke-width: 2.6;
  stroke-linecap: round;
}

.mark .ahead {
  stroke-width: 2;
  stroke-dasharray: 2.5 3.5;
}

.mark circle {
  fill: rgb(var(--v-theme-due));
}

ul {
  list-style: none;
  display: grid;
}

li a {
  display: flex;
  align-items: center;
  justify-content: space-between;
  margin-inline-start: 0.4rem;
  padding: 0.5rem 0.55rem 0.5rem 0.95rem;
  border: 1px solid transparent;
  border-inline-end: 0;
  border-radius: 9px 0 0 9px;
  font-size: 0.9rem;
  text-decoration: none;
  color: rgb(var(--v-theme-soft));
}

li a:hover {
  color: rgb(var(--v-theme-ink));
}

li a.here {
  margin-inline-end: -1px;
  background: rgb(var(--v-theme-paper));
  border-color: rgb(var(--v-theme-line));
  color: rgb(var(--v-theme-ink));
  font-weight: 700;
}

.apart {
  margin-top: 1rem;
}

.count {
  font-size: 0.75rem;
}

.live {
  width: 9px;
  height: 9px;
  border-radius: 50%;
  background: rgb(var(--v-theme-due));
}

.foot {
  display: flex;
  flex-wrap: wrap;
  justify-content: center;
  margin-top: auto;
  padding: 0.5rem;
}

.foot button,
.foot .icon {
  display: inline-block;
  padding: 0.45rem;
  background: none;
  border: 0;
  border-radius: 50%;
  cursor: pointer;
}

.foot .here {
  background: rgb(var(--v-theme-paper));
}

.foot svg {
  display: block;
  width: 1.4rem;
  fill: rgb(var(--v-theme-ink));
}

.demo {
  flex-basis: 100%;
  text-align: center;
  font-size: 0.8rem;
}

@media (max-width: 40em) {
  nav {
    flex-direction: row;
    align-items: end;
    border-bottom: 1px solid rgb(var(--v-theme-line));
  }

  .mark,
  .demo,
  .count {
    display: none;
  }

  ul {
    display: flex;
    flex: 1;
    padding-top: 0.3rem;
  }

  li a {
    margin-inline-start: 0.1rem;
    padding: 0.6rem 0.5rem;
    border: 1px solid transparent;
    border-bottom: 0;
    border-radius: 9px 9px 0 0;
    gap: 0.3rem;
    font-size: 0.85rem;
  }

  li a.here {
    margin-inline-end: 0;
    margin-bottom: -1px;
    border-bottom: 1px solid rgb(var(--v-theme-paper));
  }

  .apart {
    margin: 0;
  }

  .foot {
    padding: 0;
  }

  /* The theme is among the settings, and a phone has no keys. */
  .foot > button {
    display: none;
  }
}

.unfold {
  display: none;
}

/* A phone, or a page that is enlarged: eight places in a row leave no room for a finger. One button, and the places beneath it. */
@media (max-width: 26.875em) {
  nav {
    flex-direction: column;
    align-items: stretch;
  }

  .unfold {
    display: flex;
    gap: 0.5rem;
    align-items: center;
    min-height: 44px;
    padding: 0.2rem 0.75rem;
    font: 700 1rem var(--words);
    color: inherit;
    background: none;
    border: 0;
    cursor: pointer;
  }

  .unfold svg {
    width: 1.4rem;
    fill: rgb(var(--v-theme-ink));
  }

  nav:not(.open) > :is(ul, .foot) {
    display: none;
  }

  nav.open > ul {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(6.5rem, 1fr));
  }

  nav.open li a {
    padding: 0.5rem 0.75rem;
    border: 0;
    font-size: 0.9rem;
  }

  nav.open .foot > button:first-of-type {
    display: block;
  }
}
</style>
