import type { Entry } from '../ink/entry';
import type { RunInk } from '../ink/fold';
import { upperFirst } from '../quantity/letters';
import type { ComposedBlock } from './compose';
import { stateOf, type KnownFigure } from './figures';
import type { Paragraph } from './paragraph';
import type { CorrectionLine, Piece, Told } from './pieceSchema';
import type { WrittenUp } from './writeUp';

/** A sentence without its figures: so that a figure that changed is no other sentence too. */
const bare = ({ parts }: Paragraph, known: ReadonlyMap<string, KnownFigure>): string =>
  parts.map(({ text, ref }) => (ref !== undefined && known.has(ref) ? '…' : text)).join('');

/** Sentences and texts that are kept of what was published, in characters. */
const LONGEST = 590;
const cut = (text: string): string => (text.length > LONGEST ? `${text.slice(0, LONGEST)}…` : text);

/** What readers are told: every figure that stands in the piece, its place where it has one, and the sentences of the short answer. */
export function toldIn(blocks: readonly ComposedBlock[], written: WrittenUp): Told[] {
  const shown = blocks.filter(({ isHidden, isEmpty }) => !isHidden && isEmpty === undefined);
  const found = new Map<string, Told>();
  for (const { id, table, words } of shown) {
    for (const { name, cells, setup } of table?.rows ?? [])
      for (const [at, { ref, value, margin }] of cells.entries()) {
        const title = table?.columns[at]?.title ?? '';
        const of = ref === undefined ? `${title} of ${name}` : (written.known.get(ref)?.of ?? `${title} of ${name}`);
        const key = ref ?? `${setup}/${table?.columns[at]?.id ?? ''}`;
        if (value !== '—') found.set(key, { key, of: cut(of), says: cut([value, margin && `(${margin})`].filter(Boolean).join(' ')) });
      }
    for (const [at, paragraph] of words.entries()) {
      for (const part of paragraph.parts) {
        const figure = part.ref === undefined ? undefined : written.known.get(part.ref);
        if (!figure || found.has(figure.ref) || stateOf(part, written.known).is !== 'as written') continue;
        found.set(figure.ref, {
          key: figure.ref,
          of: cut(figure.of),
          says: cut([part.text, figure.margin && `(${figure.margin})`].filter(Boolean).join(' ')),
        });
      }
      if (id === 'short' || id === 'limits') {
        const key = `sentence/${id}/${at + 1}`;
        found.set(key, {
          key,
          of: `sentence ${at + 1} of ${id === 'short' ? 'the short answer' : 'what cannot be told'}`,
          says: cut(bare(paragraph, written.known)),
        });
      }
    }
  }
  return [...found.values()];
}

/** Why figures of some runs changed since a moment, in words that follow a semicolon; nothing where no ink says. */
export type CauseOf = (runs: readonly string[]) => string | undefined;

/**
 * What readers must be told of what was published: figures and sentences that are others by now, or are there no more.
 *
 * @param told  as readers know it
 * @param now   as it would be published now
 * @param cause why figures changed
 */
export function changesSince(
  told: readonly Told[],
  now: readonly Told[],
  written: WrittenUp,
  cause: CauseOf,
): { key: string; text: string }[] {
  const current = new Map(now.map((each) => [each.key, each]));
  return told.flatMap(({ key, of, says }) => {
    const found = current.get(key);
    if (found?.says === says) return [];
    const runs = written.known.get(key)?.runs ?? [];
    const why = runs.length > 0 ? cause(runs) : undefined;
    if (key.startsWith('sentence/'))
      return [
        {
          key,
          text: cut(found ? `${upperFirst(of)} was “${says}”; it is “${found.says}”.` : `${upperFirst(of)}, “${says}”, stands no more.`),
        },
      ];
    const because = why === undefined ? '' : `; ${why}`;
    return [
      {
        key,
        text: cut(
          found
            ? `${of} was given as ${says}${because}; it is ${found.says}.`
            : `${of} was given as ${says}${because}; it is told no more.`,
        ),
      },
    ];
  });
}

/** What is said of ink that came since, by its kind, the weightiest first. */
const CAUSES: readonly [kinds: readonly Entry['kind'][], says: string][] = [
  [['strike'], 'a reading was struck'],
  [['correction'], 'its gear was corrected'],
  [['log'], 'a log was laid into the run'],
  [['reading'], 'a reading was added'],
];

/** Why figures of some runs changed since a moment, by the ink that was written after it; nothing where there is none. */
export function causeIn(runs: readonly Pick<RunInk, 'entries'>[], since: number): string | undefined {
  const later = new Set(runs.flatMap(({ entries }) => entries.flatMap(({ kind, written }) => (written > since ? [kind] : []))));
  return CAUSES.find(([kinds]) => kinds.some((kind) => later.has(kind)))?.[1];
}

/** A piece that was published, with what readers must be told since: a line each, dated, and never the same twice. */
export function corrected(
  piece: Piece,
  now: readonly Told[],
  written: WrittenUp,
  cause: CauseOf,
  at: number,
  idOf: () => string,
): Piece | undefined {
  if (!piece.published) return undefined;
  const changes = changesSince(piece.told ?? [], now, written, cause);
  if (changes.length === 0) return undefined;
  const lines: CorrectionLine[] = changes.map(({ text }) => ({ id: idOf(), at, text }));
  return { ...piece, told: [...now], corrections: [...(piece.corrections ?? []), ...lines] };
}
