import type { Source } from './entry';

/** Identifies a source: two sources with the same key are the same. */
export const sourceKey = ({ charger, port = 0, cable, feed, held }: Source): string =>
  [charger.id, port, cable?.id ?? '', ...(feed ? [sourceKey(feed)] : []), ...(held === undefined ? [] : [`${held}V`])].join('/');
