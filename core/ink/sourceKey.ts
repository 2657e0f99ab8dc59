import type { Source } from './entry';

/** Two sources of one key are one. */
export const sourceKey = ({ charger, port = 0, cable, feed, held }: Source): string =>
  [charger.id, port, cable?.id ?? '', ...(feed ? [sourceKey(feed)] : []), ...(held === undefined ? [] : [`${held}V`])].join('/');
