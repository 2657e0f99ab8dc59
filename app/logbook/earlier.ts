import { shallowRef, watch, type Ref, type ShallowRef } from 'vue';
import type { Track } from '@core/ink';
import { useLogbook } from './runs';

/** How many earlier runs of a device tell how it charges: the latest ones. */
const MOST = 5;

/** Levels of the latest finished runs of a device, once they are asked for: what a forecast goes by. None for those that cannot be opened. */
export function useEarlier(deviceId: Ref<string>, isAsked: Ref<boolean>): ShallowRef<readonly Track[]> {
  const logbook = useLogbook();
  const found = shallowRef<readonly Track[]>([]);
  watch(
    [deviceId, isAsked, () => logbook.summaries],
    async ([id, asked]) => {
      if (!asked) return;
      const runs = logbook.summaries.filter(({ gear = [], startLevel }) => gear.includes(id) && startLevel !== undefined).slice(0, MOST);
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
