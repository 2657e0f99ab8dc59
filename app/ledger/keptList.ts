import { shallowRef } from 'vue';
import { did } from '../kit/undo';
import { drop, save } from './acts';
import { onTabs, tellTabs } from './channel';
import { keyOf } from './keys';
import { KINDS } from './kinds';
import { readNow, type RowsReader } from './readAhead';
import { rowOf, SHAPES, type ListKind, type ThingOf } from './shapes';
import { whyOf } from './storageTrouble';

/** A thing of a list, and its kind. */
export type Item<Of extends ListKind = ListKind> = { [Each in Of]: { kind: Each; thing: ThingOf<Each> } }[Of];

const keyOfItem = ({ kind, thing }: { kind: ListKind; thing: { id: string } }): string => keyOf(kind, thing.id);

/** A list of things of some kinds, each stored under a key of its own; other tabs are told when it changes. */
export function keptList<Of extends ListKind>(kinds: readonly Of[]) {
  const kept = shallowRef<Item<Of>[]>([]);
  /** Why things that are stored could not be read, a sentence each. */
  const unread = shallowRef<string[]>([]);
  const tell = () => {
    for (const about of new Set(kinds.map((kind) => KINDS[kind].about))) tellTabs({ about });
  };

  async function load({ rows }: Pick<RowsReader, 'rows'> = readNow): Promise<void> {
    const stored = await Promise.all(kinds.map(async (kind) => (await rows<unknown>(kind)).map(([, value]) => [kind, value] as const)));
    const why: string[] = [];
    kept.value = stored.flat().flatMap(([kind, value]) => {
      try {
        return [{ kind, thing: SHAPES[kind].read(value) }];
      } catch (error) {
        // What cannot be read stays where it is, and never stops the rest.
        why.push(whyOf(error));
        return [];
      }
    });
    unread.value = why;
  }

  const plain = (item: Item<Of>): Item<Of> => JSON.parse(JSON.stringify(item)) as Item<Of>;

  /** Reads the list again, and has the other tabs do so: something was imported. */
  async function changed(): Promise<void> {
    await load();
    tell();
  }

  const here = (key: string) => kept.value.find((each) => keyOfItem(each) === key);
  const textOf = (item: Item<Of> | undefined) => (item ? JSON.stringify(item.thing) : '');

  /** Notes what became of things, so that it can be taken back: what was there comes again, what was not goes. */
  function noted(changes: readonly { key: string; before: Item<Of> | undefined; after: Item<Of> | undefined }[]): void {
    const [first] = changes;
    if (!first) return;
    const said = changedSays(first.before?.thing, first.after?.thing);
    did({
      says: changes.length > 1 ? `${said}, and ${changes.length - 1} more` : said,
      refuses: () => {
        const other = changes.find(({ key, after }) => textOf(here(key)) !== textOf(after));
        return other && `${nameIn((other.after ?? other.before)?.thing ?? {})} was changed since. Nothing was undone.`;
      },
      undo: async () => {
        const again = changes.flatMap(({ before }) => before ?? []);
        if (again.length > 0) await keep(again);
        for (const { key, before } of changes) if (!before) await away(key);
      },
    });
  }

  async function keep(items: readonly Item<Of>[]): Promise<void> {
    await save(items.map(({ kind, thing }) => rowOf<Of>(kind, thing)));
    const keys = new Set(items.map(keyOfItem));
    kept.value = [...kept.value.filter((each) => !keys.has(keyOfItem(each))), ...items.map(plain)];
    tell();
  }

  /** Keeps things, or writes over those of the same key. Resolves once they are stored. @throws {StorageTrouble} */
  async function put(...items: Item<Of>[]): Promise<void> {
    const changes = items.map((item) => ({ key: keyOfItem(item), before: here(keyOfItem(item)), after: plain(item) }));
    await keep(items);
    noted(changes.filter(({ before, after }) => textOf(before) !== textOf(after)));
  }

  /** Throws a thing away. @throws {StorageTrouble} */
  async function remove(kind: Of, id: string): Promise<void> {
    const key = keyOf(kind, id);
    const before = here(key);
    await away(key);
    if (before) noted([{ key, before, after: undefined }]);
  }
  async function away(key: string): Promise<void> {
    await drop(key);
    kept.value = kept.value.filter((each) => keyOfItem(each) !== key);
    tell();
  }

  onTabs((message) => {
    if (kinds.some((kind) => KINDS[kind].about === message.about)) void load();
  });

  return { kept, unread, load, put, remove, changed };
}

const nameIn = (thing: object): string => ('name' in thing && typeof thing.name === 'string' ? thing.name : 'It');
/** What became of a thing, as it is said where it can be undone. */
function changedSays(before: object | undefined, after: object | undefined): string {
  const name = nameIn(after ?? before ?? {});
  if (!before) return `Added ${name}`;
  if (!after) return `Removed ${name}`;
  const isRetired = (thing: object) => 'retired' in thing && Boolean(thing.retired);
  if (isRetired(before) !== isRetired(after)) return isRetired(after) ? `Retired ${name}` : `Put ${name} back`;
  return `Changed ${name}`;
}

/** Made when first needed: it takes long, and a start can do without. */
let collator: Intl.Collator | undefined;

/** The order of names as people number things: Cobble 9 before Cobble 12. */
export function byName({ name: one }: { name: string }, { name: other }: { name: string }): number {
  collator ??= new Intl.Collator(undefined, { numeric: true });
  return collator.compare(one, other);
}
