import { expect, it } from 'vitest';
import { lettersOf } from './letters';

const given = (...lanes: [id: string, lane?: string][]) => Object.fromEntries(lettersOf(lanes.map(([id, lane]) => ({ id, lane }))));

it('leaves every lane its letter when others come and go', () => {
  expect(given(['one', 'A'], ['two', 'B'], ['three', 'C'])).toEqual({ one: 'A', two: 'B', three: 'C' });
  expect(given(['two', 'B'], ['three', 'C'])).toEqual({ two: 'B', three: 'C' });
});

it('gives the first that is free to those that have none, or one that another has', () => {
  expect(given(['old'], ['two', 'A'], ['twin', 'A'])).toEqual({ old: 'B', two: 'A', twin: 'C' });
});
