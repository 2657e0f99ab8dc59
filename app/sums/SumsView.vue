<script setup lang="ts">
import { computed, onMounted, reactive, ref, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { fieldError, noteOf, SUMS, typeFigure, usualTexts, workOut } from '@core/sums';
import MoreActions from '../kit/MoreActions.vue';
import CopyButton from '../kit/CopyButton.vue';
import { momentText } from '../kit/dates';
import { report } from '../kit/failures';
import FigureField from '../kit/FigureField.vue';
import { useLogbook } from '../logbook/runs';
import { useStudies } from '../logbook/studies';
import { troubleOf } from '../logbook/trouble';

/** The small sums that people do in their heads, each alone: with its working and its margin, filled in from any run, kept as a note of a study. */
const route = useRoute();
const router = useRouter();
const logbook = useLogbook();
const studies = useStudies();
onMounted(() => studies.load());

const sum = computed(() => SUMS.find(({ id }) => id === route.query.sum) ?? SUMS[0]);
const texts = reactive<Record<string, Record<string, string>>>(Object.fromEntries(SUMS.map((each) => [each.id, usualTexts(each)])));
const typed = computed(() => texts[sum.value?.id ?? ''] ?? {});
const result = computed(() => sum.value && workOut(sum.value, typed.value));
const lines = computed(() => (typeof result.value === 'object' ? result.value : []));

const runs = computed(() =>
  logbook.summaries.map(({ id, device, charger, plugInAt }) => ({ id, name: `${device} on ${charger}, ${momentText(plugInAt)}` })),
);
const from = computed(() => (typeof route.query.run === 'string' ? route.query.run : undefined));
/** Which fields the run filled in, and whether it knew any. */
const filled = ref<string[]>();
const remark = ref('');
/** Why nothing was filled in. */
const trouble = ref('');
watch(
  [from, sum],
  async ([id, now]) => {
    filled.value = undefined;
    remark.value = trouble.value = '';
    if (id === undefined || !now) return;
    try {
      const run = await logbook.open(id);
      const { remark: said, ...fields } = now.prefill(run);
      const known = Object.entries(fields).flatMap(([key, text]) => (text === undefined ? [] : [[key, text] as const]));
      remark.value = said ?? '';
      Object.assign(texts[now.id] ?? {}, Object.fromEntries(known));
      filled.value = known.map(([key]) => key);
    } catch (error) {
      trouble.value = troubleOf(error);
    }
  },
  { immediate: true },
);
const ask = (query: Record<string, string | undefined>) => void router.replace({ query: { ...route.query, ...query } });

const study = ref<string>();
const saved = ref('');
watch([sum, typed], () => (saved.value = ''), { deep: true });
async function save(): Promise<void> {
  const kept = studies.all.find(({ id }) => id === study.value);
  if (!kept || !sum.value || lines.value.length === 0) return;
  try {
    await studies.put({
      ...kept,
      notes: [...(kept.notes ?? []), { at: Date.now(), text: noteOf(sum.value, typed.value, lines.value).slice(0, 600) }],
    });
    saved.value = `Saved with ${kept.name}.`;
  } catch (error) {
    report(error);
  }
}
</script>

<template>
  <section class="sheet">
    <header>
      <h1>Sums</h1>
      <p class="soft">small calculators, each with its working and margin</p>
      <div class="actions"><MoreActions is-folded /></div>
    </header>
    <div class="halves">
      <nav aria-label="Sums">
        <ul>
          <li v-for="each in SUMS" :key="each.id">
            <RouterLink :to="{ query: { ...route.query, sum: each.id } }" :aria-current="each.id === sum?.id ? 'true' : undefined">{{
              each.title
            }}</RouterLink>
          </li>
        </ul>
      </nav>
      <div v-if="sum" class="one">
        <h2>{{ sum.title }}</h2>
        <p class="soft">{{ sum.about }}</p>
        <v-autocomplete
          v-if="runs.length > 0"
          :model-value="runs.find(({ id }) => id === from)?.id"
          :items="runs"
          item-title="name"
          item-value="id"
          label="Fill in from a run"
          density="compact"
          clearable
          class="from"
          @update:model-value="(id: string | null) => ask({ run: id ?? undefined })"
        />
        <p v-if="trouble" class="due" role="alert">{{ trouble }}</p>
        <p v-if="filled" class="soft" role="status">
          {{
            filled.length > 0
              ? `Filled in from the run: ${sum.fields
                  .filter(({ key }) => filled?.includes(key))
                  .map(({ name }) => name.toLowerCase())
                  .join(', ')}.`
              : 'This run knows none of these figures.'
          }}
          {{ remark }}
        </p>
        <form novalidate class="fields" :aria-label="sum.title" @submit.prevent>
          <FigureField
            v-for="each in sum.fields"
            :key="`${sum.id} ${each.key}`"
            :name="each.name"
            :unit="each.unit"
            :model-value="typed[each.key]"
            :error-messages="fieldError(each, typed[each.key] ?? '')"
            :hint="
              each.usual !== undefined && typed[each.key] === each.usual && each.usual !== ''
                ? 'assumed'
                : each.isOptional
                  ? 'may be left empty'
                  : ''
            "
            persistent-hint
            @update:model-value="(text: string) => (typed[each.key] = text)"
          />
        </form>
        <p v-if="typeof result === 'string'" class="due" role="status">{{ result }}</p>
        <p v-else-if="lines.length === 0" class="soft" role="status">
          Fill in the figures above. A margin may stand behind one: {{ typeFigure(26.1, 0.15) }}.
        </p>
        <div v-else data-copied>
          <CopyButton name="what it comes to" is-row />
          <table class="plain-table" aria-label="What it comes to">
            <tbody>
              <tr v-for="each in lines" :key="each.label">
                <th scope="row">{{ each.label }}</th>
                <td class="figures">
                  <strong>{{ each.value }}</strong> <span class="soft">{{ each.margin }}</span>
                </td>
                <td class="soft working">{{ each.working }}</td>
              </tr>
            </tbody>
          </table>
        </div>
        <div v-if="lines.length > 0 && studies.all.length > 0" class="keep">
          <v-select v-model="study" :items="studies.all" item-title="name" item-value="id" label="Study" density="compact" />
          <v-btn :disabled="study === undefined" @click="save">Save as a note</v-btn>
          <p v-if="saved" class="soft" role="status">{{ saved }}</p>
        </div>
        <p class="soft small">
          A figure without a margin is taken as rounded to its last digit. What is assumed stands as such: write your own over it.
        </p>
      </div>
    </div>
  </section>
</template>

<style scoped>
.halves {
  display: grid;
  grid-template-columns: 16rem minmax(0, 1fr);
}

nav {
  padding: 0.9rem 0.5rem;
  border-inline-end: 1px solid rgb(var(--v-theme-line));
}

ul {
  padding: 0;
  list-style: none;
}

nav a {
  display: block;
  padding: 0.35rem 1rem;
  text-decoration: none;
  color: inherit;
}

nav a[aria-current] {
  font-weight: 700;
  border-inline-start: 3px solid rgb(var(--v-theme-due));
}

.one {
  display: grid;
  gap: 0.75rem;
  align-content: start;
  max-width: 52rem;
  padding: 1rem 1.5rem;
}

.from {
  max-width: 30rem;
}

.fields {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(15rem, 100%), 1fr));
  gap: 0.25rem 1.5rem;
  align-items: start;
}

td,
th {
  padding: 0.4rem 0.75rem 0.4rem 0;
  text-align: start;
}

.working {
  font-size: 0.85rem;
}

.keep {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem 1rem;
  align-items: center;
}

.keep .v-input {
  flex: 0 1 16rem;
}

.small {
  font-size: 0.85rem;
}

@media (max-width: 50em) {
  .halves {
    grid-template-columns: minmax(0, 1fr);
  }

  nav {
    border-inline-end: 0;
    border-bottom: 1px solid rgb(var(--v-theme-line));
  }

  nav ul {
    display: flex;
    flex-wrap: wrap;
  }

  nav a {
    padding: 0.45rem 0.6rem;
  }
}
</style>
