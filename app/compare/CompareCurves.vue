<script setup lang="ts">
import { computed, ref } from 'vue';
import { aheadOf, turnOf } from '@core/compare';
import { milestoneTime } from '@core/curve';
import { drawnRise, inUnit, quantityOf, spell, TEMPERATURES, type Quantity } from '@core/quantity';
import InkStrip from '../strip/InkStrip.vue';
import LevelStrip from '../strip/LevelStrip.vue';
import type { PictureText } from '../strip/picture';
import StripSheet from '../strip/StripSheet.vue';
import { later, type Trace } from '../strip/trace';
import type { Beside } from '../workers/opened';
import AheadStrip from './AheadStrip.vue';

/** Runs over each other: by time from plug-in, from the boot or from a level that all of them showed; by level; as what each is ahead of the baseline; or each alone. */
const props = defineProps<{
  opened: Beside[];
  /** Of each run: which setup it is of. */
  rowOf: number[];
  names: string[];
  pens: number[];
  baseline: number;
  caption: string;
  /** What stands about a picture of them. */
  text: PictureText;
}>();

type View = 'together' | 'apart' | 'by level' | 'ahead';
const view = ref<View>('together');
/** Where the runs are laid onto each other. */
const origin = ref('plug-in');
/** Whether heat is drawn as its rise over what it was at first. */
const isRise = ref(false);
const ofLevel = ref<Quantity>('watts');

const startOf = ({ figures, run }: Beside, from: string): number | undefined => {
  if (from === 'plug-in') return 0;
  if (from === 'boot') return figures.passages.find(({ what }) => what === 'boot')?.bounds.high ?? (run.isDead ? undefined : 0);
  const level = Number(from);
  if (figures.startLevel !== undefined && figures.startLevel >= level) return figures.startLevel === level ? 0 : undefined;
  const found = [...figures.milestones, ...figures.beside.milestones, ...figures.more.milestones].find((each) => each.level === level);
  return found && milestoneTime(found);
};
const origins = computed(() => {
  const levels = [50, 80, 90].filter((level) => props.opened.every((each) => startOf(each, String(level)) !== undefined));
  return [
    { value: 'plug-in', title: 'from plug-in' },
    ...(props.opened.some(({ run }) => run.isDead) ? [{ value: 'boot', title: 'from the boot' }] : []),
    ...levels.map((level) => ({ value: String(level), title: `all at ${level} % together` })),
  ];
});

/** What a temperature was at first. */
const firstOf = ({ dots }: Trace, of: Quantity) => dots[of]?.find(([, value]) => value !== undefined)?.[1];
/** Heat less what it was at first. */
function risen(trace: Trace): Trace {
  const dots = { ...trace.dots };
  for (const of of TEMPERATURES) {
    const first = firstOf(trace, of);
    if (first !== undefined)
      dots[of] = (dots[of] ?? []).map(([at, value]) => [at, value === undefined ? undefined : drawnRise('°C', value - first)]);
  }
  return { ...trace, dots, isRise: true };
}

const traces = computed(() => {
  const starts = props.opened.map((each) => startOf(each, origin.value) ?? 0);
  const last = Math.max(0, ...starts);
  return props.opened.map(({ trace }, index) => {
    const row = props.rowOf[index] ?? -1;
    const drawn = { ...trace, expected: undefined, forecasts: undefined, name: props.names[row] ?? '', pen: props.pens[row] ?? 0 };
    const by = last - (starts[index] ?? 0);
    const moved = by === 0 ? drawn : later(drawn, by);
    return isRise.value ? risen(moved) : moved;
  });
});
const hasHeat = computed(() => props.opened.some(({ figures }) => figures.heat.length > 0));

/** What can be drawn against the level: of any run. */
const quantities = computed(() => [...new Set(props.opened.flatMap(({ byLevel }) => byLevel.map(({ of }) => of)))]);
const levelOf = computed(() => (quantities.value.includes(ofLevel.value) ? ofLevel.value : quantities.value[0]));
const isOfHeat = computed(() => levelOf.value !== undefined && TEMPERATURES.includes(levelOf.value));
const levelLines = computed(() =>
  props.opened.flatMap(({ byLevel, trace }, index) => {
    const row = props.rowOf[index] ?? 0;
    const found = byLevel.find(({ of }) => of === levelOf.value);
    if (!found) return [];
    const first = isRise.value && isOfHeat.value ? firstOf(trace, found.of) : undefined;
    const points = found.points.map(([level, value]): [number, number] => [
      level,
      first === undefined ? value : drawnRise('°C', value - first),
    ]);
    return [{ of: found.of, points, name: props.names[row] ?? '', pen: props.pens[row] ?? 0 }];
  }),
);

const tracksOf = (row: number) =>
  props.opened.flatMap(({ percent }, index) => (props.rowOf[index] === row && percent.values.length > 1 ? [percent] : []));
/** Whether anything can be drawn as ahead of the baseline: its working waits until it is looked at. */
const canBeAhead = computed(
  () => tracksOf(props.baseline).length > 0 && props.names.some((_, row) => row !== props.baseline && tracksOf(row).length > 0),
);
const ahead = computed(() =>
  props.names.flatMap((name, row) => {
    const found = row === props.baseline ? [] : aheadOf(tracksOf(row), tracksOf(props.baseline));
    return found.length > 0 ? [{ name, pen: props.pens[row] ?? 0, ahead: found }] : [];
  }),
);
/** A lead that is lost on the way. */
const turns = computed(() =>
  ahead.value.flatMap(({ name, ahead: found }) => {
    const turn = turnOf(found);
    const first = found.find(({ isDistinguishable }) => isDistinguishable);
    if (!turn || !first) return [];
    const zero = props.names[props.baseline] ?? '';
    return [
      first.value > 0
        ? `${name} is ahead until ${spell(turn.from)}, and behind ${zero} from ${spell(turn.to)}.`
        : `${name} is behind until ${spell(turn.from)}, and ahead of ${zero} from ${spell(turn.to)}.`,
    ];
  }),
);

const views = computed<{ value: View; says: string }[]>(() => [
  { value: 'together', says: 'Over each other' },
  { value: 'apart', says: 'Each alone' },
  ...(quantities.value.length > 0 ? [{ value: 'by level' as const, says: 'By level' }] : []),
  ...(canBeAhead.value ? [{ value: 'ahead' as const, says: 'Ahead of the baseline' }] : []),
]);
/** All of them on one scale of time. */
const longest = computed(() => Math.max(600, ...traces.value.map(({ end }) => end)) * 1.02);
const lastOf = ({ dots }: Trace) => {
  const value = dots.percent?.findLast(([, each]) => each !== undefined)?.[1];
  return value === undefined ? '' : inUnit(value, '%', 0);
};
</script>

<template>
  <div class="curves">
    <div class="tools chosen-of">
      <div role="group" aria-label="How they are drawn">
        <button v-for="each in views" :key="each.value" type="button" :aria-pressed="view === each.value" @click="view = each.value">
          {{ each.says }}
        </button>
      </div>
      <label v-if="view !== 'by level' && view !== 'ahead' && origins.length > 1"
        >Time
        <select v-model="origin" aria-label="Time">
          <option v-for="each in origins" :key="each.value" :value="each.value">{{ each.title }}</option>
        </select></label
      >
      <div v-if="view === 'by level'" role="group" aria-label="What is drawn by level">
        <button v-for="of in quantities" :key="of" type="button" :aria-pressed="levelOf === of" @click="ofLevel = of">
          {{ quantityOf(of).track?.short }}
        </button>
      </div>
      <div v-if="view === 'by level' ? isOfHeat : view !== 'ahead' && hasHeat" role="group" aria-label="Heat">
        <button type="button" :aria-pressed="isRise" @click="isRise = !isRise">Heat as its rise</button>
      </div>
    </div>
    <div v-if="view === 'apart'" class="small">
      <figure v-for="trace in traces" :key="trace.id">
        <figcaption>
          <RouterLink :to="`/runs/${trace.id}`">{{ trace.name }}</RouterLink> <span class="soft">{{ lastOf(trace) }}</span>
        </figcaption>
        <div class="one"><InkStrip :traces="[trace]" size="lane" penned :until="longest" :caption="`${trace.name}, alone`" /></div>
      </figure>
    </div>
    <div v-else class="paper">
      <LevelStrip
        v-if="view === 'by level'"
        :lines="levelLines"
        :pen="0"
        :is-rise="isRise && isOfHeat"
        :caption="`${caption}, by level`"
        :text="text"
      />
      <AheadStrip
        v-else-if="view === 'ahead'"
        :lines="ahead"
        :baseline="names[baseline] ?? ''"
        :caption="`${caption}, as what each is ahead`"
        :text="text"
      />
      <StripSheet v-else :traces="traces" penned :first="['percent']" :caption="`${caption}, over time`" :text="text" />
    </div>
    <p v-for="turn in view === 'ahead' ? turns : []" :key="turn" class="turn">{{ turn }}</p>
    <p v-if="view === 'ahead'" class="soft turn">Where a band holds 0, these readings do not tell the two apart.</p>
  </div>
</template>

<style scoped>
.tools {
  display: flex;
  flex-wrap: wrap;
  gap: 0.25rem 1.25rem;
  align-items: center;
  min-height: 2.3rem;
  padding: 0.3rem 0.9rem 0 0.6rem;
}

label {
  font-size: 0.85rem;
}

.curves {
  display: flex;
  flex: 1;
  flex-direction: column;
}

.paper {
  flex: 1;
  height: 0;
  min-height: clamp(19rem, 44vh, 36rem);
}

.small {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(15rem, 100%), 1fr));
  gap: 0.5rem 1rem;
  padding: 0.5rem 0.9rem 0.9rem;
}

.small figure {
  margin: 0;
}

.one {
  height: 8.5rem;
}

figcaption {
  overflow: hidden;
  font-size: 0.85rem;
  white-space: nowrap;
  text-overflow: ellipsis;
}

.turn {
  padding: 0.2rem 0.9rem;
  font-size: 0.9rem;
}

/* On a phone the picture comes before what changes it. */
@media (max-width: 40em) {
  .curves > .tools {
    order: 2;
  }

  .paper {
    flex: none;
    height: auto;
    min-height: 0;
  }
}
</style>
