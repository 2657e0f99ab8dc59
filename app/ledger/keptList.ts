import { shallowRef } from 'vue';
import type { Arriving } from './arrivals';
import { onTabs, tellTabs, type ListName } from './channel';
import { allOf, removeValue, storeAll } from './databases';
import { readNow, type Reading } from './readAhead';
import { whyOf } from './storageTrouble';

/** A list of things of one kind, each stored under a key of its own; other tabs are told when it changes. */
interface Shape<Kept> {
  book: LocalForage;
  about: ListName;
  keyOf: (kept: Kept) => string;
  /** What is kept, from what is stored, whatever its schema; nothing where that is of another kind. */
  read: (stored: unknown) => Kept | undefined;
  /** What is stored, with its schema. */
  write: (kept: Kept) => object;
}

export function keptList<Kept extends object>({ book, about, keyOf, read, write }: Shape<Kept>) {
  const kept = shallowRef<Kept[]>([]);
  /** Why things that are stored could not be read, a sentence each. */
  const unread = shallowRef<string[]>([]);

  async function load({ rows }: Pick<Reading, 'rows'> = readNow): Promise<void> {
    unread.value = [];
    kept.value = (await allOf(book, rows<unknown>(book))).flatMap((stored) => {
      try {
        return read(stored) ?? [];
      } catch (error) {
        // What cannot be read stays where it is, and never stops the rest.
        unread.value = [...unread.value, whyOf(error)];
        return [];
      }
    });
  }

  /** A thing as it is stored, for an import. */
  const arriving = (thing: Kept): Arriving => [book, keyOf(thing), write(JSON.parse(JSON.stringify(thing)) as Kept)];

  /** Reads the list again, and has the other tabs do so: something was imported. */
  async function changed(): Promise<void> {
    await load();
    tellTabs({ about });
  }

  /** Keeps things, or writes over those of the same key. Resolves once they are stored. @throws {StorageTrouble} */
  async function put(...things: Kept[]): Promise<void> {
    const plain = JSON.parse(JSON.stringify(things)) as Kept[];
    await storeAll(
      book,
      plain.map((each) => [keyOf(each), write(each)]),
    );
    const keys = new Set(plain.map(keyOf));
    kept.value = [...kept.value.filter((each) => !keys.has(keyOf(each))), ...plain];
    tellTabs({ about });
  }

  /** Throws a thing away. */
  async function remove(key: string): Promise<void> {
    await removeValue(book, key);
    kept.value = kept.value.filter((each) => keyOf(each) !== key);
    tellTabs({ about });
  }

  onTabs((message) => {
    if (message.about === about) void load();
  });

  return { kept, unread, load, put, remove, arriving, changed };
}

/** Made when first needed: it takes long, and a start can do without. */
let collator: Intl.Collator | undefined;

/** The order of names as people number things: Cobble 9 before Cobble 12. */
export function byName({ name: one }: { name: string }, { name: other }: { name: string }): number {
  collator ??= new Intl.Collator(undefined, { numeric: true });
  return collator.compare(one, other);
}
