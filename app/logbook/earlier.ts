import { shallowRef, watch, type Ref, type ShallowRef } from 'vue';
import type { Summary } from '@core/curve';
import type { Track } from '@core/ink';
import { useLogbook } from './runs';

/** How many earlier runs of a device tell how it charges: the latest ones. */
const MOST_EARLIER = 5;

/** The latest runs of a device that began with a level: those that tell how it charges. */
export const latestOf = (summaries: readonly Summary[], deviceId: string, max: number): Summary[] =>
  summaries.filter(({ gear = [], startLevel }) => gear.includes(deviceId) && startLevel !== undefined).slice(0, max);

/** Levels of the latest finished runs of a device, once they are asked for: what a forecast goes by. None for those that cannot be opened. */
export function useEarlier(deviceId: Ref<string>, isAsked: Ref<boolean>): ShallowRef<readonly Track[]> {
  const logbook = useLogbook();
  const found = shallowRef<readonly Track[]>([]);
  watch(
    [deviceId, isAsked, () => logbook.summaries],
    async ([id, asked]) => {
      if (!asked) return;
      const runs = latestOf(logbook.summaries, id, MOST_EARLIER);
      if (runs.length === 0) {
        found.value = [];
        return;
      }
      await logbook.arrived();
      const { levelsOfFiled } = await import('../workers/levels');
      const opened = await Promise.allSettled(runs.map((run) => levelsOfFiled(run.id)));
      found.value = opened.flatMap((each) => (each.status === 'fulfilled' ? [each.value] : []));
    },
    { immediate: true },
  );
  return found;
}
