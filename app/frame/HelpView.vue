<script setup lang="ts">
import { onMounted, ref } from 'vue';
import { CAUTIONS } from '@core/advise';
import { fixed, upperFirst } from '@core/quantity';
import { isWithoutCopy } from '../ledger/secondCopy';
import { useBackup } from '../logbook/backupState';
import { useLanes } from '../logbook/lanes';
import { useOffline } from './offline';
import { HELP, PLACES, SETTINGS } from './places';
import ShortcutList from './ShortcutList.vue';

/** How it works, in a page: the places, the entry line, the keys, what is kept and how surely, and the cautions. */
const offline = useOffline();
const lanes = useLanes();
const kept = ref('asking the browser …');
const backup = useBackup();

const ENTRIES = [
  ['42', 'the display shows 42 %'],
  ['42 26.1w', 'and the meter 26.1 W'],
  ['42 9.02v 2.9a 31.5c', 'volts and amps give the watts; 31.5 °C (88.7f works too)'],
  ['80!', 'the display turned to 80 just now, while you watched it'],
  ['dead', 'the display showed nothing at plug-in: gains count from 0 %, assumed'],
  ['43 @14:40', 'seen 14 min 40 s after plug-in; @1:02:05 with hours'],
  ['1.4wh 380mah', 'the counters of a meter'],
  ['front 40.5c back 41c bat 38c', 'temperatures, where they were read; names that a device has for its surfaces work too'],
  ['55w bat 29w in', 'what reaches the battery, and which way current flows'],
  ['22 @0:27', 'of a run read from footage, the time of the clip'],
  ['42 # case off', 'with a note; a note alone works too'],
] as const;

onMounted(async () => {
  const persisted = await navigator.storage.persisted();
  const { usage = 0, quota = 0 } = await navigator.storage.estimate();
  const room = `${fixed(usage / 1e6, 1)} MB used of ${fixed(quota / 1e9, 1)} GB`;
  kept.value = persisted
    ? `This browser has promised to keep it (${room}).`
    : `This browser may clear it when the disk runs low (${room}): export the logbook as a file now and then.`;
});
</script>

<template>
  <section class="sheet">
    <header>
      <h1>Help</h1>
      <p class="soft">Ink is what was seen and is never erased; pencil is what is worked out.</p>
    </header>
    <div class="body columns">
      <section>
        <h2>The places, in the order of the work</h2>
        <dl>
          <template v-for="place in [...PLACES, SETTINGS, HELP]" :key="place.path">
            <dt>
              <kbd>Shift</kbd> <kbd>{{ place.key }}</kbd>
            </dt>
            <dd>
              <strong>{{ place.name }}</strong>: {{ place.about }}
            </dd>
          </template>
        </dl>
      </section>
      <section>
        <h2>The entry line</h2>
        <p>Figures in any order, each with its unit; decimal comma or point.</p>
        <dl>
          <template v-for="[typed, means] in ENTRIES" :key="typed">
            <dt class="figures">{{ typed }}</dt>
            <dd>{{ means }}</dd>
          </template>
        </dl>
      </section>
      <section>
        <h2>Keys</h2>
        <ShortcutList />
        <p>Units, dates, calls, and whether single keys are listened to: <RouterLink to="/settings">Settings</RouterLink>.</p>
      </section>
      <section>
        <h2>What the figures mean</h2>
        <p>
          A level is what the display shows; a gain is a level less the level at plug-in. A time read between two checks lies between them,
          and says so. Two times whose bounds overlap or touch are a tie. The mark = beside a figure gives its formula and the readings it
          used.
        </p>
      </section>
      <section>
        <h2>How surely it is kept</h2>
        <p>
          “Logged” is said only once an entry is stored, in a database and in a second copy beside it. It then survives a reload, a crash
          and a killed browser, even one that throws its databases away: all but pictures and samples of meters is then brought back from
          the second copy. After a power cut the last seconds may be missing. The logbook belongs to this address in this browser: another
          address, browser or phone has its own.
        </p>
        <p v-if="isWithoutCopy">
          This browser has no private files, or they failed: there is no second copy just now. Save the logbook as a file now and then.
        </p>
        <p>{{ kept }}</p>
        <p v-if="backup.says.value">{{ upperFirst(backup.says.value) }}: more of it, and a folder for backups, under Settings.</p>
        <p>
          {{
            offline.isReady
              ? 'The program itself is kept too: it opens without a network, and can be installed from the menu of the browser.'
              : 'The program itself is not kept yet: without its server it will not open. Browsers keep it for localhost and https only.'
          }}
        </p>
        <p v-if="offline.waiting">
          A newer Inkpath Log is ready. It waits until you take it<template v-if="lanes.records.length > 0">, once nothing is live</template
          >.
          <v-btn size="small" :disabled="lanes.records.length > 0" @click="offline.takeNewer">Take it now</v-btn>
        </p>
      </section>
      <section>
        <h2>The clock</h2>
        <p>
          Elapsed is by the clock on the wall, from the key at plug-in. What the machine sleeps through, or the program was shut for, is
          drawn as not watched. A clock that is put back while a run is live is asked about; across a restart a changed clock cannot be told
          from time that went by, and the due line says so.
        </p>
      </section>
      <section>
        <h2>Cautions</h2>
        <ul>
          <li v-for="caution in CAUTIONS.full" :key="caution">{{ caution }}</li>
        </ul>
      </section>
    </div>
  </section>
</template>

<style scoped>
.columns {
  columns: 26rem 2;
  column-gap: 3rem;
}

section section {
  break-inside: avoid;
  padding-bottom: 1.6rem;
}

h2 {
  padding-bottom: 0.4rem;
}

dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 0.35rem 1rem;
}

ul {
  padding-inline-start: 1.1rem;
}

p + p {
  padding-top: 0.5rem;
}
</style>
