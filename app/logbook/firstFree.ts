/** A name that is not taken yet: the one wanted, or with a number behind it. */
export function firstFree(wanted: string, all: readonly { name: string }[]): string {
  const taken = new Set(all.map(({ name }) => name));
  let free = wanted;
  for (let count = 2; taken.has(free); count += 1) free = `${wanted} (${count})`;
  return free;
}
