import { batteryOf, portsOf, readLabel, writeOffer, type Device, type GearOn, type Kept, type Port, type Shelf } from '@core/bench';
import { fixed, price } from '@core/quantity';

/** A column of a shelf’s table: what it is headed, what a row shows there, and what it sorts by. */
export interface ShelfColumn {
  title: string;
  shows: (kept: Kept) => string;
  sorts?: (kept: Kept) => number | string;
  figures?: boolean;
}

const priceOf = ({ gear }: Kept) => ('price' in gear ? gear.price : undefined);
const written = (value: number | undefined) => (value === undefined ? '—' : price(value));
const unknownLast = (value: number | undefined) => value ?? Number.POSITIVE_INFINITY;
const withUnit = (value: number | undefined, unit: string, decimals = 0) =>
  value === undefined ? '—' : `${fixed(value, decimals)} ${unit}`;

/** Ends that nobody wrote down are not known, once. */
const ends = ({ chargerEnd, deviceEnd }: GearOn['cable']) =>
  chargerEnd === deviceEnd && deviceEnd === 'not known' ? 'not known' : `${chargerEnd} to ${deviceEnd}`;

const PRICE: ShelfColumn = {
  title: 'Price',
  figures: true,
  shows: (kept) => written(priceOf(kept)),
  sorts: (kept) => unknownLast(priceOf(kept)),
};

/** What is shown of each shelf. */
export const SHELF_COLUMNS: Readonly<Record<Shelf, ShelfColumn[]>> = {
  device: [
    {
      title: 'Battery',
      figures: true,
      shows: on('device', (gear) => withUnit(batteryOf(gear), 'Wh', 1)),
      sorts: on('device', (gear) => unknownLast(batteryOf(gear))),
    },
    {
      title: 'Takes up to',
      figures: true,
      shows: on('device', (gear) => withUnit(gear.inputLimit, 'W')),
      sorts: on('device', (gear) => unknownLast(gear.inputLimit)),
    },
    { title: 'By', shows: on('device', takesInWords) },
    PRICE,
  ],
  charger: [
    {
      title: 'Rated',
      figures: true,
      shows: on('charger', (gear) => withUnit(gear.watts, 'W')),
      sorts: on('charger', (gear) => unknownLast(gear.watts)),
    },
    { title: 'Offers', shows: on('charger', (gear) => portsOf(gear).map(portInWords).join(' · ')) },
    {
      title: 'Weight',
      figures: true,
      shows: on('charger', (gear) => withUnit(gear.weight, 'g')),
      sorts: on('charger', (gear) => unknownLast(gear.weight)),
    },
    PRICE,
  ],
  cable: [
    { title: 'Ends', shows: on('cable', ends) },
    { title: 'Marked for', shows: on('cable', (gear) => [gear.marker, gear.family].filter(Boolean).join(', ')) },
    {
      title: 'Length',
      figures: true,
      shows: on('cable', (gear) => withUnit(gear.length, 'm', 1)),
      sorts: on('cable', (gear) => unknownLast(gear.length)),
    },
    PRICE,
  ],
  meter: [
    {
      title: 'Resolution',
      figures: true,
      shows: on('meter', (gear) => [withUnit(gear.voltsResolution, 'V', 3), withUnit(gear.ampsResolution, 'A', 3)].join(', ')),
    },
    {
      title: 'Accuracy',
      figures: true,
      shows: on('meter', (gear) => `± ${gear.accuracyPercent ?? '?'} % ± ${gear.accuracyDigits ?? 0} digits`),
    },
    {
      title: 'Interval',
      figures: true,
      shows: on('meter', (gear) => withUnit(gear.interval, 's')),
      sorts: on('meter', (gear) => unknownLast(gear.interval)),
    },
  ],
};

/** A column’s function for gear of one shelf, made to take gear of any. */
function on<On extends Shelf, Shown extends string | number>(shelf: On, show: (gear: GearOn[On]) => Shown) {
  return (kept: Kept): Shown => {
    if (kept.shelf !== shelf) throw new Error(`A ${kept.shelf} was shown on the ${shelf} shelf.`);
    return show(kept.gear as GearOn[On]);
  };
}

/** What a device takes, as short as a table needs it. */
function takesInWords({ deliveryVolts, programmableVolts, families = [], wireless = [], connectors = [] }: Device): string {
  return [
    deliveryVolts !== undefined && `PD ${deliveryVolts} V`,
    programmableVolts !== undefined && `PPS ${programmableVolts} V`,
    ...families,
    wireless.length > 0 && 'wireless',
    ...connectors.filter((each) => each === 'DC barrel' || each === 'bay' || each === 'own plug'),
  ]
    .filter(Boolean)
    .join(' · ');
}

/** A port as short as a table needs it: `C1 5V⎓3A 9V⎓3A`. */
function portInWords({ name, connector, label = '', data }: Port): string {
  const offers = readLabel(label, connector).offers.map(writeOffer).join(' ');
  return [name ?? connector, data, offers].filter(Boolean).join(' ');
}
