import { shallowRef } from 'vue';
import { drop, save } from './acts';
import { onTabs, tellTabs } from './channel';
import { keyOf } from './keys';
import { KINDS } from './kinds';
import { readNow, type Reading } from './readAhead';
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

  async function load({ rows }: Pick<Reading, 'rows'> = readNow): Promise<void> {
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

  /** Keeps things, or writes over those of the same key. Resolves once they are stored. @throws {StorageTrouble} */
  async function put(...items: Item<Of>[]): Promise<void> {
    await save(items.map(({ kind, thing }) => rowOf<Of>(kind, thing)));
    const keys = new Set(items.map(keyOfItem));
    kept.value = [...kept.value.filter((each) => !keys.has(keyOfItem(each))), ...items.map(plain)];
    tell();
  }

  /** Throws a thing away. @throws {StorageTrouble} */
  async function remove(kind: Of, id: string): Promise<void> {
    const key = keyOf(kind, id);
    await drop(key);
    kept.value = kept.value.filter((each) => keyOfItem(each) !== key);
    tell();
  }

  onTabs((message) => {
    if (kinds.some((kind) => KINDS[kind].about === message.about)) void load();
  });

  return { kept, unread, load, put, remove, changed };
}

/** Made when first needed: it takes long, and a start can do without. */
let collator: Intl.Collator | undefined;

/** The order of names as people number things: Cobble 9 before Cobble 12. */
export function byName({ name: one }: { name: string }, { name: other }: { name: string }): number {
  collator ??= new Intl.Collator(undefined, { numeric: true });
  return collator.compare(one, other);
}
