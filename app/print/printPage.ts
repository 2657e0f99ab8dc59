import './print.css';
import { tableHtml } from '@core/quantity';
import { momentText } from '../kit/dates';
import { onPaper } from '../kit/printing';
import { PALETTES, type ThemeName } from '../kit/theme';
import { penOf, PEN_COUNT } from '../strip/pens';

/**
 * What is printed is a page of its own, filled anew each time: a copy of the place that is on the screen, light, without what acts. Strips are drawn anew as
 * SVG, long lists are told whole, fields say what stands in them.
 */
function fillPrintPage(): void {
  const place = document.getElementById('place');
  if (!place) return;
  const page = document.querySelector<HTMLElement>('.print-page') ?? document.createElement('div');
  // Its colours are those of the light theme, whichever is on the screen.
  page.className = 'print-page v-theme--paper';
  const copy = place.cloneNode(true) as HTMLElement;
  copy.removeAttribute('id');
  const [originals, copies] = [[...place.querySelectorAll('*')], [...copy.querySelectorAll('*')]];
  for (const [index, original] of originals.entries()) {
    const made = copies[index];
    if (!made) continue;
    // What stood in a line or a place of its own stands as a word does.
    if (/^(block|flex|grid|inline-)/.test(getComputedStyle(original).display)) {
      made.before(' ');
      made.after(' ');
    }
    settle(original, made);
  }
  for (const gone of copy.querySelectorAll(LEFT_OUT)) gone.remove();
  for (const each of copy.querySelectorAll('[id]')) each.removeAttribute('id');
  const dated = document.createElement('p');
  dated.className = 'soft printed';
  dated.textContent = `Inkpath Log, printed ${momentText(Date.now(), { year: true })}`;
  const header = copy.querySelector('header');
  header?.append(dated);
  // The title lies with what follows it, rather than alone on a page that stands.
  const next = header?.nextElementSibling;
  if (next?.matches('.wide-on-paper') || next?.querySelector('.wide-on-paper')) header?.classList.add('wide-on-paper');
  for (const each of copy.querySelectorAll<HTMLElement | SVGElement>('[style], [fill], [stroke]')) lighten(each);
  page.replaceChildren(copy);
  document.body.append(page);
}

/** What only acts, or says something for the moment. */
const LEFT_OUT =
  'nav, .v-btn, [data-acts], [role="group"], [role="alert"], .tools, .reader > .whole, .reader .cursor, .v-input, select, input, textarea';

/** Makes of a copied element what it is on paper. */
function settle(original: Element, copy: Element): void {
  const as = onPaper(original);
  if (as?.html) {
    copy.innerHTML = as.html();
    copy.classList.add('drawn-on-paper');
  } else if (as?.table) {
    copy.innerHTML = tableHtml(as.table());
    copy.classList.add('told-on-paper');
  } else if (original instanceof HTMLCanvasElement) {
    const image = document.createElement('img');
    image.src = original.toDataURL();
    image.alt = original.getAttribute('aria-label') ?? '';
    copy.replaceWith(image);
  } else if (original instanceof HTMLTableElement && columnsIn(original) > UPRIGHT) {
    // Its heading goes with it onto the page that lies.
    (copy.closest('section:not(.sheet)') ?? copy).classList.add('wide-on-paper');
    if (columnsIn(original) > ACROSS) copy.classList.add('dense-on-paper');
  } else if (original.matches('.v-input')) {
    const said = saidByField(original);
    if (said) copy.before(said);
  } else if (original instanceof HTMLSelectElement) copy.before(original.selectedOptions[0]?.textContent ?? '');
  else if (original.matches('th') && original.textContent.trim() === 'Actions') copy.replaceChildren();
  else if (original instanceof HTMLDetailsElement) copy.setAttribute('open', '');
  else if (original instanceof HTMLButtonElement && original.matches('.link, [aria-expanded]:not(.figure)')) copy.remove();
  else if (original instanceof HTMLButtonElement && !original.matches('.v-btn, [data-acts], [role="group"] *')) {
    const words = document.createElement('span');
    words.className = copy.className;
    words.append(...copy.childNodes);
    copy.replaceWith(words);
  }
}

/** So many columns have room on a page that stands upright, and on one that lies. */
const [UPRIGHT, ACROSS] = [7, 11];
const columnsIn = (table: HTMLTableElement): number => Math.max(0, ...[...table.rows].map(({ cells }) => cells.length));

/** What stands in a field, with its name; nothing of an empty one. */
function saidByField(field: Element): HTMLElement | undefined {
  const name = field.querySelector('label')?.textContent.trim() ?? '';
  const input = field.querySelector<HTMLInputElement | HTMLTextAreaElement>('input, textarea');
  const box = field.querySelector<HTMLInputElement>('input[type="checkbox"]');
  const chosen = [...field.querySelectorAll('.v-select__selection, .v-chip, .v-radio:has(input:checked) label')].map((each) =>
    each.textContent.trim(),
  );
  const value = box ? (box.checked ? 'yes' : '') : chosen.length > 0 ? chosen.join(', ') : (input?.value.trim() ?? '');
  if (value === '' || input?.type === 'search') return undefined;
  const said = document.createElement('p');
  said.className = 'field-on-paper';
  const label = document.createElement('span');
  label.className = 'soft';
  label.textContent = name === '' ? '' : `${name}: `;
  said.append(label, value);
  return said;
}

const rgb = (hex: string) => `rgb(${[1, 3, 5].map((at) => Number.parseInt(hex.slice(at, at + 2), 16)).join(', ')})`;

/** Pens and ink of the dark theme, each with that of the light one. */
const PAIRS = [
  ...Array.from({ length: PEN_COUNT / 2 }, (_, pen) => (['darkRoom', 'paper'] as ThemeName[]).map((theme) => penOf(pen, theme).colour)),
  [PALETTES.darkRoom.ink, PALETTES.paper.ink],
];

/** Colours of the dark theme as those of the light one, in whatever was written of an element. */
const inLight = (written: string): string =>
  PAIRS.reduce((text, [dark = '', light = '']) => text.replaceAll(dark, light).replaceAll(rgb(dark), rgb(light)), written);

/** An element in colours for paper. Never by markup that is read anew: our policy lets in no style that stands in it, and bars would have no width. */
function lighten(element: HTMLElement | SVGElement): void {
  element.style.cssText = inLight(element.style.cssText);
  for (const name of ['fill', 'stroke']) {
    const colour = element.getAttribute(name);
    if (colour) element.setAttribute(name, inLight(colour));
  }
}

/** Fills the page whenever the browser is about to print, and takes it away after. */
export function listenForPrint(): void {
  window.addEventListener('beforeprint', fillPrintPage);
  window.addEventListener('afterprint', () => document.querySelector('.print-page')?.remove());
}
