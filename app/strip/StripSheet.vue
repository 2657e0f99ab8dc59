<script setup lang="ts">
import { max } from 'd3-array';
import { computed, defineAsyncComponent, ref, shallowRef, useTemplateRef, watch } from 'vue';
import { quantityOf, spell, type Quantity } from '@core/quantity';
import { centredOn, lookedAt, momentAt, panned, pinchZoom, pixelOf, stepFrom, wheelPan, wheelZoom, zoomed, type Span } from '@core/samples';
import { linesOn, tracksOf, tracksThere, usualTracks, type StripLook } from './layers/look';
import InkStrip from './InkStrip.vue';
import type { PictureBody, PictureText } from './picture';
import { readAt } from './readAt';
import type { Dots, Trace } from './trace';

/**
 * A strip to be read: tracks to show or hide, a reading cursor that says all values at a time, and a closer look at any stretch, with the whole of it
 * beneath. By mouse, finger and keys.
 */
const props = defineProps<{
  traces: Trace[];
  caption: string;
  band?: StripLook['band'];
  stages?: StripLook['stages'];
  marks?: StripLook['marks'];
  /** Several runs over each other, each with its pen. */
  penned?: boolean;
  /** Tracks that it begins with, if not all. */
  first?: readonly Quantity[] | undefined;
  /** Fetches a finer drawing of a stretch, of a run that a meter streamed. */
  finer?: ((from: number, to: number) => Promise<Dots>) | undefined;
  /** The title and caption around its picture. */
  text?: PictureText | undefined;
  /** Something on it is in hand: a drag and the arrows move that, and not what is looked at. */
  inHand?: boolean;
}>();
const emit = defineEmits<{
  at: [seconds: number | undefined];
  shift: [seconds: number];
  drop: [];
  press: [];
  look: [stretch: Span | undefined];
}>();

const end = computed(() => Math.max(600, max(props.traces, (trace) => trace.end) ?? 0) * 1.02);
/** The stretch that is looked at; none: the whole. */
const view = shallowRef<{ from: number; to: number }>();
/** The strip is pointed at or has the focus: the whole beneath is drawn ahead, so that the first step closer costs no more than the next. */
const isMeant = ref(false);
watch(view, (stretch) => (isMeant.value ||= stretch !== undefined));
const shownView = computed(() => view.value ?? { from: 0, to: end.value });

const asked = ref<Quantity[]>();
const there = computed(() => tracksThere(props.traces));
const tracks = computed(() => (asked.value ?? props.first ?? usualTracks(props.traces)).filter((track) => there.value.includes(track)));
function toggle(track: Quantity): void {
  const now = tracks.value;
  asked.value = now.includes(track) ? now.filter((each) => each !== track) : [...now, track];
}
const drawn = computed(() => tracksOf(props.traces, { size: 'sheet', tracks: tracks.value }));

/** The traces, with what was fetched for this stretch. */
const fetched = shallowRef<{ from: number; to: number; dots: Dots }>();
const traces = computed(() => {
  const { value: found } = fetched;
  const fits = found && view.value && found.from <= view.value.from && found.to >= view.value.to;
  return fits ? props.traces.map((trace) => ({ ...trace, dots: { ...trace.dots, ...found.dots } })) : props.traces;
});
watch(view, (stretch) => {
  emit('look', stretch);
});
let waiting: ReturnType<typeof setTimeout> | undefined;
watch([view, () => props.traces], ([stretch]) => {
  clearTimeout(waiting);
  if (!stretch || !props.finer || !props.traces.some(({ streamed }) => streamed.size > 0)) return;
  waiting = setTimeout(() => {
    const width = stretch.to - stretch.from;
    const [from, to] = [stretch.from - width / 2, stretch.to + width / 2];
    void props.finer?.(from, to).then((dots) => (fetched.value = { from, to, dots }));
  }, 120);
});

const area = shallowRef({ left: 0, right: 1, top: 0, bottom: 0 });
const cursor = ref<number>();
const paper = useTemplateRef<HTMLElement>('paper');

const timeAt = (x: number) => momentAt(x, area.value, shownView.value);
const xOf = (event: PointerEvent | WheelEvent) => event.clientX - (paper.value?.getBoundingClientRect().left ?? 0);

function point(seconds: number | undefined): void {
  cursor.value = seconds === undefined ? undefined : Math.min(Math.max(seconds, 0), end.value);
  emit('at', cursor.value);
}

const look = (stretch: Span) => (view.value = lookedAt(stretch, end.value));
const zoom = (factor: number, about = cursor.value) => look(zoomed(shownView.value, factor, about));
const pan = (share: number) => look(panned(shownView.value, share));

/** With Ctrl, or while the strip has the focus, the wheel looks closer; else the page scrolls. */
function wheel(event: WheelEvent): void {
  const isOurs = event.ctrlKey || event.metaKey || document.activeElement === paper.value;
  if (!isOurs && Math.abs(event.deltaX) <= Math.abs(event.deltaY)) return;
  event.preventDefault();
  if (Math.abs(event.deltaX) > Math.abs(event.deltaY)) pan(wheelPan(event.deltaX));
  else zoom(wheelZoom(event.deltaY), timeAt(xOf(event)));
}

/** Fingers, or the mouse, that are down: one drags, two look closer. */
const down = new Map<number, number>();
function press(event: PointerEvent): void {
  down.set(event.pointerId, xOf(event));
  paper.value?.setPointerCapture(event.pointerId);
  point(timeAt(xOf(event)));
  emit('press');
}
function move(event: PointerEvent): void {
  const before = down.get(event.pointerId);
  if (before === undefined) {
    if (event.pointerType === 'mouse') point(timeAt(xOf(event)));
    return;
  }
  const now = xOf(event);
  const others = [...down.entries()].filter(([id]) => id !== event.pointerId).map(([, x]) => x);
  down.set(event.pointerId, now);
  const [other] = others;
  if (other !== undefined) zoom(pinchZoom(Math.abs(before - other), Math.abs(now - other)), timeAt((now + other) / 2));
  else if (props.inHand) {
    emit('shift', timeAt(now) - timeAt(before));
    point(timeAt(now));
  } else if (view.value && event.buttons > 0) pan((before - now) / Math.max(area.value.right - area.value.left, 1));
  else point(timeAt(now));
}
const lift = (event: PointerEvent) => down.delete(event.pointerId);

/** Moments at which anything was read, in order: the arrows go from one to the next. */
const moments = computed(() =>
  [
    ...new Set(
      props.traces.flatMap(({ dots }) =>
        drawn.value.flatMap((axis) => linesOn(props.traces, axis).flatMap((line) => (dots[line] ?? []).map(([at]) => at))),
      ),
    ),
  ].sort((one, other) => one - other),
);
function step(by: number): void {
  const next = stepFrom(moments.value, cursor.value, by);
  if (next === undefined) return;
  point(next);
  const { from, to } = shownView.value;
  if (view.value && (next < from || next > to)) look(centredOn(view.value, next));
}
const KEYS: Readonly<Record<string, (big: boolean) => void>> = {
  ArrowRight: (big) => {
    step(big ? 10 : 1);
  },
  ArrowLeft: (big) => {
    step(big ? -10 : -1);
  },
  Home: () => {
    point(moments.value[0]);
  },
  End: () => {
    point(moments.value.at(-1));
  },
  '+': () => {
    zoom(0.5);
  },
  '-': () => {
    zoom(2);
  },
  PageDown: () => {
    pan(0.8);
  },
  PageUp: () => {
    pan(-0.8);
  },
  Escape: () => {
    view.value = undefined;
    point(undefined);
  },
};
/** By how much an arrow moves what is in hand, in seconds. */
const SHIFTS: Readonly<Record<string, number>> = { ArrowRight: 1, ArrowLeft: -1 };
function key(event: KeyboardEvent): void {
  const act = KEYS[event.key];
  if (!act || event.altKey || event.ctrlKey || event.metaKey) return;
  event.preventDefault();
  event.stopPropagation();
  if (props.inHand && event.key in SHIFTS) emit('shift', (SHIFTS[event.key] ?? 0) * (event.shiftKey ? 10 : 1));
  else if (props.inHand && event.key === 'Escape') emit('drop');
  else act(event.shiftKey);
}

const readout = computed(() =>
  cursor.value === undefined
    ? undefined
    : { at: spell(cursor.value, 1), values: readAt(traces.value, drawn.value, cursor.value, props.penned) },
);
const said = computed(() =>
  readout.value ? `${readout.value.at}: ${readout.value.values.join(', ') || 'nothing read yet'}` : 'no moment pointed at',
);
/** A picture of it, as it is looked at. */
const PictureSheet = defineAsyncComponent(() => import('./PictureSheet.vue'));
const picturing = ref(false);
const pictured = shallowRef<{ body: PictureBody; seen: { width: number; height: number } }>();
async function takePicture(): Promise<void> {
  const { stripBody } = await import('./picture');
  const { from, to: until } = shownView.value;
  const { band, stages, marks, penned = false } = props;
  const { clientWidth: width = 900, clientHeight: height = 420 } = paper.value ?? {};
  pictured.value = {
    body: stripBody(traces.value, { size: 'sheet', penned, tracks: tracks.value, from, until, band, stages, marks }),
    seen: { width, height },
  };
  picturing.value = true;
}
const shareOf = (seconds: number) => `${(100 * seconds) / end.value}%`;

/** Drags the stretch along the whole. */
function slide(event: PointerEvent): void {
  if (event.buttons === 0 || !(event.currentTarget instanceof HTMLElement)) return;
  const { left, width } = event.currentTarget.getBoundingClientRect();
  look(centredOn(shownView.value, ((event.clientX - left) / width) * end.value));
}
</script>

<template>
  <div class="reader">
    <div class="tools chosen-of">
      <p class="readout figures" aria-live="off">
        <template v-if="readout"
          ><strong>{{ readout.at }}</strong> {{ readout.values.join(' · ') }}</template
        >
        <span v-else class="soft">Hover or tap to read values</span>
      </p>
      <div v-if="there.length > 1" role="group" aria-label="Tracks">
        <button v-for="track in there" :key="track" type="button" :aria-pressed="drawn.includes(track)" @click="toggle(track)">
          {{ quantityOf(track).track?.short }}
        </button>
      </div>
      <slot name="tools" />
      <div role="group" aria-label="How close">
        <button type="button" aria-label="Look closer" @click="zoom(0.5)">+</button>
        <button type="button" aria-label="See more" :disabled="!view" @click="zoom(2)">−</button>
        <button type="button" :disabled="!view" @click="view = undefined">Whole</button>
      </div>
      <div v-if="text" role="group" aria-label="Out of the program">
        <button type="button" @click="takePicture">Picture</button>
      </div>
    </div>
    <div
      ref="paper"
      class="paper"
      :class="{ held: inHand }"
      tabindex="0"
      role="slider"
      aria-label="Moment on the strip: arrows go from reading to reading, + and − look closer"
      :aria-valuemin="0"
      :aria-valuemax="Math.round(end)"
      :aria-valuenow="Math.round(cursor ?? 0)"
      :aria-valuetext="said"
      @focus="isMeant = true"
      @pointerenter="isMeant = true"
      @keydown="key"
      @wheel="wheel"
      @pointerdown="press"
      @pointermove="move"
      @pointerup="lift"
      @pointercancel="lift"
      @pointerleave="(event) => event.pointerType === 'mouse' && down.size === 0 && point(undefined)"
    >
      <InkStrip
        :traces="traces"
        size="sheet"
        :penned="penned"
        :tracks="tracks"
        :from="shownView.from"
        :until="shownView.to"
        :band="band"
        :stages="stages"
        :marks="marks"
        :caption="caption"
        @measured="(measured) => (area = measured)"
      />
      <div
        v-if="cursor !== undefined && cursor >= shownView.from && cursor <= shownView.to"
        class="cursor"
        :style="{ left: `${pixelOf(cursor, area, shownView)}px`, top: `${area.top}px`, height: `${area.bottom - area.top}px` }"
      />
    </div>
    <div v-if="isMeant" class="whole" :class="{ ahead: !view }" aria-hidden="true" @pointerdown="slide" @pointermove="slide">
      <InkStrip :traces="props.traces" size="row" :penned="penned" :until="end" caption="The whole run" />
      <div v-if="view" class="window" :style="{ left: shareOf(view.from), width: shareOf(view.to - view.from) }" />
    </div>
    <PictureSheet v-if="text && picturing && pictured" v-model="picturing" :text="text" :body="pictured.body" :seen="pictured.seen" />
  </div>
</template>

<style scoped>
.reader {
  position: relative;
  display: flex;
  flex-direction: column;
  height: 100%;
}

.tools {
  display: flex;
  flex-wrap: wrap;
  gap: 0.15rem 1.25rem;
  align-items: center;
  min-height: 2.3rem;
  padding: 0.25rem 0.9rem 0 0.5rem;
}

.readout {
  flex: 1 0 100%;
  overflow: hidden;
  min-height: 1.45em;
  font-size: 0.92rem;
  text-overflow: ellipsis;
  white-space: nowrap;
}

.paper {
  position: relative;
  flex: 1;
  min-height: 0;
  cursor: crosshair;
  touch-action: pan-y;
}

.paper.held {
  cursor: ew-resize;
}

.cursor {
  position: absolute;
  width: 1px;
  background: rgb(var(--v-theme-due));
  pointer-events: none;
}

.whole {
  position: relative;
  flex: none;
  height: 46px;
  margin-inline: 3rem 1rem;
  cursor: grab;
  touch-action: none;
}

/* Drawn where nobody sees it, until there is a stretch to show on it. */
.whole.ahead {
  position: absolute;
  inset-inline: 0;
  visibility: hidden;
  pointer-events: none;
}

.window {
  position: absolute;
  inset-block: 0;
  min-width: 3px;
  background: rgb(var(--v-theme-due) / 12%);
  border-inline: 1.5px solid rgb(var(--v-theme-due));
}

/* On a phone the picture comes before what changes it. */
@media (max-width: 40em) {
  .tools {
    order: 2;
  }

  .readout {
    order: -1;
  }

  .reader {
    height: auto;
  }

  .paper {
    flex: none;
    height: clamp(11rem, 40vh, 20rem);
  }
}
</style>
