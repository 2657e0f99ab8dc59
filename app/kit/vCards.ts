import type { ObjectDirective } from 'vue';

/** Writes the heading of each column onto its cells, for on a phone a row is a card and its headings are gone (frame/paper.css). */
function label(table: HTMLTableElement): void {
  // A heading that is only said is not written either.
  const headings = [...(table.tHead?.rows[0]?.cells ?? [])].map((cell) =>
    cell.querySelector('.unseen-text') ? '' : cell.textContent.trim(),
  );
  for (const row of [...table.tBodies].flatMap(({ rows }) => [...rows])) {
    let column = 0;
    for (const cell of row.cells) {
      cell.dataset.label = headings[column] ?? '';
      cell.toggleAttribute('data-empty', cell.textContent.trim() === '');
      column += cell.colSpan;
    }
  }
}

/** A table whose rows are cards on a phone. */
export const vCards: ObjectDirective<HTMLTableElement> = {
  created: (table) => {
    table.classList.add('cards');
  },
  mounted: label,
  updated: label,
};
