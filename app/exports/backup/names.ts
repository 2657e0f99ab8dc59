import { format } from 'date-fns';

/** So many dated backups are kept in a folder. */
export const BACKUPS_KEPT = 10;
/** Where the samples of runs lie, a file each. */
export const SAMPLES_FOLDER = 'samples';
const DATED = /^inkpath-backup-\d{4}-\d\d-\d\d-\d{6}\.json$/;

/** A backup by when it was made: names stand in their order. */
export const backupName = (at: number): string => `inkpath-backup-${format(at, 'yyyy-MM-dd-HHmmss')}.json`;

/** Whether a file is a backup of a folder: its samples lie beside it. */
export const isDatedBackup = (name: string): boolean => DATED.test(name);

/** The file of a run’s samples: another once a log was added to it. */
export const samplesName = (id: string, keys: readonly string[]): string => `${id}.${keys.length}.json`;

/** The newest file of a run’s samples among those there are. */
export const newestSamples = (id: string, names: readonly string[]): string | undefined =>
  names.filter((name) => name.startsWith(`${id}.`)).sort((one, other) => Number(other.split('.')[1]) - Number(one.split('.')[1]))[0];

/** Dated backups beyond the last of them. */
export const outdated = (names: readonly string[], kept: number): string[] => names.filter(isDatedBackup).sort().slice(0, -kept);
