/** What the keys of sheaves begin with (ink.ts). */
export const SHEAF = 'sheaf/';

export const isSheaf = (key: string): boolean => key.startsWith(SHEAF);
