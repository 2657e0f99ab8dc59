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
      const opened = await Promise.allSettled(runs.map((run) => logbook.open(run.id)));
      found.value = opened.flatMap((each) => (each.status === 'fulfilled' ? [each.value.sketch.tracks.percent] : []));
    },
    { immediate: true },
  );
  return found;
}
