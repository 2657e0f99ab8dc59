/** What the keys of snapshots begin with (ink.ts). */
export const SNAPSHOT = 'sheaf/';

export const isSnapshot = (key: string): boolean => key.startsWith(SNAPSHOT);
