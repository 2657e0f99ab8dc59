<script setup lang="ts">
import { useEventListener } from '@vueuse/core';
import { defineAsyncComponent, onMounted, ref, shallowRef, type Ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import DueLine from '../entry/DueLine.vue';
import { afterPaint } from '../kit/afterPaint';
import { readyChime } from '../kit/chime';
import { dropped, isFile } from '../kit/dropped';
import { failure, report } from '../kit/failures';
import { useSettings } from '../kit/settings';
import { copyAtHand } from '../kit/copy';
import { printsBy, printScreen } from '../kit/printing';
import { useKeys } from '../kit/shortcuts';
import { undoLast, undoNote } from '../kit/undo';
import { troubleFrom } from '../ledger/storageTrouble';
import { useBackup } from '../logbook/backupState';
import { logbookKind } from '../logbook/kind';
import { useLanes } from '../logbook/lanes';
import { useCopyNote } from './copyNote';
import ErrorBoundary from './ErrorBoundary.vue';
import type { OpenedLogbook } from './openLogbook';
import PlaceRail from './PlaceRail.vue';
import { HELP, PLACES, SETTINGS } from './places';
import { isToured } from './toured';

const ShortcutSheet = defineAsyncComponent(() => import('./ShortcutSheet.vue'));

const NoStorage = defineAsyncComponent(() => import('./NoStorage.vue'));
const UndoNote = defineAsyncComponent(() => import('./UndoNote.vue'));
const DemoNote = defineAsyncComponent(() => import('./DemoNote.vue'));
const FailureNote = defineAsyncComponent(() => import('./FailureNote.vue'));

/** How long storage may take to answer before that is said, in milliseconds. */
const SILENT = 10_000;

const props = defineProps<{ opening: Promise<OpenedLogbook> }>();

const isDemo = logbookKind() === 'demo';
const router = useRouter();
const route = useRoute();
const lanes = useLanes();
const settings = useSettings();
const copyNote = useCopyNote();
const backup = useBackup();
const sheet = ref(false);
const isOpen = ref(false);
/** The line that is typed into is there first; the place behind it comes a frame later. */
const isPlaced = ref(false);
/** The browser had thrown databases away. */
const isMended = shallowRef<Ref<boolean>>();
const trouble = shallowRef<unknown>();
const silence = setTimeout(() => (trouble.value = { kind: 'silent' }), SILENT);
props.opening
  .then(
    (opened) => {
      isOpen.value = true;
      afterPaint(() => (isPlaced.value = true));
      trouble.value = undefined;
      isMended.value = opened.isMended;
    },
    (error: unknown) => {
      console.error(error);
      trouble.value = error instanceof DOMException ? troubleFrom(error) : error;
    },
  )
  .finally(() => {
    clearTimeout(silence);
  });
function allRight(): void {
  if (isMended.value) isMended.value.value = false;
}
/** A file dropped anywhere is looked at where files are imported; on the page of a run, it may be more of that run. */
function drop(event: DragEvent): void {
  const file = event.dataTransfer?.files[0];
  if (!isFile(event) || !file || !isOpen.value || event.defaultPrevented) return;
  event.preventDefault();
  dropped.value = file;
  if (!/^\/runs\/./.test(route.path)) void router.push('/runs');
}

/** The entry line, from anywhere. */
function toEntry(): void {
  document.getElementById('entry')?.focus();
}
/** In a field it is the field’s own. */
useEventListener(window, 'keydown', (event) => {
  if (!(event.ctrlKey || event.metaKey) || event.shiftKey || event.altKey || event.key.toLowerCase() !== 'z') return;
  if (event.target instanceof Element && event.target.closest('input, textarea, select, [contenteditable="true"], [role="dialog"]')) return;
  event.preventDefault();
  undoLast().catch(report);
});
/** Whatever is typed into: it is the browser’s own key, and prints more than is on the screen. */
useEventListener(window, 'keydown', (event) => {
  if (!(event.ctrlKey || event.metaKey) || event.shiftKey || event.altKey || event.key.toLowerCase() !== 'p') return;
  event.preventDefault();
  void printScreen();
});
// By the browser’s menu it is printed too: what fills the page is there once nothing else is to be done.
let isListening: Promise<void> | undefined;
const fetchPrint = () =>
  (isListening ??= import('../print/printPage').then(({ listenForPrint }) => {
    listenForPrint();
  }));
printsBy(fetchPrint);
onMounted(() => {
  setTimeout(() => void fetchPrint(), 3000);
});
const go = (path: string) => () => void router.push(path);

useKeys({
  ...Object.fromEntries([...PLACES, SETTINGS, HELP].map(({ key, path }) => [`Shift+${key}`, go(path)])),
  n: (event) => {
    event.preventDefault();
    void router.push('/live/new');
  },
  'Shift+?': () => (sheet.value = true),
  '?': () => (sheet.value = true),
  'Shift+C': (event) => {
    if (copyAtHand()) event.preventDefault();
  },
  'Shift+E': (event) => {
    event.preventDefault();
    toEntry();
  },
});
</script>

<template>
  <v-app
    :theme="settings.theme"
    :class="{ opening: !isOpen && !trouble }"
    @keydown.capture="readyChime"
    @pointerdown.capture="readyChime"
    @dragover="(event: DragEvent) => isFile(event) && event.preventDefault()"
    @drop="drop"
  >
    <NoStorage v-if="trouble" :trouble="trouble" />
    <template v-else>
      <a class="skip" href="#place">Skip to content</a>
      <a v-if="isOpen && lanes.records.length > 0" class="skip" href="#entry" @click.prevent="toEntry">Skip to the entry line</a>
      <div class="frame">
        <PlaceRail @shortcuts="sheet = true" />
        <main id="place" tabindex="-1">
          <p v-if="isMended?.value" class="mended" role="status">
            The browser had thrown this logbook or a part of it away, as some do when they are killed while they write. It was brought back
            from its second copy, without pictures and samples of meters.
            <button type="button" @click="allRight">All right</button>
          </p>
          <p v-if="copyNote.isShown.value" class="mended" role="status">
            This browser has no private files, or they failed, so there is no second copy of this logbook. Save it as a file now and then,
            under Runs.
            <button type="button" @click="copyNote.read">All right</button>
          </p>
          <p v-if="!isDemo && backup.isDue.value" class="mended" role="status">
            Some of your runs have been here for over a week and are in no backup. Save one as a file, or choose a folder for them, under
            <RouterLink :to="SETTINGS.path">{{ SETTINGS.name }}</RouterLink>.
            <button type="button" @click="backup.allRight">All right</button>
          </p>
          <DemoNote v-if="isDemo && !isToured && route.path === '/compare'" />
          <FailureNote v-if="failure" />
          <ErrorBoundary v-if="isPlaced"><RouterView :key="route.path" /></ErrorBoundary>
        </main>
        <div class="foot">
          <UndoNote v-if="undoNote" />
          <DueLine v-if="isOpen && lanes.records.length > 0" />
        </div>
      </div>
      <ShortcutSheet v-if="sheet" v-model="sheet" />
    </template>
  </v-app>
</template>

<style scoped>
.opening {
  display: none;
}

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

.frame > main {
  /* What is measured against it ends above the due line. */
  container: place / size;
  overflow: auto;
  min-width: 0;
  border-left: 1px solid rgb(var(--v-theme-line));
  background: rgb(var(--v-theme-paper));
  outline: none;
}

/* What was done last, and the due line, beneath the place. */
.foot {
  grid-column: -2 / -1;
  min-width: 0;
}

.mended {
  /* A board fills its place and is scrolled to the lane that is typed on: what is to be read stays in view. */
  position: sticky;
  top: 0;
  z-index: 3;
  padding: 0.5rem 1.5rem;
  background: rgb(var(--v-theme-paper));
  color: rgb(var(--v-theme-due));
}

@media (max-width: 40em) {
  .frame {
    grid-template: auto 1fr auto / 1fr;
  }

  .frame > nav {
    grid-row: auto;
  }

  .frame > main {
    border-left: 0;
  }
}
</style>
