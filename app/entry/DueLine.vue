<script setup lang="ts">
import { computed, defineAsyncComponent, nextTick, onBeforeUnmount, onMounted, ref, useTemplateRef, watch } from 'vue';
import { useRoute } from 'vue-router';
import { entrySays, momentOf, sourceSays, type Draft } from '@core/ink';
import { clock, nominal, spell } from '@core/quantity';
import { LANE_LETTERS, type Due } from '@core/run';
import { canChime } from '../kit/chime';
import { wallNow } from '../kit/clock';
import { calls } from '../kit/pageTitle';
import { useSettings } from '../kit/settings';
import { useKeys } from '../kit/shortcuts';
import { useInkActs } from '../logbook/inkActs';
import { useLanes } from '../logbook/lanes';
import TroubleNote from '../logbook/TroubleNote.vue';
import { useWatch } from '../logbook/watch';
import DueClock from './DueClock.vue';
import { useDueLine } from './dueLine';
import { useSitting } from './sitting';

const PictureButton = defineAsyncComponent(() => import('./PictureButton.vue'));
const StopSheet = defineAsyncComponent(() => import('./StopSheet.vue'));
const CallOut = defineAsyncComponent(() => import('./CallOut.vue'));
const EventSheet = defineAsyncComponent(() => import('./EventSheet.vue'));

/** The due line: on every screen while a run is live, the next reading due and the field to log it in. */
const line = useDueLine();
const lanes = useLanes();
const acts = useInkActs();
const sitting = useSitting();
const watching = useWatch();
const settings = useSettings();
const route = useRoute();
const field = useTemplateRef<HTMLInputElement>('field');
const stopping = ref(false);
const noting = ref(false);
/** The moment of what is to be noted: that which was marked, else when the sheet was opened. */
const notedAt = ref(0);

const run = computed(() => line.record);
/** The check that is due on the lane whose turn it is, and all that are due: said anew when they change, not with every second. */
const dueNow = computed(() => (line.due && line.due.wait <= 0 ? line.due.due : undefined));
const isDue = computed(() => dueNow.value !== undefined);
const anyDue = computed<readonly Due[]>((before = []) => {
  const now = lanes.due.filter(({ wait }) => wait <= 0);
  const isSame =
    now.length === before.length && now.every(({ runId, due }, index) => runId === before[index]?.runId && due === before[index].due);
  return isSame ? before : now;
});
const marked = computed(() =>
  line.markedAt === undefined || !run.value ? undefined : clock((line.markedAt - run.value.header.plugInAt) / 1000),
);
const label = computed(() => {
  if (!run.value) return '';
  if (line.striking) {
    const { entry } = line.striking;
    const { at } = entry;
    return `Why strike ${entrySays(entry)} at ${spell((at - run.value.header.plugInAt) / 1000, 1)}?`;
  }
  const { device, list } = run.value.header;
  if (!list) return `Reading of ${device.name} on ${sourceSays(run.value.header)}`;
  const hand = sitting.inHand(run.value);
  return hand ? `Trial of ${sourceSays(hand.source)} on ${device.name}, ${hand.state}` : `Spot check of ${device.name}: all were tried`;
});
const picture = useTemplateRef<{ open: () => void }>('picture');
/** The reading a picture would be evidence of. */
const newest = computed(() => run.value?.readings.at(-1)?.reading);
const mine = computed(() => line.runId !== undefined && lanes.isMine(line.runId));
const noneHere = computed(() => lanes.inOrder.every(({ mine: isHere }) => !isHere.value));

onMounted(() => Promise.all([line.load(), watching.start()]));
watch(
  () => anyDue.value.length > 0,
  (isDue) => calls(isDue ? '● Reading due' : ''),
  { immediate: true },
);
onBeforeUnmount(() => calls(''));

/** On the lowest and narrowest screens its keys unfold from one button. */
const isUnfolded = ref(false);

function focusField(): void {
  void nextTick(() => field.value?.focus());
}

function mark(): void {
  line.mark();
  focusField();
}

function markAll(): void {
  line.markAll();
  focusField();
}

function leave(): void {
  if (!line.clear()) field.value?.blur();
}

function note(): void {
  notedAt.value = line.markedAt ?? (run.value ? momentOf(run.value, wallNow()) : wallNow());
  noting.value = true;
}

function strike(): void {
  line.beginStrike();
  focusField();
}

const laneKeys = Array.from(LANE_LETTERS, (letter) => [
  letter.toLowerCase(),
  (event: KeyboardEvent) => {
    const lane = lanes.inOrder.find(({ header }) => lanes.letterOf(header.id) === letter);
    if (!lane) return;
    event.preventDefault();
    line.pick(lane.header.id);
    focusField();
  },
]);
const digitKeys = Array.from('0123456789', (digit) => [
  digit,
  (event: KeyboardEvent) => {
    if (event.target === field.value) return;
    event.preventDefault();
    line.text += digit;
    focusField();
  },
]);

const REHEARSAL = '/live/rehearse';
/** A rehearsal has the keys of its page to itself: one pressed there never lands in a live run, unless it is pressed in this field. */
const unlessRehearsed = (act: (event: KeyboardEvent) => void) => (event: KeyboardEvent) => {
  if (route.path !== REHEARSAL || event.target === field.value) act(event);
};
const apart = (keys: Record<string, (event: KeyboardEvent) => void>) =>
  Object.fromEntries(Object.entries(keys).map(([key, act]) => [key, unlessRehearsed(act)]));

// A letter in the empty field is a command; with anything typed it is text.
useKeys(
  apart({
    ...Object.fromEntries([...laneKeys, ...digitKeys]),
    Space: (event) => {
      if (event.target instanceof Element && event.target.closest('button, a, [role="button"], summary')) return;
      event.preventDefault();
      mark();
    },
    'Shift+Space': (event) => {
      event.preventDefault();
      markAll();
    },
    x: (event) => {
      event.preventDefault();
      strike();
    },
    t: (event) => {
      if (!watching.jump) return;
      event.preventDefault();
      void watching.changed();
    },
    p: (event) => {
      event.preventDefault();
      picture.value?.open();
    },
    v: (event) => {
      event.preventDefault();
      note();
    },
    s: (event) => {
      event.preventDefault();
      stopping.value = true;
    },
  }),
);
</script>

<template>
  <section class="due-line" aria-label="Due line">
    <TroubleNote v-if="line.answer?.kind === 'trouble'" :trouble="line.answer.text" :run="run" :typed="line.text" class="answer trouble" />
    <p v-else-if="line.answer" class="answer" :class="line.answer.kind" :role="line.answer.kind === 'logged' ? 'status' : 'alert'">
      {{ line.answer.text }}
    </p>
    <p v-if="watching.jump" class="jump" role="alert">
      {{ watching.question }}
      <button type="button" @click="watching.changed"><kbd>T</kbd> the clock was changed</button>
      <button type="button" @click="watching.asItIs">{{ watching.jump.by < 0 ? 'go by the clock as it is now' : 'it was away' }}</button>
    </p>
    <p v-else-if="watching.judged" class="jump" role="status">
      {{ watching.judged.says }}
      <button type="button" @click="watching.undo">Undo</button>
      <button type="button" @click="watching.accept">All right</button>
    </p>
    <div class="row">
      <p class="countdown figures" :class="{ now: isDue }">
        <DueClock />
      </p>
      <form @submit.prevent="line.submit">
        <label for="entry" class="whose" :class="{ said: line.striking || marked }">
          <span v-if="run && lanes.records.length > 1" class="letter figures">{{ lanes.letterOf(run.header.id) }}</span>
          <span class="words"
            >{{ label }}<template v-if="marked"> · marked @{{ marked }}</template></span
          >
        </label>
        <input
          id="entry"
          ref="field"
          v-model="line.text"
          class="figures"
          type="text"
          autocomplete="off"
          autocapitalize="off"
          spellcheck="false"
          enterkeyhint="done"
          :placeholder="line.striking ? 'wrong row, slipped a digit …' : 'e.g. 42 26.1w'"
          :disabled="!mine"
          :data-commands="line.text === '' && !line.striking ? '' : undefined"
          @keydown.esc="leave"
        />
        <v-btn type="submit" class="log" :loading="line.busy" :disabled="!mine">{{ line.striking ? 'Strike' : 'Log' }}</v-btn>
      </form>
      <button class="fold" type="button" :aria-expanded="isUnfolded" aria-label="More keys" @click="isUnfolded = !isUnfolded">⋯</button>
      <div class="keys" :class="{ unfolded: isUnfolded }">
        <button type="button" :disabled="!mine" @click="mark"><kbd>Space</kbd> mark</button>
        <button v-if="lanes.records.length > 1" type="button" class="all" :disabled="noneHere" @click="markAll">
          <kbd>Shift Space</kbd> mark all
        </button>
        <button type="button" :disabled="!mine" @click="strike"><kbd>X</kbd> strike</button>
        <PictureButton
          v-if="newest && run"
          ref="picture"
          v-slot="{ open }"
          :target="newest.id"
          :at="newest.at"
          :label="`Picture of what ${run.header.device.name} last showed`"
          :write="(draft: Draft) => acts.writeLive(run?.header.id ?? '', draft)"
          @said="(text: string) => line.say(text)"
        >
          <button type="button" :disabled="!mine" @click="open"><kbd>P</kbd> picture</button>
        </PictureButton>
        <button type="button" :disabled="!mine" @click="note"><kbd>V</kbd> event</button>
        <button type="button" :disabled="!mine" @click="stopping = true"><kbd>S</kbd> stop</button>
        <v-btn v-if="run && !mine" variant="outlined" size="small" @click="lanes.claim(run.header.id)">Take over from the other tab</v-btn>
      </div>
    </div>
    <CallOut :due="anyDue" />
    <p class="unseen-text" role="status">{{ dueNow === undefined ? '' : `Reading due at ${nominal(dueNow)}: ${label}` }}</p>
    <p v-if="isDue && settings.loudness !== 'off' && !canChime()" class="hint">
      Sound is off until a key is pressed or the page is touched.
    </p>
    <EventSheet v-if="run && noting && mine" v-model="noting" :run="run" :at="notedAt" />
    <StopSheet v-if="run && stopping" v-model="stopping" :run="run" />
  </section>
</template>

<style scoped>
/* One row; it unfolds upwards when there is something to say. */
.due-line {
  min-width: 0;
  padding: 0.55rem 1.5rem;
  background: rgb(var(--v-theme-bar));
  color: rgb(var(--v-theme-barText));
}

.row {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.4rem 1.25rem;
}

.countdown {
  min-width: 5.2rem;
  font-size: 1.9rem;
  font-weight: 700;
  line-height: 1;
}

.countdown.now {
  color: rgb(var(--v-theme-barDue));
}

form {
  flex: 1 1 21rem;
  display: flex;
  gap: 0.75rem;
  align-items: center;
  min-width: 0;
}

.whose {
  flex: 0 1 auto;
  max-width: 40%;
  font-size: 0.85rem;
  line-height: 1.2;
  color: rgb(var(--v-theme-barSoft));
  overflow: hidden;
  display: -webkit-box;
  -webkit-box-orient: vertical;
  -webkit-line-clamp: 2;
  overflow-wrap: anywhere;
}

.letter {
  margin-inline-end: 0.35rem;
  border: 1px solid currentcolor;
  border-radius: 4px;
  padding: 0 0.35rem;
}

input {
  flex: 1 1 12rem;
  /* Whatever the size of type, a dozen characters and the padding are seen. */
  min-width: min(100%, calc(12ch + 1.6rem));
  padding: 0.3rem 0.75rem;
  font-size: 1.35rem;
  color: inherit;
  background: rgb(var(--v-theme-barField));
  border: 0;
  border-bottom: 2px solid rgb(var(--v-theme-barDue));
}

input:focus-visible {
  outline: 1px solid rgb(var(--v-theme-barDue));
  outline-offset: 0;
}

input::placeholder {
  color: rgb(var(--v-theme-barSoft));
  opacity: 1;
}

.due-line :deep(.v-btn) {
  color: rgb(var(--v-theme-barText));
  border-color: rgb(var(--v-theme-barSoft));
}

.keys {
  display: flex;
  flex-wrap: wrap;
  gap: 0.1rem;
}

.keys button,
.jump button {
  padding: 0.45rem 0.5rem;
  font: 600 0.85rem var(--words);
  color: inherit;
  background: none;
  border: 0;
  border-radius: 4px;
  cursor: pointer;
}

.keys button:hover {
  background: rgb(var(--v-theme-barField));
}

.keys button:disabled {
  opacity: 0.5;
  cursor: default;
}

kbd {
  background: transparent;
  color: inherit;
  border-color: rgb(var(--v-theme-barSoft));
  margin-inline-end: 0.3rem;
}

.answer {
  padding-bottom: 0.45rem;
  font-size: 0.95rem;
}

.jump {
  padding-bottom: 0.45rem;
  font-size: 0.95rem;
}

.jump,
.answer.error,
.answer.question,
.answer.trouble {
  color: rgb(var(--v-theme-barDue));
  font-weight: 600;
}

.hint {
  font-size: 0.8rem;
  color: rgb(var(--v-theme-barSoft));
}

/* Its key is said by ? and in the help: the field needs the room. */
@media (max-width: 87.5em) {
  .all kbd {
    display: none;
  }
}

@media (max-width: 68.75em) {
  form {
    order: 3;
    flex-basis: 100%;
  }

  .keys {
    margin-inline-start: auto;
  }
}

@media (max-width: 40em) {
  .due-line {
    padding: 0.3rem 0.75rem;
  }

  .row {
    gap: 0.1rem 0.5rem;
  }

  .countdown {
    min-width: 3.8rem;
    font-size: 1.3rem;
  }

  .keys kbd {
    display: none;
  }

  .keys button {
    min-height: 2.5rem;
    padding: 0.3rem 0.4rem;
  }

  input {
    padding-block: 0.2rem;
  }
}

/* Whose turn it is stands in the letter; the words when they are a question, or of a moment that was marked. */
@media (max-width: 40em), (max-height: 30em) and (max-width: 56.25em) {
  .whose:not(.said) .words {
    position: absolute;
    width: 1px;
    height: 1px;
    overflow: hidden;
    clip-path: inset(50%);
  }
}

.fold {
  display: none;
}

/* A low screen, or a page that is enlarged: one row, its keys behind a button. */
@media (max-width: 18.75em), (max-height: 30em) and (max-width: 56.25em) {
  .due-line {
    padding: 0.25rem 0.6rem;
  }

  .row {
    flex-wrap: nowrap;
    gap: 0.5rem;
  }

  .row:has(.unfolded) {
    flex-wrap: wrap;
  }

  form {
    flex: 1 1 0;
    order: 0;
  }

  .countdown {
    min-width: 0;
    font-size: 1.2rem;
  }

  .countdown :deep(.word) {
    display: none;
  }

  input {
    min-width: 0;
    padding: 0.2rem 0.4rem;
    font-size: 1.1rem;
  }

  .fold {
    display: block;
    min-width: 32px;
    min-height: 40px;
    font: 700 1.2rem var(--words);
    color: inherit;
    background: none;
    border: 0;
    cursor: pointer;
  }

  .keys {
    order: 1;
    flex-basis: 100%;
    margin: 0;
  }

  .keys:not(.unfolded) {
    display: none;
  }

  .hint {
    display: none;
  }
}

/* Too narrow for a clock beside the field: it stands above it. */
@media (max-width: 18.75em) {
  .due-line {
    padding-block: 0.15rem;
  }

  .row {
    flex-wrap: wrap;
    gap: 0 0.4rem;
  }

  .countdown {
    flex: 1 0 60%;
    font-size: 0.95rem;
  }

  .fold {
    min-height: 20px;
    line-height: 1;
  }

  form {
    flex-basis: 100%;
    order: 1;
    gap: 0.3rem;
  }

  .due-line :deep(.log) {
    min-width: 40px;
    min-height: 36px;
    height: 36px;
    padding-inline: 0.4rem;
  }

  .keys {
    order: 2;
  }
}
</style>
