import type { Headline } from './headline';
import type { Finding } from './question';

/** A finding as it is handed on: its sentence, in one's own words where there are some, and its reasons. Those stand with their own sentence alone. */
export function findingParts({ says, why, settle }: Finding, own?: string): { sentence: string; reasons: string[] } {
  if (own !== undefined) return { sentence: own, reasons: [] };
  return { sentence: /[.!?]$/.test(says) ? says : `${says}.`, reasons: [...(why ? [why] : []), ...(settle ? [settle.says] : [])] };
}

/** The same as a text, after what it answers. */
export function findingText(finding: Finding, own?: string): string {
  const { sentence, reasons } = findingParts(finding, own);
  return [`${finding.title}: ${sentence}`, ...reasons].join('\n');
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
