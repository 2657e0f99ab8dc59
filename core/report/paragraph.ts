import { array, boolean, object, string, type InferType } from 'yup';

/** Parts of a paragraph, paragraphs of a block, and characters of a part: more than anybody writes. */
const MOST_PARTS = 400;
const MOST_PARAGRAPHS = 200;
const MOST_CHARACTERS = 4000;
/** A reference names a setup or two, and a figure. */
const LONGEST_REF = 120;

const partSchema = object({
  /** As it stands. Of a figure: as it was when the words around it were written. */
  text: string().defined().max(MOST_CHARACTERS),
  bold: boolean().oneOf([true, undefined]),
  italic: boolean().oneOf([true, undefined]),
  /** Which figure it is (figures.ts). */
  ref: string().max(LONGEST_REF),
  /** What the figure was when a person chose to keep what stands here. */
  kept: string().max(MOST_CHARACTERS),
}).noUnknown();

const paragraphSchema = object({
  as: string()
    .oneOf(['text', 'item'] as const)
    .required(),
  parts: array().of(partSchema).required().max(MOST_PARTS),
}).noUnknown();

/** Running text as it is kept: paragraphs of parts, some of them figures. */
export const paragraphsField = () => array().of(paragraphSchema).max(MOST_PARAGRAPHS);

export type WordPart = InferType<typeof partSchema>;
export type Paragraph = InferType<typeof paragraphSchema>;

export const textOf = ({ parts }: Pick<Paragraph, 'parts'>): string => parts.map(({ text }) => text).join('');

/** All of it as lines. */
export const linesOf = (paragraphs: readonly Paragraph[]): string[] => paragraphs.map(textOf);

/** A sentence as a paragraph, or as an item of a list. */
export const said = (text: string, as: Paragraph['as'] = 'text'): Paragraph => ({ as, parts: [{ text }] });
export const items = (texts: readonly string[]): Paragraph[] => texts.map((text) => said(text, 'item'));
