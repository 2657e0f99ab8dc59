import { watch } from 'vue';
import { hasMoreThanBackup } from '../../logbook/backupState';
import { useLogbook } from '../../logbook/runs';
import { backUpSoon, loadFolder } from './folder';

/** Has a backup written to the chosen folder after each run that is finished from now on. */
export async function backUpByItself(): Promise<void> {
  await loadFolder();
  const logbook = useLogbook();
  // What came to its end while nothing could be written.
  if (hasMoreThanBackup()) backUpSoon();
  watch(
    () => logbook.summaries.length,
    (now, before) => {
      if (now > before) backUpSoon();
    },
  );
}
