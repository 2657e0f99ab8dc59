<script setup lang="ts">
import { format } from 'date-fns';
import { computed, ref, watch } from 'vue';
import { runKey, type Appointment, type PlannedRun } from '@core/plan';
import CopyButton from '../kit/CopyButton.vue';
import { vFocus } from '../kit/vFocus';
import DateField from '../kit/DateField.vue';
import { dayText } from '../kit/dates';
import { wallTime } from '../kit/clock';
import { vCards } from '../kit/vCards';

/** The calendar as a list: what the paper shows, in words, and where a run is pinned, moved or let go by keyboard. */
const props = defineProps<{
  study: string;
  agenda: readonly Appointment[];
  wordsOf: (run: PlannedRun) => string;
  titleOf: (appointment: Appointment) => string;
  picked: string | undefined;
}>();
const emit = defineEmits<{
  move: [key: string, at: number];
  pin: [key: string, at: number];
  loose: [key: string];
  pick: [key: string | undefined];
}>();

const INPUT = "yyyy-MM-dd'T'HH:mm";
const wanted = ref('');
const day = (seconds: number) => dayText(seconds * 1000, { weekday: true });
const time = (seconds: number) => wallTime(seconds * 1000);
const until = ({ at, end }: Appointment) => (day(at) === day(end) ? time(end) : `${day(end)} ${time(end)}`);
const chosen = computed(() => props.agenda.find(({ key }) => key === props.picked));
watch(chosen, (appointment) => (wanted.value = appointment ? format(appointment.at * 1000, INPUT) : ''), { immediate: true });

function move(): void {
  const at = new Date(wanted.value).getTime() / 1000;
  if (props.picked !== undefined && Number.isFinite(at)) emit('move', props.picked, at);
  emit('pick', undefined);
}
</script>

<template>
  <div class="scroll" tabindex="0" role="region" aria-label="The calendar as a list" data-copied>
    <CopyButton name="the calendar" is-row />
    <table v-cards aria-label="The calendar as a list">
      <thead>
        <tr>
          <th scope="col">Day</th>
          <th scope="col">Run</th>
          <th scope="col" class="more">Get ready</th>
          <th scope="col" class="more">Sit down</th>
          <th scope="col">Plug in</th>
          <th scope="col" class="more">Packed up</th>
          <th scope="col" class="more">Visits</th>
          <td></td>
        </tr>
      </thead>
      <tbody>
        <tr v-for="each in agenda" :key="each.key" :class="{ picked: each.key === picked }">
          <td class="when">{{ day(each.at) }}</td>
          <th scope="row">
            <RouterLink
              v-for="run in each.runs"
              :key="runKey(run)"
              :to="{ path: '/live/new', query: { study, cell: run.cell.key } }"
              :aria-label="`Start ${wordsOf(run)}`"
              >{{ wordsOf(run) }}</RouterLink><RouterLink
              v-if="each.runs.length > 1"
              class="race"
              :to="{ path: '/live/new', query: { study, cell: each.runs.map(({ cell }) => cell.key) } }"
              >start all {{ each.runs.length }} together</RouterLink
            ><small v-if="each.overnight">goes on while nobody is there; {{ each.unread }} readings left out</small>
          </th>
          <td class="figures more">{{ each.prepare < each.at ? time(each.prepare) : '—' }}</td>
          <td class="figures more">{{ time(each.at) }}</td>
          <td class="figures">{{ time(each.plugIn) }}</td>
          <td class="figures more">{{ until(each) }}</td>
          <td class="figures more">{{ each.visits.length }}</td>
          <td class="acts">
            <form v-if="each.key === picked" @submit.prevent="move" @keydown.esc="emit('pick', undefined)">
              <DateField v-model="wanted" v-focus type="datetime-local" density="compact" :aria-label="`New time of ${titleOf(each)}`" />
              <v-btn type="submit" size="small">Move it</v-btn>
            </form>
            <template v-else>
              <v-btn size="small" variant="text" :aria-label="`Move ${titleOf(each)}`" @click="emit('pick', each.key)">Move</v-btn>
              <v-btn
                v-if="each.isPinned"
                size="small"
                variant="text"
                :aria-label="`Let go of ${titleOf(each)}`"
                @click="emit('loose', each.key)"
                >Let go</v-btn
              >
              <v-btn v-else size="small" variant="text" :aria-label="`Pin ${titleOf(each)}`" @click="emit('pin', each.key, each.at)"
                >Pin</v-btn
              >
            </template>
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
th,
td {
  padding: 0.25rem 0.4rem;
  font-size: 0.88rem;
  text-align: start;
  border-bottom: 1px solid rgb(var(--v-theme-grid));
}

tbody th a {
  display: block;
}

@media (max-width: 40em) {
  tbody th a {
    padding-block: 0.4rem;
  }
}

.race {
  font-weight: 400;
}

tbody th {
  min-width: 11rem;
  font-weight: 600;
}

.when {
  white-space: nowrap;
}

.picked {
  background: rgb(var(--v-theme-grid));
}

small {
  display: block;
  font-weight: 400;
  color: rgb(var(--v-theme-due));
}

.acts,
form {
  white-space: nowrap;
}

input {
  padding: 0.25rem 0.4rem;
  font: inherit;
  color: inherit;
  background: rgb(var(--v-theme-paper));
  border: 1px solid rgb(var(--v-theme-line));
  border-radius: 4px;
  color-scheme: light dark;
}

@media (max-width: 40em) {
  .more {
    display: none;
  }

  tbody th {
    min-width: 6rem;
  }
}
</style>
