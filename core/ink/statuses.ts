/**
 * What a charger turns out to be for a device, tried briefly (common practice, no source): its key, and how it is written. A minute cannot tell
 * holding from draining: that takes a second look at the level.
 */
export const STATUSES = [
  { id: 'fast', key: 'f', says: 'charges fast' },
  { id: 'slow', key: 's', says: 'charges slowly' },
  { id: 'charges', key: 'g', says: 'charges, how fast not seen' },
  { id: 'holds', key: 'h', says: 'holds the level' },
  { id: 'drains', key: 'd', says: 'drains while plugged in' },
  { id: 'refuses', key: 'r', says: 'refuses: nothing happens' },
  { id: 'not charging', key: 'c', says: 'connected, but not charging' },
] as const;
export type StatusId = (typeof STATUSES)[number]['id'];

export const statusSays = (id: StatusId): string => STATUSES.find((each) => each.id === id)?.says ?? id;

/** How long things take to settle, in seconds: pads climb more slowly. */
export const SETTLE = { plug: 15, pad: 60 } as const;
/** When a second look can tell whether the level moved, in seconds from the first. */
export const SECOND_LOOK = 12 * 60;
