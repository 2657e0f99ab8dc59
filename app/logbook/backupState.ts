import { computed, shallowRef, type ComputedRef } from 'vue';
import { save } from '../ledger/acts';
import { keyOf } from '../ledger/keys';
import { remembered } from '../ledger/readAhead';
import { useLogbook } from './runs';

/** The last backup of all that is in this logbook. */
export interface Backup {
  /** Epoch milliseconds; 0 where there was none. */
  at: number;
  /** Since when there was something to back up, epoch milliseconds: ink that somebody else read long ago counts from when it came here. */
  since: number;
  /** How many finished runs are in it. */
  runs?: number | undefined;
  /** Whether it was said since that ink is in none. */
  isSaid?: boolean | undefined;
}

const NAME = 'backup';
const DAY = 86_400_000;
/** Ink that has been here for longer and is in no backup is worth a word, in milliseconds. */
const OLD = 7 * DAY;

const last = shallowRef<Backup>();
const isLoaded = shallowRef(false);
/** Why the last backup by itself did not come about. */
export const backupTrouble = shallowRef('');

/** Reads when the last backup was made. */
export async function loadBackup(): Promise<void> {
  last.value = await remembered<Backup>(NAME).catch(() => undefined);
  isLoaded.value = true;
  if (last.value ?? useLogbook().summaries.length === 0) return;
  await keep({ at: 0, since: Date.now() });
}

/** Notes that a backup of everything was saved. */
export function noteBackup(at: number): Promise<unknown> {
  backupTrouble.value = '';
  return keep({ at, since: at, runs: useLogbook().summaries.length });
}

function keep(state: Backup): Promise<unknown> {
  last.value = state;
  // Should it not be stored, it is said once more.
  return save([[keyOf('setting', NAME), state]]).catch(() => undefined);
}

/** Whether some ink has been here for a week and is in no backup, and nobody was told. @param newest when the newest run began, epoch milliseconds */
export const isBackupDue = ({ at, since, isSaid = false }: Backup, newest: number, now: number): boolean =>
  !isSaid && now - since > OLD && (at === 0 || newest > at);

/** Whether runs were finished that the last backup may lack. */
export const hasMoreThanBackup = (): boolean => useLogbook().summaries.length > (last.value?.runs ?? 0);

/** How old a backup is, in words. */
export function ageSays(at: number, now: number): string {
  const days = Math.floor((now - at) / DAY);
  if (days < 1) return 'today';
  return days === 1 ? '1 day ago' : `${days} days ago`;
}

/** How the logbook stands to its last backup. */
export function useBackup(): { says: ComputedRef<string>; isDue: ComputedRef<boolean>; allRight: () => void } {
  const logbook = useLogbook();
  const hasRuns = computed(() => logbook.summaries.length > 0);
  const says = computed(() => {
    if (!isLoaded.value || (!last.value && !hasRuns.value)) return '';
    return last.value?.at ? `backup ${ageSays(last.value.at, Date.now())}` : 'no backup yet';
  });
  const isDue = computed(() => {
    const newest = Math.max(0, ...logbook.summaries.map(({ plugInAt, end }) => plugInAt + end * 1000));
    return last.value !== undefined && newest > 0 && isBackupDue(last.value, newest, Date.now());
  });
  return { says, isDue, allRight: () => void keep({ at: 0, since: 0, ...last.value, isSaid: true }) };
}
