<script setup lang="ts">
import { useEventListener } from '@vueuse/core';
import { computed, defineAsyncComponent, nextTick, onMounted, ref, watch } from 'vue';
import {
  correctionSays,
  endingSays,
  entrySays,
  eventInWords,
  reshapingSays,
  sourceSays,
  valueIn,
  type Draft,
  type Entry,
  type Reading,
  type RunRecord,
  type Strike,
} from '@core/ink';
import { clock, QUANTITIES, quantityOf, shownIn, shownUnit, spell, trimmed, writeEntryLine } from '@core/quantity';
import CopyButton from '../kit/CopyButton.vue';
import LateEntry from '../entry/LateEntry.vue';
import PictureButton from '../entry/PictureButton.vue';
import { vFocus } from '../kit/vFocus';
import { vCards } from '../kit/vCards';
import { troubleOf } from '../logbook/trouble';

const PictureSheet = defineAsyncComponent(() => import('../entry/PictureSheet.vue'));

/** A run's ink as it was written, every entry in a row, those struck among them. The table twin of the strip. */
const props = defineProps<{ run: RunRecord; live: boolean; write: (draft: Draft) => Promise<void>; strike?: Entry | undefined }>();
const emit = defineEmits<{ enterStrike: [entry: Entry] }>();

const striking = ref<Entry>();
const reason = ref('');
const trouble = ref('');
/** A line to write again, for a run that is over. */
const again = ref('');
const said = ref('');
/** A picture that is being looked at. */
const looking = ref<{ picture: string; title: string }>();

/** An entry, and what struck it if anything did. */
type Row = { entry: Entry; seconds: number; strike?: Strike; fell?: boolean; isOut: boolean; text: string };
const at = (seconds: number) => spell(seconds, 1);
/** When an entry was seen, as a button names it: the second of one second says that it is. */
const whereRead = ({ seconds }: Row, index: number) =>
  rows.value[index - 1]?.seconds === seconds ? `${at(seconds)}, once more` : at(seconds);
const rows = computed<Row[]>(() => {
  const { run } = props;
  const falls = new Set(run.falls.map(({ entry }) => entry));
  const outside = new Set(run.outside.map(({ id }) => id));
  const crossed = new Map(run.crossed.map(({ entry, strike }) => [entry.id, strike]));
  return run.entries
    .filter(({ kind }) => kind !== 'strike')
    .map((entry): Row => {
      const strike = crossed.get(entry.id);
      const row = {
        entry,
        seconds: (entry.at - run.header.plugInAt) / 1000,
        text: textOf(entry),
        fell: falls.has(entry.id),
        isOut: outside.has(entry.id),
      };
      return strike ? { ...row, strike } : row;
    })
    .sort((one, other) => one.seconds - other.seconds || one.entry.seq - other.entry.seq);
});

/** Rows of a page: a lane may have been logged to for days. */
const MOST_ROWS = 500;
const page = ref(1);
const pages = computed(() => Math.max(1, Math.ceil(rows.value.length / MOST_ROWS)));
const first = computed(() => (Math.min(page.value, pages.value) - 1) * MOST_ROWS);
const shown = computed(() => rows.value.slice(first.value, first.value + MOST_ROWS));

/** The entry that the address names, as the working of a figure does: its page is turned to. */
const found = ref('');
async function find(): Promise<void> {
  found.value = /^#ink-(.+)$/.exec(location.hash)?.[1] ?? '';
  const place = rows.value.findIndex(({ entry }) => entry.id === found.value);
  if (place < 0) return;
  page.value = Math.floor(place / MOST_ROWS) + 1;
  await nextTick();
  document.getElementById(`ink-${found.value}`)?.scrollIntoView({ block: 'center' });
}
useEventListener(window, 'hashchange', find);
onMounted(find);

/** What each correction took the place of. */
const before = computed(() => new Map(props.run.corrections.map((each) => [each.id, each.before])));

/** What happened, in words; a reading has columns. */
function textOf(entry: Entry): string {
  switch (entry.kind) {
    case 'reading':
      return [entry.turning ? 'seen turning' : '', entry.paper ? 'from paper' : '', entry.note ?? ''].filter(Boolean).join(', ');
    case 'event':
      return eventInWords(entry);
    case 'note':
      return entry.text;
    case 'stop':
      return endingSays(entry);
    case 'trial':
      return [entrySays(entry), entry.state, entry.remark].filter(Boolean).join(', ');
    case 'list':
      return `to try: ${entry.sources.map(sourceSays).join('; ')}`;
    case 'label':
      return [entry.tags.length > 0 ? `tagged ${entry.tags.join(', ')}` : 'no tags', entry.text].filter(Boolean).join('; ');
    case 'discard':
      return 'discarded';
    case 'correction':
      return correctionSays(entry, before.value.get(entry.id));
    case 'picture':
    case 'strike':
      return '';
    default:
      return reshapingSays(entry, props.run);
  }
}

/** The moment that a picture was taken of. */
function pictureTitle({ entry, seconds }: Row): string {
  const target = entry.kind === 'picture' ? props.run.entries.find(({ id }) => id === entry.target) : undefined;
  return `Picture of the reading at ${at(target ? (target.at - props.run.header.plugInAt) / 1000 : seconds)}`;
}

/** Quantities with a column of their own. */
const columns = QUANTITIES.flatMap((quantity) => {
  const { column, unit } = quantityOf(quantity);
  return column ? [{ quantity, unit, ...column }] : [];
});
/** What has none, as the entry line says it. */
function asideOf(reading: Reading): string {
  const rest = QUANTITIES.filter((quantity) => !quantityOf(quantity).column).map((quantity) => [quantity, reading[quantity]] as const);
  return writeEntryLine({ ...Object.fromEntries(rest), direction: reading.direction });
}
/** An entry as a button names it. */
const named = (entry: Entry) => (entry.kind === 'reading' ? 'the reading' : entrySays(entry));
const figure = (value: number | undefined, unit: string, digits: number) =>
  value === undefined ? '' : trimmed(shownIn(unit, value), digits);

/** Reasons that were being typed when the form was closed by Esc or from outside: they stand in it when it is opened again. */
const reasons = new Map<string, string>();

function begin(entry: Entry): void {
  if (props.live) emit('enterStrike', entry);
  else [striking.value, reason.value, trouble.value] = [entry, reasons.get(entry.id) ?? '', ''];
}

// Asked for from elsewhere on the page.
watch(
  () => props.strike,
  (entry) => {
    if (entry) begin(entry);
  },
);

function close(): void {
  if (striking.value) reasons.set(striking.value.id, reason.value);
  striking.value = undefined;
}

async function confirm(): Promise<void> {
  const { value: entry } = striking;
  if (!entry || !reason.value.trim()) {
    trouble.value = 'Say why it is struck, in a word or two; it stays, crossed out.';
    return;
  }
  if (!(await stored({ kind: 'strike', at: Date.now(), target: entry.id, reason: reason.value.trim() }))) return;
  if (entry.kind === 'reading') again.value = writeEntryLine({ ...entry, seen: (entry.at - props.run.header.plugInAt) / 1000 });
  else if (entry.kind === 'note') again.value = writeEntryLine({ note: entry.text });
  striking.value = undefined;
}

/** Takes a strike back: the entry counts again. */
const unstrike = ({ id }: Strike) => stored({ kind: 'strike', at: Date.now(), target: id, reason: 'struck by mistake' });

async function stored(draft: Draft): Promise<boolean> {
  try {
    await props.write(draft);
    return true;
  } catch (error) {
    trouble.value = troubleOf(error);
    said.value = trouble.value;
    return false;
  }
}
</script>

<template>
  <section class="ink" aria-label="Ink">
    <h2>Ink, as it was seen</h2>
    <p v-if="rows.length === 0" class="soft">Nothing was read by hand.</p>
    <div v-else class="scroll" data-copied>
      <CopyButton name="the ink" is-row />
      <table v-cards>
        <thead>
          <tr>
            <th scope="col">Seen at, min:s</th>
            <th v-for="{ quantity, unit, title } in columns" :key="quantity" scope="col">{{ title === unit ? shownUnit(unit) : title }}</th>
            <th scope="col" class="remark">Remark</th>
            <th scope="col"><span class="unseen-text">Strike</span></th>
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="(row, index) in shown"
            :id="`ink-${row.entry.id}`"
            :key="row.entry.id"
            :class="{ struck: row.strike, out: row.isOut, found: row.entry.id === found }"
            class="figures"
          >
            <th scope="row" :aria-label="at(row.seconds)">{{ clock(row.seconds) }}</th>
            <template v-if="row.entry.kind === 'reading'">
              <td
                v-for="{ quantity, unit, decimals } in columns"
                :key="quantity"
                :class="{ pencil: quantity === 'watts' && row.entry.watts === undefined }"
              >
                {{ figure(valueIn(row.entry, quantity), unit, decimals) }}
              </td>
            </template>
            <td v-else :colspan="columns.length" />
            <td class="remark">
              <span v-if="row.strike" class="why">struck: {{ row.strike.reason }}</span
              >{{ row.strike ? ' ' : '' }}
              <span v-if="row.isOut" class="soft">left out</span>
              <span v-if="row.fell" class="due">lower than before</span>
              <span v-if="row.entry.kind === 'reading' && asideOf(row.entry)" class="figures">{{ asideOf(row.entry) }}</span>
              <span :class="{ gone: row.strike }">{{ row.text }}</span>
              <span v-if="row.entry.kind === 'reading' && row.entry.sure" class="soft">kept after asking</span>
              <v-btn
                v-if="row.entry.kind === 'picture'"
                variant="text"
                size="small"
                @click="looking = { picture: row.entry.picture, title: pictureTitle(row) }"
                >{{ pictureTitle(row) }}</v-btn
              >
            </td>
            <td>
              <v-btn
                v-if="row.strike"
                variant="text"
                size="small"
                :aria-label="`Let ${entrySays(row.entry)} at ${whereRead(row, first + index)} count again`"
                @click="unstrike(row.strike)"
                >Undo</v-btn
              >
              <v-btn
                v-else
                variant="text"
                size="small"
                :aria-label="`Strike ${named(row.entry)} at ${whereRead(row, first + index)}`"
                @click="begin(row.entry)"
                >Strike</v-btn
              >
              <PictureButton
                v-if="row.entry.kind === 'reading' && !row.strike && !live"
                v-slot="{ open, busy }"
                :target="row.entry.id"
                :at="row.entry.at"
                :label="`Picture for the reading at ${at(row.seconds)}`"
                :write="write"
                @said="(text: string) => (said = text)"
              >
                <v-btn variant="text" size="small" :loading="busy" @click="open">Add a picture</v-btn>
              </PictureButton>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <div v-if="pages > 1" class="pages">
      <span class="soft">Entries {{ first + 1 }} to {{ first + shown.length }} of {{ rows.length }}</span>
      <v-pagination v-model="page" :length="pages" :total-visible="5" density="comfortable" aria-label="Pages of the ink" />
    </div>
    <p v-if="said" role="status">{{ said }}</p>
    <PictureSheet v-if="looking" v-bind="looking" @close="looking = undefined" />
    <!-- What is being typed stays where another tab resumes the run meanwhile, with what becomes of it. -->
    <LateEntry v-if="!live || again" v-model="again" :run="run" :write="write" />
    <v-dialog :model-value="striking !== undefined" max-width="440" aria-labelledby="strike-title" @update:model-value="close">
      <v-card v-if="striking">
        <form @submit.prevent="confirm">
          <h2 id="strike-title">Strike {{ named(striking) }} at {{ at((striking.at - run.header.plugInAt) / 1000) }}</h2>
          <p class="soft">It stays in the record, crossed out, and counts for nothing.</p>
          <v-text-field v-model="reason" v-focus label="Why?" maxlength="200" :error-messages="trouble" />
          <div class="buttons">
            <v-btn type="submit" variant="flat" color="primary">Strike it</v-btn>
            <v-btn @click="striking = undefined">Cancel</v-btn>
          </div>
        </form>
      </v-card>
    </v-dialog>
  </section>
</template>

<style scoped>
.ink {
  padding: 1rem 1.5rem 2rem;
}

table {
  font-size: 0.9rem;
}

th,
td {
  padding: 0.1rem 0.8rem;
  text-align: end;
  font-weight: 400;
  border-bottom: 1px solid rgb(var(--v-theme-grid));
}

.pages {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem 1rem;
  align-items: center;
}

/* A row is one line high: only remarks wrap. */
th,
td:last-child {
  white-space: nowrap;
}

thead th {
  padding-block: 0.4rem;
  color: rgb(var(--v-theme-soft));
  font-size: 0.82rem;
}

.remark {
  width: 40%;
  text-align: start;
  font-family: var(--words);
}

.out th,
.out td {
  color: rgb(var(--v-theme-pencil));
}

.struck th,
.struck td:not(.remark) {
  text-decoration: line-through;
  color: rgb(var(--v-theme-soft));
}

/* What was struck stays legible, crossed out. */
.gone {
  text-decoration: line-through;
  color: rgb(var(--v-theme-soft));
}

.why {
  padding-inline-end: 0.5rem;
  color: rgb(var(--v-theme-soft));
}

.pencil {
  color: rgb(var(--v-theme-pencil));
  font-style: italic;
}

tr.found {
  background: rgb(var(--v-theme-desk));
}
</style>
