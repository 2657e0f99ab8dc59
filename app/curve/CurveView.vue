<script setup lang="ts">
import { format } from 'date-fns';
import { useElementSize } from '@vueuse/core';
import { computed, defineAsyncComponent, nextTick, ref, shallowRef, useTemplateRef, watch } from 'vue';
import { useRouter } from 'vue-router';
import { compatibility } from '@core/compare';
import { milestoneTime, writeFigures, type Notice, type WrittenFigure } from '@core/curve';
import { chargedBy, endingSays, sourceSays, type Draft, type Entry, type Trial } from '@core/ink';
import { cadenceInWords } from '@core/method';
import { clock, spell } from '@core/quantity';
import type { Span } from '@core/samples';
import { useDueLine } from '../entry/dueLine';
import { studyTarget, WHOLE, type Target } from '../exports/target';
import { dropped } from '../kit/dropped';
import { useSettings } from '../kit/settings';
import AfterPaint from '../kit/AfterPaint.vue';
import { dayText, momentText } from '../kit/dates';
import MoreActions from '../kit/MoreActions.vue';
import { usePageTitle } from '../kit/pageTitle';
import { useInkActs } from '../logbook/inkActs';
import { useLanes } from '../logbook/lanes';
import { useLogbook } from '../logbook/runs';
import { useStudies } from '../logbook/studies';
import { troubleOf } from '../logbook/trouble';
import CompatibilityTable from '../strip/CompatibilityTable.vue';
import LevelStrip from '../strip/LevelStrip.vue';
import PenNib from '../strip/PenNib.vue';
import StripSheet from '../strip/StripSheet.vue';
import { openedOf, type Glimpse, type Opened } from '../workers/opened';
import { lineName, type Trace } from '../strip/trace';
import AskFigures from './AskFigures.vue';
import DrawnBy from './DrawnBy.vue';
import FigureList from './FigureList.vue';
import InkTable from './InkTable.vue';
import LogPlaces from './LogPlaces.vue';
import PencilTable from './PencilTable.vue';
import RemarkList from './RemarkList.vue';
import StretchFigures from './StretchFigures.vue';
import WorkTable from './WorkTable.vue';

const ExportSheet = defineAsyncComponent(() => import('../exports/ExportSheet.vue'));
const ImportSheet = defineAsyncComponent(() => import('./ImportSheet.vue'));
const TagSheet = defineAsyncComponent(() => import('./TagSheet.vue'));
const CorrectSheet = defineAsyncComponent(() => import('./CorrectSheet.vue'));
const TimesSheet = defineAsyncComponent(() => import('./TimesSheet.vue'));
const SettingsSheet = defineAsyncComponent(() => import('./SettingsSheet.vue'));
const TrialCard = defineAsyncComponent(() => import('../entry/TrialCard.vue'));

/** One run: its strip, its figures with their working, and its ink. */
const props = defineProps<{ id: string }>();

const router = useRouter();
const lanes = useLanes();
const logbook = useLogbook();
const acts = useInkActs();
const line = useDueLine();
const settings = useSettings();
const studies = useStudies();
void studies.load();
const filed = shallowRef<Opened>();
/** A streamed run as it can be drawn before its figures are there. */
const glimpse = shallowRef<Glimpse>();
const trouble = ref('');
const shown = ref<WrittenFigure>();
const noticed = ref<Notice>();

const heading = useTemplateRef<HTMLElement>('heading');
const { height: headingHeight } = useElementSize(heading, undefined, { box: 'border-box' });

const live = computed(() => lanes.records.find(({ header }) => header.id === props.id));
const opened = computed(() => (live.value ? openedOf(live.value) : filed.value));
const run = computed(() => opened.value?.run ?? glimpse.value?.run);
const writing = computed(() => ({
  projectTo: settings.projectTo,
  counting: { from: settings.countFrom, isCharging: settings.isCharging },
  run: run.value,
}));
const figures = computed(() => (opened.value ? writeFigures(opened.value.figures, writing.value) : []));
const remarks = computed(() => opened.value?.remarks ?? []);
/** What is drawn instead while one of its logs is moved. */
const moving = shallowRef<Trace[]>();
const traces = computed(() => moving.value ?? [opened.value ?? glimpse.value].flatMap((each) => each?.trace ?? []));
const places = useTemplateRef('places');
/** Power and heat by level, and whether that is what is drawn. */
const byLevel = computed(() =>
  (opened.value?.byLevel ?? []).map(({ of, points }) => ({
    of,
    points,
    name: of === 'watts' ? 'watts' : of === 'celsius' ? 'temperature' : lineName(of, opened.value?.trace ?? {}),
  })),
);
const isByLevel = ref(false);
const stages = computed(() => (live.value ? [] : (opened.value?.figures.stages ?? [])));
/** The moment that is pointed at on the paper: the stage it lies in is marked in the list. */
const at = ref<number>();
/** The last moment that was pointed at: it stays where the mouse leaves the paper. */
const pointedAt = ref<number>();
watch(at, (moment) => (pointedAt.value = moment ?? pointedAt.value));
const here = computed(() => {
  const { value: moment } = at;
  if (moment === undefined) return [];
  const index = stages.value.findIndex(({ from, to }) => from <= moment && moment < to);
  const near = milestones.value.filter((each) => Math.abs(each.at - moment) <= (run.value?.end ?? 0) * NEAR);
  return [...(index < 0 ? [] : [`stage-${index + 1}`]), ...near.map(({ level }) => `level-${level}`)];
});
/** A moment as near as this share of the run points at a milestone. */
const NEAR = 0.008;
const milestones = computed(() => {
  if (!opened.value) return [];
  const { figures: all } = opened.value;
  return [...all.milestones, ...all.more.milestones].flatMap((found) => {
    const seconds = milestoneTime(found);
    return seconds === undefined ? [] : [{ at: seconds, level: found.level }];
  });
});
const marks = computed(() =>
  milestones.value.map((each) => {
    const id = `level-${each.level}`;
    return { ...each, isLit: shown.value?.id === id || here.value.includes(id) };
  }),
);
/** The stretch that is looked at, where that is not the whole. */
const stretch = shallowRef<Span>();
/** The list goes to what was pressed on the paper. */
async function reveal(): Promise<void> {
  await nextTick();
  document.querySelector('.figure.here')?.scrollIntoView({ block: 'nearest' });
}
async function finer(from: number, to: number) {
  const { drawnWithin } = await import('../workers/openRun');
  return drawnWithin(props.id, from, to);
}
const band = computed(() => {
  const place = shown.value?.span ?? noticed.value;
  if (!place) return undefined;
  const level = shown.value?.id.startsWith('level-') ? Number(shown.value.id.slice('level-'.length)) : undefined;
  return { from: place.from, to: place.to, label: shown.value?.label ?? '', level };
});
const footageWords = computed(() => {
  const footage = run.value?.header.footage;
  if (!footage) return '';
  const speed = footage.speed === 1 ? '' : `, ${footage.speed} × as fast`;
  const cuts = footage.cuts.length > 0 ? `, ${footage.cuts.length} cut${footage.cuts.length > 1 ? 's' : ''}` : '';
  return `, plugged in at ${clock(footage.offset)} of the clip${speed}${cuts}`;
});
/** Footage that was written up has no stop yet. */
const isOpen = computed(() => !live.value && Boolean(run.value?.header.footage && !run.value.stop && run.value.readings.length > 0));
async function end(because: 'full' | 'window over'): Promise<void> {
  const at = filed.value?.run.readings.at(-1)?.reading.at;
  if (at !== undefined) await write({ kind: 'stop', at, because });
}
/** A spot check tries many sources: it is known by its device. */
const isSpot = computed(() => run.value?.header.list !== undefined);
const title = computed(() => {
  if (!run.value) return '';
  const { header } = run.value;
  return isSpot.value ? `Spot check of ${header.device.name}` : `${header.device.name} on ${chargedBy(run.value)}`;
});
usePageTitle(() => title.value);
/** When and how it was taken, in a line. */
const facts = computed(() => {
  if (!run.value) return '';
  const { header, stop } = run.value;
  const ended = stop ? `ended at ${spell(stop.seconds)}, ${endingSays(stop)}` : header.footage ? 'being written up' : 'never stopped';
  return [
    momentText(header.plugInAt, { weekday: true, year: true }),
    live.value ? 'live' : ended,
    header.owner && `by ${header.owner}`,
    header.source && `from ${header.source}`,
    header.footage && `read from footage${footageWords.value}`,
    header.cadence && `read ${cadenceInWords(header.cadence)}`,
    header.cable && `through ${header.cable.name}`,
  ]
    .filter(Boolean)
    .join(' · ');
});
/** What stands about a picture of it: when it was full and how sure that is, and when it was plugged in. */
const pictureText = computed(() => ({
  title: title.value,
  lines: figures.value
    .filter(({ group, value }) => group === 'When it reached' && value !== undefined)
    .map(({ label, value, detail }) => `${label}: ${value ?? ''}${detail ? ` (${detail})` : ''}`),
  foot: facts.value,
}));
const caption = computed(() => (run.value ? `${title.value}, over ${spell(run.value.end)}` : ''));
const correcting = ref(false);
const tagging = ref(false);
const adding = ref(false);
const timing = ref(false);
const setting = ref(false);
watch(dropped, (file) => {
  if (file && !live.value && !isSpot.value) adding.value = true;
  else if (file) void router.push('/runs');
});
/** A trial that is being written again. */
const again = shallowRef<Trial>();
const striking = shallowRef<Entry>();

async function writeAgain(draft: Draft): Promise<void> {
  const { value: old } = again;
  await write(draft);
  if (old) await write({ kind: 'strike', at: Date.now(), target: old.id, reason: 'written again' });
  again.value = undefined;
}

/** Strikes a trial where the table stands: by the due line while it is live, by the form in its ink once it is filed. */
function strike(trial: Trial): void {
  if (live.value) enterStrike(trial);
  else striking.value = trial;
}

watch(
  () => [props.id, live.value === undefined] as const,
  async ([id, isFiled]) => {
    trouble.value = '';
    if (!isFiled) return;
    try {
      filed.value = await logbook.open(id, (first) => (glimpse.value = first));
    } catch (error) {
      trouble.value = error instanceof Error ? error.message : String(error);
    }
  },
  { immediate: true },
);

/** Reads the run again, after something was written into it from elsewhere. */
async function reread(): Promise<void> {
  filed.value = await logbook.open(props.id);
}

// Undone from elsewhere, or changed in another tab.
watch(
  () => logbook.stampOf(props.id),
  () => {
    if (filed.value && !live.value) reread().catch(() => undefined);
  },
);

watch([() => settings.levels, () => settings.marks, () => settings.watts, () => settings.countFrom], async () => {
  if (!live.value && filed.value) filed.value = await logbook.openAgain(props.id);
});

async function changed(work: () => Promise<void>): Promise<void> {
  trouble.value = '';
  try {
    await work();
    await reread();
  } catch (error) {
    trouble.value = troubleOf(error);
  }
}
const discard = () => changed(() => acts.discard([props.id]));
const putBack = () => changed(() => acts.putBack(props.id));

function show(figure: WrittenFigure): void {
  noticed.value = undefined;
  shown.value = shown.value?.id === figure.id ? undefined : figure;
}

function point(notice: Notice): void {
  shown.value = undefined;
  noticed.value = noticed.value === notice ? undefined : notice;
}

/** Adds ink to this run. */
async function write(draft: Draft): Promise<void> {
  if (live.value) await acts.writeLive(props.id, draft);
  else if (filed.value) {
    filed.value = (await acts.writeFiled(filed.value.run, draft)) ?? filed.value;
  }
}

/** Ink that holds for other runs as well: written to all of them at once, or to none. */
async function writeWith(others: readonly string[], draft: Draft): Promise<void> {
  if (live.value || others.length === 0) await write(draft);
  if (others.length === 0) return;
  await acts.writeToAll(live.value ? others : [props.id, ...others], () => draft);
  if (!live.value) filed.value = await logbook.open(props.id);
}

const exporting = ref(false);
const targets = computed((): Target[] => {
  if (!run.value) return [WHOLE];
  const { header } = run.value;
  const names = isSpot.value ? ['spot check', header.device.name] : [header.device.name, 'on', sourceSays(header)];
  const ofStudy = studies.all.find(({ id }) => id === header.study?.id);
  return [
    {
      ...{ of: 'run', says: 'This run', runs: [props.id], isSpot: isSpot.value },
      name: [...names, format(header.plugInAt, 'yyyy-MM-dd HHmm')].join(' '),
    },
    ...(ofStudy
      ? [
          studyTarget(
            ofStudy.id,
            ofStudy.name,
            studies.runsOf(ofStudy.id).map(({ id }) => id),
          ),
        ]
      : []),
    WHOLE,
  ];
});

async function reopen(): Promise<void> {
  if (!filed.value) return;
  try {
    await lanes.reopen(filed.value.run);
    await router.push('/live');
  } catch (error) {
    trouble.value = troubleOf(error);
  }
}

const enterStrike = (entry: Entry) => {
  line.beginStrike(props.id, entry);
  document.getElementById('entry')?.focus();
};
</script>

<template>
  <section v-if="run" class="sheet" :style="{ '--heading': `${headingHeight}px` }">
    <header ref="heading">
      <h1 :title="title"><PenNib :pen="run.header.pen" /> {{ title }}</h1>
      <p class="soft" :title="facts">{{ facts }}</p>
      <div class="actions">
        <template v-if="isOpen">
          <v-btn @click="end('full')">It was full there</v-btn>
          <v-btn @click="end('window over')">The footage ends there</v-btn>
        </template>
        <MoreActions is-folded>
          <v-btn variant="text" :to="{ path: isSpot ? '/live/spot' : '/live/new', query: { again: id } }">Run this again</v-btn>
          <v-btn
            v-if="!live && !run.header.source && !run.header.footage && !run.discardedAt && run.kept.to === Infinity"
            variant="text"
            @click="reopen"
            >Resume run</v-btn
          >
          <v-btn v-if="!live && !run.discardedAt" variant="text" @click="tagging = true">Tags and a note</v-btn>
          <v-btn v-if="!isSpot" variant="text" @click="correcting = true">Correct its gear</v-btn>
          <v-btn v-if="!isSpot" variant="text" @click="setting = true">Correct its settings</v-btn>
          <v-btn v-if="!live && !isSpot && !run.discardedAt" variant="text" @click="timing = true">Plug-in, trim or split</v-btn>
          <v-btn v-if="!live && !isSpot && !run.discardedAt" variant="text" @click="adding = true">Add a meter’s log</v-btn>
          <v-btn v-if="!live && !isSpot && !run.discardedAt" variant="text" :to="{ path: '/sums', query: { run: id } }"
            >Sums of this run</v-btn
          >
          <v-btn variant="text" @click="exporting = true">Export</v-btn>
          <v-btn v-if="!live && !run.discardedAt" variant="text" @click="discard">Discard</v-btn>
        </MoreActions>
        <v-btn v-if="!isSpot && !run.discardedAt" variant="flat" color="primary" :to="{ path: '/compare', query: { runs: run.header.id } }"
          >Compare</v-btn
        >
      </div>
      <p v-if="!live && logbook.summaries.length === 1 && !run.discardedAt" class="next" role="status">
        Next: a second run, to compare it with.
        <v-btn variant="flat" color="primary" size="small" to="/live/new">Start another run</v-btn>
      </p>
      <p v-if="run.discardedAt" class="working" role="status">
        This run was discarded on {{ dayText(run.discardedAt) }}: it is on no list, and kept for 30 days.
        <v-btn size="small" @click="putBack">Put back</v-btn>
      </p>
      <p v-else-if="run.label && (run.label.tags.length > 0 || run.label.text)" class="working soft">
        {{ [run.label.tags.join(', '), run.label.text].filter(Boolean).join(' — ') }}
      </p>
      <p v-if="trouble" class="due" role="alert">{{ trouble }}</p>
    </header>
    <div v-if="run.trials.length > 0" class="trials">
      <CompatibilityTable
        :device="run.header.device.name"
        :rows="compatibility(run)"
        :can-change="!live"
        @strike="strike"
        @rewrite="(trial) => (again = trial)"
      />
      <TrialCard
        v-if="again && opened"
        :key="again.id"
        :run="opened.sketch"
        :hand="{ source: again.source, state: again.state, instead: again }"
        :now="0"
        :log="writeAgain"
      />
      <v-btn v-if="again" variant="text" @click="again = undefined">Leave it as it was</v-btn>
    </div>
    <div v-if="!isSpot" class="spread">
      <div class="paper">
        <LevelStrip
          v-if="isByLevel"
          :lines="byLevel"
          :pen="run.header.pen"
          :caption="`Power and heat by level of ${title}`"
          :text="pictureText"
        >
          <DrawnBy v-model="isByLevel" />
        </LevelStrip>
        <AfterPaint v-else>
          <StripSheet
            :traces="traces"
            :band="band"
            :stages="moving ? [] : stages"
            :marks="moving ? [] : marks"
            :caption="caption"
            :text="pictureText"
            :finer="moving ? undefined : finer"
            :in-hand="moving !== undefined"
            @at="(seconds) => (at = seconds)"
            @shift="(seconds) => places?.shift(seconds)"
            @drop="places?.drop()"
            @press="reveal"
            @look="(seen) => (stretch = seen)"
          >
            <template v-if="byLevel.length > 0" #tools><DrawnBy v-model="isByLevel" /></template>
          </StripSheet>
        </AfterPaint>
      </div>
      <aside aria-label="Figures">
        <p v-if="!opened" class="soft" role="status">Working out its figures …</p>
        <AfterPaint v-if="opened">
          <StretchFigures v-if="stretch && !isByLevel" :run="opened.sketch" :stretch="stretch" />
          <AskFigures :is-sampled="opened.figures.sampled !== undefined" />
          <FigureList :figures="figures" :shown="shown?.id" :here="here" @show="show" />
          <RemarkList v-if="remarks.length > 0" :remarks="remarks" :noticed="noticed" @point="point" />
        </AfterPaint>
        <AfterPaint v-if="opened && !live">
          <PencilTable :run="run" :rows="opened.pencil" />
          <LogPlaces ref="places" :run="run" :write="write" @moving="(drawn) => (moving = drawn)" />
        </AfterPaint>
      </aside>
    </div>
    <AfterPaint v-if="opened">
      <WorkTable :all="opened.workloads" />
      <InkTable :run="opened.sketch" :live="live !== undefined" :write="write" :strike="striking" @enter-strike="enterStrike" />
    </AfterPaint>
    <ImportSheet v-if="adding" v-model="adding" :into="id" @added="reread" />
    <TagSheet v-if="tagging" v-model="tagging" :ids="[id]" @update:model-value="reread" />
    <TimesSheet v-if="timing" v-model="timing" :run="run" :at="pointedAt" :write="write" @split="(half) => router.push(`/runs/${half}`)" />
    <ExportSheet v-if="exporting" v-model="exporting" :targets="targets" />
    <SettingsSheet v-if="setting" v-model="setting" :run="run" :write="write" />
    <CorrectSheet v-if="correcting" v-model="correcting" :run="run" :write="writeWith" />
  </section>
  <section v-else class="sheet first-step">
    <template v-if="trouble">
      <h1>This run is not here</h1>
      <p role="alert">{{ trouble }}</p>
      <v-btn to="/runs">See the runs that are</v-btn>
    </template>
    <p v-else>Opening the run …</p>
  </section>
</template>

<style scoped>
.spread {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 20rem;
  border-bottom: 1px solid rgb(var(--v-theme-line));
}

.paper {
  /* The whole of it, with its axis of time, fits between the heading and the due line. */
  height: clamp(15rem, 100cqb - var(--heading), 46rem);
  padding-inline-start: 0.5rem;
  position: sticky;
  top: 0;
}

aside {
  padding: 1rem 1.25rem;
  border-inline-start: 1px solid rgb(var(--v-theme-line));
}

.trials {
  padding: 0.5rem 1.5rem;
}

@media (max-width: 56.25em) {
  .spread {
    grid-template-columns: minmax(0, 1fr);
  }

  .paper {
    position: static;
    height: 24rem;
  }

  aside {
    border-inline-start: 0;
  }
}

@media (max-width: 40em) {
  .paper {
    height: auto;
  }
}
</style>
