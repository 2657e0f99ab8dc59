<script setup lang="ts">
import { computed } from 'vue';
import { type WrittenFigure } from '@core/curve';
import { inUnit, spell } from '@core/quantity';
import CopyButton from '../kit/CopyButton.vue';

/** The figures of a run in their groups. Each opens its working, and points out its place on the strip. */
const props = defineProps<{ figures: WrittenFigure[]; shown: string | undefined; here?: readonly string[] }>();
defineEmits<{ show: [figure: WrittenFigure] }>();

const MOST_USES = 12;
const groups = computed(() =>
  [...new Set(props.figures.map(({ group }) => group))].map((group) => ({
    group,
    figures: props.figures.filter((figure) => figure.group === group),
  })),
);

function uses(figure: WrittenFigure) {
  const all = figure.working?.uses ?? [];
  return { listed: all.slice(0, MOST_USES), more: Math.max(0, all.length - MOST_USES) };
}
/** All of them, as a table. */
const taken = () => ({
  table: {
    caption: 'Figures of the run',
    heads: ['Group', 'Figure', 'Value', 'What is to be known of it'],
    rows: props.figures.map(({ group, label, value, detail }) => [group, label, value, detail]),
  },
});
const oneTaken = ({ label, value, detail }: WrittenFigure) => ({ text: `${label}: ${value ?? 'none'}${detail ? ` (${detail})` : ''}` });
</script>

<template>
  <CopyButton v-if="figures.length > 0" name="all figures" is-row :take="taken" />
  <section v-for="{ group, figures: members } in groups" :key="group">
    <h2>{{ group }}</h2>
    <div v-for="figure in members" :key="figure.id" class="figure" :class="{ shown: figure.id === shown, here: here?.includes(figure.id) }">
      <p class="line">
        <span>{{ figure.label }}</span>
        <span class="figures value">{{ figure.value ?? '—' }}</span>
        <button
          v-if="figure.working"
          class="mark"
          type="button"
          data-acts
          :aria-expanded="figure.id === shown"
          :aria-label="`${figure.id === shown ? 'Hide' : 'Show'} working of ${figure.label}`"
          :title="figure.id === shown ? 'Hide its working' : 'Show its working'"
          @click="$emit('show', figure)"
        />
      </p>
      <p v-if="figure.detail" class="detail soft">{{ figure.detail }}</p>
      <div v-if="figure.id === shown && figure.working" class="working">
        <p class="figures">{{ figure.working.formula }}</p>
        <CopyButton :name="figure.label" is-row :take="() => oneTaken(figure)" />
        <ul v-if="figure.working.uses.length > 0" aria-label="Readings used">
          <li v-for="use in uses(figure).listed" :key="use.seconds">
            <a v-if="use.entry" :href="`#ink-${use.entry}`" class="figures"
              >{{ inUnit(use.value, figure.working.unit) }} at {{ spell(use.seconds, 1) }}</a
            >
            <span v-else class="figures">{{ inUnit(use.value, figure.working.unit) }} at {{ spell(use.seconds, 1) }}, sampled</span>
          </li>
          <li v-if="uses(figure).more > 0" class="soft">and {{ uses(figure).more }} more</li>
        </ul>
      </div>
    </div>
  </section>
</template>

<style scoped>
section {
  padding-bottom: 0.9rem;
}

h2 {
  padding-bottom: 0.2rem;
  font-size: 0.85rem;
}

.figure {
  padding: 0.35rem 0;
  border-bottom: 1px solid rgb(var(--v-theme-grid));
}

.figure.here {
  background: rgb(var(--v-theme-due) / 9%);
}

.figure.shown {
  border-bottom-color: rgb(var(--v-theme-due));
}

.line {
  display: flex;
  align-items: baseline;
  gap: 0.5rem;
}

.value {
  margin-inline-start: auto;
  font-size: 1.15rem;
  font-weight: 700;
  white-space: nowrap;
}

.detail {
  font-size: 0.83rem;
}

/* One quiet mark beside a figure: how it was worked out. */
.mark {
  flex: none;
  align-self: center;
  width: 1.5rem;
  height: 1.5rem;
  margin-inline-end: -0.4rem;
  padding: 0;
  font: inherit;
  line-height: 1;
  color: rgb(var(--v-theme-soft));
  background: none;
  border: 1px solid transparent;
  border-radius: 50%;
  cursor: pointer;
}

.mark::before {
  content: '=';
}

.mark:hover,
.mark[aria-expanded='true'] {
  color: rgb(var(--v-theme-ink));
  border-color: rgb(var(--v-theme-line));
}

.working {
  margin: 0.4rem 0 0.2rem;
  padding: 0.6rem 0.8rem;
  background: rgb(var(--v-theme-desk));
  border: 1px solid rgb(var(--v-theme-line));
  font-size: 0.85rem;
}

.working ul {
  list-style: none;
  padding-top: 0.3rem;
}
</style>
