import { createSharedComposable, useMediaQuery } from '@vueuse/core';
import { computed, type ComputedRef } from 'vue';
import { useSettings } from '../kit/settings';
import type { ThemeName } from '../kit/theme';

/**
 * The theme that pictures are drawn in: the one that was chosen; where the system chooses all colours, the one that is seen on its ground. It is shared, for
 * a list has a pen in every row.
 */
export const useDrawnTheme = createSharedComposable((): ComputedRef<ThemeName> => {
  const settings = useSettings();
  const isForced = useMediaQuery('(forced-colors: active)');
  return computed(() => (isForced.value ? themeOn(systemGround()) : settings.theme));
});

/** The ground that the system has chosen, as red, green and blue. */
function systemGround(): number[] {
  const probe = document.createElement('i');
  probe.style.color = 'Canvas';
  document.body.append(probe);
  const found = getComputedStyle(probe).color.match(/[\d.]+/g) ?? [];
  probe.remove();
  return found.slice(0, 3).map(Number);
}

const themeOn = ([red = 255, green = 255, blue = 255]: readonly number[]): ThemeName =>
  0.3 * red + 0.6 * green + 0.1 * blue > 127 ? 'paper' : 'darkRoom';
