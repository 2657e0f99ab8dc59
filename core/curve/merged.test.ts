import { expect, it } from 'vitest';
import { merged } from './merged';

it('joins spans that a picture could not tell apart, whatever their order', () => {
  const spans = [
    { from: 50, to: 60 },
    { from: 0, to: 10 },
    { from: 14, to: 20 },
    { from: 15, to: 18 },
  ];
  expect(merged(spans, 5)).toEqual([
    { from: 0, to: 20 },
    { from: 50, to: 60 },
  ]);
  expect(merged(spans, 0)).toHaveLength(3);
});
