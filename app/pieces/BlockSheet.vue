<script setup lang="ts">
import { computed, defineAsyncComponent, ref, watch } from 'vue';
import type { ComposedBlock, KnownFigure, Paragraph, WordPart, PieceBlock, WrittenUp } from '@core/report';
import { isHeaded } from '@core/report';
import CopyButton from '../kit/CopyButton.vue';
import PickMany from '../kit/PickMany.vue';
import DrawnPicture from '../strip/DrawnPicture.vue';
import PictureButton from '../strip/PictureButton.vue';
import FigureInWords from './FigureInWords.vue';
import type { DrawnBlock } from './pictures';

const WordsEditor = defineAsyncComponent(() => import('./WordsEditor.vue'));

/** One block of a piece as it is read, with what changes it. */
const props = defineProps<{
  block: ComposedBlock;
  kept: PieceBlock | undefined;
  written: WrittenUp;
  known: ReadonlyMap<string, KnownFigure>;
  drawn: DrawnBlock | undefined;
  /** What stands about a picture that leaves by itself. */
  text: { title: string; lines: readonly string[]; foot: string };
  canHide: boolean;
}>();
const emit = defineEmits<{
  change: [part: Partial<PieceBlock>];
  write: [words: Paragraph[]];
  unwrite: [];
  keepWords: [];
  settle: [at: readonly [number, number], isUsed: boolean];
}>();

const isEditing = ref(false);
const isChoosing = ref(false);
/** Items that follow each other are one list. */
const runsOfWords = computed(() => {
  const found: { as: Paragraph['as']; all: { index: number; parts: WordPart[] }[] }[] = [];
  for (const [index, { as, parts }] of props.block.words.entries()) {
    const last = found.at(-1);
    if (as === 'item' && last?.as === 'item') last.all.push({ index, parts });
    else found.push({ as, all: [{ index, parts }] });
  }
  return found;
});
/** Figures that a table or bars can show. */
const offered = computed(() => {
  const { id } = props.block;
  if (id === 'bars')
    return props.written.columns.filter(({ measure }) => measure.better).map(({ measure }) => ({ id: measure.id, name: measure.title }));
  return (props.written.tables[id]?.columns ?? []).map(({ id: column, title }) => ({ id: column, name: title }));
});
const columns = computed(() => props.kept?.columns ?? props.written.usual[props.block.id === 'bars' ? 'times' : props.block.id] ?? []);
const setups = computed(() => props.written.setups.map(({ id, name }) => ({ id, name })));
const caption = ref(props.block.caption);
const title = ref(props.block.title);
// Each by itself: what is being typed into the one is not what is stored of the other.
watch(
  () => props.block.caption,
  (stored) => (caption.value = stored),
);
watch(
  () => props.block.title,
  (stored) => (title.value = stored),
);
const keepCaption = () => {
  if (caption.value.trim() !== props.block.caption) emit('change', { caption: caption.value.trim() || undefined });
};
const keepTitle = () => {
  if (title.value.trim() !== props.block.title) emit('change', { title: title.value.trim() || undefined });
};
const textOfWords = () => ({
  text: props.block.words.map(({ as, parts }) => (as === 'item' ? '- ' : '') + parts.map(({ text }) => text).join('')).join('\n'),
});
</script>

<template>
  <section :id="`block-${block.id}`" class="block" :class="[block.id, { hidden: block.isHidden }]" :aria-label="block.title" data-copied>
    <header class="head">
      <h2 :class="{ quiet: !isHeaded(block) }">{{ block.title }}</h2>
      <div v-if="!isEditing" class="own" data-acts>
        <template v-if="block.kind === 'words'">
          <CopyButton v-if="block.words.length > 0" :name="block.title" :take="textOfWords" />
          <v-btn size="small" variant="text" :aria-label="`Edit ${block.title}`" @click="isEditing = true">Edit</v-btn>
          <v-btn
            v-if="block.isOwn && !block.isStale"
            size="small"
            variant="text"
            :aria-label="`Take what is worked out: ${block.title}`"
            @click="emit('unwrite')"
            >As worked out</v-btn
          >
        </template>
        <template v-else>
          <CopyButton v-if="block.kind === 'table'" :name="block.title" is-row>
            <PictureButton :name="block.title" :text="{ ...text, title: block.title }" />
          </CopyButton>
          <PictureButton v-else-if="drawn" :name="block.title" :text="{ ...text, title: block.title }" :body="drawn.body" />
          <v-btn
            size="small"
            variant="text"
            :aria-expanded="isChoosing"
            :aria-label="`What ${block.title} shows`"
            @click="isChoosing = !isChoosing"
            >Choose</v-btn
          >
        </template>
        <v-btn
          v-if="canHide"
          size="small"
          variant="text"
          :aria-label="`${block.isHidden ? 'Show' : 'Hide'} ${block.title}`"
          @click="emit('change', { hidden: block.isHidden ? undefined : true })"
          >{{ block.isHidden ? 'Show' : 'Hide' }}</v-btn
        >
      </div>
    </header>
    <div v-if="isChoosing" class="choosing" data-acts>
      <v-text-field v-model="title" label="Heading" maxlength="120" density="compact" hide-details @change="keepTitle" />
      <PickMany
        v-if="offered.length > 0"
        name="Figures"
        hint="in the order in which they are picked"
        :items="offered"
        :model-value="columns"
        @update:model-value="(ids: string[]) => emit('change', { columns: ids.length > 0 ? ids : undefined })"
      />
      <PickMany
        name="Setups"
        hint="in the order in which they are picked"
        :items="setups"
        :model-value="[...block.setups]"
        @update:model-value="(ids: string[]) => emit('change', { setups: ids.length > 0 ? ids : undefined })"
      />
      <v-text-field v-model="caption" label="What stands beneath it" maxlength="600" density="compact" hide-details @change="keepCaption" />
    </div>
    <p v-if="block.isStale && !isEditing" class="due" role="status" data-acts>
      What this was written from has changed. Figures that did are marked.
      <button type="button" class="link" @click="emit('keepWords')">Keep my words</button>
      <button type="button" class="link" @click="emit('unwrite')">Take what is worked out</button>
    </p>
    <WordsEditor
      v-if="isEditing"
      :name="block.title"
      :words="block.words"
      @write="(words) => emit('write', words)"
      @close="isEditing = false"
    />
    <p v-else-if="block.isEmpty !== undefined" class="soft" data-acts>{{ block.isEmpty }} <slot /></p>
    <div v-else-if="block.kind === 'words'" class="words">
      <component :is="as === 'item' ? 'ul' : 'div'" v-for="({ as, all }, group) in runsOfWords" :key="group">
        <component :is="as === 'item' ? 'li' : 'p'" v-for="{ index, parts } in all" :key="index"
          ><template v-for="(part, place) in parts" :key="place"
            ><FigureInWords
              v-if="part.ref !== undefined"
              :part="part"
              :known="known"
              @settle="(isUsed) => emit('settle', [index, place], isUsed)"
            /><strong v-else-if="part.bold">{{ part.text }}</strong
            ><em v-else-if="part.italic">{{ part.text }}</em
            ><template v-else>{{ part.text }}</template></template
          ></component
        >
      </component>
    </div>
    <div v-else-if="block.table" class="across" tabindex="0" role="region" :aria-label="`${block.title}, the table`">
      <table>
        <caption class="unseen-text">
          {{
            block.title
          }}
        </caption>
        <thead>
          <tr>
            <th scope="col">Setup</th>
            <th v-for="{ id, title: says } in block.table.columns" :key="id" scope="col">{{ says }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="{ setup, name, cells } in block.table.rows" :key="setup">
            <th scope="row">{{ name }}</th>
            <td v-for="(cell, at) in cells" :key="at" :class="block.table.columns[at]?.isText ? 'text' : 'figures'">
              <span>{{ cell.value }}</span> <small v-if="cell.margin" class="soft">{{ cell.margin }}</small>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <template v-else-if="drawn">
      <DrawnPicture :body="drawn.body" :height="drawn.height" :caption="drawn.says" />
      <details>
        <summary class="soft">The same as a table</summary>
        <div class="across" tabindex="0" role="region" :aria-label="`${drawn.twin.caption}, as a table`">
          <table>
            <caption class="unseen-text">
              {{
                drawn.twin.caption
              }}
            </caption>
            <thead>
              <tr>
                <th v-for="head in drawn.twin.heads" :key="head" scope="col">{{ head }}</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="(row, index) in drawn.twin.rows" :key="index">
                <th scope="row">{{ row[0] }}</th>
                <td v-for="(cell, at) in row.slice(1)" :key="at" class="figures">{{ cell ?? '—' }}</td>
              </tr>
            </tbody>
          </table>
        </div>
      </details>
    </template>
    <p v-if="block.caption && block.isEmpty === undefined" class="soft caption">{{ block.caption }}</p>
    <p v-else-if="block.table && block.isEmpty === undefined" class="soft caption">{{ block.table.note }}</p>
  </section>
</template>

<style scoped>
.block {
  padding-block: 0.4rem 1.1rem;
  scroll-margin-top: 1rem;
}

.hidden > :not(.head) {
  display: none;
}

.hidden h2 {
  text-decoration: line-through;
  color: rgb(var(--v-theme-soft));
}

.head {
  display: flex;
  flex-wrap: wrap;
  gap: 0 1rem;
  align-items: baseline;
  justify-content: space-between;
}

h2 {
  font-size: 1.2rem;
}

.quiet {
  font-size: 0.85rem;
  color: rgb(var(--v-theme-soft));
}

.own {
  display: flex;
  flex-wrap: wrap;
}

.words {
  max-width: 46rem;
  overflow-wrap: anywhere;
}

.words p {
  margin-bottom: 0.5rem;
}

.words ul {
  margin-bottom: 0.6rem;
  padding-inline-start: 1.2rem;
}

.short .words {
  padding-inline-start: 1rem;
  border-inline-start: 3px solid rgb(var(--v-theme-ink));
  font-size: 1.12rem;
  line-height: 1.5;
}

.choosing {
  display: grid;
  gap: 0.6rem;
  max-width: 46rem;
  padding-block: 0.4rem 0.8rem;
}

.across {
  overflow-x: auto;
}

table {
  border-collapse: collapse;
  min-width: min(100%, 30rem);
}

th,
td {
  padding: 0.3rem 0.9rem 0.3rem 0;
  text-align: end;
  vertical-align: baseline;
  border-bottom: 1px solid rgb(var(--v-theme-grid));
}

th:first-child {
  text-align: start;
  font-weight: 600;
}

thead th {
  font-weight: 400;
  color: rgb(var(--v-theme-soft));
}

td.figures {
  white-space: nowrap;
}

td.text {
  min-width: 9rem;
  text-align: start;
}

td small {
  display: block;
  font-size: 0.8rem;
}

.caption {
  padding-top: 0.4rem;
  font-size: 0.88rem;
}

summary {
  cursor: pointer;
  font-size: 0.88rem;
}

.link + .link {
  margin-inline-start: 0.7rem;
}
</style>
