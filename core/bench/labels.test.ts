import { readFileSync } from 'node:fs';
import { expect, it } from 'vitest';
import { readLabel } from './label';
import { writeOffer } from './offer';

/**
 * Spellings of labels, as they are printed and typed (common practice, no source), written down before the reader was made to read them. A label is
 * unread when an offer on it is not found and something is shown as not read; misread when what was found is wrong and nothing says so.
 */
interface Spelling {
  text: string;
  offers: string[];
  connector?: string;
}
const SPELLINGS = readFileSync(new URL('fixtures/labels.jsonl', import.meta.url), 'utf8')
  .trim()
  .split('\n')
  .map((line) => JSON.parse(line) as Spelling);

it('reads 98 of 100 spellings, and misreads none in silence', () => {
  const outcomes = SPELLINGS.map(({ text, offers, connector }) => {
    const { offers: found, unread, errors } = readLabel(text, connector);
    const isRight = JSON.stringify(found.map(writeOffer)) === JSON.stringify(offers);
    return { text, found: found.map(writeOffer), outcome: isRight ? 'read' : unread.length + errors.length > 0 ? 'unread' : 'misread' };
  });
  const of = (outcome: string) => outcomes.filter((each) => each.outcome === outcome);
  expect(of('misread')).toEqual([]);
  expect(of('unread').length / SPELLINGS.length, JSON.stringify(of('unread'), undefined, 1)).toBeLessThanOrEqual(0.02);
  expect(SPELLINGS.length).toBeGreaterThanOrEqual(250);
});
