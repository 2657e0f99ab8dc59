<script setup lang="ts">
import { nanoid } from 'nanoid';
import { computed, ref, shallowRef } from 'vue';
import { type Shelf } from '@core/bench';
import { ImportError, readGearCsv, shelved, type ReadGear } from '@core/exchange';
import DraftOffer from '../kit/DraftOffer.vue';
import { useDraft } from '../kit/drafts';
import { useShelf } from '../logbook/shelf';
import { troubleOf } from '../logbook/trouble';

/** Brings gear in from a CSV: shows which rows stand and which do not, before anything is stored. */
const emit = defineEmits<{ done: [brought?: Shelf] }>();

/** How many of the rows that were left out are told one by one. */
const MOST_TOLD = 50;

const bench = useShelf();
const read = shallowRef<ReadGear>();
const error = ref('');
const busy = ref(false);

/** Gear by its shelf and name. */
const byName = computed(() => new Map(bench.all.map((each) => [`${each.shelf}/${each.gear.name}`, each])));
const knownAs = ({ shelf, gear }: ReadGear['gear'][number]) => byName.value.get(`${shelf}/${gear.name}`);

const chosen = shallowRef<File>();
/** On which shelf the first of it was put. */
const brought = ref<Shelf>();
const { offer, close, end } = useDraft(
  'gear file',
  () => ({ file: chosen.value, name: chosen.value?.name }),
  ({ file }) => void choose(file),
  () => {
    emit('done', brought.value);
  },
);

async function choose(files: File | File[] | null | undefined): Promise<void> {
  const file = Array.isArray(files) ? files[0] : files;
  read.value = undefined;
  error.value = '';
  chosen.value = file ?? undefined;
  if (!file) return;
  try {
    read.value = readGearCsv(await file.text(), file.name);
  } catch (trouble) {
    if (!(trouble instanceof ImportError)) throw trouble;
    error.value = trouble.message;
  }
}

async function importFile(): Promise<void> {
  const gear = read.value?.gear ?? [];
  busy.value = true;
  try {
    const ids = new Map(gear.map((each) => [`${each.shelf}/${each.gear.name}`, knownAs(each)?.gear.id ?? nanoid(10)]));
    await bench.put(...shelved(gear, (shelf, name) => ids.get(`${shelf}/${name}`) ?? byName.value.get(`${shelf}/${name}`)?.gear.id));
    brought.value = gear[0]?.shelf;
    end();
  } catch (trouble) {
    error.value = troubleOf(trouble, 'Not saved.');
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <v-dialog :model-value="true" max-width="600" aria-labelledby="gear-file-title" @update:model-value="close">
    <v-card>
      <h2 id="gear-file-title">Import gear</h2>
      <DraftOffer :draft="offer" />
      <p class="soft">
        A CSV with a row a piece, headed as “Export gear” heads it. Gear of the same name on the same shelf is changed; runs keep it as it
        was. Nothing is stored until you say so.
      </p>
      <v-file-input label="File" accept=".csv,text/csv" @update:model-value="choose" />
      <p v-if="error" class="due" role="alert">{{ error }}</p>
      <template v-if="read">
        <p role="status">
          Rows that stand: {{ read.gear.length }}, new here: {{ read.gear.filter((each) => !knownAs(each)).length }}. Left out:
          {{ read.refused.length }}.
        </p>
        <p v-if="read.ignored.length > 0" class="soft">Not read: {{ read.ignored.join(', ') }}.</p>
        <ul v-if="read.refused.length > 0" class="refused">
          <li v-for="sentence in read.refused.slice(0, MOST_TOLD)" :key="sentence" class="due">{{ sentence }}</li>
          <li v-if="read.refused.length > MOST_TOLD">and {{ read.refused.length - MOST_TOLD }} more</li>
        </ul>
      </template>
      <div class="buttons">
        <v-btn
          variant="flat"
          color="primary"
          :disabled="!read || read.gear.length === 0"
          :title="read ? '' : 'Choose a file that can be read first'"
          :loading="busy"
          @click="importFile"
          >Import it</v-btn
        >
        <v-btn @click="end">Cancel</v-btn>
      </div>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.refused {
  padding-inline-start: 1.1rem;
  font-size: 0.9rem;
  overflow-wrap: anywhere;
}
</style>
