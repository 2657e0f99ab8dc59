import type { Pinia } from 'pinia';
import { watch } from 'vue';
import { followSettings } from '../kit/manner';
import { useSettings, type AllSettings } from '../kit/settings';
import { did } from '../kit/undo';
import { save } from '../ledger/acts';
import { keyOf } from '../ledger/keys';
import type { RowsReader } from '../ledger/readAhead';
import { SETTING_NAMES } from './settingNames';

const NAME = 'chosen';

/** Brings back what a person chose about the program, and keeps it from then on. */
export async function keepSettings(pinia: Pinia, { rows }: Pick<RowsReader, 'rows'>): Promise<void> {
  const { all } = useSettings(pinia);
  const kept = (await rows<unknown>('setting')).find(([key]) => key === NAME)?.[1] as
    (Partial<AllSettings> & { sound?: boolean }) | undefined;
  // Sound was once on or off.
  const { sound = true, ...chosen } = kept ?? {};
  Object.assign(all, { ...(!sound && { loudness: 'off' }), ...chosen });
  followSettings(all);
  const known = { ...all };
  watch(all, () => {
    noteChanged(all, known);
    Object.assign(known, all);
    // As plain values: lists among them are proxies, which no database takes. A choice that cannot be kept still holds for this visit; losing it costs nothing that was logged.
    save([[keyOf('setting', NAME), JSON.parse(JSON.stringify(all))]]).catch(() => undefined);
  });
}

/** Notes each choice that was made, so that it can be taken back. */
function noteChanged(all: AllSettings, known: AllSettings): void {
  for (const key of Object.keys(all) as (keyof AllSettings)[]) {
    const [before, after] = [known[key], all[key]];
    if (before === after) continue;
    did({
      says: `Changed a setting, ${SETTING_NAMES[key]}`,
      about: `setting/${key}`,
      undo: () => {
        // What is undone is no choice of its own.
        Object.assign(known, { [key]: before });
        Object.assign(all, { [key]: before });
      },
    });
  }
}
