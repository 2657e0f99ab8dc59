<script setup lang="ts">
import { computed, onMounted, ref } from 'vue';
import { demoAddress } from '../kit/neighbour';
import DrawnPicture from '../strip/DrawnPicture.vue';
import { stripBody } from '../strip/picture';
import { madeUpRun } from './madeUpRun';
import { firstPath } from './firstPath';
import { logbookKind } from './kind';
import { useLanes } from './lanes';
import { useLogbook } from './runs';
import { useShelf } from './shelf';

/** The short path from an empty logbook to a verdict, the step at hand marked, and a picture of what will be had at its end. */
const shelf = useShelf();
const lanes = useLanes();
const logbook = useLogbook();

const path = computed(() =>
  firstPath({
    devices: shelf.devices.length,
    chargers: shelf.chargers.length,
    live: lanes.records.length,
    isRead: lanes.records.some(({ readings }) => readings.some(({ seconds }) => seconds > 0)),
    finished: logbook.summaries.length,
  }),
);
const HOUR = 3600;
const body = stripBody([madeUpRun('Quern 30', 3, 1.75 * HOUR), madeUpRun('Cobble 12', 0, 2.7 * HOUR)], {
  size: 'sheet',
  penned: true,
  tracks: ['percent'],
  until: 2.8 * HOUR,
});
/** Where the demo can be looked at: it is served beside this logbook. */
const demo = ref<string>();
onMounted(async () => {
  if (logbookKind() === 'own') demo.value = await demoAddress();
});
</script>

<template>
  <section class="path" aria-labelledby="path-title">
    <div>
      <h2 id="path-title">From plug-in to a verdict</h2>
      <ol>
        <li
          v-for="step in path.steps"
          :key="step.id"
          :class="{ done: step.isDone, here: step.id === path.atHand }"
          :aria-current="step.id === path.atHand ? 'step' : undefined"
        >
          <span class="dot" aria-hidden="true" />
          <div>
            <h3>{{ step.title }}<span v-if="step.isDone" class="unseen-text">, done</span></h3>
            <p class="soft">{{ step.says }}</p>
          </div>
          <v-btn
            :to="step.to"
            :active="false"
            :variant="step.id === path.atHand ? 'flat' : 'text'"
            :color="step.id === path.atHand ? 'primary' : undefined"
            size="small"
            >{{ step.act }}</v-btn
          >
        </li>
      </ol>
      <p class="soft">
        <template v-if="!shelf.isStocked">
          <RouterLink to="/bench?shelf=device&add=1">Add a device</RouterLink> on the bench, with its battery, to see what to expect.
        </template>
        <template v-if="demo"><a :href="demo">Look round in the demo logbook</a>, at its own address.</template>
      </p>
    </div>
    <figure>
      <figcaption>
        <strong>Quern 30 is full 57 min sooner.</strong> <span class="soft">What you will have, with made-up runs.</span>
      </figcaption>
      <DrawnPicture
        :body="body"
        :height="230"
        caption="Two made-up runs over each other: one is full after 1 h 45, the other after 2 h 42"
      />
    </figure>
  </section>
</template>

<style scoped>
.path {
  display: grid;
  grid-template-columns: minmax(0, 30rem) minmax(0, 34rem);
  gap: 1.5rem 2.5rem;
  padding: 1.5rem;
}

ol {
  list-style: none;
  padding: 0;
  margin-block: 1rem;
}

li {
  display: grid;
  grid-template-columns: 1.2rem minmax(0, 1fr) auto;
  gap: 0.9rem;
  align-items: center;
  padding-block: 0.55rem;
}

h3 {
  font-size: 0.95rem;
}

.here h3 {
  font-weight: 700;
}

.soft {
  font-size: 0.88rem;
}

.dot {
  width: 1.1rem;
  height: 1.1rem;
  border: 1.5px solid rgb(var(--v-theme-line));
  border-radius: 50%;
}

.done .dot {
  background: rgb(var(--v-theme-ink));
  border-color: rgb(var(--v-theme-ink));
}

.here .dot {
  border-color: rgb(var(--v-theme-due));
  background: radial-gradient(rgb(var(--v-theme-due)) 38%, transparent 42%);
}

figure {
  min-width: 0;
  margin: 0;
}

@media (max-width: 56.25em) {
  .path {
    grid-template-columns: minmax(0, 1fr);
  }
}

@media (max-width: 40em) {
  .path {
    padding-inline: 1rem;
  }

  li {
    grid-template-columns: 1.2rem minmax(0, 1fr);
  }

  li .v-btn {
    grid-column: 2;
    justify-self: start;
  }

  li .v-btn--variant-text {
    margin: -0.4rem 0 -0.4rem -0.75rem;
  }
}
</style>
