import type { Headline } from './headline';
import type { Finding } from './question';

/** A finding as it is handed on: what it answers, its sentence, in one's own words where there are some, and its reason. */
export function findingText({ title, says, why, settle }: Finding, own?: string): string {
  const sentence = own ?? (/[.!?]$/.test(says) ? says : `${says}.`);
  // In one's own words it stands without a reason that was worked out for others.
  return [`${title}: ${sentence}`, ...(own === undefined && why ? [why] : []), ...(own === undefined && settle ? [settle.says] : [])].join(
    '\n',
  );
}

/** The whole verdict as it is handed on: the answer in short, how sure it is, then a paragraph for each finding. @param own words of a need */
export const verdictText = (
  findings: readonly Finding[],
  own: (need: string) => string | undefined = () => undefined,
  headline?: Headline,
): string =>
  [...(headline ? [[...headline.says, headline.sure].join('\n')] : []), ...findings.map((each) => findingText(each, own(each.need)))].join(
    '\n\n',
  );
