<script setup lang="ts">
import { computed, nextTick, onMounted, ref, useTemplateRef } from 'vue';
import { type Charger } from '@core/bench';
import { likelyStatus } from '@core/compare';
import { momentOf, SETTLE, STATUSES, type Draft, type RunRecord, type StatusId } from '@core/ink';
import { clock, parseEntryLine } from '@core/quantity';
import { wallNow } from '../kit/clock';
import { troubleOf } from '../logbook/trouble';
import TroubleNote from '../logbook/TroubleNote.vue';

/**
 * One charger in hand: plug in, let it settle, say what it does, and on to the next. In the empty field a letter is a command; figures are text.
 */
const props = defineProps<{ run: RunRecord; charger: Charger; now: number; log: (draft: Draft) => Promise<void> }>();

const emit = defineEmits<{ plugged: [] }>();

const field = useTemplateRef<HTMLInputElement>('field');
const text = ref('');
const pluggedAt = ref<number>();
const state = ref<'awake' | 'asleep'>('awake');
const status = ref<StatusId>();
const sights = ref<Partial<Record<'chime' | 'icon' | 'meter', boolean>>>({});
const error = ref('');
const trouble = ref('');
const busy = ref(false);

const SIGHTS = [
  { name: 'chime', key: 'k', says: 'chime' },
  { name: 'icon', key: 'i', says: 'charge icon' },
  { name: 'meter', key: 'm', says: 'meter shows current' },
] as const;

onMounted(() => field.value?.focus());

const settle = computed(() => (props.charger.kind === 'pad' ? SETTLE.pad : SETTLE.plug));
const left = computed(() =>
  pluggedAt.value === undefined ? undefined : Math.min(settle.value, settle.value - (props.now - pluggedAt.value) / 1000),
);
const figures = computed(() => {
  const line = parseEntryLine(text.value);
  return line.ok ? line.values : {};
});
/** What was chosen, else what the figures make likely. */
const shown = computed(() => status.value ?? likelyStatus(props.run.header.device, { state: state.value, ...figures.value }));

function plugIn(): void {
  pluggedAt.value = wallNow();
  emit('plugged');
  void nextTick(() => field.value?.focus());
}

function turn(name: (typeof SIGHTS)[number]['name']): void {
  const { [name]: before } = sights.value;
  // Not noted, then yes, then no.
  sights.value = { ...sights.value, [name]: before === undefined ? true : before ? false : undefined };
}

function press(event: KeyboardEvent): void {
  if (text.value !== '' || event.ctrlKey || event.metaKey || event.altKey) return;
  const key = event.key.toLowerCase();
  const named = STATUSES.find((each) => each.key === key);
  const sight = SIGHTS.find((each) => each.key === key);
  if (named) status.value = named.id;
  else if (sight) turn(sight.name);
  else if (key === 'a') state.value = state.value === 'awake' ? 'asleep' : 'awake';
  else if (key === ' ') plugIn();
  else return;
  event.preventDefault();
}

async function submit(): Promise<void> {
  const line = text.value.trim() === '' ? undefined : parseEntryLine(text.value);
  error.value = '';
  if (line && !line.ok) {
    error.value = line.error;
    return;
  }
  const { percent, volts, amps, watts, note } = figures.value;
  if (!shown.value) {
    error.value = 'Say what it does: F, S, H, D, R or C in the empty field; or its watts, and a status is suggested.';
    return;
  }
  busy.value = true;
  trouble.value = '';
  try {
    await props.log({
      kind: 'trial',
      at: momentOf(props.run, wallNow()),
      source: { charger: props.charger },
      state: state.value,
      status: shown.value,
      ...Object.fromEntries(
        Object.entries({ percent, volts, amps, watts, ...sights.value, remark: note }).filter(([, value]) => value !== undefined),
      ),
    });
  } catch (cause) {
    trouble.value = troubleOf(cause);
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <form class="trial" :aria-label="`Trial of ${charger.name}`" @submit.prevent="submit">
    <h2>{{ charger.name }}</h2>
    <p class="settle figures" role="timer">
      <button v-if="left === undefined" type="button" @click="plugIn"><kbd>Space</kbd> plugged in</button>
      <template v-else-if="left > 0">{{ clock(Math.ceil(left)) }} <small class="soft">until it has settled</small></template>
      <template v-else>settled: read it now</template>
    </p>
    <label class="soft" for="trial-line">Volts, amps or watts; and the level, where it can be seen</label>
    <input
      id="trial-line"
      ref="field"
      v-model="text"
      class="figures"
      autocomplete="off"
      spellcheck="false"
      placeholder="e.g. 9v 2.1a 47"
      :aria-invalid="error !== ''"
      @keydown="press"
    />
    <div role="radiogroup" aria-label="What it does" class="choices">
      <button
        v-for="each in STATUSES"
        :key="each.id"
        type="button"
        role="radio"
        :aria-checked="shown === each.id"
        @click="status = each.id"
      >
        <kbd>{{ each.key.toUpperCase() }}</kbd> {{ each.says }}<span v-if="shown === each.id && !status" class="soft"> · likely</span>
      </button>
    </div>
    <div class="choices">
      <button v-for="{ name, key, says } in SIGHTS" :key="name" type="button" :aria-pressed="sights[name] ?? 'mixed'" @click="turn(name)">
        <kbd>{{ key.toUpperCase() }}</kbd> {{ says }}: {{ sights[name] === undefined ? 'not noted' : sights[name] ? 'yes' : 'no' }}
      </button>
      <button type="button" @click="state = state === 'awake' ? 'asleep' : 'awake'"><kbd>A</kbd> device {{ state }}</button>
    </div>
    <p v-if="error" class="due" role="alert">{{ error }}</p>
    <TroubleNote v-if="trouble" :trouble="trouble" :run="run" :typed="`${charger.name} ${shown ?? ''} ${text}`" />
    <v-btn type="submit" variant="flat" color="primary" :loading="busy">Log it, and on to the next</v-btn>
  </form>
</template>

<style scoped>
.trial {
  display: grid;
  gap: 0.6rem;
  justify-items: start;
  max-width: 40rem;
}

h2 {
  font-size: 1.6rem;
}

.settle {
  font-size: 1.8rem;
  font-weight: 700;
}

.settle small {
  font: 400 0.9rem var(--words);
}

input {
  width: 100%;
  padding: 0.3rem 0.7rem;
  font-size: 1.4rem;
  color: inherit;
  background: rgb(var(--v-theme-desk));
  border: 0;
  border-bottom: 2px solid rgb(var(--v-theme-due));
}

.choices {
  display: flex;
  flex-wrap: wrap;
  gap: 0.35rem;
}

button:not(.v-btn) {
  padding: 0.3rem 0.6rem;
  font: inherit;
  color: inherit;
  background: none;
  border: 1px solid rgb(var(--v-theme-line));
  border-radius: 4px;
  cursor: pointer;
}

button[aria-checked='true'],
button[aria-pressed='true'] {
  color: rgb(var(--v-theme-paper));
  background: rgb(var(--v-theme-ink));
}

button[aria-checked='true'] .soft {
  color: inherit;
}

/* By touch: no keys to show, and the way on stays under the thumb. */
@media (max-width: 640px) {
  kbd {
    display: none;
  }

  button:not(.v-btn) {
    flex-grow: 1;
  }

  .v-btn {
    position: sticky;
    bottom: 0.5rem;
    width: 100%;
  }
}
</style>
