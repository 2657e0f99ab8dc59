import { expect, it } from 'vitest';
import { shareInWords } from './share';

it('says a share as the fraction that lies nearest', () => {
  expect([0.02, 0.11, 0.34, 0.5, 0.7, 0.88, 0.97].map(shareInWords)).toEqual([
    'next to nothing of',
    'about a tenth of',
    'about a third of',
    'about half of',
    'about two thirds of',
    'about nine tenths of',
    'nearly all of',
  ]);
});
