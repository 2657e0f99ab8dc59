<script setup lang="ts">
import { max } from 'd3-array';
import { computed, defineAsyncComponent, onMounted, ref } from 'vue';
import { isHot, LEVELS } from '@core/curve';
import { elapsedAt, sighting, sourceAt, sourceSays, type RunRecord, type Track } from '@core/ink';
import { fixed, nominal, shownIn, shownUnit, TEMPERATURES, trimmed } from '@core/quantity';
import { dueOf, forecasts } from '@core/run';
import { afterPaint } from '../kit/afterPaint';
import { useEarlier } from '../logbook/earlier';
import { useNow, wallTime } from '../kit/clock';
import PenNib from '../strip/PenNib.vue';
import LaneAsides from './LaneAsides.vue';
import LaneClock from './LaneClock.vue';
import type { Opened } from '../workers/opened';

/** The figures are there at once; the strip is drawn a moment after them. */
const LanePaper = defineAsyncComponent(() => import('./LanePaper.vue'));

/** A live run: what it is, what was last seen, its strip, and when it wants its next reading. Alone, it fills the board. */
const props = defineProps<{
  run: RunRecord;
  letter: string;
  isSlim?: boolean;
  isAlone?: boolean;
  /** No other lane is on the board: there is room for its power and heat, too. */
  isOnly?: boolean;
  ghost?: Opened | undefined;
  at?: number | undefined;
}>();

const wall = useNow();
const now = computed(() => props.at ?? wall.value);

const last = (track: Track) => sighting(track, track.seconds.length - 1)?.value;
const header = computed(() => props.run.header);
/** Seconds from plug-in, told when a few have gone by and when ink arrives: only the lane's clock moves with every second. */
const GRAIN = 5;
const elapsed = computed(() => Math.max(Math.floor(elapsedAt(props.run, now.value) / GRAIN) * GRAIN, props.run.end));
const source = computed(() => sourceAt(props.run, elapsed.value));
/** What is in pencil, the strip and the tools come once the figures stand. */
const isDrawn = ref(false);
onMounted(() => {
  afterPaint(() => (isDrawn.value = true));
});
/** When 50, 80 and 100 % will show; the strip and the words tell of the last two. */
const earlier = useEarlier(
  computed(() => header.value.device.id),
  isDrawn,
);
const foreseen = computed(() => (isDrawn.value ? forecasts(props.run, earlier.value, LEVELS) : []));
const coming = computed(() => foreseen.value.filter(({ level }) => level > 50));
const comingInWords = computed(() => {
  const wallAt = (seconds: number) => wallTime(header.value.plugInAt + props.run.shift + seconds * 1000);
  return coming.value.map(({ level: to, low, high }) => ({
    to,
    when: high === undefined ? `not before ${wallAt(low)}` : `${wallAt(low)}–${wallAt(high)}`,
  }));
});
const isAway = computed(() => props.run.unplugged.at(-1)?.to === Infinity);
const due = computed(() => dueOf(props.run, now.value));
const dueAt = computed(() => due.value?.due);
const isDue = computed(() => (due.value?.wait ?? 1) <= 0);
const level = computed(() => last(props.run.tracks.percent));
const watts = computed(() => last(props.run.tracks.watts));
const amps = computed(() => last(props.run.tracks.amps));
/** A level may be read with decimals: they stand small. */
const levelShown = computed(() => {
  const [whole = '–', decimals] = level.value === undefined ? [] : trimmed(level.value).split(/(?=[.,])/);
  return { whole, rest: decimals === undefined ? '' : `${decimals} ` };
});
/** A device without a percentage tells of itself by its power. */
const hasLevels = computed(() => level.value !== undefined || (header.value.device.display ?? 'percent') === 'percent');
const tooHot = computed(() => isDrawn.value && isHot(props.run));
/** The hottest of what was last read of it. */
const celsius = computed(() => {
  const all = TEMPERATURES.flatMap((quantity) => last(props.run.tracks[quantity]) ?? []);
  return max(all);
});
</script>

<template>
  <article
    class="lane"
    :class="{ due: isDue, slim: isSlim, alone: isAlone }"
    :aria-label="`Lane ${letter}: ${header.device.name} on ${sourceSays(header)}`"
  >
    <div class="what">
      <h2>
        <PenNib :pen="header.pen" />
        <span v-if="at !== undefined">{{ header.device.name }}</span>
        <RouterLink v-else :to="`/runs/${header.id}`" :title="header.device.name">{{ header.device.name }}</RouterLink>
        <kbd>{{ letter }}</kbd>
        <slot v-if="isDrawn" name="tools" />
      </h2>
      <p class="soft">
        <template v-if="header.unit">unit {{ header.unit }}, </template>{{ sourceSays(source)
        }}<template v-if="isAway">, unplugged</template>
      </p>
      <div class="seen figures">
        <p v-if="hasLevels" class="level">
          {{ levelShown.whole }}<small>{{ levelShown.rest }}%</small>
        </p>
        <p v-else class="level">
          {{ watts === undefined ? (amps === undefined ? '–' : trimmed(amps)) : fixed(watts, 1)
          }}<small>{{ watts === undefined ? 'A' : 'W' }}</small>
        </p>
        <p>
          <template v-if="hasLevels">{{ watts === undefined ? '–' : fixed(watts, 1) }} <span class="soft">W</span></template>
          <template v-else-if="watts !== undefined && amps !== undefined">{{ trimmed(amps) }} <span class="soft">A</span></template
          ><br />
          <span :class="{ hot: tooHot }">{{ celsius === undefined ? '–' : fixed(shownIn('°C', celsius), 1) }}</span>
          <span class="soft">{{ shownUnit('°C') }}</span>
        </p>
      </div>
      <slot v-if="isDrawn && isAlone" name="entry" />
    </div>
    <div class="paper">
      <LanePaper v-if="isDrawn" :run="run" :elapsed="elapsed" :coming="coming" :ghost="ghost" :is-alone="isAlone || isOnly" />
      <slot v-if="isDrawn && !isAlone" name="entry" />
    </div>
    <div class="when">
      <LaneClock :run="run" :due-at="dueAt" :at="at" />
      <p v-if="dueAt !== undefined" class="soft words">
        {{ isDue ? `late for the check at ${nominal(dueAt)}` : `until the check at ${nominal(dueAt)}` }}
      </p>
      <p v-for="{ to, when } in comingInWords" :key="to" class="words pencil">
        {{ to }} % expected <span class="figures">{{ when }}</span>
      </p>
      <p v-if="dueAt === undefined && run.header.cadence" class="soft words">no more readings wanted</p>
    </div>
    <LaneAsides v-if="isDrawn" :run="run" :elapsed="elapsed" :coming="foreseen" :due-at="dueAt" :is-due="isDue" :ghost="ghost" />
  </article>
</template>

<style scoped>
.lane {
  display: grid;
  grid-template: minmax(0, 1fr) auto / var(--what, 15rem) minmax(0, 1fr) var(--when, 12.5rem);
  border-bottom: 1px solid rgb(var(--v-theme-line));
  max-height: 24rem;
  flex: 1 1 0;
  min-height: auto;
}

.lane:only-child {
  max-height: none;
}

@media (min-width: 56.3125em) {
  .lane:only-child {
    --what: 17rem;
    --when: 14rem;
  }

  .lane:only-child .level {
    font-size: 6rem;
  }

  .lane:only-child .seen {
    flex-wrap: wrap;
    font-size: 1.7rem;
  }

  .lane:only-child .when :deep(.countdown) {
    font-size: 3rem;
  }
}

.lane.due {
  color: rgb(var(--v-theme-ink));
  box-shadow: inset 4px 0 0 rgb(var(--v-theme-due));
}

.what {
  padding: 0.7rem 0.5rem 0.5rem 1.5rem;
  min-width: 0;
}

h2 {
  display: flex;
  align-items: center;
  gap: 0.4rem;
  overflow-wrap: anywhere;
}

h2 a {
  display: -webkit-box;
  min-width: 3.5rem;
  overflow: hidden;
  -webkit-box-orient: vertical;
  -webkit-line-clamp: 2;
  text-decoration: none;
}

h2 a:hover {
  text-decoration: underline;
}

.what > p {
  font-size: 0.85rem;
  overflow-wrap: anywhere;
}

.seen {
  display: flex;
  gap: 0.75rem;
  align-items: center;
  font-size: 1.25rem;
  line-height: 1.35;
}

.hot {
  font-weight: 700;
  color: rgb(var(--v-theme-due));
}

.level {
  font-size: 3.4rem;
  font-weight: 700;
  line-height: 1.15;
  letter-spacing: -0.03em;
}

.level small {
  font-size: 1.1rem;
  font-weight: 400;
  vertical-align: super;
  color: rgb(var(--v-theme-soft));
}

.paper {
  position: relative;
  display: flex;
  flex-direction: column;
  min-height: 9.5rem;
  height: 100%;
  border-inline: 1px solid rgb(var(--v-theme-grid));
}

/* What is typed into stands above the curve, never on it. */
.paper > :deep(.strip) {
  flex: 1;
  order: 2;
  height: 0;
  min-height: 0;
}

.when {
  padding: 0.8rem 0.75rem 0.8rem 1.25rem;
}

.when :deep(.elapsed) {
  font-size: 1.3rem;
  color: rgb(var(--v-theme-soft));
}

.when :deep(.countdown) {
  font-size: 2.2rem;
  font-weight: 700;
  line-height: 1.25;
}

.due .when :deep(.countdown) {
  color: rgb(var(--v-theme-due));
}

.pencil {
  color: rgb(var(--v-theme-pencil));
}

.pencil .figures {
  white-space: nowrap;
}

.when :deep(.words) {
  font-size: 0.85rem;
}

.alone {
  max-height: none;
  grid-template-columns: 19rem minmax(0, 1fr) 15rem;
}

.alone .level {
  font-size: 7rem;
}

.alone .seen {
  flex-wrap: wrap;
  font-size: 2rem;
  line-height: 1.3;
}

.alone .when :deep(.countdown) {
  font-size: 3.4rem;
}

.alone .when :deep(.elapsed) {
  font-size: 1.8rem;
}

.alone .when :deep(.words) {
  font-size: 1.05rem;
}

.slim h2 a {
  -webkit-line-clamp: 1;
}

.slim .what {
  padding-block: 0.35rem 0.2rem;
}

.slim .level {
  font-size: 2.7rem;
}

.slim .seen {
  font-size: 1.15rem;
  line-height: 1.25;
}

.slim .paper {
  min-height: 6.6rem;
}

.slim .when {
  padding: 0.3rem 0.75rem;
  display: flex;
  flex-wrap: wrap;
  gap: 0 0.75rem;
  align-content: start;
  align-items: baseline;
}

.slim .when :deep(.words) {
  flex-basis: 100%;
  font-size: 0.8rem;
  line-height: 1.3;
}

.slim .when :deep(.elapsed) {
  order: -1;
  font-size: 1.05rem;
}

.slim .when :deep(.countdown) {
  font-size: 1.5rem;
  line-height: 1.2;
}

@media (min-width: 56.3125em) {
  .lane:not(.slim) h2 {
    font-size: 1.05rem;
  }
}

/* A large screen is read from across the room: its figures grow with the space that a lane has. */
@media (min-width: 100em) and (min-height: 56.25em) {
  .lane:not(.slim) {
    --what: 21rem;
    --when: 18rem;
  }

  .lane:not(.slim) .level {
    font-size: clamp(3.4rem, 9cqh, 6rem);
  }

  .lane:not(.slim) .seen {
    font-size: 1.7rem;
  }

  .lane:not(.slim) .when :deep(.countdown) {
    font-size: clamp(2.2rem, 7cqh, 4.5rem);
  }

  .lane:not(.slim) h2 {
    font-size: 1.35rem;
  }

  .lane:not(.slim) .when :deep(.words),
  .lane:not(.slim) .what > p {
    font-size: 1.05rem;
  }

  .lane:not(.slim):only-child .level {
    font-size: 9.5rem;
  }

  .lane:not(.slim):only-child .seen {
    font-size: 2.6rem;
  }

  .slim h2 a {
    -webkit-line-clamp: none;
  }

  .slim .level {
    font-size: 3.6rem;
  }

  .slim .when :deep(.countdown) {
    font-size: 2.2rem;
  }

  .lane.alone {
    grid-template-columns: 32rem minmax(0, 1fr) 24rem;
  }

  .lane.alone .level {
    font-size: 13rem;
  }

  .lane.alone .seen {
    font-size: 3.4rem;
  }

  .lane.alone .when :deep(.countdown) {
    font-size: 6.5rem;
  }

  .lane.alone .when :deep(.elapsed) {
    font-size: 3rem;
  }
}

@media (max-width: 56.25em) {
  .lane {
    flex: none;
    max-height: none;
    grid-template-columns: minmax(0, 1fr) minmax(0, 12.5rem);
  }

  .what {
    padding-inline-start: 1rem;
  }

  .paper {
    grid-column: 1 / -1;
    grid-row: 2;
    height: 9.5rem;
  }

  .seen,
  .slim .seen {
    gap: 0.5rem;
    font-size: 1rem;
  }

  .alone .paper {
    height: 22rem;
  }

  .alone .level {
    font-size: 4.5rem;
  }
}

/* On a phone three lanes are in view: name, figures and countdown in two rows above a low strip. */
@media (max-width: 40em) {
  .lane:not(.alone) {
    grid-template-columns: minmax(0, 1fr) fit-content(10.5rem);
  }

  .lane:not(.alone) .what {
    padding: 0.3rem 0 0.1rem 0.75rem;
  }

  .lane:not(.alone) h2 a {
    -webkit-line-clamp: 1;
  }

  .lane:not(.alone) .what > p {
    overflow: hidden;
    font-size: 0.8rem;
    text-overflow: ellipsis;
    white-space: nowrap;
  }

  .lane:not(.alone) .level {
    font-size: 2.1rem;
    line-height: 1.1;
  }

  .lane:not(.alone) .seen {
    gap: 0.9rem;
    line-height: 1.2;
  }

  .lane:not(.alone) .seen > p:last-child {
    font-size: 0.95rem;
  }

  .lane:not(.alone) .when {
    display: block;
    padding: 0.3rem 0.75rem 0.1rem 0.25rem;
    text-align: end;
  }

  .lane:not(.alone) .when :deep(.countdown) {
    font-size: 1.7rem;
    line-height: 1.15;
  }

  .lane:not(.alone) .when :deep(.elapsed) {
    font-size: 0.95rem;
  }

  .lane:not(.alone) .when .words.soft {
    display: none;
  }

  .lane:not(.alone) .when :deep(.words) {
    font-size: 0.75rem;
    line-height: 1.25;
  }

  .lane:not(.alone) .paper {
    min-height: 0;
    height: 5.6rem;
  }

  .lane:only-child:not(.alone) .paper {
    height: 18rem;
  }
}

/* Too narrow for both beside each other. */
@media (max-width: 22.5em) {
  h2 {
    flex-wrap: wrap;
  }

  .lane,
  .lane:not(.alone) {
    grid-template: auto auto auto / minmax(0, 1fr);
  }

  .lane .when,
  .lane:not(.alone) .when {
    display: flex;
    flex-wrap: wrap;
    gap: 0 0.75rem;
    align-items: baseline;
    padding: 0.1rem 0.75rem;
    text-align: start;
  }

  .lane .paper {
    grid-row: 3;
  }
}
</style>
