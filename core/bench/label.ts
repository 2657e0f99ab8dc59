import type { Offer, WirelessProfile } from './offer';

/** What a printed label says: offers, and every piece of text that could not be read as one. */
export interface ReadLabel {
  offers: Offer[];
  /** Shown, not dropped. */
  unread: string[];
  /** What is wrong with a figure that was read, in a sentence. */
  errors: string[];
}

const NUMBER = String.raw`(\d+(?:[.,]\d+)?)`;
/** What stands between volts and amps: the direct-current sign and what people type for it. */
const BETWEEN = String.raw`(?:[⎓⎔=/@×x*·•_,–—\s-]|DC)*`;
/** More is no label, in characters; it is not read. */
const LONGEST = 1000;
const PIECES = new RegExp(
  [
    String.raw`(?<family>[\p{L}][\p{L}\p{N} .+-]{0,38}?)\s*[:：]\s*`,
    String.raw`(?<mains>\d+\s*(?:-|–|~|to)\s*\d+\s*V\s*(?:AC|~|∼)[^;\n]*)`,
    String.raw`${NUMBER}\s*V?\s*(?:-|–|—|~|to)\s*${NUMBER}\s*V${BETWEEN}${NUMBER}\s*(m?)A`,
    String.raw`((?:${NUMBER}\s*V\s*[/,]\s*)*${NUMBER}\s*V)${BETWEEN}${NUMBER}\s*(m?)A`,
    String.raw`${NUMBER}\s*(m?)A\s*[@/×x]?\s*${NUMBER}\s*V`,
    String.raw`(?<watts>\d+(?:[.,]\d+)?)\s*W(?:atts?)?\b(?:\s*(?<profile>baseline|extended|magnetic))?`,
    String.raw`(?<break>[;\n|])`,
    String.raw`(?<other>[^\s;\n|,/()]+)`,
  ].join('|'),
  'giu',
);
const PLACES = { programmable: 3, list: 7, turned: 12 };
/** Words that a label prints around its offers and that say nothing more. */
const NOISE =
  /^(?:out(?:put)?s?|usb(?:-?[ac]\d?)?|type-?c|[ac]\d|port|pd[o]?|pps|fixed|dc|max\.?|power|delivery|or|and|each|total|[&+.-]+)$/i;
const STANDARD = /^(?:pd[o]?|pps|usb(?:-?[ac]\d?)?|out(?:put)?s?|[ac]\d|port ?\d?|total|max)$/i;

/**
 * Reads a charger’s printed label: `5V⎓3A 9V⎓3A 15V⎓3A 20V⎓2.25A`, `PPS 3.3-11V 3A`, `5V/2.4A`, with commas, slashes, or any
 * of the marks that are printed and typed between volts and amps. Two voltages before one current (`5V/9V⎓2A`) are two offers. A name
 * and a colon before offers makes them that family’s own, up to the next semicolon or line: `Swiftreed: 10V⎓4A`.
 * On a pad, watts are its offers: `15W magnetic`, `5W`.
 *
 * @example readLabel('5V⎓3A 9V⎓3A').offers // 5 V × 3 A and 9 V × 3 A
 * @param connector what the port is: watts on a pad are offers, elsewhere only a total
 */
export function readLabel(text: string, connector?: string): ReadLabel {
  const read: ReadLabel = { offers: [], unread: [], errors: [] };
  let family: string | undefined;
  const add = (volts: number, amps: number, piece: string) => {
    if (!(volts > 0) || !(amps > 0)) read.errors.push(`“${piece}” gives no power: volts and amps must both be more than 0.`);
    else if (volts > 60 || amps > 20) read.errors.push(`“${piece}” is more than a charger gives here: check volts and amps.`);
    else if (family) read.offers.push({ kind: 'proprietary', family, volts, amps });
    else read.offers.push({ kind: 'fixed', volts, amps });
  };
  for (const match of tidied(text).matchAll(PIECES)) {
    const groups = match.groups ?? {};
    const piece = match[0].trim();
    if (groups.family !== undefined) {
      const name = groups.family.trim();
      if (/^input/i.test(name)) read.unread.push(piece);
      else family = STANDARD.test(name) ? undefined : name;
    } else if (groups.break !== undefined) family = undefined;
    else if (groups.mains !== undefined) read.unread.push(piece);
    else if (groups.watts !== undefined) {
      if (connector === 'pad') addPad(read, decimal(groups.watts), groups.profile?.toLowerCase() as WirelessProfile | undefined, piece);
      else if (groups.profile) read.unread.push(piece);
    } else if (groups.other !== undefined) {
      if (!NOISE.test(piece)) read.unread.push(piece);
    } else if (match[PLACES.programmable] !== undefined) {
      const [low, high] = [decimal(match[PLACES.programmable]), decimal(match[PLACES.programmable + 1])];
      addRange(read, low, high, current(match, PLACES.programmable + 2), piece);
    } else if (match[PLACES.list] !== undefined) {
      const volts = [...(match[PLACES.list] ?? '').matchAll(/\d+(?:[.,]\d+)?/g)].map(([each]) => decimal(each));
      for (const each of volts) add(each, current(match, PLACES.list + 3), piece);
    } else add(decimal(match[PLACES.turned + 2]), current(match, PLACES.turned), piece);
  }
  return read;
}

/** Without what is too long, and with blanks drawn together: a search for pieces would take long over them. */
const tidied = (text: string) =>
  text
    .slice(0, LONGEST)
    .normalize('NFKC')
    .slice(0, LONGEST)
    .replace(/[^\S\n]+/g, ' ');

const decimal = (text: string | undefined) => Number((text ?? '').replace(',', '.'));
const current = (match: RegExpMatchArray, at: number) => decimal(match[at]) / (match[at + 1] ? 1000 : 1);

function addRange({ offers, errors }: ReadLabel, low: number, high: number, amps: number, piece: string): void {
  if (low >= high) errors.push(`“${piece}” runs from ${low} to ${high} V: write the lower voltage first.`);
  else if (!(low > 0) || !(amps > 0)) errors.push(`“${piece}” gives no power: volts and amps must be more than 0.`);
  else offers.push({ kind: 'programmable', low, high, amps });
}

function addPad({ offers, errors }: ReadLabel, watts: number, profile: WirelessProfile | undefined, piece: string): void {
  if (watts > 0) offers.push({ kind: 'wireless', profile: profile ?? (watts > 5 ? 'extended' : 'baseline'), watts });
  else errors.push(`“${piece}” gives no power: watts must be more than 0.`);
}
