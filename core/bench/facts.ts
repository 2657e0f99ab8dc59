import { CABLE_ENDS, DATA_SPEEDS, MARKER_VOLTS, MARKERS } from './cable';
import { CHARGER_KINDS, TRAITS } from './charger';
import { DEVICE_CONNECTORS, DEVICE_KINDS, DISPLAYS, USB_A_FAMILIES } from './device';
import { WIRELESS_PROFILES } from './offer';
import type { Shelf } from './shelf';

/** One fact that can be written down of a piece of gear: how a form asks for it and a table heads it. */
export interface Fact {
  key: string;
  name: string;
  unit?: string;
  type: 'text' | 'lines' | 'figure' | 'choice' | 'choices' | 'names' | 'yes' | 'ports' | 'gear';
  choices?: readonly (string | number)[];
  hint?: string;
  /** The shelf that it is chosen from, by its id. */
  of?: Shelf;
}

/** Facts that belong together, under a heading of their own. */
export interface FactGroup {
  title: string;
  facts: Fact[];
  /** Rarer facts: a form folds them to one line. */
  isRare?: true;
}

const figure = (key: string, name: string, unit?: string, hint?: string): Fact => ({
  key,
  name,
  type: 'figure',
  ...(unit && { unit }),
  ...(hint && { hint }),
});
const choice = (key: string, name: string, choices: Fact['choices'], hint?: string, unit?: string): Fact => ({
  key,
  name,
  type: 'choice',
  ...(choices && { choices }),
  ...(hint && { hint }),
  ...(unit && { unit }),
});
const choices = (key: string, name: string, from: readonly string[], hint?: string): Fact => ({
  key,
  name,
  type: 'choices',
  choices: from,
  ...(hint && { hint }),
});

const gear = (key: string, name: string, of: Shelf, hint?: string): Fact => ({ key, name, type: 'gear', of, ...(hint && { hint }) });
const OWNED: Fact = { key: 'owned', name: 'Is at home already', type: 'yes' };
const PRICE = figure('price', 'Price', undefined, 'in your own currency');

/** Every fact of every shelf, in the order in which they are asked for. Each has a name; that is not repeated here. */
export const FACTS: Readonly<Record<Shelf, FactGroup[]>> = {
  device: [
    {
      title: 'Battery',
      facts: [
        choice('kind', 'Kind', DEVICE_KINDS),
        figure('milliampHours', 'Battery', 'mAh', 'as printed; with nominal volts'),
        figure('nominalVolts', 'Nominal volts', 'V', 'such as 3.85'),
        figure('inputLimit', 'Input limit', 'W', 'the most it takes by wire'),
        figure('health', 'Health', '%', 'share of the rated charge still there'),
        choice('display', 'Shows its level as', DISPLAYS),
      ],
    },
    {
      title: 'Its energy',
      isRare: true,
      facts: [figure('wattHours', 'Battery energy', 'Wh', 'instead of mAh and volts, or with them')],
    },
    {
      title: 'What it takes',
      isRare: true,
      facts: [
        choices('connectors', 'Connectors', DEVICE_CONNECTORS),
        choice('deliveryVolts', 'Power Delivery up to', [5, 9, 12, 15, 20, 28, 36, 48], 'over 20 V is the extended range', 'V'),
        figure('programmableVolts', 'Programmable (PPS) up to', 'V', 'such as 11'),
        choice('typeCAmps', 'Type-C current', [0.5, 1.5, 3], 'without Power Delivery', 'A'),
        { key: 'chargingPort', name: 'Supports BC 1.2', type: 'yes' },
        {
          key: 'families',
          name: 'Maker’s own fast charging',
          type: 'names',
          choices: USB_A_FAMILIES,
          hint: 'fast charging of its maker’s own',
        },
        figure('barrelVolts', 'Barrel', 'V'),
      ],
    },
    {
      title: 'Wireless',
      isRare: true,
      facts: [choices('wireless', 'Wireless profiles', WIRELESS_PROFILES), figure('wirelessLimit', 'Wireless limit', 'W')],
    },
    {
      title: 'Awake',
      isRare: true,
      facts: [
        figure('leastWatts', 'Charges from', 'W', 'below this it connects and does not charge'),
        figure('awakeWatts', 'Uses awake', 'W', 'a supply that gives less lets it drain'),
      ],
    },
    {
      title: 'For the verdict',
      isRare: true,
      facts: [
        gear('boxCharger', 'Charger in its box', 'charger', 'what others are set against'),
        gear('boxCable', 'Cable in its box', 'cable'),
        figure('units', 'How many of it', undefined, 'identical units, for races'),
        figure('enduranceHours', 'Claimed hours of use', 'h'),
        figure('measuredHours', 'Measured hours of use', 'h', 'in your own use; counts instead of what is claimed'),
        figure('weight', 'Weight', 'g'),
        PRICE,
      ],
    },
    {
      title: 'Its surfaces',
      isRare: true,
      facts: [
        { key: 'frontName', name: 'Front is called', type: 'text', hint: 'such as deck' },
        { key: 'backName', name: 'Back is called', type: 'text', hint: 'such as underside' },
      ],
    },
  ],
  charger: [
    {
      title: 'What it is',
      facts: [
        choice('kind', 'Kind', CHARGER_KINDS),
        figure('watts', 'Watts', 'W', 'as rated'),
        { key: 'ports', name: 'Ports', type: 'ports' },
      ],
    },
    {
      title: 'Several ports, or a battery of its own',
      isRare: true,
      facts: [
        { key: 'sharing', name: 'When ports share', type: 'lines', hint: 'C1+C2: 45+20, a rule a line' },
        figure('wattHours', 'Energy of a bank', 'Wh'),
      ],
    },
    {
      title: 'What feeds it',
      isRare: true,
      facts: [
        { key: 'input', name: 'Input', type: 'text', hint: 'of a pad, dock or computer, as printed: 9V⎓2A' },
        gear('fedBy', 'Fed by', 'charger', 'its own source'),
        gear('fedThrough', 'Fed through', 'cable'),
      ],
    },
    {
      title: 'What decides a purchase',
      isRare: true,
      facts: [
        PRICE,
        OWNED,
        figure('weight', 'Weight with cable', 'g'),
        { key: 'size', name: 'Size', type: 'text', hint: '58 × 28 × 51 mm' },
        { key: 'cableIncluded', name: 'Its cable is included', type: 'yes' },
        choices('traits', 'Traits', TRAITS),
      ],
    },
  ],
  cable: [
    {
      title: 'What it is',
      facts: [
        choice('chargerEnd', 'Charger end', CABLE_ENDS),
        choice('deviceEnd', 'Device end', CABLE_ENDS),
        choice('marker', 'Marked for', MARKERS, 'its e-marker, or what is printed'),
        figure('length', 'Length', 'm'),
      ],
    },
    {
      title: 'What else is marked',
      isRare: true,
      facts: [
        choice('markerVolts', 'Marker up to', MARKER_VOLTS, 'the highest its marker names', 'V'),
        choice('data', 'Data', DATA_SPEEDS),
        { key: 'family', name: 'Family', type: 'text', hint: 'fast charging of its maker’s own, if any' },
      ],
    },
    { title: 'What decides a purchase', isRare: true, facts: [PRICE, OWNED] },
  ],
  meter: [
    {
      title: 'What it is',
      facts: [
        figure('voltsResolution', 'Volts resolution', 'V', 'such as 0.01'),
        figure('ampsResolution', 'Amps resolution', 'A', 'such as 0.01'),
        figure('accuracyPercent', 'Accuracy ±', '%'),
        figure('accuracyDigits', 'Accuracy ± last digits'),
        figure('interval', 'Interval', 's', 'between samples, if it streams'),
      ],
    },
  ],
};

/** The facts of a shelf in one row. */
export const factsOf = (shelf: Shelf): Fact[] => FACTS[shelf].flatMap(({ facts }) => facts);

/**
 * What is written down of a group, in one line: `USB-C · Power Delivery up to 9 V`; empty where nothing is.
 *
 * @param given  facts by their keys, as a form holds them
 * @param nameOf the name of other gear, by its id
 */
export function factsSay(
  { facts }: FactGroup,
  given: Readonly<Record<string, unknown>>,
  nameOf: (id: string) => string | undefined,
): string {
  const says = ({ key, name, unit, type }: Fact): string | undefined => {
    const { [key]: value } = given;
    if (value === undefined || value === null || value === '' || value === false) return undefined;
    if (value === true) return name;
    if (Array.isArray(value)) return value.length > 0 ? value.join(', ') : undefined;
    const text = typeof value === 'number' || typeof value === 'string' ? String(value) : '';
    return `${name} ${type === 'gear' ? (nameOf(text) ?? '') : text}${unit ? ` ${unit}` : ''}`;
  };
  return facts.flatMap((fact) => says(fact) ?? []).join(' · ');
}
