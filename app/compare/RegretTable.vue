<script setup lang="ts">
import { computed } from 'vue';
import type { OneForAll } from '@core/advise';
import { fixed } from '@core/quantity';
import CopyButton from '../kit/CopyButton.vue';

/** How much each charger costs each device over the best that was run with it: the one whose longest bar is shortest serves all best. */
const props = defineProps<{ found: OneForAll }>();

const most = computed(() => Math.max(0.1, ...props.found.choices.flatMap(({ each }) => each.filter(Number.isFinite))));
const says = (regret: number) => (!Number.isFinite(regret) ? 'never there' : regret < 0.005 ? 'its best' : `+${fixed(regret * 100)} %`);
const width = (regret: number) => `${Number.isFinite(regret) ? Math.max(1, (100 * regret) / most.value) : 100}%`;
</script>

<template>
  <div data-copied>
    <CopyButton name="one for all" is-row />
    <table class="plain-table">
      <caption class="soft">
        One for all, by
        {{
          found.by
        }}: how much longer than the best that was run with each device
      </caption>
      <thead>
        <tr>
          <th scope="col">Charger</th>
          <th v-for="device in found.devices" :key="device" scope="col">{{ device }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="{ charger, each } in found.choices" :key="charger">
          <th scope="row" :class="{ best: found.best.includes(charger) }">
            {{ charger }}<span v-if="found.best.includes(charger)" class="soft"> serves all</span>
          </th>
          <td v-for="(regret, index) in each" :key="index" class="figures">
            {{ says(regret) }}
            <span class="track" aria-hidden="true"
              ><span class="bar" :class="{ never: !Number.isFinite(regret) }" :style="{ width: width(regret) }"
            /></span>
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
table {
  width: 100%;
}

caption {
  padding-bottom: 0.3rem;
  font-size: 0.85rem;
  text-align: start;
}

.best {
  font-weight: 700;
}

.track {
  display: block;
  height: 0.45rem;
  border-inline-start: 1px solid rgb(var(--v-theme-ink));
}

.bar {
  display: block;
  height: 100%;
  background: rgba(var(--v-theme-ink), 0.55);
}

@media (forced-colors: active) {
  .bar {
    background: CanvasText;
    forced-color-adjust: none;
  }
}

.never {
  background: repeating-linear-gradient(45deg, rgb(var(--v-theme-ink)) 0 2px, transparent 2px 5px);
}
</style>
