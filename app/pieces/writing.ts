import { nanoid } from 'nanoid';
import { computed, ref, shallowRef, watch } from 'vue';
import {
  compose,
  corrected,
  causeIn,
  madeOf,
  pageOf,
  pieceHtml,
  pageMarkdown,
  scriptOf,
  toldIn,
  usualBlocks,
  writeUp,
  type BlockId,
  type Paragraph,
  type Piece,
  type PieceBlock,
  type WordPart,
} from '@core/report';
import { dayText } from '../kit/dates';
import { report } from '../kit/failures';
import { useLogbook } from '../logbook/runs';
import { useMethods } from '../logbook/methods';
import { usePieces } from '../logbook/pieces';
import { useShelf } from '../logbook/shelf';
import { troubleOf } from '../logbook/trouble';
import type { Beside } from '../workers/opened';
import { drawnOf, onPage } from './pictures';

/** A day as a piece has it. */
const day = (at: number) => dayText(at, { year: true });

/**
 * A piece that is being written: what is kept of it, what its runs say now, and all that can be done with it. Every change is kept at once.
 *
 * @param id of the piece
 */
export function useWriting(id: () => string) {
  const pieces = usePieces();
  const logbook = useLogbook();
  const shelf = useShelf();
  const methods = useMethods();

  const isLoaded = ref(false);
  const piece = computed(() => pieces.all.find((each) => each.id === id()));
  const runs = computed(() => piece.value?.runs ?? []);
  const stamps = computed(() => runs.value.map((run) => `${run} ${logbook.stampOf(run)}`).join());

  const found = shallowRef<Beside[]>([]);
  /** For which runs, as their ink was, they were opened. */
  const openedAs = ref('');
  const isOpening = ref(false);
  let turn = 0;
  watch(
    stamps,
    async (as) => {
      const mine = (turn += 1);
      if (runs.value.length === 0) return;
      isOpening.value = true;
      const ids = runs.value;
      const all = await logbook
        .openForComparison(ids, () => undefined)
        .finally(() => {
          if (mine === turn) isOpening.value = false;
        });
      if (mine !== turn) return;
      found.value = ids.flatMap((run) => all.get(run) ?? []).filter(({ run }) => run.discardedAt === undefined);
      openedAs.value = as;
    },
    { immediate: true },
  );
  const isOpen = computed(() => isLoaded.value && openedAs.value === stamps.value && !isOpening.value);
  /** Runs of it that are gone: nothing is corrected until a person says to write it without them. */
  const gone = computed(() => {
    const there = new Set(found.value.map(({ run }) => run.header.id));
    return isOpen.value ? runs.value.filter((run) => !there.has(run)) : [];
  });

  /** What of the piece it is written by: a caption that changes is no reason to work everything out again. */
  const goesBy = computed(() => {
    const { base, level, unit, lent, corrections } = piece.value ?? {};
    return JSON.stringify({ base, level, unit, lent, corrections });
  });
  const written = computed(() =>
    writeUp(JSON.parse(goesBy.value) as Parameters<typeof writeUp>[0], {
      judged: found.value,
      shelf: shelf.everything(),
      methods: methods.all,
      day,
    }),
  );
  const blocks = computed(() => compose(piece.value ?? { blocks: usualBlocks() }, written.value));
  const kept = (block: BlockId) => piece.value?.blocks.find((each) => each.id === block);
  const drawn = computed(
    () =>
      new Map(
        blocks.value.flatMap((block) => {
          if (block.kind !== 'picture' || block.isEmpty !== undefined) return [];
          const its = drawnOf({ id: block.id, setups: block.setups, columns: kept(block.id)?.columns }, found.value, written.value);
          return its ? [[block.id, its] as const] : [];
        }),
      ),
  );

  const about = computed(() => {
    const { name = '', published } = piece.value ?? {};
    return {
      title: name,
      about: written.value.about,
      dated: published ? `Published ${day(published.at)}.` : `A draft of ${day(Date.now())}.`,
    };
  });
  /** As readers get it, without its pictures. */
  const plainPage = computed(() =>
    pageOf(about.value, blocks.value, written.value.known, ({ id: block }) => {
      const its = drawn.value.get(block);
      return its && { light: '', dark: '', says: its.says, twin: its.twin };
    }),
  );
  /** The same as it is printed. */
  const onPaper = () =>
    pieceHtml(
      pageOf(about.value, blocks.value, written.value.known, ({ id: block }) => {
        const its = drawn.value.get(block);
        return its && onPage(its, true);
      }),
    );
  const script = computed(() => scriptOf(plainPage.value));
  const trouble = ref('');

  /** Changes it as it is stored by now, be it by another tab. @param make what becomes of it */
  async function change(make: (stored: Piece) => Partial<Piece>): Promise<void> {
    trouble.value = '';
    try {
      await pieces.change(id(), make);
    } catch (error) {
      trouble.value = troubleOf(error);
    }
  }
  /** All blocks of a piece, those that were not kept yet among them. */
  const standing = (stored: Piece): PieceBlock[] =>
    compose(stored, written.value).map((block) => stored.blocks.find((each) => each.id === block.id) ?? { id: block.id });
  const changeBlock = (block: BlockId, make: (stored: PieceBlock) => Partial<PieceBlock>) =>
    change((stored) => ({ blocks: standing(stored).map((each) => (each.id === block ? { ...each, ...make(each) } : each)) }));

  function move(block: BlockId, to: number): Promise<void> {
    return change((stored) => {
      const all = standing(stored);
      const from = all.findIndex((each) => each.id === block);
      const taken = all.splice(from, 1);
      all.splice(Math.max(0, Math.min(all.length, to)), 0, ...taken);
      return { blocks: all };
    });
  }
  /** Hides a block, or shows it again. What was corrected is never hidden once there is anything. */
  const hide = (block: BlockId, hidden: boolean) => changeBlock(block, () => ({ hidden: hidden || undefined }));
  const canHide = (block: BlockId) => block !== 'corrections' || (piece.value?.corrections ?? []).length === 0;

  /** What is worked out of a block now, as text. */
  const madeNow = (block: BlockId) => madeOf(written.value.words[block] ?? []);
  const write = (block: BlockId, words: Paragraph[]) => changeBlock(block, () => ({ words, made: madeNow(block) }));
  /** Takes what is worked out again, in place of what was written. */
  const unwrite = (block: BlockId) => changeBlock(block, () => ({ words: undefined, made: undefined }));
  /** Changes parts of the words of a block; what is worked out now was seen. */
  const changeParts = (block: BlockId, make: (part: WordPart, row: number, place: number) => WordPart) =>
    changeBlock(block, ({ words }) => ({
      words: words?.map((each, row) => ({ ...each, parts: each.parts.map((part, place) => make(part, row, place)) })),
      made: madeNow(block),
    }));
  const nowOf = ({ ref: figure }: WordPart) => (figure === undefined ? undefined : written.value.known.get(figure)?.text);
  /** Keeps words that somebody wrote, though what is worked out is another by now. */
  const keepWords = (block: BlockId) => changeParts(block, (part) => ({ ...part, kept: nowOf(part) ?? part.kept }));
  /** Uses a figure as it is now, or keeps what stands in the words. @param at its paragraph, and its place in it */
  const settle = (block: BlockId, [paragraph, column]: readonly [number, number], isUsed: boolean) =>
    changeParts(block, (part, row, place) => {
      const now = nowOf(part);
      if (row !== paragraph || place !== column || now === undefined) return part;
      return isUsed ? { ...part, text: now, kept: undefined } : { ...part, kept: now };
    });

  const publish = () =>
    change((stored) => ({
      published: { at: Date.now(), text: pageMarkdown(plainPage.value).slice(0, 200_000) },
      told: toldIn(compose(stored, written.value), written.value),
    }));

  // What was published and is another now is corrected at once, never silently; not while runs are missing.
  watch(
    [isOpen, gone, () => written.value, () => piece.value?.published?.at],
    () => {
      if (!isOpen.value || gone.value.length > 0 || !piece.value?.published) return;
      const correct = (stored: Piece): Piece | undefined => {
        const since = Math.max(stored.published?.at ?? 0, ...(stored.corrections ?? []).map(({ at }) => at));
        const of = (some: readonly string[]) => found.value.flatMap(({ run }) => (some.includes(run.header.id) ? [run] : []));
        const now = toldIn(compose(stored, written.value), written.value);
        return corrected(
          stored,
          now,
          written.value,
          (some) => causeIn(of(some), since),
          Date.now(),
          () => nanoid(10),
        );
      };
      if (correct(piece.value)) pieces.change(id(), (stored) => correct(stored) ?? {}).catch(report);
    },
    { immediate: true },
  );

  async function load(): Promise<void> {
    await Promise.all([pieces.load(), methods.load()]);
    isLoaded.value = true;
  }

  return {
    load,
    isLoaded,
    isOpen,
    piece,
    opened: found,
    gone,
    written,
    blocks,
    drawn,
    about,
    plainPage,
    onPaper,
    script,
    trouble,
    change,
    kept,
    changeBlock,
    move,
    hide,
    canHide,
    write,
    unwrite,
    keepWords,
    settle,
    publish,
    leaveOut: () => change((stored) => ({ runs: stored.runs.filter((run) => !gone.value.includes(run)) })),
  };
}
export type PieceWriting = ReturnType<typeof useWriting>;
