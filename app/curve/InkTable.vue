<script setup lang="ts">
import { computed, defineAsyncComponent, ref } from 'vue';
import { eventDetails, eventSays, spell, valueIn, writeEntryLine, type Draft, type Reading, type RunRecord } from '@core';
import { StorageTrouble } from '../ledger/storageTrouble';
import { vFocus } from '../frame/vFocus';
import LateEntry from './LateEntry.vue';
import PictureButton from './PictureButton.vue';

const PictureSheet = defineAsyncComponent(() => import('./PictureSheet.vue'));

/** A run's ink as it was written: readings, those struck among them, notes. The table twin of the strip. */
const props = defineProps<{ run: RunRecord; live: boolean; write: (draft: Draft) => Promise<void> }>();
const emit = defineEmits<{ enterStrike: [reading: Reading] }>();

const striking = ref<Reading>();
const reason = ref('');
const trouble = ref('');
/** A line to write again, for a run that is over. */
const again = ref('');
const said = ref('');
/** A picture that is being looked at. */
const looking = ref<{ picture: string; title: string }>();
const picturesOf = (entry: string) => props.run.pictures.filter(({ target }) => target === entry).map(({ picture }) => picture);

type Row = { id: string; seconds: number; reading?: Reading; struck?: string; fell?: boolean; text?: string };
const rows = computed<Row[]>(() => {
  const falls = new Set(props.run.falls.map(({ entry }) => entry));
  return [
    ...props.run.readings.map(({ reading, seconds }): Row => ({ id: reading.id, seconds, reading, fell: falls.has(reading.id) })),
    ...props.run.struck.map(({ reading, seconds, strike }): Row => ({ id: reading.id, seconds, reading, struck: strike.reason })),
    ...props.run.events.map((each): Row => {
      const { id, seconds, event, source } = each;
      const from = source ? [source.charger.name] : [];
      return { id, seconds, text: [eventSays(event), ...from, ...eventDetails(each)].join(', ') };
    }),
    ...props.run.notes.map(({ id, seconds, text }): Row => ({ id, seconds, text })),
  ].sort((one, other) => one.seconds - other.seconds);
});

/** What has no column of its own, as the entry line says it. */
const asideOf = ({ frontCelsius, backCelsius, batteryCelsius, batteryVolts, batteryAmps, batteryWatts, direction }: Reading) =>
  writeEntryLine({ frontCelsius, backCelsius, batteryCelsius, batteryVolts, batteryAmps, batteryWatts, direction });
const figure = (value: number | undefined, digits: number) => (value === undefined ? '' : String(Number(value.toFixed(digits))));

function begin(reading: Reading): void {
  if (props.live) emit('enterStrike', reading);
  else [striking.value, reason.value, trouble.value] = [reading, '', ''];
}

async function confirm(): Promise<void> {
  if (!striking.value || !reason.value.trim()) {
    trouble.value = 'Say why it is struck, in a word or two; it stays, crossed out.';
    return;
  }
  try {
    const { id: target, at } = striking.value;
    await props.write({ kind: 'strike', at: Date.now(), target, reason: reason.value.trim() });
    again.value = writeEntryLine({ ...striking.value, seen: (at - props.run.header.plugInAt) / 1000 });
    striking.value = undefined;
  } catch (error) {
    if (!(error instanceof StorageTrouble)) throw error;
    trouble.value = error.message;
  }
}
</script>

<template>
  <section class="ink" aria-label="Ink">
    <h2>Ink, as it was seen</h2>
    <p v-if="rows.length === 0" class="soft">Nothing was read by hand.</p>
    <div v-else class="scroll">
      <table>
        <thead>
          <tr>
            <th scope="col">seen at</th>
            <th scope="col">level, %</th>
            <th scope="col">V</th>
            <th scope="col">A</th>
            <th scope="col">W</th>
            <th scope="col">Wh</th>
            <th scope="col">mAh</th>
            <th scope="col">°C</th>
            <th scope="col" class="remark">remark</th>
            <th scope="col"><span class="unseen-text">strike</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in rows" :id="`ink-${row.id}`" :key="row.id" :class="{ struck: row.struck }" class="figures">
            <th scope="row">{{ spell(row.seconds, 1) }}</th>
            <template v-if="row.reading">
              <td>{{ figure(row.reading.percent, 1) }}</td>
              <td>{{ figure(row.reading.volts, 3) }}</td>
              <td>{{ figure(row.reading.amps, 3) }}</td>
              <td :class="{ pencil: row.reading.watts === undefined }">{{ figure(valueIn(row.reading, 'watts'), 2) }}</td>
              <td>{{ figure(row.reading.wattHours, 3) }}</td>
              <td>{{ figure(row.reading.milliampHours, 0) }}</td>
              <td>{{ figure(row.reading.celsius, 1) }}</td>
            </template>
            <td v-else colspan="7" />
            <td class="remark">
              <span v-if="row.struck" class="why">struck: {{ row.struck }}</span>
              <span v-if="row.fell" class="due">lower than before</span>
              <span v-if="row.reading && asideOf(row.reading)" class="figures">{{ asideOf(row.reading) }}</span>
              {{ row.reading?.note ?? row.text }}
              <span v-if="row.reading?.sure" class="soft">kept after asking</span>
              <v-btn
                v-for="(picture, index) in picturesOf(row.id)"
                :key="picture"
                variant="text"
                size="small"
                @click="looking = { picture, title: `Picture of the reading at ${spell(row.seconds, 1)}` }"
                >picture {{ index + 1 }}</v-btn
              >
            </td>
            <td>
              <v-btn
                v-if="row.reading && !row.struck"
                variant="text"
                size="small"
                :aria-label="`Strike the reading at ${spell(row.seconds, 1)}`"
                @click="begin(row.reading)"
                >Strike</v-btn
              >
              <PictureButton
                v-if="row.reading && !row.struck && !live"
                v-slot="{ open, busy }"
                :target="row.id"
                :at="row.reading.at"
                :label="`Picture for the reading at ${spell(row.seconds, 1)}`"
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
    <p v-if="said" role="status">{{ said }}</p>
    <PictureSheet v-if="looking" v-bind="looking" @away="looking = undefined" />
    <LateEntry v-if="!live" v-model="again" :run="run" :write="write" />
    <v-dialog
      :model-value="striking !== undefined"
      max-width="440"
      aria-labelledby="strike-title"
      @update:model-value="striking = undefined"
    >
      <v-card v-if="striking">
        <form @submit.prevent="confirm">
          <h2 id="strike-title">Strike the reading at {{ spell((striking.at - run.header.plugInAt) / 1000, 1) }}</h2>
          <p class="soft">It stays in the record, crossed out, and counts for nothing.</p>
          <v-text-field v-model="reason" v-focus label="Why?" maxlength="200" :error-messages="trouble" />
          <div class="buttons">
            <v-btn type="submit" variant="flat" color="primary">Strike it</v-btn>
            <v-btn @click="striking = undefined">Leave it</v-btn>
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

.struck th,
.struck td:not(.remark) {
  text-decoration: line-through;
  color: rgb(var(--v-theme-soft));
}

.why {
  color: rgb(var(--v-theme-soft));
}

.pencil {
  color: rgb(var(--v-theme-pencil));
  font-style: italic;
}

tr:target {
  background: rgb(var(--v-theme-desk));
}
</style>
