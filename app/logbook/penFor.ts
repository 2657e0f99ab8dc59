interface Penned {
  device: string;
  charger: string;
  pen: number;
}

/** The pen of a setup: the one it had in earlier runs, or the lowest that no setup has yet. */
export function penFor(setup: { device: string; charger: string }, earlier: readonly Penned[]): number {
  const known = earlier.find(({ device, charger }) => device === setup.device && charger === setup.charger);
  if (known) return known.pen;
  const taken = new Set(earlier.map(({ pen }) => pen));
  let pen = 0;
  while (taken.has(pen)) pen += 1;
  return pen;
}
