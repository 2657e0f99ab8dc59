import { shallowRef } from 'vue';
import { drop, save } from './acts';
import { onTabs, tellTabs, type ListName } from './channel';
import type { Kind } from './keys';
import { readNow, type Reading } from './readAhead';
import { whyOf } from './storageTrouble';
import type { Row } from './transactions';

/** A list of things, each stored under a key of its own; other tabs are told when it changes. */
interface Shape<Kept> {
  /** Under which kinds they are stored. */
  kinds: readonly Kind[];
  about: ListName;
  keyOf: (kept: Kept) => string;
  /** What is kept, from what is stored, whatever its schema. */
  read: (stored: unknown) => Kept;
  /** What is stored, with its schema. */
  write: (kept: Kept) => object;
}

export function keptList<Kept extends object>({ kinds, about, keyOf, read, write }: Shape<Kept>) {
  const kept = shallowRef<Kept[]>([]);
  /** Why things that are stored could not be read, a sentence each. */
  const unread = shallowRef<string[]>([]);

  async function load({ rows }: Pick<Reading, 'rows'> = readNow): Promise<void> {
    const stored = (await Promise.all(kinds.map((kind) => rows<unknown>(kind)))).flat();
    const why: string[] = [];
    kept.value = stored.flatMap(([, value]) => {
      try {
        return [read(value)];
      } catch (error) {
        // What cannot be read stays where it is, and never stops the rest.
        why.push(whyOf(error));
        return [];
      }
    });
    unread.value = why;
  }

  const plain = (thing: Kept): Kept => JSON.parse(JSON.stringify(thing)) as Kept;
  /** A thing as it is stored. */
  const rowOf = (thing: Kept): Row => [keyOf(thing), write(plain(thing))];

  /** Reads the list again, and has the other tabs do so: something was imported. */
  async function changed(): Promise<void> {
    await load();
    tellTabs({ about });
  }

  /** Keeps things, or writes over those of the same key. Resolves once they are stored. @throws {StorageTrouble} */
  async function put(...things: Kept[]): Promise<void> {
    await save(things.map(rowOf));
    const keys = new Set(things.map(keyOf));
    kept.value = [...kept.value.filter((each) => !keys.has(keyOf(each))), ...things.map(plain)];
    tellTabs({ about });
  }

  /** Throws a thing away. @throws {StorageTrouble} */
  async function remove(key: string): Promise<void> {
    await drop(key);
    kept.value = kept.value.filter((each) => keyOf(each) !== key);
    tellTabs({ about });
  }

  onTabs((message) => {
    if (message.about === about) void load();
  });

  return { kept, unread, load, put, remove, rowOf, changed };
}

/** Made when first needed: it takes long, and a start can do without. */
let collator: Intl.Collator | undefined;

/** The order of names as people number things: Cobble 9 before Cobble 12. */
export function byName({ name: one }: { name: string }, { name: other }: { name: string }): number {
  collator ??= new Intl.Collator(undefined, { numeric: true });
  return collator.compare(one, other);
}
