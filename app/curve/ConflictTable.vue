<script setup lang="ts">
import { computed } from 'vue';
import { differencesOf, type Choice } from '@core/exchange';
import { entrySays } from '@core/ink';
import { upperFirst } from '@core/quantity';
import { momentText } from '../kit/dates';
import type { RunConflicts } from '../ledger/incoming';

/** Entries of a file that differ from those here, side by side: which of the two counts is chosen, entry by entry or for all. The other stays, struck. */
const props = defineProps<{ runs: readonly RunConflicts[] }>();
const choices = defineModel<Record<string, Choice>>({ required: true });

const rows = computed(() => props.runs.flatMap(({ name, conflicts }) => conflicts.map((conflict) => ({ name, conflict }))));
/** A moment as a person reads it. */
const said = (part: string, text: string) =>
  ['at', 'written', 'until'].includes(part) && /^\d+$/.test(text) ? momentText(Number(text)) : text;
const chooseAll = (choice: Choice) => (choices.value = Object.fromEntries(rows.value.map(({ conflict: { id } }) => [id, choice])));
</script>

<template>
  <section aria-labelledby="conflicts-title">
    <h3 id="conflicts-title">{{ rows.length === 1 ? 'One entry differs' : `${rows.length} entries differ` }} from what is here</h3>
    <p class="soft">Choose which of the two counts. The other is kept too, struck, with its origin.</p>
    <p class="all">
      <v-btn size="small" @click="chooseAll('mine')">All as here</v-btn>
      <v-btn size="small" @click="chooseAll('theirs')">All as in the file</v-btn>
    </p>
    <div class="scroll" tabindex="0" role="region" aria-label="Entries that differ">
      <table class="plain-table">
        <thead>
          <tr>
            <th scope="col">Entry</th>
            <th scope="col">Here</th>
            <th scope="col">In the file</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="{ name, conflict } in rows" :key="conflict.id">
            <th scope="row">
              {{ upperFirst(entrySays(conflict.mine)) }}<br /><span class="soft">entry {{ conflict.mine.seq }} of {{ name }}</span>
            </th>
            <td v-for="choice in ['mine', 'theirs'] as const" :key="choice">
              <label>
                <input
                  type="radio"
                  :name="`conflict-${conflict.id}`"
                  :checked="choices[conflict.id] === choice"
                  :aria-label="`Entry ${conflict.mine.seq} of ${name} ${choice === 'mine' ? 'as here' : 'as in the file'}`"
                  @change="choices = { ...choices, [conflict.id]: choice }"
                />
                <span v-for="each in differencesOf(conflict)" :key="each.part" class="part"
                  >{{ each.part }}: {{ said(each.part, each[choice]) }}</span
                >
              </label>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
  </section>
</template>

<style scoped>
.scroll {
  max-height: 18rem;
}

.all {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
  padding-block: 0.4rem;
}

h3 {
  font-size: 1rem;
}

td {
  min-width: 7rem;
}

.part {
  display: block;
  overflow-wrap: break-word;
}

th {
  font-weight: 500;
}
</style>
