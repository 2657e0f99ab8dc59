<script setup lang="ts">
import { format } from 'date-fns';
import { nanoid } from 'nanoid';
import { computed, onBeforeUnmount, onMounted, ref, shallowRef, watch } from 'vue';
import { loadRouteLocation, useRouter } from 'vue-router';
import {
  ImportError,
  lastAt,
  MOST_VALUES,
  readLogDate,
  studyIn,
  studyRepeated,
  tellsAll,
  type Choice,
  type CsvOptions,
  type DateOrder,
  type Mapping,
  type Peek,
} from '@core/exchange';
import { howMany, quoted, spell } from '@core/quantity';
import { afterPaint } from '../kit/afterPaint';
import AfterPaint from '../kit/AfterPaint.vue';
import DraftOffer from '../kit/DraftOffer.vue';
import { dropped } from '../kit/dropped';
import { useDraft } from '../kit/drafts';
import { canChooseFolder, newestBackup, samplesOf } from '../exports/backup/folder';
import DateField from '../kit/DateField.vue';
import { dayText } from '../kit/dates';
import { useSettings } from '../kit/settings';
import type { Work } from '../kit/work';
import WorkBar from '../kit/WorkBar.vue';
import { bringIn, differingSettings, hasWork, previewOf } from '../logbook/bringIn';
import GearField from '../logbook/GearField.vue';
import { newHeaders } from '../logbook/headers';
import { useLanes } from '../logbook/lanes';
import { keepMapping, mappingFor } from '../logbook/mappings';
import { useLogbook } from '../logbook/runs';
import { useShelf } from '../logbook/shelf';
import { troubleOf } from '../logbook/trouble';
import type { LogSeen } from '../workers/exchange';
import { incomingFrom, peekFile, readFile, type FileAtHand } from '../workers/readFile';
import type { RunConflicts } from '../ledger/incoming';
import ConflictTable from './ConflictTable.vue';
import MappingTable from './MappingTable.vue';
import RepeatFields from './RepeatFields.vue';
import RunPlace from './RunPlace.vue';

/** Brings a file in: a logbook, a run this program wrote, or a meter's log. Shows what was understood before anything is stored. */
const props = defineProps<{ into?: string }>();
const open = defineModel<boolean>({ required: true });
const emit = defineEmits<{ added: [] }>();

const router = useRouter();
const shelf = useShelf();
const logbook = useLogbook();
const lanes = useLanes();
const settings = useSettings();
const chosen = shallowRef<File>();
onMounted(() => {
  if (dropped.value) chosen.value = dropped.value;
  dropped.value = undefined;
});
/** Its runs stay in the worker that read it, until it is put away. */
const read = shallowRef<FileAtHand>();
const error = ref('');
const busy = ref(false);
/** How far the work is, and what calls it off. */
const at = shallowRef<Work>({ done: 0, of: 1 });
const progress = (done: number, of: number) => (at.value = { done, of });
let work = new AbortController();
onBeforeUnmount(() => {
  work.abort();
});
const decimal = ref<CsvOptions['decimal']>('auto');
const skipBadRows = ref(false);
/** Which comes first in its dates, once it is said; asked where nothing in the file tells. */
const dates = ref<DateOrder>();
/** Nothing is chosen beforehand: a log of one device filed under another is worse than a question. */
const picks = ref<{ isTaken: boolean; device?: string | undefined; charger?: string | undefined }[]>([]);
const plugInAt = ref('');
/** A log is a run of its own, or is added to one that is there. */
const isAdded = ref(props.into !== undefined);
const into = ref<string | undefined>(props.into);
const place = shallowRef<{ at: number; drift?: number }>();

const { offer, close, end } = useDraft(
  'import',
  () => ({
    file: chosen.value,
    name: chosen.value?.name,
    choices: [decimal.value, skipBadRows.value, picks.value] as const,
  }),
  ({ file, choices }) => {
    [decimal.value, skipBadRows.value, picks.value] = choices;
    chosen.value = file;
  },
  () => {
    callOff();
    open.value = false;
  },
);

/** The first and the last date of the log that is at hand, where they can be read either way. */
const either = shallowRef<readonly [first: string, last: string]>();
const isAsked = computed(() => either.value !== undefined && dates.value === undefined);
/** Those dates as they would be with the one or the other first. */
function datesAs(order: DateOrder): string {
  const days = (either.value ?? []).flatMap((cell) => {
    const found = readLogDate(cell, order);
    return typeof found === 'object' ? dayText(found.midnight, { year: true }) : 'no day';
  });
  return [...new Set(days)].join(' to ');
}

/** The runs of a log: of each device that it is of. */
const parts = computed(() => (read.value?.kind === 'csv' ? read.value.logs : []));
const csv = computed(() => parts.value[0]);
const book = computed(() => (read.value?.kind === 'logbook' ? read.value : undefined));
const known = computed(
  () => new Set([...logbook.summaries, ...logbook.discarded, ...lanes.records.map(({ header }) => header)].map(({ id }) => id)),
);
/** Whether the file is restored, with its settings, for nothing is here yet; else in which settings it differs. */
const isRestored = ref(false);
const others = computed(() => (book.value ? differingSettings(book.value.rest) : []));
/** Where the file contradicts what is here, and what was chosen of each. */
const conflicts = shallowRef<RunConflicts[]>([]);
const choices = ref<Record<string, Choice>>({});
/** What it will add, change and leave. */
const preview = shallowRef<string[]>([]);
const isUnsettled = computed(() => toSettle.value.some((run) => run.conflicts.some(({ id }) => !choices.value[id])));
/** A study that is there to be repeated, and which of one’s own gear stands for what it names. */
const repeated = computed(() => book.value && studyIn(book.value.rest, book.value.runs));
const standIns = ref<Record<string, string | undefined>>({});
const live = computed(() => conflicts.value.filter(({ isLive }) => isLive));
const toSettle = computed(() => conflicts.value.filter(({ isLive }) => !isLive));
/** The folder that a backup was taken from: samples lie in it, too. */
const folder = shallowRef<FileSystemDirectoryHandle>();
async function chooseBackup(): Promise<void> {
  error.value = '';
  try {
    const found = await newestBackup();
    if (!found) return;
    [folder.value, chosen.value] = [found.folder, found.file];
  } catch (cause) {
    error.value = cause instanceof ImportError ? cause.message : troubleOf(cause);
  }
}
watch(read, async (file) => {
  [conflicts.value, choices.value, preview.value] = [[], {}, []];
  if (file?.kind !== 'logbook') return;
  isRestored.value = !(await hasWork());
  preview.value = await previewOf(file.rest, file.runs, known.value);
  const found = await file.remote.conflicts();
  if (read.value === file) conflicts.value = found;
});
watch(parts, (all) => {
  picks.value = all.map(({ device: name }, index) => {
    const known = shelf.devices.find((each) => each.name.toLowerCase() === name?.toLowerCase())?.id;
    return picks.value[index] ?? { isTaken: true, device: known };
  });
});
const labelled = (what: string, { device: name }: LogSeen) => (parts.value.length > 1 ? `${what} of ${quoted(name ?? '')}` : what);

/** The head of a log, and what its columns hold: as guessed, as it was the last time for this meter, or as said now. */
const head = shallowRef<Peek>();
const mapping = shallowRef<Mapping>();
const isSaid = ref(false);
const isLog = computed(() => head.value !== undefined && !head.value.mapping.columns.includes('kind'));
/** Whether it is laid into a run that is there: a log of one device. */
const isMore = computed(() => isAdded.value && isLog.value && parts.value.length === 1);
watch(chosen, async (file) => {
  [head.value, mapping.value, isSaid.value] = [undefined, undefined, false];
  [dates.value, either.value] = [undefined, undefined];
  if (!file || /\.json$/i.test(file.name)) return;
  const found = await peekFile(file).catch(() => undefined);
  if (!found || chosen.value !== file) return;
  const before = await mappingFor(found);
  [head.value, mapping.value, isSaid.value] = [found, before ?? found.mapping, before !== undefined];
});
function say(said: Mapping): void {
  [mapping.value, isSaid.value] = [said, true];
}

watch([chosen, decimal, skipBadRows, dates, () => (isSaid.value ? mapping.value : undefined)], async () => {
  callOff();
  read.value = undefined;
  error.value = '';
  if (!chosen.value) return;
  await guarded(async (file) => {
    const { signal } = work;
    const options = {
      decimal: decimal.value,
      skipBadRows: skipBadRows.value,
      ...(dates.value && { dates: dates.value }),
      ...(isSaid.value && { mapping: mapping.value }),
    };
    const found = await readFile(file, options, progress, signal);
    if (found.kind === 'logbook' && folder.value) {
      const { directory, newest } = await samplesOf(folder.value, found.runs);
      if (directory) await found.remote.addSamples(directory, newest);
    }
    if (signal.aborted) return;
    read.value = found;
    const { value: log } = csv;
    if (log?.either) either.value = log.either;
    const latest = file.lastModified - (log?.length ?? 0) * 1000;
    const began = log?.plugInAt ?? (log?.timeOfDay === undefined ? latest : lastAt(log.timeOfDay, latest));
    plugInAt.value = format(began, "yyyy-MM-dd'T'HH:mm:ss");
  }, chosen.value);
});

/** Ends what is done with a file, and puts it away. Nothing of it was stored. */
function callOff(): void {
  work.abort();
  work = new AbortController();
  busy.value = false;
}

async function guarded(task: (file: File) => Promise<void>, file: File): Promise<void> {
  const { signal } = work;
  busy.value = true;
  at.value = { done: 0, of: read.value ? 0 : file.size };
  error.value = '';
  try {
    await task(file);
  } catch (trouble) {
    if (!signal.aborted) error.value = trouble instanceof ImportError ? trouble.message : troubleOf(trouble);
  } finally {
    if (!signal.aborted) busy.value = false;
  }
}

async function importFile(): Promise<void> {
  const { value: file } = read;
  if (!chosen.value || !file) return;
  const bring = !csv.value ? importBook : isMore.value ? addToRun : importRuns;
  await guarded((named) => bring(file, named), chosen.value);
}

/** How far the storing is, and what calls it off. */
const ways = () => ({ progress, signal: work.signal });

async function importBook({ remote }: FileAtHand): Promise<void> {
  const { value } = book;
  if (!value) return;
  const [theirs = '', mine] = [value.rest.settings?.owner?.trim(), settings.owner.trim()];
  const owner = isRestored.value || theirs === mine ? '' : theirs;
  await remote.takeBook({ choices: { ...choices.value }, origin: owner || (chosen.value?.name ?? 'the file') }, owner);
  const id = nanoid(10);
  await bringIn(repeated.value ? studyRepeated(value.rest, standIns.value, id) : value.rest, incomingFrom(remote), ways());
  end();
  if (repeated.value) await router.push(`/plan/${id}`);
}

/** A run’s page and what opens it are fetched while it is being stored. Where they cannot be, that is said as the run is opened. */
function shownNext(id: string): void {
  void loadRouteLocation(router.resolve(`/runs/${id}`)).catch(() => undefined);
  void import('../workers/openRun').then(({ readyOpener }) => readyOpener()).catch(() => undefined);
}

/** Makes runs of what was read, one of each device that is taken. */
async function importRuns({ remote }: FileAtHand, file: File): Promise<void> {
  const taken = parts.value.flatMap((part, index) => {
    const pick = picks.value[index];
    if (!pick?.isTaken) return [];
    const device = shelf.devices.find(({ id }) => id === pick.device);
    const charger = shelf.chargers.find(({ id }) => id === pick.charger);
    if (!device || !charger)
      throw new ImportError(
        parts.value.length > 1
          ? `Choose the device and the charger of ${quoted(part.device ?? '')}, or leave it out.`
          : 'Choose the device and the charger of this run first.',
      );
    const began = part.plugInAt ?? new Date(plugInAt.value).getTime();
    if (!Number.isFinite(began)) throw new ImportError('Fill in when it was plugged in, with its date.');
    return [{ log: index, run: { device: { ...device }, charger: { ...charger }, plugInAt: began, source: file.name } }];
  });
  if (taken.length === 0) throw new ImportError('Nothing is taken of this file. Choose at least one of its devices.');
  const headers = newHeaders(
    taken.map(({ run }) => run),
    false,
  );
  await remote.takeRuns(
    taken.flatMap(({ log }, index) => {
      const header = headers[index];
      return header ? [{ log, header }] : [];
    }),
  );
  const only = headers.length === 1 ? headers[0] : undefined;
  if (only) shownNext(only.id);
  await logbook.importAll(incomingFrom(remote), ways());
  await kept();
  // The list has its runs, then the sheet goes, then the page comes: all at once would keep a key that is pressed waiting.
  await new Promise<void>(afterPaint);
  end();
  await new Promise<void>(afterPaint);
  await router.push(only ? `/runs/${only.id}` : '/runs');
}

/** Lays what was read into a run that is there. */
async function addToRun({ remote }: FileAtHand, file: File): Promise<void> {
  if (!into.value || !place.value) throw new ImportError('Choose the run that this log is added to.');
  await remote.takeLog(into.value, { name: file.name, ...place.value });
  await logbook.importAll(incomingFrom(remote), ways());
  await kept();
  end();
  if (into.value === props.into) emit('added');
  else await router.push(`/runs/${into.value}`);
}

async function kept(): Promise<void> {
  if (head.value && mapping.value && isSaid.value) await keepMapping(head.value, mapping.value).catch(() => undefined);
}

/** Why nothing can be imported yet. */
const why = computed(() => {
  if (live.value.length > 0) return 'A run that is live here is different in the file: stop it first';
  if (isUnsettled.value) return 'Choose of each entry that differs which of the two counts';
  if (isAsked.value) return 'Say how its dates are read first';
  return read.value ? '' : 'Choose a file that can be read first';
});

const choose = (files: File | File[] | null | undefined) => {
  folder.value = undefined;
  chosen.value = Array.isArray(files) ? files[0] : (files ?? undefined);
};
</script>

<template>
  <v-dialog :model-value="open" max-width="760" aria-labelledby="import-title" @update:model-value="close">
    <v-card>
      <h2 id="import-title">Import a file</h2>
      <DraftOffer :draft="offer" />
      <p class="soft">
        A logbook (JSON), a run saved from here (CSV), or a meter’s log (text in columns), with up to
        {{ MOST_VALUES / 1e6 }} million values a run. Nothing is stored until you say so.
      </p>
      <v-file-input
        :model-value="chosen"
        label="File"
        accept=".csv,.tsv,.txt,.log,.dat,.json,text/*,application/json"
        @update:model-value="choose"
      />
      <p v-if="canChooseFolder() && !into">
        <v-btn size="small" variant="text" @click="chooseBackup">The newest backup of a folder</v-btn>
      </p>
      <WorkBar
        v-if="busy"
        :does="read ? 'Checking and storing' : 'Reading'"
        :name="read ? 'Storing what was read' : 'Reading the file'"
        :at="at"
        :counts="read ? 'runs, logs and pictures' : 'MB'"
      >
        <v-btn size="small" @click="((chosen = undefined), callOff())">{{ read ? 'Stop importing' : 'Stop reading' }}</v-btn>
      </WorkBar>
      <p v-if="error" class="due" role="alert">{{ error }}</p>
      <RepeatFields v-if="book && repeated" v-model="standIns" :rest="book.rest" />
      <p v-else-if="book" role="status">
        A logbook of {{ howMany(book.runs.length, 'run') }}. {{ preview.join(' ') }}
        <template v-if="!isRestored && book.rest.settings?.owner && book.rest.settings.owner !== settings.owner"
          >It is {{ book.rest.settings.owner }}’s: the name stays with its runs.
        </template>
        <template v-if="isRestored && book.rest.settings">Nothing is here yet, so its settings are taken too.</template>
        <template v-else-if="others.length > 0"
          >Settings stay as they are here; those of the file differ in: {{ others.join(', ') }}.</template
        >
      </p>
      <p v-if="live.length > 0" class="due" role="alert">
        {{ live.map(({ name }) => name).join(', ') }}: live here, and different in the file. Stop it first, then import the file.
      </p>
      <ConflictTable v-if="toSettle.length > 0" v-model="choices" :runs="toSettle" />
      <template v-if="csv">
        <p role="status">
          <template v-if="parts.length > 1">{{ parts.length }} devices. </template>{{ csv.rows }} rows over {{ spell(csv.length)
          }}<template v-if="csv.skipped">; {{ csv.skipped }} could not be read and are left out</template>. Read:
          {{ csv.understood.join(', ') }}.
          <span v-if="csv.ignored.length > 0" class="soft">Not read: {{ csv.ignored.join(', ') }}.</span>
        </p>
        <v-radio-group v-if="either" v-model="dates" hide-details label="Its dates can be read either way. They are">
          <v-radio value="day" :label="`the day first: ${datesAs('day')}`" />
          <v-radio value="month" :label="`the month first: ${datesAs('month')}`" />
        </v-radio-group>
        <v-radio-group v-if="isLog && parts.length === 1" v-model="isAdded" inline hide-details label="It is">
          <v-radio :value="false" label="a run of its own" />
          <v-radio :value="true" label="more of a run that is there" />
        </v-radio-group>
        <RunPlace v-if="isMore && read" v-model:run="into" v-model:place="place" :log="csv" :align="read.remote.align" />
        <AfterPaint v-for="(part, index) in isMore ? [] : parts" :key="index">
          <v-checkbox
            v-if="parts.length > 1 && picks[index]"
            v-model="picks[index].isTaken"
            hide-details
            :label="`${quoted(part.device ?? '')}: ${part.rows} rows over ${spell(part.length)}`"
          />
          <div v-if="picks[index]?.isTaken" class="pair">
            <GearField v-model="picks[index].device" of="device" :label="labelled('Device', part)" />
            <GearField v-model="picks[index].charger" of="charger" :label="labelled('Charger', part)" />
          </div>
        </AfterPaint>
        <DateField
          v-if="csv.plugInAt === undefined && !isMore"
          v-model="plugInAt"
          type="datetime-local"
          step="1"
          :label="`Plugged in at (the file does not say${csv.timeOfDay === undefined ? '' : ' which day'})`"
        />
      </template>
      <AfterPaint v-if="chosen && !book">
        <MappingTable v-if="isLog && head && mapping" :peek="head" :model-value="mapping" @update:model-value="say" />
        <v-btn v-if="head?.isGuess && mapping && !isSaid && tellsAll(mapping)" variant="tonal" size="small" @click="say(mapping)"
          >Read it like this</v-btn
        >
        <v-radio-group v-model="decimal" inline hide-details label="Decimals">
          <v-radio value="auto" label="tell from the file" />
          <v-radio value="point" label="point" />
          <v-radio value="comma" label="comma" />
        </v-radio-group>
        <v-checkbox v-model="skipBadRows" label="Skip rows that cannot be read" />
      </AfterPaint>
      <div class="buttons">
        <v-btn
          variant="flat"
          color="primary"
          :disabled="!read || busy || isAsked || isUnsettled || live.length > 0"
          :title="why"
          @click="importFile"
          >Import it</v-btn
        >
        <v-btn @click="end">Cancel</v-btn>
      </div>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.pair {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(14rem, 100%), 1fr));
  gap: 0 1rem;
}
</style>
