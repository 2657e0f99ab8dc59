import type { Rest } from '@core/exchange';
import { howMany, listed } from '@core/quantity';
import { useSettings, type AllSettings } from '../kit/settings';
import { KINDS, kindsThat } from '../ledger/kinds';
import { keysOf, LOGBOOK } from '../ledger/keys';
import type { ImportWays } from '../ledger/importing';
import type { Incoming } from '../ledger/incoming';
import { LIST_KINDS, rowOf, type ListKind, type ThingOf } from '../ledger/shapes';
import { readNow } from '../ledger/readAhead';
import { reading, type StoredRow } from '../ledger/transactions';
import { useComparisons } from './comparisons';
import { usePieces } from './pieces';
import { useLanes } from './lanes';
import { addMappings } from './mappings';
import { useMethods } from './methods';
import { useLogbook } from './runs';
import { SETTING_NAMES } from './settingNames';
import { useShelf } from './shelf';
import { useStudies } from './studies';

/** Whether anything is in this logbook that a person put there. Into one without, a file is restored; else it is imported. */
export const hasWork = (): Promise<boolean> =>
  reading(LOGBOOK, async (store) => {
    const counts = await Promise.all(kindsThat(({ isWork }) => isWork).map((kind) => store.count(keysOf(kind))));
    return counts.some((count) => count > 0);
  });

/** In which settings a file differs from what is chosen here, by name. */
export function differingSettings({ settings = {} }: Pick<Rest, 'settings'>): string[] {
  const here = useSettings().all;
  // Whose it is says nothing of how it is looked at.
  const isOther = (key: keyof AllSettings) =>
    key !== 'owner' && settings[key] !== undefined && JSON.stringify(settings[key]) !== JSON.stringify(here[key]);
  return [...new Set((Object.keys(SETTING_NAMES) as (keyof AllSettings)[]).filter(isOther).map((key) => SETTING_NAMES[key]))];
}

const KIND_WORDS: Readonly<Record<ListKind, readonly [one: string, many: string]>> = {
  device: ['device', 'devices'],
  charger: ['charger', 'chargers'],
  cable: ['cable', 'cables'],
  meter: ['meter', 'meters'],
  study: ['study', 'studies'],
  method: ['method', 'methods'],
  comparison: ['comparison', 'comparisons'],
  piece: ['piece', 'pieces'],
};

/**
 * What importing a logbook will add, change and leave, in sentences.
 *
 * @param runs  ids of its runs
 * @param known ids of the runs that are here
 */
export async function previewOf(rest: Rest, runs: readonly string[], known: ReadonlySet<string>): Promise<string[]> {
  const [adds, leaves]: [string[], string[]] = [[], []];
  const joins = runs.filter((id) => known.has(id)).length;
  if (runs.length > joins) adds.push(howMany(runs.length - joins, 'run'));
  for (const kind of LIST_KINDS) {
    const theirs = rest[KINDS[kind].inFile] as { id: string }[];
    const here = new Set((await readNow.rows(kind)).map(([id]) => id));
    const there = theirs.filter(({ id }) => here.has(id)).length;
    if (theirs.length > there) adds.push(howMany(theirs.length - there, ...KIND_WORDS[kind]));
    if (there > 0) leaves.push(howMany(there, ...KIND_WORDS[kind]));
  }
  return [
    adds.length > 0 ? `It adds ${listed(adds)}.` : 'It adds nothing.',
    ...(joins > 0 ? [`It joins ${howMany(joins, 'run')} with ${joins === 1 ? 'its copy' : 'their copies'} here.`] : []),
    ...(leaves.length > 0 ? [`It leaves ${listed(leaves)} as they are here.`] : []),
  ];
}

/** The things of a list in a file, each as it is stored. */
const rowsOf = (kind: ListKind, rest: Rest): StoredRow[] =>
  (rest[KINDS[kind].inFile] as ThingOf<ListKind>[]).map((thing) => rowOf(kind, thing));

/**
 * Brings in a logbook: its runs, pictures and lists, all of them or nothing. What is here already stays. Settings are taken where nothing is here yet,
 * and columns of logs that nothing here remembers.
 *
 * @param incoming its runs and pictures
 * @throws {ImportError | StorageTrouble} with nothing imported
 */
export async function bringIn(rest: Rest, incoming: Incoming, ways: Omit<ImportWays, 'rows'> = {}): Promise<void> {
  const isRestored = !(await hasWork());
  const rows = LIST_KINDS.flatMap((kind) => rowsOf(kind, rest));
  await useLogbook().importAll(incoming, { ...ways, rows });
  if (isRestored) Object.assign(useSettings().all, rest.settings);
  await addMappings(rest.remembered);
  await Promise.all([
    ...[useShelf(), useMethods(), useStudies(), useComparisons(), usePieces()].map((list) => list.changed()),
    useLanes().follow(),
  ]);
}
