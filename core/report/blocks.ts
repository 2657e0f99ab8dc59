/** What a block is made of. */
export type BlockKind = 'words' | 'table' | 'picture';

interface BlockRow {
  id: string;
  title: string;
  kind: BlockKind;
}

/** The blocks of a piece, in the order in which a draft has them. A new one is a row here, and what it says in writeUp.ts. */
export const BLOCKS = [
  { id: 'short', title: 'The short answer', kind: 'words' },
  { id: 'tried', title: 'What works with what', kind: 'table' },
  { id: 'times', title: 'Times and gains', kind: 'table' },
  { id: 'bars', title: 'Side by side', kind: 'picture' },
  { id: 'curves', title: 'Curves', kind: 'picture' },
  { id: 'power', title: 'Power and heat', kind: 'table' },
  { id: 'watts', title: 'Power and heat over time', kind: 'picture' },
  { id: 'cost', title: 'What each costs', kind: 'table' },
  { id: 'done', title: 'How it was done', kind: 'words' },
  { id: 'gear', title: 'What it was done with', kind: 'words' },
  { id: 'limits', title: 'What these readings cannot tell', kind: 'words' },
  { id: 'cautions', title: 'Cautions', kind: 'words' },
  { id: 'repeat', title: 'How to repeat it', kind: 'words' },
  { id: 'lent', title: 'Who lent or paid for what', kind: 'words' },
  { id: 'corrections', title: 'Corrections', kind: 'words' },
] as const satisfies readonly BlockRow[];
export type BlockId = (typeof BLOCKS)[number]['id'];
export const BLOCK_IDS = BLOCKS.map(({ id }) => id);

export const blockOf = (id: string): (typeof BLOCKS)[number] => {
  const found = BLOCKS.find((each) => each.id === id);
  if (!found) throw new Error(`There is no block ${id}. Take one of ${BLOCK_IDS.join(', ')}.`);
  return found;
};
