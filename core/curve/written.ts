import type { Span } from '../samples/gaps';
import type { Working } from './working';

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
