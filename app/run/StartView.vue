<script setup lang="ts">
import { toTypedSchema } from '@vee-validate/yup';
import { useForm } from 'vee-validate';
import { computed, nextTick, ref, shallowRef, useTemplateRef, onMounted } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { object, string } from 'yup';
import { CAUTIONS } from '@core/advise';
import { type Charger, type Device } from '@core/bench';
import { sourceSays, type Entry, type Header } from '@core/ink';
import { readCadence, SCHOOLS, writeCadence, type Cadence, type Condition, type School } from '@core/method';
import { inkOfStart, LANE_LETTERS, readStart, startSays, type Start } from '@core/run';
import { wallNow } from '../kit/clock';
import { momentText } from '../kit/dates';
import { useSettings } from '../kit/settings';
import { focusFirstError } from '../kit/firstError';
import { vFocus } from '../kit/vFocus';
import FigureField from '../kit/FigureField.vue';
import { entryOf } from '../ledger/entries';
import BetweenFields from '../logbook/BetweenFields.vue';
import GearField from '../logbook/GearField.vue';
import { newHeaders } from '../logbook/headers';
import { useLanes } from '../logbook/lanes';
import type { MethodChoice } from '../logbook/methodChoice';
import { useMethods } from '../logbook/methods';
import { plannedStart, startAgain, type PlannedStart } from '../logbook/planned';
import { useLogbook } from '../logbook/runs';
import { useShelf } from '../logbook/shelf';
import { useStudies } from '../logbook/studies';
import { troubleOf } from '../logbook/trouble';
import TroubleNote from '../logbook/TroubleNote.vue';
import MethodFields from '../method/MethodFields.vue';
import CallFields from './CallFields.vue';
import StartConditions from './StartConditions.vue';

/** The start of a run: what charges from what, then one key at the instant of plugging in. */
const router = useRouter();
const route = useRoute();
const shelf = useShelf();
const studies = useStudies();
const lanes = useLanes();
const logbook = useLogbook();
const methods = useMethods();
const settings = useSettings();

const schema = object({
  device: string().required('Choose the device that charges.'),
  charger: string().required('Choose what it charges from.'),
  level: string().test((typed, { createError }) => {
    const read = readStart(typed ?? '');
    return typeof read === 'object' && 'error' in read ? createError({ message: read.error }) : true;
  }),
});
const { defineField, handleSubmit, resetForm, values, errors } = useForm({
  validationSchema: toTypedSchema(schema),
  initialValues: {
    device: shelf.devices.length === 1 ? shelf.devices[0]?.id : undefined,
    charger: shelf.chargers.length === 1 ? shelf.chargers[0]?.id : undefined,
  },
});
const field = (state: { errors: string[] }) => ({ props: { 'error-messages': state.errors } });
const [device, deviceProps] = defineField('device', field);
const [charger, chargerProps] = defineField('charger', field);
const [level, levelProps] = defineField('level', field);

const pair = computed(() => ({
  device: shelf.devices.find(({ id }) => id === values.device),
  charger: shelf.chargers.find(({ id }) => id === values.charger),
}));
/** What lies between the two: port, cable, meter. */
const between = shallowRef<Pick<Header, 'port' | 'cable' | 'meter' | 'feed'>>({});

const FIRST_SCHOOL: School | undefined = SCHOOLS[0];
const method = shallowRef<MethodChoice>({
  school: FIRST_SCHOOL?.id,
  timing: writeCadence(FIRST_SCHOOL?.cadence ?? { kind: 'fixed', every: 300 }),
});
const timingError = ref('');
/** Whether its method reads the Wh counter of a meter. */
const readsCounter = computed(() => methods.byId(method.value.school)?.rule.wants.includes('watt-hours') ?? false);

/** The run as its study plans it, when it was opened from one; its conditions are confirmed here. */
const planned = shallowRef<PlannedStart>();
onMounted(async () => {
  const { study, cell, again } = route.query;
  if (typeof again === 'string') return await startAsBefore(again);
  if (typeof study !== 'string' || cell === undefined) return;
  await studies.load();
  for (const [index, key] of [cell].flat().entries()) {
    const found = plannedStart({ study, cell: key ?? '' }, studies, shelf);
    if (!found) continue;
    if (index > 0) await addToSet();
    await fillIn(found);
  }
});

async function fillIn(found: PlannedStart): Promise<void> {
  planned.value = found;
  [device.value, charger.value, level.value] = [found.device || undefined, found.charger || undefined, found.level];
  if (found.method) method.value = found.method;
  const feeder = shelf.chargers.find(({ id }) => id === found.feed);
  between.value = {
    cable: shelf.cables.find(({ id }) => id === found.cable),
    meter: shelf.meters.find(({ id }) => id === found.meter),
    ...(feeder && { feed: { charger: feeder } }),
  };
  await nextTick();
}

/** Fills in what an earlier run, filed or live, was taken like. */
async function startAsBefore(id: string): Promise<void> {
  await methods.load();
  const live = lanes.records.find(({ header }) => header.id === id);
  const { header } = live ?? (await logbook.open(id)).run;
  const found = startAgain(header, `${header.device.name} on ${sourceSays(header)}, ${momentText(header.plugInAt)}`, shelf, methods.all);
  await fillIn(found);
}
/** The plan, as long as what is chosen still is what it asks for: a run of other gear fills no cell of it. */
const asPlanned = computed(() => {
  const { value: plan } = planned;
  const isSame = plan?.device === values.device && plan?.charger === values.charger;
  const isFed = plan?.feed === undefined || plan.feed === between.value.feed?.charger.id;
  return isSame && isFed && (plan?.cable === undefined || plan.cable === between.value.cable?.id) ? plan : undefined;
});
/** The settings that were confirmed. */
const confirmed = shallowRef<Condition[]>();

/** A run that is ready to be plugged in. */
interface Ready {
  device: Device;
  charger: Charger;
  start: Start;
  /** Its Wh counter is set to zero at plug-in. */
  isZeroed: boolean;
  cadence: Cadence;
  rest: Pick<Header, 'port' | 'cable' | 'meter' | 'feed' | 'study' | 'conditions' | 'method' | 'rule'>;
}
/** Those that start together with the one being filled in. */
const set = shallowRef<Ready[]>([]);
const armed = shallowRef<Ready[]>();
const trouble = ref('');
/** One key is one start, however often it is pressed while it is being stored. */
const busy = ref(false);
/** A run that was plugged in but could not be stored: its instant can still be saved as a file. */
const unstored = shallowRef<{ header: Header; entries: Entry[] }[]>([]);
const plug = useTemplateRef<{ $el: HTMLElement }>('plug');

/** Looks at everything at once, so that all that is wrong is said together. */
function arm(): void {
  const read = readCadence(method.value.timing, method.value.earlier);
  timingError.value = 'error' in read ? read.error : '';
  void handleSubmit(
    (given) => {
      const mine = filledIn(given.level);
      if (!mine) return;
      armed.value = [...set.value, mine];
      void nextTick(() => plug.value?.$el.focus());
    },
    () => focusFirstError(),
  )();
}

/** The run as it is filled in; `undefined` while something is missing. */
function filledIn(typed: string | undefined): Ready | undefined {
  const { device: chosenDevice, charger: chosenCharger } = pair.value;
  const read = readCadence(method.value.timing, method.value.earlier);
  const start = readStart(typed ?? '');
  if (!chosenDevice || !chosenCharger || !('cadence' in read) || (typeof start === 'object' && 'error' in start)) return undefined;
  return {
    device: chosenDevice,
    charger: chosenCharger,
    start,
    isZeroed: readsCounter.value && settings.zeroesCounter,
    cadence: read.cadence,
    rest: {
      ...between.value,
      ...(asPlanned.value?.study && { study: asPlanned.value.study }),
      ...(confirmed.value && { conditions: confirmed.value }),
      ...methodName(method.value.school),
    },
  };
}

/** Puts what is filled in into the set, and makes room for the next. */
const addToSet = handleSubmit((given) => {
  const mine = filledIn(given.level);
  if (!mine) return;
  set.value = [...set.value, mine];
  [planned.value, between.value] = [undefined, {}];
  resetForm({ values: {} });
});

/** Units of a device that are charging already. */
const unitsBusy = (id: string) => lanes.records.flatMap(({ header }) => (header.device.id === id ? [header.unit ?? 1] : []));
/** What cannot be: more of a device in a set, and charging already, than there are units of it. */
const clash = computed(() => {
  const { device: mine } = pair.value;
  const busyUnits = mine ? unitsBusy(mine.id).length : 0;
  const inSet = set.value.filter(({ device: other }) => other.id === mine?.id).length;
  const lane = lanes.records.find(({ header }) => header.device.id === mine?.id && busyUnits + inSet >= (mine?.units ?? 1));
  if (mine && inSet > 0 && busyUnits + inSet >= (mine.units ?? 1))
    return mine.units === undefined
      ? `${mine.name} is in this set already. If there are more of it, say on the bench how many.`
      : `All ${mine.units} units of ${mine.name} are in use.`;
  if (lanes.records.length + set.value.length >= LANE_LETTERS.length) return 'Twelve lanes are the most: stop one first.';
  return lane ? `${lane.header.device.name} is charging already, on lane ${lanes.letterOf(lane.header.id)}: stop that run first.` : '';
});

/** Schools of the trade go by their ids; a method of one’s own by its name, for it can be thrown away. */
function methodName(id: string | undefined): Pick<Header, 'method' | 'rule'> {
  const chosen = methods.byId(id);
  return chosen ? { method: methods.isOwn(id) ? chosen.name : chosen.id, rule: chosen.rule } : {};
}

/** Which unit of its device each is, the first that is free; nothing where there is one. */
function unitsFor(devices: readonly Device[]): (number | undefined)[] {
  const taken = new Map(devices.map(({ id }) => [id, new Set(unitsBusy(id))]));
  return devices.map(({ id, units = 1 }) => {
    const used = taken.get(id) ?? new Set();
    const unit = Array.from({ length: units }, (_, index) => index + 1).find((each) => !used.has(each));
    if (unit !== undefined) used.add(unit);
    return units > 1 ? unit : undefined;
  });
}

/** The clock counts from this key, whatever storing takes. */
async function plugIn(): Promise<void> {
  const plugInAt = wallNow();
  const chosen = armed.value;
  if (!chosen || busy.value) return;
  busy.value = true;
  trouble.value = '';
  const units = unitsFor(chosen.map(({ device: on }) => on));
  const headers = newHeaders(
    chosen.map(({ device: on, charger: by, cadence, rest }, index) => {
      const unit = units[index];
      return { device: on, ...(unit !== undefined && { unit }), charger: by, ...rest, plugInAt, cadence };
    }),
  );
  const runs = headers.map((header, index) => {
    return { header, drafts: inkOfStart(chosen[index]?.start ?? 'unknown', plugInAt, chosen[index]?.isZeroed) };
  });
  const [first] = runs;
  if (!first) return;
  try {
    await (runs.length > 1 ? lanes.startSet(runs) : lanes.start(first.header, first.drafts));
    await router.push('/live');
  } catch (error) {
    busy.value = false;
    trouble.value = troubleOf(error);
    unstored.value = runs.map(({ header, drafts }) => ({ header, entries: drafts.map((draft, index) => entryOf(draft, index + 1)) }));
  }
}
</script>

<template>
  <section class="sheet">
    <header>
      <h1>Start a run</h1>
      <p class="soft">what charges, and from what: two names are enough; the rest can follow</p>
    </header>
    <div class="body">
      <form v-if="!armed" class="fields" novalidate @submit.prevent="arm">
        <ul v-if="set.length > 0" class="set" aria-label="Starting together">
          <li v-for="each in set" :key="`${each.device.id} ${each.charger.id}`">
            {{ each.device.name }} on {{ sourceSays({ charger: each.charger, feed: each.rest.feed }) }}
            <v-btn
              size="small"
              variant="text"
              :aria-label="`Take ${each.device.name} out`"
              @click="set = set.filter((other) => other !== each)"
              >Remove</v-btn
            >
          </li>
        </ul>
        <GearField
          v-model="device"
          v-bind="deviceProps"
          v-focus
          of="device"
          label="Device"
          aria-required="true"
          :hint="shelf.devices.length === 0 ? 'Required. Add its battery later.' : 'Required.'"
          persistent-hint
        />
        <GearField
          v-model="charger"
          v-bind="chargerProps"
          of="charger"
          label="Charger"
          aria-required="true"
          :hint="shelf.chargers.length === 0 ? 'Required. Add its label later.' : 'Required.'"
          persistent-hint
        />
        <FigureField
          v-model="level"
          v-bind="levelProps"
          name="Level at plug-in"
          unit="%"
          hint="Write dead if the display shows nothing because the battery is empty; leave it empty if the level is not known."
          persistent-hint
        />
        <MethodFields v-model="method" :error="timingError" />
        <v-checkbox
          v-if="readsCounter"
          v-model="settings.zeroesCounter"
          label="I set its Wh counter to zero as I plug in"
          hint="one reading of the counter is then a sample"
          persistent-hint
          density="compact"
        />
        <BetweenFields v-if="pair.device && pair.charger" v-model="between" :device="pair.device" :charger="pair.charger" />
        <v-btn v-if="pair.device && pair.charger && !clash" variant="text" @click="() => addToSet()">Start another with it</v-btn>
        <v-btn type="submit" variant="flat" color="primary" size="large" :disabled="Boolean(clash)">Ready</v-btn>
        <p v-if="clash" class="due" role="alert">{{ clash }}</p>
        <p v-if="Object.keys(errors).length > 0 || timingError" class="unseen-text" role="alert">
          {{ [...Object.values(errors), timingError].join(' ') }}
        </p>
      </form>
      <div v-else class="armed">
        <h2 v-for="each in armed" :key="`${each.device.id} ${each.charger.id}`">
          {{ each.device.name }} on {{ sourceSays({ charger: each.charger, feed: each.rest.feed }) }}{{ startSays(each.start)
          }}{{ each.isZeroed ? ', Wh counter at zero' : '' }}
        </h2>
        <v-btn ref="plug" class="plug" variant="flat" color="primary" @click="plugIn" @keydown.esc="armed = undefined">
          <span>{{ armed.length > 1 ? 'Switch the strip on now' : 'Plug in now' }}</span>
        </v-btn>
        <p v-if="armed.length > 1">
          Plug all {{ armed.length }} into one switched strip. Press <kbd>Space</kbd> at the instant you switch it on: all count from that
          key.
        </p>
        <p v-else>Press <kbd>Space</kbd> at the instant you plug in. The clock counts from that key.</p>
        <TroubleNote v-if="trouble" :trouble="trouble" :runs="unstored" />
        <v-btn variant="text" @click="armed = undefined">Change something</v-btn>
      </div>
      <div class="asides">
        <StartConditions v-model="confirmed" :planned="asPlanned" />
        <details class="aside">
          <summary>Reminder: sound {{ settings.loudness }}</summary>
          <CallFields />
        </details>
        <aside>
          <h2>Before you plug in</h2>
          <ul>
            <li v-for="caution in CAUTIONS.start" :key="caution">{{ caution }}</li>
          </ul>
        </aside>
      </div>
    </div>
  </section>
</template>

<style scoped>
.body {
  display: grid;
  grid-template-columns: minmax(0, 26rem) minmax(0, 22rem);
  gap: 3rem;
}

.fields,
.armed {
  display: grid;
  gap: 1rem;
  align-content: start;
}

.set {
  list-style: none;
}

.plug {
  height: 9rem !important;
  font-size: 1.6rem;
}

aside {
  align-self: start;
  padding: 1rem 1.25rem;
  border-inline-start: 3px solid rgb(var(--v-theme-due));
}

.asides {
  display: grid;
  gap: 1.5rem;
  align-content: start;
}

summary {
  padding-bottom: 0.5rem;
  cursor: pointer;
}

aside li {
  margin-inline-start: 1.1rem;
  padding-block: 0.2rem;
}

/* A wide screen is used: fields stand beside each other, what is taken for granted to their right. */
@media (min-width: 80em) {
  .body {
    grid-template-columns: minmax(0, 54rem) minmax(0, 24rem);
  }

  .fields {
    grid-template-columns: repeat(2, minmax(0, 1fr));
    gap: 1rem 2rem;
  }

  .fields > :is(.set, .v-btn, p) {
    grid-column: 1 / -1;
    justify-self: start;
  }
}

@media (max-width: 56.25em) {
  .body {
    grid-template-columns: minmax(0, 1fr);
    gap: 1.5rem;
  }
}
</style>
