import { computed, ref, shallowRef } from 'vue';
import {
  blankGrid,
  columnsIn,
  gearOf,
  isBlank,
  pastedAt,
  PAPER_GEAR,
  readColumns,
  readGrid,
  setupIn,
  type PaperFault,
  type PaperGrid,
  type PasteAt,
} from '@core/exchange';
import type { Footage } from '@core/ink';
import { CONDITIONS } from '@core/method';
import { nanoid } from 'nanoid';
import { readDate } from '../kit/dates';
import { useShelf } from '../logbook/shelf';

/** What every column is asked. */
const ALWAYS: readonly string[] = ['device', 'charger', 'plugged in'];
/** What else can be said of a column, each in a row of its own. */
export const MORE_FACTS: readonly string[] = [
  ...PAPER_GEAR.filter((fact) => !ALWAYS.includes(fact)),
  ...CONDITIONS.map(({ name }) => name),
];

/** A paper that is being filled in: its grid, what stands in it, and the ways to change it. Nothing of it is on the screen. */
export function usePaperSheet(footage: () => Footage | undefined) {
  const shelf = useShelf();
  const grid = shallowRef<PaperGrid>(blankGrid());
  /** Rows of facts that were asked for. */
  const asked = ref<string[]>([]);
  /** What was there before a whole grid took its place. */
  const before = shallowRef<PaperGrid>();
  const refused = ref('');
  const columns = computed(() => columnsIn(grid.value));
  /** What is said of each column: the same as before while only readings are written, so that nothing that depends on it is worked out again. */
  const said = computed(() => grid.value.facts);
  /** When it was plugged in on a day of which the time is not written down: asked once. */
  const timeOfDay = ref('');
  const isDayAlone = computed(() => (said.value['plugged in'] ?? []).some((typed) => (readDate(typed, 'date') ?? '') !== ''));

  /** A moment as it is typed: epoch milliseconds. */
  function readMoment(typed: string): number | undefined {
    const day = timeOfDay.value ? readDate(typed, 'date') : undefined;
    const found = day ? `${day}T${timeOfDay.value}` : readDate(typed, 'datetime-local');
    const at = found ? new Date(found).getTime() : Number.NaN;
    return Number.isFinite(at) ? at : undefined;
  }

  const setups = computed(() =>
    Array.from({ length: columns.value }, (_, column) =>
      setupIn({ facts: said.value }, column, { devices: shelf.devices, chargers: shelf.chargers, cables: shelf.cables }, readMoment),
    ),
  );
  const read = computed(() =>
    readColumns(
      grid.value,
      footage(),
      setups.value.map(({ device }) => device),
    ),
  );
  /** The rows of facts that are shown: those that are always asked, those that say anything, and those that were asked for. */
  const facts = computed(() => {
    const given = Object.entries(said.value).flatMap(([name, row]) => (row.some((cell) => cell.trim() !== '') ? [name] : []));
    const more = MORE_FACTS.filter((name) => given.includes(name) || asked.value.includes(name));
    return [...new Set([...ALWAYS, ...more, ...given])];
  });
  /** The columns that hold anything read. */
  const filled = computed(() =>
    Array.from({ length: columns.value }, (_, column) => column).filter((column) => (read.value.columns[column]?.drafts.length ?? 0) > 0),
  );
  /** What stands nowhere on the shelf, each name once, as the gear that it would become. */
  const unknown = computed(() =>
    gearOf(
      filled.value.flatMap((column) => setups.value[column]?.unknown ?? []),
      () => nanoid(10),
    ),
  );
  /** What in a row cannot be read, by its row. */
  const faultsByRow = computed(() => {
    const found = new Map<number, PaperFault[]>();
    for (const fault of read.value.faults) found.set(fault.row, [...(found.get(fault.row) ?? []), fault]);
    return found;
  });

  /**
   * Takes a block off the clipboard: as the whole paper where nothing is filled in yet or it is pasted at the left edge, else from the cell on.
   *
   * @returns whether it was a block
   */
  function paste(text: string, at: PasteAt): boolean {
    if (!/[\n\t]/.test(text.trim())) return false;
    const isReplaced = isBlank(grid.value) || ('row' in at && at.row === 0 && at.column < 0);
    const found = isReplaced ? readGrid(text, shelf) : pastedAt(grid.value, at, text);
    refused.value = 'refused' in found ? found.refused : '';
    if ('refused' in found) return true;
    before.value = isReplaced && !isBlank(grid.value) ? grid.value : undefined;
    grid.value = found;
    return true;
  }

  function undoPaste(): void {
    if (before.value) grid.value = before.value;
    before.value = undefined;
  }

  /** Puts every name that is not on the shelf there, as gear that is only named. @throws {StorageTrouble} */
  const shelve = () => shelf.put(...unknown.value);

  return {
    grid,
    asked,
    before,
    refused,
    timeOfDay,
    isDayAlone,
    columns,
    said,
    read,
    setups,
    facts,
    filled,
    unknown,
    faultsByRow,
    paste,
    undoPaste,
    shelve,
  };
}
