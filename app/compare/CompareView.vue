<script setup lang="ts">
import { useThrottleFn } from '@vueuse/core';
import { computed, onMounted, ref, shallowRef, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { groupsOf, headlineOf, questionOf, underLoad, usualWindow, WISHES, USUAL_WISHES, type Finding, type Wishes } from '@core/advise';
import {
  aboutOf,
  baselineOf,
  byDevice,
  columnsOf,
  compareRuns,
  gainUnitsOf,
  goalSays,
  namesOf,
  setupsOf,
  sharedSources,
  standingsOf,
  unlikeIn,
  usualBaseline,
  usualGainUnit,
  usualMeasures,
  usualYardstick,
  withoutSequences,
  yardsticksOf,
  type Comparison,
  type Edit,
  type GainUnit,
  type Yardstick,
} from '@core/compare';
import { LEVELS } from '@core/curve';
import { NotPlannable } from '@core/plan';
import { report } from '../kit/failures';
import MoreActions from '../kit/MoreActions.vue';
import PickMany from '../kit/PickMany.vue';
import { steady } from '../kit/steady';
import { dayText } from '../kit/dates';
import { useSettings } from '../kit/settings';
import { useComparisons } from '../logbook/comparisons';
import FormSheet from '../logbook/FormSheet.vue';
import HeadlineNote from '../logbook/HeadlineNote.vue';
import { useLanes } from '../logbook/lanes';
import { useLogbook } from '../logbook/runs';
import { planToSettle } from '../logbook/settling';
import { useShelf } from '../logbook/shelf';
import { troubleOf } from '../logbook/trouble';
import { distinctPens } from '../strip/pens';
import { besideOf, type Beside } from '../workers/opened';
import ChooseRuns from './ChooseRuns.vue';
import CompareBars from './CompareBars.vue';
import CompareCurves from './CompareCurves.vue';
import CompareMatrix from './CompareMatrix.vue';
import CompareTable from './CompareTable.vue';
import GatheredTables from './GatheredTables.vue';
import VerdictSheet from './VerdictSheet.vue';

/** Runs laid over each other, set against one of them. What is chosen stands in the address, so it can be kept and sent. */
const route = useRoute();
const router = useRouter();
const logbook = useLogbook();
const lanes = useLanes();
const shelf = useShelf();
const settings = useSettings();

/** The level that times are taken to where nothing else is chosen, in %. */
const FULL = 100;
const asText = (value: unknown) => (typeof value === 'string' ? value : '');
const chosen = steady(() => [...new Set(asText(route.query.runs).split('.').filter(Boolean))]);
/** Those of them that are live. What other lanes log changes nothing here. */
const live = steady(() => lanes.records.filter(({ header }) => chosen.value.includes(header.id)));
/** Whether something is what setups are to be set against each other by, as the address says. */
const isAsked = (id: string | number) => String(id) === route.query.level;
const choosing = ref(chosen.value.length === 0);

const found = shallowRef<(Beside | undefined)[]>([]);
const opened = steady(() => found.value.filter((one) => one !== undefined));
const missing = shallowRef<string[]>([]);
/** While runs are opened: how many are there. */
const opening = ref<{ done: number; of: number }>();

/** Now and then is enough: each word that changes is a page to paint, and sixty runs come one upon the other. */
const tell = useThrottleFn((done: number) => {
  if (opening.value) opening.value = { ...opening.value, done };
}, 250);

let turn = 0;
watch(
  [chosen, live],
  async ([ids, records]) => {
    const mine = (turn += 1);
    opening.value = { done: 0, of: ids.length };
    const beside = new Map(records.map((record) => [record.header.id, besideOf(record)]));
    const filed = ids.filter((id) => !beside.has(id));
    const laid = logbook.layBeside(filed, (done) => {
      if (mine === turn) void tell(beside.size + done);
    });
    const all = await laid.finally(() => {
      if (mine === turn) opening.value = undefined;
    });
    if (mine !== turn) return;
    found.value = ids.map((id) => beside.get(id) ?? all.get(id));
    missing.value = ids.filter((_, index) => !found.value[index]);
  },
  { immediate: true },
);

/** What was charged and read: spot checks have a table of their own. */
const charges = computed(() => opened.value.filter(({ run }) => run.header.list === undefined));
/** The one chosen; without one the charger that came in the box, for that is what others are set against. */
const baseline = computed(() => {
  const asked = asText(route.query.base);
  return chosen.value.includes(asked) ? asked : (usualBaseline(charges.value.map(({ run }) => run)) ?? charges.value[0]?.run.header.id);
});
const setups = computed(() => setupsOf(charges.value));
const units = computed(() => gainUnitsOf(charges.value));
const unit = computed<GainUnit>(() => units.value.find((each) => each === route.query.unit) ?? usualGainUnit(charges.value));
const UNITS: Readonly<Record<GainUnit, string>> = { '%': 'in points', Wh: 'in Wh', mAh: 'in mAh', h: 'in hours of use' };
/** Energy samples are carried on to the level that times are taken to; of none, to the one that a run’s own page takes. */
const compared = computed(() =>
  columnsOf(setups.value, unit.value, { from: settings.projectFrom, to: LEVELS.find(isAsked) ?? settings.projectTo }),
);
const measures = computed(() => compared.value.map(({ measure }) => measure));
const about = computed(() => aboutOf(charges.value));
/** What setups are set against each other by: as chosen, else by what their methods are about. */
const yardsticks = computed(() => yardsticksOf(measures.value));
const yardstick = computed<Yardstick>(() => {
  const usual = usualYardstick(compared.value, about.value);
  const found = yardsticks.value.find(({ id }) => isAsked(id)) ?? yardsticks.value.find(({ id }) => id === usual);
  return found ?? { id: String(FULL), title: '', says: '', level: FULL };
});
const rows = computed(() => compareRuns(charges.value, baseline.value ?? '', yardstick.value.level ?? FULL));
const names = computed(() => namesOf(rows.value));
/** Which row each run is in: repeats share its name and its pen; a sequence of sources has a row of its own. */
const rowOf = computed(() => charges.value.map(({ run }) => rows.value.findIndex(({ runs }) => runs.includes(run))));
/** Of several devices a charger has one colour throughout: that of its first row. */
const pens = computed(() => {
  const own = rows.value.map(({ run }) => run.header.pen);
  const sources = sharedSources(rows.value);
  if (!sources) return distinctPens(own);
  const each = [...new Set(sources)];
  const drawn = distinctPens(each.map((source) => own[sources.indexOf(source)] ?? 0));
  return sources.map((source) => drawn[each.indexOf(source)] ?? 0);
});
const baselines = computed(() =>
  rows.value.flatMap(({ run, isSequence }, index) => (isSequence ? [] : [{ id: run.header.id, name: names.value[index] ?? '' }])),
);
/** Any run of a setup stands for it. */
const baselineRow = computed(() => Math.max(0, baselineOf(setups.value, baseline.value)));
/** What its reader needs, where people differ in it; it stands in the address. */
const wishes = computed<Wishes>(() => {
  const chosenOf = <Key extends keyof Wishes>(key: Key): Wishes[Key] =>
    WISHES[key].find((each) => String(each) === route.query[key]) ?? USUAL_WISHES[key];
  const usual = usualWindow(charges.value.map(({ run }) => run));
  const window = [...WISHES.window, usual].find((each) => String(each) === route.query.window) ?? usual;
  return { window, night: chosenOf('night'), loss: chosenOf('loss'), habit: chosenOf('habit') };
});
const question = computed(() =>
  questionOf(opened.value, shelf.everything(), { baseline: baseline.value, unit: unit.value, wishes: wishes.value }),
);
const wish = (some: Partial<Wishes>) => ask(Object.fromEntries(Object.entries(some).map(([key, value]) => [key, String(value)])));
/** Every figure of every setup: worked out once, for the headline and the whole verdict. */
const judgedGroups = computed(() => groupsOf(question.value));
const headline = computed(() =>
  headlineOf(
    question.value,
    { yardstick: yardstick.value.id, about: isAsked(yardstick.value.id) ? undefined : about.value },
    judgedGroups.value,
  ),
);
/** The same in a sentence: of devices that show no level, what came to pass. */
const goal = computed(() => (yardstick.value.level === undefined ? yardstick.value.says : goalSays(rows.value[0]?.goal ?? FULL)));
/** The figure of it, and how each setup stands to the baseline by that. */
const against = computed(() => {
  const { id } = yardstick.value;
  const ids = [id, `level-${id}`, String(rows.value[0]?.goal)];
  return compared.value.find(({ measure }) => ids.includes(measure.id));
});
const standings = computed(() =>
  standingsOf(rows.value, names.value, baselineRow.value, yardstick.value.level === undefined ? against.value : undefined),
);
const unlike = computed(() => unlikeIn(withoutSequences(setups.value), names.value, typeof rows.value[0]?.goal === 'number'));

const columns = computed(() => {
  const asked = asText(route.query.cols).split(',').filter(Boolean);
  const ids = asked.length > 0 ? asked : usualMeasures(measures.value, about.value, yardstick.value.id);
  return measures.value.filter(({ id }) => ids.includes(id));
});
const cellsOf = computed(() => new Map(compared.value.map(({ measure, cells: its }) => [measure.id, its])));
const cells = computed(() => columns.value.map(({ id }) => cellsOf.value.get(id) ?? []));
/** One run that holds several sources, or the same work on them, is compared by itself. */
const isOneOfSeveral = computed(() => opened.value.length === 1 && underLoad(opened.value).length > 0);
/** Where work or spot checks are what it is about, their tables come before what was charged. */
const isGatheredFirst = computed(() => about.value === 'work' || charges.value.length < 2);
const isDifference = ref(false);
const isPicking = ref(false);

const SHOWN = { curves: 'Curves', bars: 'Bars', matrix: 'Matrix', verdict: 'Verdict' } as const;
type Shown = keyof typeof SHOWN;
const shown = computed<Shown>(
  () => (Object.keys(SHOWN) as Shown[]).find((each) => each === route.query.show) ?? (about.value === 'gains' ? 'bars' : 'curves'),
);
/** What bars can be drawn of, and what is: by what the method of the runs is about, at first. */
const groups = computed(() => [...new Set(measures.value.filter(({ better }) => better).map((measure) => measure.group))]);
const BEGINS = { gains: 'Gains', times: 'Times', power: 'Power and energy', work: 'Power and energy' } as const;
const barGroup = computed(
  () =>
    groups.value.find((each) => each === route.query.bars) ?? groups.value.find((each) => each === BEGINS[about.value]) ?? groups.value[0],
);
/** In their order; a gain or a power that setups are set against each other by comes first. */
const bars = computed(() => {
  const drawn = measures.value.filter((measure) => measure.group === barGroup.value && measure.better);
  return drawn.sort((one, other) => Number(other.id === yardstick.value.id) - Number(one.id === yardstick.value.id));
});

const title = computed(() => {
  const devices = [...new Set(opened.value.map(({ run }) => run.header.device.name))];
  const [first] = opened.value;
  if (opened.value.length < 2) return isOneOfSeveral.value && first ? `${first.run.header.device.name}, source by source` : 'Compare';
  return devices.length === 1
    ? `${opened.value.length} runs of ${devices[0] ?? ''}`
    : `${opened.value.length} runs, ${devices.length} devices`;
});

/** What stands about a picture of it: the answer, how sure it is, and of which day it is. */
const pictureText = computed(() => ({
  title: title.value,
  lines: headline.value?.says ?? [],
  foot: [headline.value?.sure, dayText(Date.now(), { year: true })].filter(Boolean).join(' '),
}));

function ask(query: Record<string, string | undefined>): void {
  void router.replace({ query: { ...route.query, ...query } });
}
function choose(ids: string[]): void {
  ask({ runs: ids.join('.'), base: undefined, cols: undefined });
  if (ids.length > 1) choosing.value = false;
}

const comparisons = useComparisons();
onMounted(() => comparisons.load());
const isSaving = ref(false);
const name = ref('');
/** What is saved of it under a name. */
const asSaved = (called: string): Omit<Comparison, 'id' | 'at' | 'schema'> => {
  const { base, level: at, unit: as, cols, show, bars: drawn } = route.query;
  const chosenColumns = asText(cols).split(',').filter(Boolean);
  return {
    name: called,
    runs: chosen.value,
    base: asText(base) || undefined,
    level: asText(at) || undefined,
    unit: asText(as) || undefined,
    columns: chosenColumns.length > 0 ? chosenColumns : undefined,
    show: asText(show) || undefined,
    bars: asText(drawn) || undefined,
    edits: comparisons.of(chosen.value)?.edits,
  };
};
async function save(): Promise<string | undefined> {
  if (name.value.trim() === '') return 'Give it a name.';
  await comparisons.save(asSaved(name.value));
  return undefined;
}
function openSaved({ runs, base, level: at, unit: as, columns: cols = [], show, bars: drawn }: Comparison): void {
  choosing.value = false;
  ask({ runs: runs.join('.'), base, level: at, unit: as, cols: cols.length > 0 ? cols.join(',') : undefined, show, bars: drawn });
}
const remove = ({ id }: Comparison) => comparisons.remove(id).catch(report);
/** What the verdict is made of, and what was written of it. */
const judged = computed(() => ({
  question: question.value,
  groups: judgedGroups.value,
  headline: headline.value,
  edits: comparisons.of(chosen.value)?.edits ?? [],
  pens: pens.value,
}));
/** Writes a sentence of the verdict in one’s own words, or takes them back. They belong to the comparison, which is saved with them. */
async function edit(need: string, made: Omit<Edit, 'need'> | undefined): Promise<void> {
  const known = comparisons.of(chosen.value);
  const others = (known?.edits ?? []).filter((each) => each.need !== need);
  const edits = made ? [...others, { need, ...made }] : others;
  const saved = known ?? asSaved(comparisons.freeName(`${title.value}, ${dayText(Date.now())}`));
  await comparisons.save({ ...saved, edits: edits.length > 0 ? edits : undefined }).catch(report);
}
/** Why nothing was planned. */
const trouble = ref('');
/** Puts the runs that would settle something into a plan, and goes there. */
async function plan({ runs: wanted }: NonNullable<Finding['settle']>): Promise<void> {
  trouble.value = '';
  try {
    const starts = charges.value.flatMap(({ figures }) => figures.startLevel ?? []);
    const studies = await planToSettle(
      wanted,
      charges.value.map(({ run }) => run),
      starts.length > 0 ? Math.min(...starts) : undefined,
    );
    await router.push(studies.length === 1 ? `/plan/${studies[0] ?? ''}` : '/plan');
  } catch (error) {
    trouble.value = error instanceof NotPlannable ? error.message : troubleOf(error, 'Nothing was planned.');
  }
}
/** So many differences of conditions are shown unfolded. */
const SHOWN_AT_ONCE = 4;
const hasNothing = computed(() => lanes.records.length + logbook.summaries.length === 0);
</script>

<template>
  <section class="sheet">
    <header>
      <h1 :title="title">{{ title }}</h1>
      <p class="soft">
        {{ rows.length > 1 ? `set against ${names[baselineRow] ?? ''}, ${goal}` : 'runs beside each other' }}
      </p>
      <div v-if="opened.length > 1" class="actions controls">
        <v-select
          v-if="rows.length > 1"
          :model-value="rows[baselineRow]?.run.header.id"
          :items="baselines"
          item-title="name"
          item-value="id"
          label="Set against"
          density="compact"
          @update:model-value="(id: string) => ask({ base: id })"
        />
        <v-select
          v-if="rows.length > 1"
          :model-value="yardstick.id"
          :items="yardsticks"
          item-value="id"
          label="By"
          density="compact"
          @update:model-value="(id: string) => ask({ level: id })"
        />
        <MoreActions is-folded />
        <v-btn variant="text" @click="isSaving = true">Save</v-btn>
        <v-btn :aria-expanded="choosing" @click="choosing = !choosing">Choose runs</v-btn>
      </div>
    </header>
    <div v-if="hasNothing" class="first-step">
      <h2>Nothing to compare yet</h2>
      <p>Log two runs, or import two. Then compare them here.</p>
      <v-btn to="/run" variant="flat" color="primary">Go to Run</v-btn>
    </div>
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
        <div v-if="rows.length > 0 && charges.length > 1 && shown !== 'verdict'" class="over chosen-of">
          <div role="group" aria-label="The table shows">
            <button type="button" :aria-pressed="!isDifference" @click="isDifference = false">Figures</button>
            <button type="button" :aria-pressed="isDifference" @click="isDifference = true">Differences from the baseline</button>
          </div>
          <div v-if="units.length > 1" role="group" aria-label="Gains">
            <button v-for="each in units" :key="each" type="button" :aria-pressed="unit === each" @click="ask({ unit: each })">
              {{ UNITS[each] }}
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
      <v-text-field v-model="name" label="Name" maxlength="120" hint="One of the same name is written over." persistent-hint />
    </FormSheet>
  </section>
</template>

<style scoped>
.controls {
  align-items: center;
}

.controls > .v-input {
  flex: 0 0 11.5rem;
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

@media (max-width: 900px) {
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
</style>
