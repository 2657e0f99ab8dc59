<script setup lang="ts">
import { computed, ref } from 'vue';
import { useRouter } from 'vue-router';
import { momentOf, RUN_ENDINGS, sighting, sourceSays, type EndingId, type RunRecord } from '@core/ink';
import { spell, upperFirst } from '@core/quantity';
import { endingShown, missing, stillReadable, stopOffer } from '@core/run';
import { wallNow } from '../kit/clock';
import DraftOffer from '../kit/DraftOffer.vue';
import { useDraft } from '../kit/drafts';
import { did } from '../kit/undo';
import { vFocus } from '../kit/vFocus';
import { useLanes } from '../logbook/lanes';
import { troubleOf } from '../logbook/trouble';
import TroubleNote from '../logbook/TroubleNote.vue';
import { useDueLine } from './dueLine';

/** Stops a run, saying why. The moment is the one at which this sheet was opened. */
const props = defineProps<{ run: RunRecord }>();
const open = defineModel<boolean>({ required: true });

const lanes = useLanes();
const line = useDueLine();
const router = useRouter();
const at = momentOf(props.run, wallNow());
const last = computed(() => sighting(props.run.tracks.percent, props.run.tracks.percent.seconds.length - 1)?.value);
/** What its method says of stopping now. */
const offer = stopOffer(props.run, (at - props.run.header.plugInAt) / 1000);
const title = computed(() => {
  const { header } = props.run;
  return header.list ? `the spot check of ${header.device.name}` : `${header.device.name} on ${sourceSays(header)}`;
});
const elapsed = (at - props.run.header.plugInAt) / 1000;
const readable = computed(() => stillReadable(props.run, elapsed));
const lacks = computed(() => missing(props.run, elapsed));
const because = ref<EndingId>(endingShown(props.run, elapsed));
const remark = ref('');
const CHOICES = RUN_ENDINGS.map((ending) => {
  const why = 'reason' in ending ? ending.reason : 'asks' in ending ? ending.asks : undefined;
  const label = [ending.word, why].filter(Boolean).join(', ');
  return { id: ending.id, label: upperFirst(label) };
});
const trouble = ref('');
const busy = ref(false);

const {
  offer: halfFilled,
  close,
  end,
} = useDraft(
  `stop/${props.run.header.id}`,
  () => ({ because: because.value, remark: remark.value }),
  (given) => {
    [because.value, remark.value] = [given.because, given.remark];
  },
  () => {
    open.value = false;
  },
);

async function stop(): Promise<void> {
  busy.value = true;
  const { id } = props.run.header;
  const { value: stopped } = title;
  try {
    await lanes.stop(id, { kind: 'stop', at, because: because.value, ...(remark.value.trim() && { remark: remark.value.trim() }) });
    line.clear();
    end();
    did({
      says: `Stopped ${stopped}`,
      refuses: () => 'A stopped run goes on by Resume run, among More on its page. Nothing was undone.',
      undo: () => undefined,
      isQuiet: true,
    });
    // The others go on: their board stays in view. The last of them leads to its run.
    if (lanes.records.length > 0) line.say(`Stopped: ${stopped}. It stands under Runs.`);
    else await router.push(`/runs/${id}`);
  } catch (error) {
    trouble.value = troubleOf(error);
    // Stored, but not filed: the board names it, and this sheet has no run any more.
    if (lanes.aside.has(id)) {
      end();
      await router.push('/live');
    }
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <v-dialog :model-value="open" max-width="460" aria-labelledby="stop-title" @update:model-value="close">
    <v-card>
      <form @submit.prevent="stop">
        <h2 id="stop-title">Stop {{ title }} at {{ spell((at - run.header.plugInAt) / 1000, 1) }}?</h2>
        <DraftOffer :draft="halfFilled" />
        <p v-if="because === 'full' && last !== 100" class="due">
          The last level read is {{ last === undefined ? 'unknown' : `${last} %` }}. Log the 100 % first if the display shows it.
        </p>
        <p>{{ offer ? `Its method may stop here: ${offer.says}.` : 'Its method would continue.' }}</p>
        <p v-if="readable" class="due">Can still be read: {{ readable }}. Cancel, and log it first.</p>
        <details v-if="lacks.length > 0" class="soft">
          <summary>Not read in time</summary>
          <ul>
            <li v-for="each in lacks" :key="each">{{ each }}</li>
          </ul>
        </details>
        <v-radio-group v-model="because" v-focus label="Because" hide-details>
          <v-radio v-for="ending in CHOICES" :key="ending.id" :value="ending.id" :label="ending.label" />
        </v-radio-group>
        <v-text-field v-model="remark" label="Remark, if any" maxlength="200" />
        <TroubleNote v-if="trouble" :trouble="trouble" :run="run" :typed="`stop, ${because} ${remark}`" />
        <div class="buttons">
          <v-btn type="submit" variant="flat" color="primary" :loading="busy">Stop the run</v-btn>
          <v-btn @click="end">Cancel</v-btn>
        </div>
      </form>
    </v-card>
  </v-dialog>
</template>
