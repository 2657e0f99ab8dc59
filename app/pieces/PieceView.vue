<script setup lang="ts">
import { computed, defineAsyncComponent, onMounted, ref, shallowRef, useTemplateRef, watch } from 'vue';
import { useRouter } from 'vue-router';
import { lettersLacking, timeMark, READ_ALOUD, type BlockId } from '@core/report';
import { dayText } from '../kit/dates';
import MoreActions from '../kit/MoreActions.vue';
import { printsAs } from '../kit/printing';
import { usePageTitle } from '../kit/pageTitle';
import { report } from '../kit/failures';
import { pieceTarget, type Target } from '../exports/target';
import FormSheet from '../logbook/FormSheet.vue';
import { usePieces } from '../logbook/pieces';
import BlockList from './BlockList.vue';
import BlockSheet from './BlockSheet.vue';
import { useWriting } from './writing';

const ExportSheet = defineAsyncComponent(() => import('../exports/ExportSheet.vue'));

/** A piece: its blocks at the side, and what readers will get. */
const props = defineProps<{ id: string }>();

const router = useRouter();
const pieces = usePieces();
const writing = useWriting(() => props.id);
const { piece, blocks, written, drawn, about, plainPage, script, gone, trouble, isOpen, isLoaded, opened } = writing;
onMounted(() => writing.load());
/** On paper it is what readers get, and nothing else. */
const sheet = useTemplateRef<HTMLElement>('sheet');
watch(sheet, (element) => element && printsAs(element, { html: writing.onPaper }));
usePageTitle(() => piece.value?.name ?? 'Piece');

const VOICES = { page: 'Page', script: 'Script' } as const;
const voice = ref<keyof typeof VOICES>('page');
const at = ref<BlockId>();
function go(block: BlockId): void {
  at.value = block;
  voice.value = 'page';
  document.getElementById(`block-${block}`)?.scrollIntoView({ block: 'start' });
}

const stale = computed(() => blocks.value.filter(({ isStale, isHidden }) => isStale && !isHidden));
/** Letters that our type does not have: said before anything leaves. */
const lacking = computed(() => lettersLacking(plainPage.value));
const day = (when: number) => dayText(when, { year: true });
const state = computed(() => (piece.value?.published ? `published ${day(piece.value.published.at)}` : 'draft'));
const pictureText = computed(() => ({ title: about.value.title, lines: [], foot: about.value.dated }));

const isNaming = ref(false);
const name = ref('');
function openName(): void {
  name.value = piece.value?.name ?? '';
  isNaming.value = true;
}
async function rename(): Promise<string | undefined> {
  if (name.value.trim() === '') return 'Give it a name: it heads the page.';
  await writing.change(() => ({ name: name.value.trim() }));
  return undefined;
}
const lent = ref<string>();
async function keepLent(): Promise<void> {
  const said = lent.value?.trim() || undefined;
  await writing.change(() => ({ lent: said }));
  lent.value = undefined;
}
async function remove(): Promise<void> {
  await pieces.remove(props.id);
  await router.push('/pieces');
}

const targets = shallowRef<Target[]>([]);
const exporting = ref(false);
async function startExport(): Promise<void> {
  try {
    const { drawnPage } = await import('./leaving');
    targets.value = [pieceTarget(about.value.title, await drawnPage(writing))];
    exporting.value = true;
  } catch (error) {
    report(error);
  }
}
const corrections = computed(() => [...(piece.value?.corrections ?? [])].reverse());
const changeCorrection = (id: string, text: string) =>
  writing.change(({ corrections: lines }) => ({ corrections: lines?.map((each) => (each.id === id ? { ...each, text } : each)) }));
</script>

<template>
  <section ref="sheet" class="sheet">
    <template v-if="piece">
      <header>
        <h1 :title="piece.name">{{ piece.name }}</h1>
        <p class="soft">
          {{ state }}{{ piece.from ? ` · from ${piece.from}` : '' }} ·
          <span :title="`${READ_ALOUD} words a minute`">{{ timeMark(script.seconds) }} min read aloud</span>
        </p>
        <div class="actions">
          <div class="chosen-of" role="group" aria-label="Voice">
            <button v-for="(says, each) in VOICES" :key="each" type="button" :aria-pressed="voice === each" @click="voice = each">
              {{ says }}
            </button>
          </div>
          <MoreActions is-folded>
            <v-btn variant="text" @click="openName">Rename</v-btn>
            <v-btn v-if="!piece.published" variant="text" @click="writing.publish">Mark as published</v-btn>
            <v-btn variant="text" @click="remove">Remove</v-btn>
          </MoreActions>
          <v-btn variant="flat" color="primary" :disabled="!isOpen" @click="startExport">Export</v-btn>
        </div>
        <p v-if="trouble" class="due" role="alert">{{ trouble }}</p>
      </header>
      <div class="spread">
        <BlockList
          :blocks="blocks"
          :at="at"
          :can-hide="writing.canHide"
          @go="go"
          @move="(block, to) => void writing.move(block, to)"
          @hide="(block, hidden) => void writing.hide(block, hidden)"
        />
        <div class="piece">
          <p v-if="gone.length > 0" class="due" role="alert" data-acts>
            {{ gone.length === 1 ? 'One of its runs is' : `${gone.length} of its runs are` }} not in this logbook any more. The rest stands.
            <button v-if="opened.length > 0" type="button" class="link" @click="writing.leaveOut">Write it without</button>
          </p>
          <p v-if="stale.length > 0" class="due" role="status" data-acts>
            Look again at {{ stale.map(({ title }) => title).join(', ') }}: what your words were written from has changed.
          </p>
          <p v-if="lacking.length > 0" class="due" role="status" data-acts>
            The type of the page does not have {{ lacking.slice(0, 12).join(' ') }}: another one is taken for these letters, wherever it is
            read.
          </p>
          <p v-if="!isOpen && gone.length === 0" class="soft" role="status" data-acts>Reading its runs …</p>
          <template v-if="voice === 'page'">
            <p class="about soft">{{ about.about }}</p>
            <BlockSheet
              v-for="block in blocks"
              :key="block.id"
              :block="block"
              :kept="writing.kept(block.id)"
              :written="written"
              :known="written.known"
              :drawn="drawn.get(block.id)"
              :text="pictureText"
              :can-hide="writing.canHide(block.id)"
              @change="(part) => void writing.changeBlock(block.id, () => part)"
              @write="(words) => void writing.write(block.id, words)"
              @unwrite="void writing.unwrite(block.id)"
              @keep-words="void writing.keepWords(block.id)"
              @settle="(place, isUsed) => void writing.settle(block.id, place, isUsed)"
            >
              <button v-if="block.id === 'lent'" type="button" class="link" @click="lent = piece.lent ?? ''">Say it once</button>
            </BlockSheet>
            <section v-if="corrections.length > 0" class="corrections" aria-labelledby="edit-corrections" data-acts>
              <h2 id="edit-corrections">Corrections, to be put in your words</h2>
              <v-text-field
                v-for="line in corrections"
                :key="line.id"
                :label="day(line.at)"
                :model-value="line.text"
                maxlength="600"
                density="compact"
                hide-details
                @change="(event: Event) => changeCorrection(line.id, (event.target as HTMLInputElement).value)"
              />
            </section>
          </template>
          <article v-else class="script" aria-label="Script">
            <p class="soft">Read aloud at {{ READ_ALOUD }} words a minute; figures are rounded as far as their margins allow.</p>
            <section v-for="part in script.blocks" :key="part.id">
              <h2>
                <span class="figures soft">{{ timeMark(part.at) }}</span> {{ part.title }}
              </h2>
              <p v-for="(paragraph, index) in part.paragraphs" :key="index">{{ paragraph }}</p>
            </section>
          </article>
          <p class="soft dated">{{ about.dated }}</p>
        </div>
      </div>
      <FormSheet v-model="isNaming" name="name-piece" title="Rename this piece" action="Save" :task="rename">
        <v-text-field v-model="name" label="Name" maxlength="80" hint="It heads the page." persistent-hint />
      </FormSheet>
      <v-dialog :model-value="lent !== undefined" max-width="520" aria-labelledby="lent-title" @update:model-value="lent = undefined">
        <v-card>
          <form novalidate @submit.prevent="keepLent">
            <h2 id="lent-title">Who lent or paid for what</h2>
            <v-textarea v-model="lent" label="In a sentence or two" rows="3" maxlength="1000" auto-grow />
            <div class="buttons">
              <v-btn type="submit" variant="flat" color="primary">Save</v-btn>
              <v-btn @click="lent = 'I bought everything that was tested here myself. Nobody paid for this.'">Nothing was lent</v-btn>
              <v-btn @click="lent = undefined">Cancel</v-btn>
            </div>
          </form>
        </v-card>
      </v-dialog>
      <ExportSheet v-if="exporting" v-model="exporting" :targets="targets" />
    </template>
    <div v-else-if="isLoaded" class="first-step">
      <h1>This piece is not here</h1>
      <p>It was removed, or is in another logbook. <RouterLink to="/pieces">All pieces</RouterLink></p>
    </div>
  </section>
</template>

<style scoped>
.spread {
  display: grid;
  grid-template-columns: 15.5rem minmax(0, 1fr);
}

.piece {
  min-width: 0;
  max-width: 66rem;
  padding: 1rem 1.5rem 3rem 2rem;
}

.about {
  margin-bottom: 0.6rem;
}

.actions {
  align-items: center;
}

.script p {
  max-width: 46rem;
  margin-bottom: 0.6rem;
  font-size: 1.1rem;
  line-height: 1.6;
  overflow-wrap: anywhere;
}

.script h2 {
  padding-top: 0.8rem;
  font-size: 1rem;
}

.corrections {
  display: grid;
  gap: 0.6rem;
  max-width: 46rem;
  padding-block: 0.6rem;
}

.corrections h2 {
  font-size: 1rem;
}

.dated {
  padding-top: 1rem;
  font-size: 0.88rem;
}

.buttons {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
}

@media (max-width: 56.25em) {
  .spread {
    grid-template-columns: minmax(0, 1fr);
  }

  .piece {
    padding-inline: 1rem;
  }
}
</style>
