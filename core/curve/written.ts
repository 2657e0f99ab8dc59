import type { Span } from '../samples/gaps';
import type { Working } from './working';
import type { Figures } from './figures';

/** One figure of a run in words: what it is, how much, how sure, how it was worked out and where on the strip it lies. */
export interface WrittenFigure {
  id: string;
  group: 'When it reached' | 'What it gained' | 'Power and energy' | 'Stages' | 'Heat';
  label: string;
  /** The figure with its unit; absent when it cannot be given, and then `detail` says why. */
  value?: string | undefined;
  detail: string;
  working?: Working | undefined;
  span?: Span | undefined;
}

/** Of several sources that fed a run, the one at a moment, behind a figure that is of that moment: ` · on Quern 65`. */
export function onSource(feeds: Figures['feeds'], moment: number): string {
  const name = feeds.findLast(({ from }) => from <= moment)?.name;
  return name === undefined ? '' : ` · on ${name}`;
}
