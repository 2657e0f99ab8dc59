import type { RunInk } from '../ink/fold';
import { chargedBy } from '../ink/sequence';
import { isolated } from '../quantity/letters';

/** How a run is called beside others: by its charger where the device is the same, else by both; one that a colleague made, with theirs. */
export function namesOf(rows: readonly { run: RunInk }[]): string[] {
  const oneDevice = new Set(rows.map(({ run }) => run.header.device.name)).size === 1;
  const names = rows.map(({ run }) => {
    const by = isolated(chargedBy(run)) + (run.header.owner ? ` (${isolated(run.header.owner)})` : '');
    return oneDevice ? by : `${isolated(run.header.device.name)} on ${by}`;
  });
  const count = new Map<string, number>();
  return names.map((name) => {
    if (names.filter((other) => other === name).length === 1) return name;
    count.set(name, (count.get(name) ?? 0) + 1);
    return `${name} (${count.get(name) ?? 1})`;
  });
}
