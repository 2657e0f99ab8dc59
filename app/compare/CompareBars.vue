<script setup lang="ts">
import { computed } from 'vue';
import { figureTable, whiskersOf, type Cell, type Measure, type RowsOfDevice } from '@core/compare';
import { max } from 'd3-array';
import CopyButton from '../kit/CopyButton.vue';
import { useDrawnTheme } from '../strip/drawnTheme';
import PenNib from '../strip/PenNib.vue';
import PictureButton from '../strip/PictureButton.vue';
import type { PictureText } from '../strip/picture';
import { barsBody } from '../strip/barsPicture';
import RankMark from './RankMark.vue';
import { penOf } from '../strip/pens';

/** The picture that people publish: a bar a setup with the whiskers of its margin, a block a figure. Blocks of one unit share one scale. */
const props = defineProps<{
  /** Setups that stand together: those of one device, under its name; or all of them, under none. */
  groups: readonly RowsOfDevice[];
  pens: number[];
  measures: Measure[];
  /** The figures of each measure, a cell a setup. */
  cells: (readonly Cell[])[];
  /** What stands about a picture of them. */
  text: PictureText;
}>();

const theme = useDrawnTheme();

const tops = computed(() => {
  const found = new Map<string, number>();
  for (const [at, { unit }] of props.measures.entries())
    for (const cell of props.cells[at] ?? [])
      if (cell.mean && !cell.mean.isLeast) found.set(unit, Math.max(found.get(unit) ?? 0, whiskersOf(cell)?.high ?? cell.mean.value));
  return found;
});

const blocks = computed(() =>
  props.measures.map((measure, at) => {
    const top = (tops.value.get(measure.unit) ?? 0) * 1.02 || 1;
    const share = (value: number) => `${Math.min(100, Math.max(0, (100 * value) / top))}%`;
    const direction = measure.better === 'less' ? 1 : -1;
    const barOf = (index: number, name: string) => {
      const cell = props.cells[at]?.[index];
      const whiskers = cell && whiskersOf(cell);
      const value = cell?.mean && !cell.mean.isLeast ? Math.max(0, cell.mean.value) : undefined;
      return {
        index,
        name,
        cell,
        pen: props.pens[index] ?? 0,
        sort: value ?? Number.NaN,
        width: value === undefined ? '0' : share(value),
        whisker: whiskers && { left: share(whiskers.low), right: `calc(100% - ${share(whiskers.high)})` },
      };
    };
    const groups = props.groups.map(({ of, rows, names }) => ({
      of,
      // The best on top; what was not seen comes last.
      bars: rows
        .map((index, place) => barOf(index, names[place] ?? ''))
        .sort((one, other) => Number(Number.isNaN(one.sort)) - Number(Number.isNaN(other.sort)) || direction * (one.sort - other.sort)),
    }));
    return { measure, top, groups };
  }),
);
const colourOf = (index: number) => penOf(props.pens[index] ?? 0, theme.value).colour;
const rangeOf = (cell: Cell | undefined) => (cell?.range ? `, ${cell.range.split(' · ')[0] ?? ''}` : '');
/** The bars as they stand, as a table: all setups, with every figure that is drawn. */
const names = computed(() => {
  const all: string[] = [];
  for (const { of, rows, names: own } of props.groups)
    for (const [at, index] of rows.entries()) all[index] = [of, own[at]].filter(Boolean).join(': ');
  return all;
});
const taken = () => ({ table: figureTable(props.measures.map(({ title }) => title).join(', '), names.value, props.measures, props.cells) });
const widest = computed(() => max(props.groups, ({ names }) => max(names, (name) => name.length)) ?? 0);

const pictured = computed(() => barsBody(blocks.value));
</script>

<template>
  <div class="blocks" :class="{ long: widest > 26 }" data-copied>
    <div class="whole keys">
      <PictureButton name="the bars" :text="text" :body="pictured" />
      <CopyButton name="the bars as a table" :take="taken" />
    </div>
    <section v-for="{ measure, groups: parts } in blocks" :key="measure.id" :aria-label="measure.title">
      <h2>
        {{ measure.title }}
        <small v-if="measure.better" class="soft">{{ measure.better === 'less' ? 'shorter is better' : 'longer is better' }}</small>
      </h2>
      <template v-for="part in parts" :key="part.of">
        <h3 v-if="part.of">{{ part.of }}</h3>
        <ul :aria-label="part.of || undefined">
          <li v-for="bar in part.bars" :key="bar.index">
            <span class="name" :title="bar.name"
              ><PenNib :pen="pens[bar.index] ?? 0" /><span>{{ bar.name }}</span></span
            >
            <span class="track" aria-hidden="true">
              <span
                v-if="bar.width !== '0'"
                class="bar"
                :class="{ hollow: penOf(pens[bar.index] ?? 0, theme).hollow }"
                :style="{ width: bar.width, color: colourOf(bar.index) }"
              />
              <span v-if="bar.whisker" class="whisker" :style="{ insetInlineStart: bar.whisker.left, insetInlineEnd: bar.whisker.right }" />
            </span>
            <span class="value figures" :class="{ best: bar.cell?.isBest }"
              ><RankMark v-if="bar.cell?.place" :place="bar.cell.place" /> {{ bar.cell?.value ?? '—'
              }}<span class="said">{{ rangeOf(bar.cell) }}</span></span
            >
          </li>
        </ul>
      </template>
    </section>
    <p class="soft note">
      Whiskers hold the reading and how runs vary: 95 of 100 times the setup lies within. Tied setups share the better rank.
    </p>
  </div>
</template>

<style scoped>
.blocks {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(24rem, 100%), 1fr));
  gap: 1rem 2.5rem;
  padding: 0.9rem 1.5rem 1.2rem;
}

h2 {
  font-size: 0.95rem;
  font-weight: 700;
}

h3 {
  margin-top: 0.35rem;
  font-size: 0.88rem;
  font-weight: 600;
}

ul {
  padding: 0;
  list-style: none;
}

li {
  display: grid;
  grid-template-columns: minmax(6rem, 9.5rem) 1fr minmax(6rem, max-content);
  gap: 0.7rem;
  align-items: center;
  padding-block: 0.16rem;
  font-size: 0.88rem;
}

.long li {
  grid-template-columns: 1fr minmax(6rem, max-content);
}

.long .name {
  grid-column: 1 / -1;
}

.name {
  display: flex;
  gap: 0.45rem;
  align-items: center;
  min-width: 0;
}

.name span {
  overflow: hidden;
  white-space: nowrap;
  text-overflow: ellipsis;
}

.track {
  position: relative;
  height: 1.1rem;
  border-inline-start: 1px solid rgb(var(--v-theme-ink));
}

.bar {
  position: absolute;
  inset-block: 0.1rem;
  inset-inline-start: 0;
  background: currentcolor;
  opacity: 0.82;
}

/* A second round of pens is drawn hollow, as its nibs are. */
.hollow {
  background: transparent;
  border: 2px solid currentcolor;
  border-inline-start: 0;
}

.whisker {
  position: absolute;
  top: 50%;
  height: 0.7rem;
  translate: 0 -50%;
  border-inline: 1.5px solid rgb(var(--v-theme-ink));
  background: linear-gradient(rgb(var(--v-theme-ink)), rgb(var(--v-theme-ink))) center / 100% 1.5px no-repeat;
}

.said {
  font-size: 0;
}

.value {
  text-align: end;
  white-space: nowrap;
}

.best {
  font-weight: 700;
}

.keys {
  display: flex;
  justify-content: end;
}

.whole,
.note {
  grid-column: 1 / -1;
  font-size: 0.85rem;
}

/* Where the system chooses all colours, a bar is drawn by its outline. */
@media (forced-colors: active) {
  .bar {
    background: CanvasText;
    border: 1px solid CanvasText;
    forced-color-adjust: none;
  }

  .hollow {
    background: Canvas;
  }

  .whisker {
    background: linear-gradient(CanvasText, CanvasText) center / 100% 1.5px no-repeat;
    border-color: Highlight;
    forced-color-adjust: none;
  }
}
</style>
