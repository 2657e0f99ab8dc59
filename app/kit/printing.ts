import type { PlainTable } from '@core/quantity';

/** What an element is on paper, where a copy of it would not do: a strip draws itself anew, a list tells rows that are not on the screen. */
export interface OnPaper {
  /** Markup of our own making: whatever a person wrote in it is escaped. */
  html?: () => string;
  table?: () => PlainTable;
}
const known = new WeakMap<Element, OnPaper>();
export const printsAs = (element: Element, as: OnPaper): unknown => known.set(element, as);
export const onPaper = (element: Element): OnPaper | undefined => known.get(element);

/** What makes the page that is printed, fetched when it is wanted: it fills it when the browser is about to print. */
let fetched = (): Promise<unknown> => Promise.resolve();
export const printsBy = (fetch: () => Promise<unknown>): void => {
  fetched = fetch;
};

/** Prints what is on the screen: whole, light, without its keys (print/printPage.ts). */
export async function printScreen(): Promise<void> {
  await fetched();
  window.print();
}
