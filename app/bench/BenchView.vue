<script setup lang="ts">
import { nanoid } from 'nanoid';
import { computed, defineAsyncComponent, ref, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { SHELVES, type Gear, type Kept, type Shelf } from '@core/bench';
import { carried } from '@core/ink';
import { WHOLE, type Target } from '../exports/target';
import MoreActions from '../kit/MoreActions.vue';
import { useLanes } from '../logbook/lanes';
import { useLogbook } from '../logbook/runs';
import { useShelf } from '../logbook/shelf';
import { troubleOf } from '../logbook/trouble';
import UnreadNote from '../logbook/UnreadNote.vue';
import GearFileSheet from './GearFileSheet.vue';
import GearForm from './GearForm.vue';
import CopyButton from '../kit/CopyButton.vue';
import ShelfTable from './ShelfTable.vue';
import { SHELF_WORDS } from './words';

const ExportSheet = defineAsyncComponent(() => import('../exports/ExportSheet.vue'));
const FirstPath = defineAsyncComponent(() => import('../logbook/FirstPath.vue'));

/** The shelf: what is charged, what it is charged from, and what lies in between. */
const route = useRoute();
const router = useRouter();
const bench = useShelf();
const logbook = useLogbook();
const lanes = useLanes();
const editing = ref<{ shelf: Shelf; gear: Partial<Gear> & { id: string } }>();
const retired = ref<Kept>();
const importing = ref(false);
const search = ref('');
const trouble = ref('');

const shelf = computed<Shelf>(() => SHELVES.find((each) => each === route.query.shelf) ?? 'device');
const showsRetired = ref(false);
const standing = computed(() => bench.all.filter((each) => each.shelf === shelf.value));
const rows = computed(() => standing.value.filter(({ gear }) => showsRetired.value || !gear.retired));
const anyRetired = computed(() => standing.value.some(({ gear }) => gear.retired));
const countOf = (each: Shelf) => bench.all.filter(({ shelf: on, gear }) => on === each && !gear.retired).length;
/** Gear that a run used; a list made before that was noted counts as having used all. */
const used = computed(() => {
  const ids = lanes.records.flatMap(({ header, sources }) => carried(header, sources).map(({ gear }) => gear.id));
  const noted = logbook.summaries.every(({ gear }) => gear !== undefined);
  return { isAll: !noted, ids: new Set([...ids, ...logbook.summaries.flatMap(({ gear }) => gear ?? [])]) };
});
const mayRemove = ({ gear }: Kept) => Boolean(gear.retired) && !used.value.isAll && !used.value.ids.has(gear.id);

/** What was put on the shelf first leads on: to the other half of a pair, then to a run. */
const added = ref<string>();
const next = computed(() => {
  if (added.value === undefined || lanes.records.length + logbook.summaries.length > 0) return undefined;
  const says = `${added.value} is on the shelf.`;
  if (bench.chargers.length === 0) return { says, act: 'Add a charger', to: '/bench?shelf=charger&add=1' };
  if (bench.devices.length === 0) return { says, act: 'Add a device', to: '/bench?shelf=device&add=1' };
  return { says, act: 'Start a run', to: '/live/new' };
});
const add = () => (editing.value = { shelf: shelf.value, gear: { id: nanoid(10) } });
const change = ({ shelf: on, gear }: Kept) => (editing.value = { shelf: on, gear });
const copy = ({ shelf: on, gear }: Kept) =>
  (editing.value = { shelf: on, gear: { ...gear, id: nanoid(10), name: `${gear.name}, another`, retired: undefined } });

function leadOn(name: string, isOn: boolean): void {
  added.value = name;
  if (isOn && next.value) void router.replace(next.value.to);
}
/** The address may ask for the form itself. */
watch(
  () => route.query.add,
  (asked) => {
    if (asked === undefined) return;
    add();
    void router.replace({ query: { ...route.query, add: undefined } });
  },
  { immediate: true },
);

async function guarded(work: () => Promise<void>): Promise<void> {
  trouble.value = '';
  try {
    await work();
  } catch (error) {
    trouble.value = troubleOf(error, 'Nothing was changed.');
  }
}

const retire = (kept: Kept) =>
  guarded(async () => {
    await bench.retire(kept);
    retired.value = kept;
  });
const putBack = (kept: Kept) =>
  guarded(async () => {
    await bench.retire(kept, false);
    retired.value = undefined;
  });
const remove = (kept: Kept) => guarded(() => bench.remove(kept));

const exporting = ref(false);
const targets: Target[] = [{ of: 'shelf', says: 'The gear of the bench', name: 'inkpath gear' }, WHOLE];
</script>

<template>
  <section class="sheet">
    <header>
      <h1>Bench</h1>
      <nav aria-label="Shelves" class="shelves">
        <RouterLink
          v-for="each in SHELVES"
          :key="each"
          :to="{ query: { shelf: each } }"
          replace
          :class="{ here: each === shelf }"
          :aria-current="each === shelf ? 'page' : undefined"
          >{{ SHELF_WORDS[each].plural }} <span class="figures soft">{{ countOf(each) }}</span></RouterLink
        >
      </nav>
      <div class="actions">
        <MoreActions>
          <v-btn v-if="bench.isStocked" to="/bench/expect" variant="text">What to expect</v-btn>
          <v-btn variant="text" @click="importing = true">Import gear</v-btn>
          <v-btn v-if="bench.all.length > 0" variant="text" @click="exporting = true">Export gear</v-btn>
        </MoreActions>
        <v-btn v-if="standing.length > 0" variant="flat" color="primary" @click="add">{{ SHELF_WORDS[shelf].add }}</v-btn>
      </div>
    </header>
    <UnreadNote :unread="bench.unread" />
    <div class="body">
      <p v-if="trouble" class="due" role="alert">{{ trouble }}</p>
      <p v-if="next" class="next" role="status">
        {{ next.says }} <v-btn :to="next.to" variant="flat" color="primary" size="small">{{ next.act }}</v-btn>
      </p>
      <p v-if="retired" class="retired" role="status">
        {{ retired.gear.name }} is retired: kept for its runs, and no longer offered.
        <v-btn size="small" @click="putBack(retired)">Put it back</v-btn>
      </p>
      <div v-if="standing.length === 0" class="first-step">
        <h2>{{ SHELF_WORDS[shelf].none }}</h2>
        <v-btn variant="flat" color="primary" @click="add">{{ SHELF_WORDS[shelf].add }}</v-btn>
      </div>
      <FirstPath v-if="bench.count === 0" />
      <div v-else-if="standing.length > 0" data-copied>
        <div class="sieve">
          <v-text-field v-model="search" :label="`Search ${SHELF_WORDS[shelf].plural.toLowerCase()}`" clearable density="compact" />
          <v-checkbox v-if="anyRetired" v-model="showsRetired" label="Show what is retired" />
          <CopyButton name="the shelf" />
        </div>
        <ShelfTable
          :key="shelf"
          :shelf="shelf"
          :rows="rows"
          :search="search ?? ''"
          :may-remove="mayRemove"
          @change="change"
          @copy="copy"
          @retire="retire"
          @put-back="putBack"
          @remove="remove"
        />
      </div>
    </div>
    <GearForm
      v-if="editing"
      :key="editing.gear.id"
      :shelf="editing.shelf"
      :gear="editing.gear"
      @saved="leadOn"
      @done="editing = undefined"
    />
    <GearFileSheet
      v-if="importing"
      @done="
        (brought) => {
          importing = false;
          if (brought) void router.replace({ query: { shelf: brought } });
        }
      "
    />
    <ExportSheet v-if="exporting" v-model="exporting" :targets="targets" />
  </section>
</template>

<style scoped>
.shelves {
  display: flex;
  gap: 1.1rem;
  overflow-x: auto;
}

.shelves a {
  flex: none;
  white-space: nowrap;
  text-decoration: none;
  border-bottom: 2px solid transparent;
}

.shelves a.here {
  font-weight: 700;
  border-bottom-color: rgb(var(--v-theme-due));
}

.sieve {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem 1.5rem;
  align-items: center;
  padding-bottom: 0.75rem;
}

.sieve > .v-text-field {
  flex: 0 1 18rem;
}

.retired {
  padding-bottom: 0.75rem;
}

.first-step {
  padding: 2rem 0;
}
</style>
