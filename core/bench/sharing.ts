import { clipped, MOST_QUOTED, quoted } from '../quantity/letters';

/** What some ports give while they, and no others, are in use. Watts in the order of the names. */
export interface SharingRule {
  ports: string[];
  watts: number[];
}

/**
 * Reads rules for shared ports: `C1+C2: 45+20`, one a line or split by semicolons.
 *
 * @param text  as typed
 * @param known names of the ports there are
 * @returns the rules that could be read, and a sentence for each that could not
 */
export function readSharing(text: string, known: readonly string[]): { rules: SharingRule[]; errors: string[] } {
  const rules: SharingRule[] = [];
  const errors: string[] = [];
  for (const line of text.split(/[\n;]/).map((each) => each.trim())) {
    if (!line) continue;
    const [names = '', watts = ''] = line.split(':');
    const ports = names.split('+').map((name) => name.trim());
    const shares = watts.split('+').map((share) => Number(share.replace(/w/i, '').replace(',', '.').trim() || Number.NaN));
    const stranger = ports.find((name) => !known.includes(name));
    if (stranger !== undefined)
      errors.push(
        `${quoted(line)}: there is no port called ${clipped(stranger, MOST_QUOTED) || '(nothing)'}. Write a rule as C1+C2: 45+20.`,
      );
    else if (shares.length !== ports.length || shares.some((share) => !(share > 0)))
      errors.push(`${quoted(line)}: give watts for each of its ${ports.length} ports. Write a rule as C1+C2: 45+20.`);
    else rules.push({ ports, watts: shares });
  }
  return { rules, errors };
}
