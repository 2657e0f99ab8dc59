import { nanoid } from 'nanoid';
import { defineStore } from 'pinia';
import { computed } from 'vue';
import { SCHEMA } from '@core/ink';
import { pieceSchema, usualBlocks, type Piece } from '@core/report';
import { exclusively } from '../ledger/locks';
import { keptList } from '../ledger/keptList';
import { firstFree } from './firstFree';
import { useLogbook } from './runs';

/** What a piece is written from: runs, and what they are set against each other by. */
export type PieceSource = Pick<Piece, 'runs'> & Partial<Pick<Piece, 'study' | 'from' | 'base' | 'level' | 'unit'>>;

/** Pieces: what is published of runs. */
export const usePieces = defineStore('pieces', () => {
  const logbook = useLogbook();
  const { kept, unread, load, put, remove, changed } = keptList(['piece']);
  /** The latest first. */
  const all = computed(() => kept.value.map(({ thing }) => thing).sort((one, other) => other.at - one.at));

  /** Saves a piece. @returns it, as it is stored @throws {ValidationError | StorageTrouble} */
  async function save(piece: Piece): Promise<Piece> {
    const checked = pieceSchema.validateSync({ ...JSON.parse(JSON.stringify(piece)), at: Date.now() });
    await put({ kind: 'piece', thing: checked });
    return checked;
  }

  /**
   * Changes a piece as it is stored by now: two tabs may write at once, each what it changed.
   *
   * @throws {ValidationError | StorageTrouble}
   */
  const change = (id: string, make: (stored: Piece) => Partial<Piece>): Promise<void> =>
    exclusively('piece', async () => {
      await load();
      const stored = all.value.find((each) => each.id === id);
      if (!stored) throw new Error('This piece is not in the logbook any more: nothing was changed.');
      const part = make(stored);
      if (Object.keys(part).length > 0) await save({ ...stored, ...part });
    });

  /** Begins a piece of some runs. @throws {StorageTrouble} */
  async function begin(name: string, source: PieceSource): Promise<Piece> {
    await loadAll();
    const free = firstFree(name.slice(0, 70), all.value);
    return save({ schema: SCHEMA, id: nanoid(12), name: free, at: Date.now(), ...source, blocks: usualBlocks() });
  }

  async function loadAll(): Promise<void> {
    // Those of the demo come in with its runs.
    await logbook.arrived();
    await load();
  }

  return { all, load: loadAll, change, begin, remove: (id: string) => remove('piece', id), changed, unread };
});
