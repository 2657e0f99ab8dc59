<script setup lang="ts">
import { useMediaQuery } from '@vueuse/core';
import { max } from 'd3-array';
import { computed, defineAsyncComponent, onMounted, ref, shallowRef, useTemplateRef, watch } from 'vue';
import { useRouter } from 'vue-router';
import { byNatural, RUN_ORDERS, runsFound, runsInOrder, type RunFilter, type RunOrder, type Summary } from '@core/curve';
import { endingWord } from '@core/ink';
import { inManner, spell, upperFirst } from '@core/quantity';
import { runsTarget, WHOLE, type Target } from '../exports/target';
import CopyButton from '../kit/CopyButton.vue';
import DateField from '../kit/DateField.vue';
import { momentText } from '../kit/dates';
import { dropped } from '../kit/dropped';
import MoreActions from '../kit/MoreActions.vue';
import { printsAs } from '../kit/printing';
import { useInkActs } from '../logbook/inkActs';
import { useLanes } from '../logbook/lanes';
import { useMethods } from '../logbook/methods';
import { useLogbook } from '../logbook/runs';
import { useStudies } from '../logbook/studies';
import { troubleOf } from '../logbook/trouble';
import InkStrip from '../strip/InkStrip.vue';
import PenNib from '../strip/PenNib.vue';
import { outlineOf } from '../strip/trace';

const FirstPath = defineAsyncComponent(() => import('../logbook/FirstPath.vue'));
const TagSheet = defineAsyncComponent(() => import('./TagSheet.vue'));
const ExportSheet = defineAsyncComponent(() => import('../exports/ExportSheet.vue'));
const ImportSheet = defineAsyncComponent(() => import('./ImportSheet.vue'));
const SetAsideRuns = defineAsyncComponent(() => import('../logbook/SetAside.vue'));

/** Every finished run in a list; choose some to lay over each other, take the logbook out, bring files in. */
const router = useRouter();
const logbook = useLogbook();
const acts = useInkActs();
const lanes = useLanes();
const studies = useStudies();
const methods = useMethods();
onMounted(() => Promise.all([studies.load(), methods.load()]));
const search = ref('');
const order = ref<RunOrder>('newest');
const filter = ref<Omit<RunFilter, 'words' | 'from' | 'before'>>({});
const days = ref({ from: '', to: '' });
const filtering = ref(false);
const trouble = ref('');
const tagging = ref(false);
const picked = ref<string[]>([]);
const importing = ref(false);
watch(dropped, (file) => file && (importing.value = true), { immediate: true });

const DAY = 24 * 3600 * 1000;
const asked = computed<RunFilter>(() => {
  const [from, to] = [days.value.from, days.value.to].map((day) => (day ? new Date(`${day}T00:00`).getTime() : undefined));
  return { words: search.value, ...filter.value, from, before: to === undefined ? undefined : to + DAY };
});
const found = computed(() => runsInOrder(runsFound(logbook.summaries, asked.value), order.value));
const isFiltered = computed(() => Object.values({ ...filter.value, ...days.value }).some(Boolean));
/** What can be chosen of each fact: what any run has. */
const choices = computed(() => {
  const of = (values: (string | undefined)[]) => [...new Set(values.flatMap((each) => each ?? []))].sort(byNatural);
  const all = logbook.summaries;
  return {
    device: of(all.map(({ device }) => device)),
    charger: of(all.map(({ charger }) => charger)),
    study: of(all.map(({ study }) => study?.id)).map((value) => ({
      value,
      title: studies.all.find(({ id }) => id === value)?.name ?? value,
    })),
    method: of(all.map(({ method }) => method)).map((value) => ({ value, title: methods.byId(value)?.name ?? value })),
    ending: of(all.map(({ stop }) => stop)),
    tag: of(all.flatMap(({ tags = [] }) => tags)),
  };
});
const FACTS = ['device', 'charger', 'study', 'method', 'ending', 'tag'] as const;
function clearFilter(): void {
  [search.value, filter.value, days.value] = ['', {}, { from: '', to: '' }];
}

/** Those that are picked and still stand in the list. */
const chosen = computed(() => logbook.summaries.filter(({ id }) => picked.value.includes(id)).map(({ id }) => id));

async function discard(): Promise<void> {
  trouble.value = '';
  try {
    await acts.discard(chosen.value);
    picked.value = [];
  } catch (error) {
    trouble.value = troubleOf(error);
  }
}

const longest = computed(() => Math.max(600, max(found.value, ({ end }) => end) ?? 0));
/** Height of a row, in pixels: a phone shows it as a card of two lines. */
const isPhone = useMediaQuery('(max-width: 40em)');
const rem = Number.parseFloat(getComputedStyle(document.documentElement).fontSize) || 16;
const rowHeight = computed(() => (isPhone.value ? 6 : 3.625) * rem);

function readsOf({ reads, startLevel, lastLevel }: Summary): string {
  if (reads !== undefined) return inManner(reads);
  return lastLevel === undefined ? '—' : `${startLevel ?? '?'} → ${lastLevel} %`;
}

function toggle(id: string, on: boolean | null): void {
  picked.value = on ? [...picked.value, id] : picked.value.filter((each) => each !== id);
}

function compare(): void {
  void router.push({ path: '/compare', query: { runs: chosen.value.join('.') } });
}

/** The list as it is found and ordered, whether it is on the screen or not. */
const taken = () => ({
  table: {
    caption: 'Finished runs',
    heads: ['Device', 'Charger', 'Tags', 'Plugged in', 'Length', 'Read', 'To 80 %', 'To 100 %', 'Ended'],
    rows: found.value.map((item) => [
      item.device,
      item.charger,
      item.tags?.join(', '),
      momentText(item.plugInAt, { year: true }),
      spell(item.end),
      readsOf(item),
      item.timeTo80,
      item.timeTo100,
      item.stop ? endingWord({ because: item.stop }) : 'never stopped',
    ]),
  },
});

/** On paper the whole list is told: on the screen there are only as many rows as are seen. */
const list = useTemplateRef<HTMLElement>('list');
watch(list, (element) => element && printsAs(element, { table: () => taken().table }));

/** What can be exported from here: what was asked for stands first. */
const exporting = shallowRef<Target[]>();
function exportChosen(): void {
  exporting.value = [
    runsTarget(chosen.value.length === 1 ? 'The run that is picked' : `The ${chosen.value.length} runs that are picked`, chosen.value),
    WHOLE,
  ];
}
function exportAll(): void {
  const all = found.value.map(({ id }) => id);
  exporting.value = [WHOLE, ...(isFiltered.value || search.value ? [runsTarget(`The ${all.length} runs that were found`, all)] : [])];
}
</script>

<template>
  <section class="sheet list">
    <header>
      <h1>Runs</h1>
      <p class="soft">every finished run, and what its readings say</p>
      <div class="actions">
        <MoreActions>
          <v-btn to="/live/paper" variant="text">From paper</v-btn>
          <v-btn v-if="logbook.summaries.length + lanes.records.length > 0" variant="text" @click="exportAll">Export the logbook</v-btn>
        </MoreActions>
        <v-btn variant="flat" color="primary" @click="importing = true">Import a file</v-btn>
      </div>
    </header>
    <SetAsideRuns v-if="lanes.aside.size > 0" />
    <template v-if="logbook.summaries.length === 0">
      <p class="empty">Runs come here when they are stopped. A meter’s log or a logbook can be imported, too.</p>
      <FirstPath />
    </template>
    <template v-else>
      <div class="search">
        <v-text-field
          v-model="search"
          label="Find a device, charger, tag or note"
          type="search"
          density="compact"
          clearable
          @click:clear="search = ''"
        />
        <v-select v-model="order" :items="RUN_ORDERS" item-title="says" item-value="id" label="Order" density="compact" />
        <v-btn variant="text" :aria-expanded="filtering" @click="filtering = !filtering">Filter{{ isFiltered ? ' · on' : '' }}</v-btn>
      </div>
      <fieldset v-if="filtering" class="facts">
        <legend class="unseen-text">Filter</legend>
        <template v-for="fact in FACTS" :key="fact">
          <v-autocomplete
            v-if="choices[fact].length > 0"
            v-model="filter[fact]"
            :items="choices[fact]"
            :label="upperFirst(fact)"
            density="compact"
            placeholder="any"
            clearable
            @click:clear="filter[fact] = undefined"
          />
        </template>
        <DateField v-model="days.from" label="From" type="date" density="compact" />
        <DateField v-model="days.to" label="To" type="date" density="compact" />
        <v-btn variant="text" @click="clearFilter">Show all</v-btn>
      </fieldset>
      <div class="many" role="group" aria-label="With those that are picked">
        <span class="soft">{{ chosen.length === 0 ? `${found.length} runs` : `${chosen.length} of ${found.length} picked` }}</span>
        <v-btn size="small" variant="text" @click="picked = found.map(({ id }) => id)">Pick all found</v-btn>
        <v-btn v-if="chosen.length > 0" size="small" variant="text" @click="picked = []">Pick none</v-btn>
        <v-btn size="small" :disabled="chosen.length < 2" :title="chosen.length < 2 ? 'Pick two runs or more' : ''" @click="compare"
          >Compare{{ chosen.length > 1 ? ` ${chosen.length} runs` : '' }}</v-btn
        >
        <span v-if="chosen.length < 2" class="soft">pick two or more</span>
        <template v-if="chosen.length > 0">
          <v-btn size="small" @click="tagging = true">Tag</v-btn>
          <v-btn size="small" @click="exportChosen">Export</v-btn>
          <v-btn size="small" @click="discard">Discard</v-btn>
        </template>
        <span v-if="trouble" class="due" role="alert">{{ trouble }}</span>
        <CopyButton name="the list" :take="taken" />
      </div>
      <p v-if="found.length === 0" class="first-step">No run fits. <v-btn @click="clearFilter">Show all</v-btn></p>
      <div v-else ref="list" role="table" aria-label="Finished runs" :aria-rowcount="found.length + 1" class="table">
        <div role="rowgroup">
          <div role="row" class="row head">
            <span role="columnheader"><span class="unseen-text">Pick</span></span>
            <span role="columnheader">Setup</span>
            <span role="columnheader" class="wide">Plugged in</span>
            <span role="columnheader" class="wide">Strip</span>
            <span role="columnheader" class="right">Read</span>
            <span role="columnheader" class="right">To 80 %</span>
            <span role="columnheader" class="right">To 100 %</span>
            <span role="columnheader" class="wide">Ended</span>
          </div>
        </div>
        <v-virtual-scroll :key="rowHeight" :items="found" :item-height="rowHeight" role="rowgroup" class="rows">
          <template #default="{ item, index }">
            <div role="row" class="row" :aria-rowindex="index + 2">
              <span role="cell">
                <v-checkbox
                  :model-value="picked.includes(item.id)"
                  :aria-label="`Pick ${item.device} on ${item.charger}, ${momentText(item.plugInAt)}`"
                  density="compact"
                  @update:model-value="(on) => toggle(item.id, on)"
                />
              </span>
              <span role="cell"
                ><RouterLink class="setup" :to="`/runs/${item.id}`" :title="`${item.device} on ${item.charger}`">
                  <PenNib :pen="item.pen" />
                  <span class="name"
                    >{{ item.device }}<br /><span class="soft"
                      >{{ item.charger }}<template v-if="item.owner"> · {{ item.owner }}</template
                      ><template v-if="item.tags"> · {{ item.tags.join(', ') }}</template></span
                    ></span
                  >
                </RouterLink></span
              >
              <span role="cell" class="wide soft">{{ momentText(item.plugInAt, { year: true }) }}<br />{{ spell(item.end) }}</span>
              <span role="cell" class="wide mini"
                ><InkStrip
                  :traces="[outlineOf(item)]"
                  size="row"
                  :until="longest"
                  :caption="`Outline of ${item.device} on ${item.charger}`"
              /></span>
              <span role="cell" class="right figures" data-label="read">{{ readsOf(item) }}</span>
              <span role="cell" class="right figures" data-label="to 80 %">{{ item.timeTo80 }}</span>
              <span role="cell" class="right figures" data-label="to 100 %">{{ item.timeTo100 }}</span>
              <span role="cell" class="wide soft">{{ item.stop ? endingWord({ because: item.stop }) : 'never stopped' }}</span>
            </div>
          </template>
        </v-virtual-scroll>
      </div>
    </template>
    <details v-if="logbook.discarded.length > 0" class="discarded">
      <summary>
        {{ logbook.discarded.length === 1 ? 'One run was' : `${logbook.discarded.length} runs were` }} discarded: kept for 30 days
      </summary>
      <ul>
        <li v-for="item in logbook.discarded" :key="item.id">
          {{ item.device }} on {{ item.charger }}, {{ momentText(item.plugInAt, { year: true }) }}
          <v-btn
            size="small"
            variant="text"
            :aria-label="`Put ${item.device} on ${item.charger}, ${momentText(item.plugInAt)}, back`"
            @click="acts.putBack(item.id)"
            >Put back</v-btn
          >
        </li>
      </ul>
    </details>
    <TagSheet v-if="tagging" v-model="tagging" :ids="chosen" />
    <ImportSheet v-if="importing" v-model="importing" />
    <ExportSheet v-if="exporting" :model-value="true" :targets="exporting" @update:model-value="exporting = undefined" />
  </section>
</template>

<style scoped>
.list {
  display: flex;
  flex-direction: column;
  height: 100%;
}

.list > :not(.table) {
  flex: none;
}

.search {
  display: grid;
  grid-template-columns: minmax(0, 24rem) minmax(0, 13rem) max-content;
  gap: 0.5rem 1.5rem;
  align-items: end;
  padding: 0.6rem 1.5rem 0.2rem;
}

.facts {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(100%, 11rem), 1fr));
  gap: 0.5rem 1.5rem;
  align-items: end;
  min-width: 0;
  margin: 0;
  padding: 0.3rem 1.5rem 0.5rem;
  border: 0;
}

.many {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
  align-items: center;
  padding: 0.3rem 1.5rem;
}

.discarded {
  padding: 0.6rem 1.5rem;
  border-top: 1px solid rgb(var(--v-theme-line));
}

.discarded ul {
  list-style: none;
}

summary {
  cursor: pointer;
}

.table {
  flex: 1;
  display: flex;
  flex-direction: column;
  min-height: 12rem;
}

.rows {
  flex: 1;
}

.row {
  display: grid;
  grid-template-columns: 2.5rem minmax(9rem, 1.4fr) 9.2rem minmax(8rem, 1fr) 7.5rem 7rem 7rem 6.5rem;
  gap: 0 0.75rem;
  align-items: center;
  min-height: 3.625rem;
  padding-inline: 1rem 1.5rem;
  border-bottom: 1px solid rgb(var(--v-theme-grid));
  font-size: 0.9rem;
}

.head {
  min-height: 2.2rem;
  font-weight: 600;
  font-size: 0.82rem;
  color: rgb(var(--v-theme-soft));
  border-bottom-color: rgb(var(--v-theme-line));
}

.right {
  text-align: end;
}

.setup {
  display: flex;
  align-items: center;
  gap: 0.6rem;
  min-width: 0;
  text-decoration: none;
  line-height: 1.25;
}

.name {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}

.setup:hover .name {
  text-decoration: underline;
}

.mini {
  height: 44px;
}

@media (max-width: 56.25em) {
  .search {
    grid-template-columns: minmax(0, 1fr) max-content;
    padding-inline: 1rem;
  }

  .search > :first-child {
    grid-column: 1 / -1;
  }

  .row {
    grid-template-columns: 2.5rem minmax(0, 1fr) 5.2rem 4.2rem 4.2rem;
    gap: 0 0.4rem;
    padding-inline: 0.5rem;
    font-size: 0.82rem;
  }

  .wide {
    display: none;
  }
}

@media (max-width: 40em) {
  .head {
    display: none;
  }

  .row {
    grid-template-columns: 2.75rem 1fr 0.9fr 1.15fr;
    align-content: center;
    column-gap: 0.5rem;
    height: 6rem;
    padding-inline: 0.25rem 0.75rem;
  }

  .row > span:first-child {
    grid-row: 1 / span 2;
  }

  .row > span:nth-child(2) {
    grid-column: 2 / -1;
    min-width: 0;
  }

  .row > .right {
    overflow: hidden;
    font-size: 0.78rem;
    line-height: 1.25;
    text-align: start;
  }

  .right::before {
    content: attr(data-label);
    display: block;
    font-family: var(--words);
    font-size: 0.7rem;
    color: rgb(var(--v-theme-soft));
  }
}
</style>
