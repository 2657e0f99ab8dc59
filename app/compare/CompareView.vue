<script setup lang="ts">
import { useMediaQuery } from '@vueuse/core';
import { computed, defineAsyncComponent, onMounted, ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { byDevice, type Comparison } from '@core/compare';
import { comparisonTarget, WHOLE } from '../exports/target';
import MoreActions from '../kit/MoreActions.vue';
import { usePageTitle } from '../kit/pageTitle';
import PickMany from '../kit/PickMany.vue';
import { useComparisons } from '../logbook/comparisons';
import FormSheet from '../logbook/FormSheet.vue';
import HeadlineNote from '../logbook/HeadlineNote.vue';
import ChooseRuns from './ChooseRuns.vue';
import CompareBy from './CompareBy.vue';
import CompareBars from './CompareBars.vue';
import { SHOWN, GAIN_UNIT_WORDS, useCompared } from './compared';
import { useCompareActs } from './compareActs';
import CompareCurves from './CompareCurves.vue';
import CompareMatrix from './CompareMatrix.vue';
import CompareTable from './CompareTable.vue';
import GatheredTables from './GatheredTables.vue';
import WriteUp from '../logbook/WriteUp.vue';
import VerdictSheet from './VerdictSheet.vue';

const ExportSheet = defineAsyncComponent(() => import('../exports/ExportSheet.vue'));
const FirstPath = defineAsyncComponent(() => import('../logbook/FirstPath.vue'));

/** Runs laid over each other, set against one of them. What is chosen stands in the address, so it can be kept and sent. */
const route = useRoute();
const router = useRouter();
const query = () => route.query;
const ask = (some: Record<string, string | undefined>) => void router.replace({ query: { ...route.query, ...some } });
const comparisons = useComparisons();
onMounted(() => comparisons.load());

const compared = useCompared(query);
const {
  chosen,
  opened,
  missing,
  opening,
  charges,
  setups,
  units,
  unit,
  measures,
  yardsticks,
  yardstick,
  rows,
  names,
  rowOf,
  pens,
  baselines,
  baselineRow,
  question,
  headline,
  goal,
  against,
  standings,
  unlike,
  columns,
  cellsOf,
  cells,
  isOneOfSeveral,
  isGatheredFirst,
  shown,
  groups,
  barGroup,
  bars,
  title,
  pictureText,
  judged,
  hasTooFew,
} = compared;
usePageTitle(() => title.value);
const exporting = ref(false);
const acts = useCompareActs(compared, query, ask, (path) => router.push(path));
const { edit, plan, remove, toWriteUp, trouble, wish } = acts;

/** On a phone the answer and the picture come before what changes them. */
const isPhone = useMediaQuery('(max-width: 40em)');
const by = computed(() => ({
  baseline: rows.value[baselineRow.value]?.run.header.id,
  baselines: baselines.value,
  yardstick: yardstick.value.id,
  yardsticks: yardsticks.value,
}));
const choosing = ref(chosen.value.length === 0);
function choose(ids: string[]): void {
  acts.choose(ids);
  if (ids.length > 1) choosing.value = false;
}
function openSaved(saved: Comparison): void {
  choosing.value = false;
  acts.openSaved(saved);
}
const isDifference = ref(false);
const isPicking = ref(false);
const isSaving = ref(false);
const name = ref('');
async function save(): Promise<string | undefined> {
  if (name.value.trim() === '') return 'Give it a name.';
  await acts.save(name.value);
  return undefined;
}
/** So many differences of conditions are shown unfolded. */
const SHOWN_AT_ONCE = 4;
</script>

<template>
  <section class="sheet">
    <header>
      <h1 :title="title">{{ title }}</h1>
      <p class="soft">
        {{ rows.length > 1 ? `set against ${names[baselineRow] ?? ''}, ${goal}` : 'runs beside each other' }}
      </p>
      <div v-if="opened.length > 1" class="actions controls">
        <CompareBy v-if="rows.length > 1 && !isPhone" v-bind="by" @ask="ask" />
        <MoreActions is-folded>
          <v-btn v-if="chosen.length > 0" variant="text" @click="exporting = true">Export</v-btn>
          <template v-if="isPhone">
            <WriteUp v-bind="toWriteUp" />
            <v-btn variant="text" @click="isSaving = true">Save</v-btn>
            <v-btn variant="text" :aria-expanded="choosing" @click="choosing = !choosing">Choose runs</v-btn>
          </template>
        </MoreActions>
        <template v-if="!isPhone">
          <WriteUp v-bind="toWriteUp" />
          <v-btn variant="text" @click="isSaving = true">Save</v-btn>
          <v-btn :aria-expanded="choosing" @click="choosing = !choosing">Choose runs</v-btn>
        </template>
      </div>
    </header>
    <FirstPath v-if="hasTooFew" />
    <template v-else>
      <ChooseRuns
        v-if="choosing || (chosen.length < 2 && !isOneOfSeveral)"
        :chosen="chosen"
        :saved="comparisons.all"
        @choose="choose"
        @open="openSaved"
        @remove="remove"
      />
      <p v-if="opening && opening.of > 1" class="missing soft" role="status">Opening {{ opening.done }} of {{ opening.of }} runs …</p>
      <p v-if="trouble" class="due missing" role="alert">{{ trouble }}</p>
      <p v-if="missing.length > 0" class="due missing" role="alert">
        {{ missing.length === 1 ? 'One of these runs is' : `${missing.length} of these runs are` }} not in this logbook, or cannot be read.
        Choose again.
      </p>
      <template v-if="opened.length > 1 || isOneOfSeveral">
        <HeadlineNote v-if="headline" :headline="headline" />
        <GatheredTables v-if="isGatheredFirst" :opened="opened" />
        <div v-if="charges.length > 1" class="spread" :class="{ whole: shown === 'verdict' }">
          <div class="picture">
            <div class="pictures chosen-of">
              <div role="group" aria-label="Picture">
                <button v-for="(says, each) in SHOWN" :key="each" type="button" :aria-pressed="shown === each" @click="ask({ show: each })">
                  {{ says }}
                </button>
              </div>
              <div v-if="shown === 'bars'" role="group" aria-label="Bars of">
                <button v-for="each in groups" :key="each" type="button" :aria-pressed="barGroup === each" @click="ask({ bars: each })">
                  {{ each }}
                </button>
              </div>
            </div>
            <CompareCurves
              v-if="shown === 'curves'"
              :opened="charges"
              :row-of="rowOf"
              :names="names"
              :pens="pens"
              :baseline="baselineRow"
              :caption="title"
              :text="pictureText"
            />
            <CompareBars
              v-else-if="shown === 'bars'"
              :groups="byDevice(rows)"
              :pens="pens"
              :measures="bars"
              :cells="bars.map(({ id }) => cellsOf.get(id) ?? [])"
              :text="pictureText"
            />
            <CompareMatrix
              v-else-if="shown === 'matrix'"
              :setups="setups"
              :measures="measures"
              :yardstick="yardstick.id"
              :text="pictureText"
              @plan="(wanted) => plan({ says: '', runs: [wanted] })"
            />
            <VerdictSheet v-else v-bind="judged" @edit="edit" @plan="plan" @wish="wish" />
          </div>
          <aside v-if="shown !== 'verdict'" aria-label="Verdict">
            <p><button type="button" class="link" @click="ask({ show: 'verdict' })">The whole verdict</button></p>
            <details v-if="unlike.length > 0" :open="unlike.length <= SHOWN_AT_ONCE">
              <summary>Are they comparable? {{ unlike.length === 1 ? 'One thing differs' : `${unlike.length} things differ` }}</summary>
              <p v-for="each in unlike" :key="each.says" class="unfair" :title="each.explains">{{ each.inShort }}</p>
            </details>
            <p v-else class="soft">As far as was written down, they were charged alike.</p>
          </aside>
        </div>
        <div v-if="rows.length > 1 && isPhone" class="below"><CompareBy v-bind="by" @ask="ask" /></div>
        <div v-if="rows.length > 0 && charges.length > 1 && shown !== 'verdict'" class="over chosen-of">
          <div role="group" aria-label="The table shows">
            <button type="button" :aria-pressed="!isDifference" @click="isDifference = false">Figures</button>
            <button type="button" :aria-pressed="isDifference" @click="isDifference = true">Differences from the baseline</button>
          </div>
          <div v-if="units.length > 1" role="group" aria-label="Gains">
            <button v-for="each in units" :key="each" type="button" :aria-pressed="unit === each" @click="ask({ unit: each })">
              {{ GAIN_UNIT_WORDS[each] }}
            </button>
          </div>
          <button type="button" class="columns" :aria-expanded="isPicking" @click="isPicking = !isPicking">
            Columns, {{ columns.length }} of {{ measures.length }}
          </button>
        </div>
        <div v-if="isPicking && shown !== 'verdict'" class="picking">
          <PickMany
            name="Columns"
            :items="measures.map(({ id, title: says }) => ({ id, name: says }))"
            :model-value="columns.map(({ id }) => id)"
            @update:model-value="(ids: string[]) => ask({ cols: ids.join(',') || undefined })"
          />
        </div>
        <CompareTable
          v-if="rows.length > 0 && charges.length > 1 && shown !== 'verdict'"
          :rows="rows"
          :names="names"
          :pens="pens"
          :baseline="baselineRow"
          :measures="columns"
          :cells="cells"
          :against="against"
          :standings="standings"
          :is-difference="isDifference"
          :text="pictureText"
        />
        <VerdictSheet
          v-if="charges.length < 2 && (question.sittings.length > 0 || isOneOfSeveral)"
          v-bind="judged"
          @edit="edit"
          @plan="plan"
          @wish="wish"
        />
        <GatheredTables v-if="!isGatheredFirst" :opened="opened" />
      </template>
    </template>
    <FormSheet v-model="isSaving" name="keep" title="Save this comparison" action="Save" :task="save">
      <v-text-field v-model="name" label="Name" maxlength="120" hint="Replaces the comparison of that name." persistent-hint />
    </FormSheet>
    <ExportSheet v-if="exporting" v-model="exporting" :targets="[comparisonTarget(title, chosen), WHOLE]" />
  </section>
</template>

<style scoped>
.controls {
  align-items: center;
}

.missing {
  padding: 0.75rem 1.5rem;
}

.spread {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 19rem;
  border-bottom: 1px solid rgb(var(--v-theme-line));
}

.whole {
  grid-template-columns: minmax(0, 1fr);
}

.picture {
  display: flex;
  flex-direction: column;
  min-width: 0;
}

.below {
  display: flex;
  gap: 0.75rem;
  padding: 0.5rem 1rem 0;
}

.pictures,
.over {
  display: flex;
  flex-wrap: wrap;
  gap: 0.25rem 1.5rem;
  align-items: center;
  padding: 0.4rem 0.9rem 0 0.6rem;
}

.over {
  padding: 0.5rem 1.5rem 0 1rem;
}

.columns {
  margin-inline-start: auto;
}

.picking {
  padding: 0.5rem 1.5rem;
}

aside {
  display: grid;
  gap: 0.7rem;
  align-content: start;
  padding: 1rem 1.25rem;
  border-inline-start: 1px solid rgb(var(--v-theme-line));
}

.first {
  font-size: 1.2rem;
  font-weight: 700;
  line-height: 1.25;
}

summary {
  font-weight: 700;
  cursor: pointer;
}

.unfair {
  margin-top: 0.6rem;
  padding-inline-start: 0.7rem;
  border-inline-start: 3px solid rgb(var(--v-theme-due));
  font-size: 0.9rem;
}

@media (max-width: 56.25em) {
  .controls {
    margin: 0;
    width: 100%;
  }

  .controls > .v-input {
    flex: 1 0 8rem;
  }

  .spread {
    grid-template-columns: minmax(0, 1fr);
  }

  aside {
    border-inline-start: 0;
  }
}

@media (max-width: 40em) {
  .controls {
    width: auto;
  }

  .pictures {
    order: 2;
  }
}
</style>
