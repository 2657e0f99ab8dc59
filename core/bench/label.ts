import { quoted } from '../quantity/letters';
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
const MOST_LABEL = 1000;
/** `Output` in other languages. */
const ABROAD = '输出|輸出|出力|Ausgang|Sortie|Salida|Uscita|Saída';
/** Where the side of the mains ends and that of the device begins, on one line. */
const OUTPUT = String.raw`\b(?:(?:dc|rated|usb\S*|type\S*)\s+)?out(?:put)?\b|\bo\/p\b|${ABROAD}`;
/** Volts of the mains, 85 to 280: no charger gives a device as much. */
const MAINS = String.raw`(?:8[5-9]|9\d|1\d\d|2[0-7]\d|280)`;
const PIECES = new RegExp(
  [
    String.raw`(?<family>[\p{L}][\p{L}\p{N} .+-]{0,38}?(?:\/P)?)\s*[:：]\s*`,
    String.raw`(?<mains>(?:AC\s*)?(?<![\d.,])${MAINS}\s*V?\s*(?:(?:-|–|—|~|∼|to|\/)\s*${MAINS}\s*)?V(?:\s*(?:AC\b|[~∼,]|\d+(?:[-–/]\d+)*\s*Hz|\d+(?:[.,]\d+)?\s*(?:m?A|VA)\b|max\b\.?))*)`,
    String.raw`(?<turned>\d+(?:[.,]\d+)?\s*m?A\s*[@/×x]?\s*${MAINS}\s*V)`,
    String.raw`${NUMBER}\s*V?\s*(?:-|–|—|~|to)\s*${NUMBER}\s*V${BETWEEN}${NUMBER}\s*(m?)A`,
    String.raw`(?:DC)?((?:${NUMBER}\s*V?\s*⎓?\s*[/,、]\s*)*${NUMBER}\s*V(?:olts?)?)${BETWEEN}${NUMBER}\s*(m?)A`,
    String.raw`${NUMBER}\s*(m?)A\s*[@/×x]?\s*${NUMBER}\s*V`,
    String.raw`(?:(?<before>magnetic)\s*)?(?<watts>\d+(?:[.,]\d+)?)\s*W(?:atts?)?\b(?:\s*(?<profile>baseline|extended|magnetic))?`,
    String.raw`(?<break>[;\n|])`,
    String.raw`(?<other>[^\s;\n|,/()[\]、+:]+|[+:])`,
  ].join('|'),
  'giu',
);
const PLACES = { programmable: 4, list: 8, turned: 13 };
const IS_OUTPUT = new RegExp(`^out|^o\\/p$|${OUTPUT}`, 'i');
/** Words that a label prints around its offers and that say nothing more. */
const NOISE = new RegExp(
  String.raw`^(?:out(?:put)?s?\d?|${ABROAD}|epr|spr|usb(?:-?[ac]\d?)?|type-?[ac]?\d?|[ac]\d?|ports?|a?pd[o]?s?\d?|pd[o]?\d\.\d|pps\d?|fixed|dc|max(?:imum)?\.?|power|delivery|or|and|each|total|rated|range|[&+:.·•*-]+)$`,
  'i',
);
/** Words that a heading before standard offers is made of: any other makes it the name of a maker's own family. */
const HEADING = new RegExp(
  String.raw`^(?:(?:out(?:put)?s?|o\/p|${ABROAD}|epr|spr|avs|extended|standard|usb|dc|rated|total|max(?:imum)?\.?|type|power|delivery|single|dual|ports?|charging|adapter|secondary|fixed|wireless|pad|range|efficiency|level|pps|a?pdos?|pd|or|and|[ac]\d?|[ivx]+|\d+(?:\.\d+)?w?)[\s.+-]*)+$`,
  'i',
);
/** A heading of the side that takes power, and a word that begins it without a colon. */
const INPUT = /\binput|\bi\/p\b|^ac in\b|输入|輸入|入力|eingang|entrée|entrada|ingresso/i;
/** A supply that is stepped in the extended range (AVS): no programmable supply (PPS). */
const STEPPED = /\bavs\d*\b/i;

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
  let [isInput, isStepped] = [false, false];
  const add = (volts: number, amps: number, piece: string) => {
    if (!(volts > 0) || !(amps > 0)) read.errors.push(`${quoted(piece)} gives no power: volts and amps must both be more than 0.`);
    else if (isTooMuch(volts, amps)) read.errors.push(tooMuch(piece));
    else if (family) read.offers.push({ kind: 'proprietary', family, volts, amps });
    else read.offers.push({ kind: 'fixed', volts, amps });
  };
  for (const match of tidied(text).matchAll(PIECES)) {
    const groups = match.groups ?? {};
    const piece = match[0].trim();
    if (groups.family !== undefined) {
      const name = groups.family.trim();
      isStepped = STEPPED.test(name);
      isInput = INPUT.test(name);
      if (isInput) read.unread.push(piece);
      else family = HEADING.test(name) ? undefined : name.replace(/\s+out(?:put)?s?$/i, '');
    } else if (groups.break !== undefined) [family, isInput, isStepped] = [undefined, false, false];
    else if (groups.other !== undefined) {
      if (STEPPED.test(piece)) isStepped = true;
      else if (/^pps|^a?pdo/i.test(piece)) isStepped = false;
      if (IS_OUTPUT.test(piece)) isInput = false;
      else if (INPUT.test(piece)) isInput = true;
      if (isInput || !NOISE.test(piece)) read.unread.push(piece);
    } else if (groups.mains !== undefined || groups.turned !== undefined || isInput) read.unread.push(piece);
    else readFigures(match, piece, { read, connector, family, isStepped, add });
  }
  return read;
}

const isTooMuch = (volts: number, amps: number) => volts > 60 || amps > 20;
const tooMuch = (piece: string) => `${quoted(piece)} is more than a charger gives here: check volts and amps.`;

interface Reading {
  read: ReadLabel;
  connector: string | undefined;
  /** Whose own offers these are. */
  family: string | undefined;
  isStepped: boolean;
  add: (volts: number, amps: number, piece: string) => void;
}

/** Reads what has figures: watts, a programmable range, volts with amps, amps with volts. */
function readFigures(match: RegExpMatchArray, piece: string, { read, connector, family, isStepped, add }: Reading): void {
  const { watts, profile, before } = match.groups ?? {};
  if (watts !== undefined) {
    const named = (profile ?? before)?.toLowerCase() as WirelessProfile | undefined;
    if (connector === 'pad') addPad(read, decimal(watts), named, piece);
    else if (named) read.unread.push(piece);
  } else if (match[PLACES.programmable] !== undefined) {
    const [low, high] = [decimal(match[PLACES.programmable]), decimal(match[PLACES.programmable + 1])];
    if (isStepped) read.unread.push(piece);
    else addRange(read, { low, high, amps: current(match, PLACES.programmable + 2) }, family, piece);
  } else if (match[PLACES.list] !== undefined) {
    const volts = [...(match[PLACES.list] ?? '').matchAll(/\d+(?:[.,]\d+)?/g)].map(([each]) => decimal(each));
    for (const each of volts) add(each, current(match, PLACES.list + 3), piece);
  } else add(decimal(match[PLACES.turned + 2]), current(match, PLACES.turned), piece);
}

/** Without what is too long, and with blanks drawn together: a search for pieces would take long over them. */
const tidied = (text: string) =>
  text
    .slice(0, MOST_LABEL)
    .normalize('NFKC')
    .slice(0, MOST_LABEL)
    .replace(/[^\S\n]+/g, ' ');

const decimal = (text: string | undefined) => Number((text ?? '').replace(',', '.'));
const current = (match: RegExpMatchArray, at: number) => decimal(match[at]) / (match[at + 1] ? 1000 : 1);

function addRange(
  { offers, errors }: ReadLabel,
  { low, high, amps }: Record<'low' | 'high' | 'amps', number>,
  family: string | undefined,
  piece: string,
): void {
  if (low >= high) errors.push(`${quoted(piece)} runs from ${low} to ${high} V: write the lower voltage first.`);
  else if (!(low > 0) || !(amps > 0)) errors.push(`${quoted(piece)} gives no power: volts and amps must be more than 0.`);
  else if (isTooMuch(high, amps)) errors.push(tooMuch(piece));
  else if (family !== undefined) offers.push({ kind: 'proprietary', family, low, volts: high, amps });
  else offers.push({ kind: 'programmable', low, high, amps });
}

function addPad({ offers, errors }: ReadLabel, watts: number, profile: WirelessProfile | undefined, piece: string): void {
  if (watts > 0) offers.push({ kind: 'wireless', profile: profile ?? (watts > 5 ? 'extended' : 'baseline'), watts });
  else errors.push(`${quoted(piece)} gives no power: watts must be more than 0.`);
}
