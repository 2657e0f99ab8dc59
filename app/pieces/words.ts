import { Node, mergeAttributes, type JSONContent } from '@tiptap/core';
import Bold from '@tiptap/extension-bold';
import Document from '@tiptap/extension-document';
import Italic from '@tiptap/extension-italic';
import { BulletList, ListItem } from '@tiptap/extension-list';
import Paragraph from '@tiptap/extension-paragraph';
import Text from '@tiptap/extension-text';
import { UndoRedo } from '@tiptap/extensions';
import type { Paragraph as Said, WordPart } from '@core/report';

/** A figure in running text: it is moved and deleted as one, and never typed into. */
const Figure = Node.create({
  name: 'figure',
  group: 'inline',
  inline: true,
  atom: true,
  marks: 'bold italic',
  addAttributes: () => ({ ref: {}, text: { default: '' }, kept: { default: null } }),
  parseHTML: () => [
    {
      tag: 'span[data-figure]',
      getAttrs: (element) => ({ ref: element.getAttribute('data-figure'), text: element.textContent }),
    },
  ],
  renderHTML: ({ node, HTMLAttributes }) => [
    'span',
    mergeAttributes(HTMLAttributes, { 'data-figure': node.attrs.ref as string, class: 'figure-in-words' }),
    node.attrs.text as string,
  ],
  renderText: ({ node }) => node.attrs.text as string,
});

/** All that the words of a piece can have. */
export const EXTENSIONS = [Document, Paragraph, Text, Bold, Italic, BulletList, ListItem, UndoRedo, Figure];

const marksOf = ({ bold, italic }: WordPart) => [...(bold ? [{ type: 'bold' }] : []), ...(italic ? [{ type: 'italic' }] : [])];

function inlineOf(part: WordPart): JSONContent[] {
  const marks = marksOf(part);
  if (part.ref !== undefined) return [{ type: 'figure', attrs: { ref: part.ref, text: part.text, kept: part.kept ?? null }, marks }];
  return part.text === '' ? [] : [{ type: 'text', text: part.text, marks }];
}

/** Words as the editor has them: items that follow each other are one list. */
export function toEditor(words: readonly Said[]): JSONContent {
  const content: JSONContent[] = [];
  for (const { as, parts } of words) {
    const paragraph = { type: 'paragraph', content: parts.flatMap(inlineOf) };
    const last = content.at(-1);
    if (as === 'text') content.push(paragraph);
    else if (last?.type === 'bulletList') last.content?.push({ type: 'listItem', content: [paragraph] });
    else content.push({ type: 'bulletList', content: [{ type: 'listItem', content: [paragraph] }] });
  }
  return { type: 'doc', content: content.length > 0 ? content : [{ type: 'paragraph' }] };
}

function partOf({ type, text = '', attrs = {}, marks = [] }: JSONContent): WordPart {
  const has = (mark: string) => marks.some((each) => each.type === mark);
  const look = { ...(has('bold') && { bold: true as const }), ...(has('italic') && { italic: true as const }) };
  if (type !== 'figure') return { text, ...look };
  const { ref, text: told, kept } = attrs as { ref: string; text: string; kept: string | null };
  return { text: told, ref, ...look, ...(kept !== null && { kept }) };
}

/** Words as they are kept. A list in a list is one list. */
export function fromEditor({ content = [] }: JSONContent, as: Said['as'] = 'text'): Said[] {
  return content.flatMap((node): Said[] => {
    if (node.type === 'paragraph') {
      const parts = (node.content ?? []).map(partOf);
      return parts.length > 0 ? [{ as, parts }] : [];
    }
    return fromEditor(node, node.type === 'listItem' ? 'item' : as);
  });
}
