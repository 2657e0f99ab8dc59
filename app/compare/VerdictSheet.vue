<script setup lang="ts">
import { computed, ref } from 'vue';
import {
  balanceOf,
  judge,
  verdictText,
  oneForAll,
  weightiest,
  worthOf,
  WISHES,
  type Finding,
  type Group,
  type Headline,
  type Question,
  type Wishes,
} from '@core/advise';
import { writeAmount, type Edit } from '@core/compare';
import { price, spell } from '@core/quantity';
import CopyButton from '../kit/CopyButton.vue';
import FindingItem from './FindingItem.vue';
import FrontierChart from './FrontierChart.vue';
import RegretTable from './RegretTable.vue';

/** Who should buy what, how sure it is, and what would settle the rest: a sentence for each need, and the pictures behind them. */
const props = defineProps<{
  question: Question;
  /** Its setups by device, with their figures. */
  groups: readonly Group[];
  /** The answer in short, that stands above it. */
  headline: Headline | undefined;
  edits: readonly Edit[];
  /** Of each setup of the question, in its order. */
  pens: number[];
}>();
const emit = defineEmits<{
  edit: [need: string, edit: Omit<Edit, 'need'> | undefined];
  plan: [settle: NonNullable<Finding['settle']>];
  wish: [wishes: Partial<Wishes>];
}>();

/** That of the study among them. */
const windows = computed(() => [...new Set([...WISHES.window, props.question.wishes.window])].sort((one, other) => one - other));
const worked = computed(() => judge(props.question, props.groups));
/** What was written of a need that nothing is worked out for any more is not lost. */
const findings = computed((): Finding[] => [
  ...worked.value,
  ...props.edits
    .filter(({ need }) => !worked.value.some((each) => each.need === need))
    .map(({ need }) => ({ need, title: 'Your own words', says: 'nothing can be said of it any more', why: '', claims: [] })),
]);
const isAllOpen = ref(false);
/** Their reasons are open at first. */
const weighty = computed(() => weightiest(worked.value));
const pensOf = (group: Group) => group.setups.map((setup) => props.pens[props.question.setups.indexOf(setup)] ?? 0);

const pictures = computed(() =>
  props.groups.flatMap((group) => {
    const whose = props.groups.length > 1 ? `${group.of}: ` : '';
    const [worth, balance] = [worthOf(group, props.question.shelf), balanceOf(group, props.question.wishes.window)];
    return [
      ...(worth
        ? [
            {
              key: `${group.of} price`,
              caption: `${whose}price against ${worth.title.toLowerCase()}; on the line nothing is both cheaper and surely faster`,
              across: 'price of what is not at home yet',
              write: price,
              points: worth.points,
              pens: pensOf(group),
            },
          ]
        : []),
      ...(balance
        ? [
            {
              key: `${group.of} heat`,
              caption: `${whose}${balance.heat.toLowerCase()} against ${balance.title.toLowerCase()}; on the line nothing is both cooler and faster`,
              across: balance.heat.toLowerCase(),
              write: (celsius: number) => writeAmount(celsius, 1, 'K').value,
              points: balance.points,
              pens: pensOf(group),
            },
          ]
        : []),
    ];
  }),
);
const shared = computed(() => oneForAll(props.groups));
const editOf = (need: string) => props.edits.find((each) => each.need === need);
const taken = () => ({
  text: verdictText(findings.value, (need) => editOf(need)?.text, props.headline),
});
const madeOf = ({ says, why }: Finding) => `${says}\n${why}`;

const HABIT_SAYS: Readonly<Record<Wishes['habit'], string>> = {
  overnight: 'overnight',
  'top-ups': 'top-ups',
  both: 'overnight and top-ups',
};
</script>

<template>
  <div class="verdict">
    <div class="asked">
      <label
        >A top-up lasts
        <select :value="question.wishes.window" @change="emit('wish', { window: Number(($event.target as HTMLSelectElement).value) })">
          <option v-for="each in windows" :key="each" :value="each">{{ spell(each) }}</option>
        </select></label
      >
      <label
        >A night lasts
        <select :value="question.wishes.night" @change="emit('wish', { night: Number(($event.target as HTMLSelectElement).value) })">
          <option v-for="each in WISHES.night" :key="each" :value="each">{{ each / 3600 }} h</option>
        </select></label
      >
      <label
        >A trip may cost
        <select :value="question.wishes.loss" @change="emit('wish', { loss: Number(($event.target as HTMLSelectElement).value) })">
          <option v-for="each in WISHES.loss" :key="each" :value="each">{{ Math.round(each * 100) }} %</option>
        </select></label
      >
      <label
        >Charging habit
        <select
          :value="question.wishes.habit"
          @change="emit('wish', { habit: ($event.target as HTMLSelectElement).value as Wishes['habit'] })"
        >
          <option v-for="each in WISHES.habit" :key="each" :value="each">{{ HABIT_SAYS[each] }}</option>
        </select></label
      >
    </div>
    <div class="halves" :class="{ whole: pictures.length === 0 && !(shared && shared.choices.length > 0) }">
      <section aria-label="Verdict in full" data-copied>
        <CopyButton v-if="findings.length > 0" name="the whole verdict" class="all" :take="taken" />
        <ul v-if="findings.length > 0">
          <FindingItem
            v-for="finding in findings"
            :key="finding.need"
            :finding="finding"
            :edit="editOf(finding.need)"
            :is-unfolded="isAllOpen || weighty.includes(finding.need)"
            @write="(text) => emit('edit', finding.need, { text, made: madeOf(finding) })"
            @keep="emit('edit', finding.need, { text: editOf(finding.need)?.text ?? finding.says, made: madeOf(finding) })"
            @undo="emit('edit', finding.need, undefined)"
            @plan="finding.settle && emit('plan', finding.settle)"
          />
        </ul>
        <p v-if="findings.length > weighty.length">
          <button type="button" class="link" :aria-pressed="isAllOpen" @click="isAllOpen = !isAllOpen">
            {{ isAllOpen ? 'Fold the reasons' : 'Show every reason' }}
          </button>
        </p>
        <p v-if="findings.length === 0" class="soft none">
          There is nothing to judge yet: two setups of one device, or two devices, say something of each other.
        </p>
      </section>
      <div class="pictures">
        <FrontierChart
          v-for="{ key, ...picture } in pictures"
          :key="key"
          :caption="picture.caption"
          :across="picture.across"
          :write="picture.write"
          :points="picture.points"
          :pens="picture.pens"
        />
        <RegretTable v-if="shared && shared.choices.length > 0" :found="shared" />
      </div>
    </div>
  </div>
</template>

<style scoped>
.asked {
  display: flex;
  flex-wrap: wrap;
  gap: 0.25rem 1.5rem;
  padding: 0.5rem 1.5rem;
  font-size: 0.85rem;
  color: rgb(var(--v-theme-soft));
}

.halves {
  display: grid;
  grid-template-columns: minmax(0, 1.15fr) minmax(0, 1fr);
  border-top: 1px solid rgb(var(--v-theme-line));
}

section {
  padding: 0 1.5rem 1rem;
  border-inline-end: 1px solid rgb(var(--v-theme-line));
}

ul {
  padding: 0;
  list-style: none;
}

.all {
  display: flex;
}

.pictures {
  display: grid;
  gap: 1.5rem;
  align-content: start;
  padding: 0.9rem 1.5rem;
  min-width: 0;
}

.none {
  padding-block: 1rem;
}

.whole {
  grid-template-columns: minmax(0, 1fr);
}

@media (max-width: 62.5em) {
  .halves {
    grid-template-columns: minmax(0, 1fr);
  }

  section {
    border-inline-end: 0;
  }
}
</style>
