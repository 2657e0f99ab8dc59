import { boolean, mixed, number, object, string, type InferType } from 'yup';
import { WIRELESS_PROFILES } from './offer';
import {
  choiceField,
  choicesField,
  errorAt,
  figureField,
  idField,
  linkField,
  nameField,
  namesField,
  priceField,
  retiredField,
  sizeField,
} from './fields';

export const DEVICE_KINDS = ['phone', 'tablet', 'laptop', 'camera', 'power bank', 'other'] as const;
/** Where charge can enter: sockets, the wireless coil, or the battery taken out into a bay. */
export const DEVICE_CONNECTORS = ['USB-C', 'micro-USB', 'mini-USB', 'own plug', 'DC barrel', 'wireless', 'bay'] as const;
/** How a device tells its level: a percentage, a charge light only, or not at all. */
export const DISPLAYS = ['percent', 'light', 'nothing'] as const;
/** Families known without a name: current signalled on the data lines of USB-A. */
export const USB_A_FAMILIES = ['2.1 A', '2.4 A'] as const;

const fittedField = () => number().min(0.2).max(5).required();

/**
 * A device under test. Units: mAh, V, Wh, %, W, h, g. What is not known is left out, and `power/takes` then assumes what a
 * device of its input limit usually takes.
 */
export const deviceSchema = object({
  id: idField(),
  name: nameField(),
  kind: mixed<(typeof DEVICE_KINDS)[number]>()
    .oneOf(DEVICE_KINDS, 'Choose what kind of device it is.')
    .required('Choose what kind of device it is.'),
  milliampHours: sizeField(200_000, 'mAh'),
  nominalVolts: sizeField(100, 'V').when(['milliampHours', 'wattHours'], ([charge, energy], schema) =>
    charge === undefined || energy !== undefined ? schema : schema.required('Give the nominal volts too, or the battery in Wh instead.'),
  ),
  wattHours: sizeField(5_000, 'Wh'),
  /** Share of the rated charge that is still there, in %. */
  health: sizeField(110, '%'),
  connectors: choicesField(DEVICE_CONNECTORS, 'Choose connectors from the list.'),
  /** Most it takes by Type-C current, in A: 0.5, 1.5 or 3. */
  typeCAmps: figureField().oneOf([0.5, 1.5, 3, undefined], 'Type-C current is 0.5, 1.5 or 3 A.'),
  /** Whether it knows a BC 1.2 dedicated charging port. */
  chargingPort: boolean(),
  /** Highest fixed voltage it takes by Power Delivery, in V; over 20 is the extended range. */
  deliveryVolts: figureField().oneOf([5, 9, 12, 15, 20, 28, 36, 48, undefined], 'Power Delivery gives 5, 9, 12, 15, 20, 28, 36 or 48 V.'),
  /** Highest programmable voltage (PPS) it takes, in V. */
  programmableVolts: sizeField(21, 'V'),
  families: namesField(),
  wireless: choicesField(WIRELESS_PROFILES, 'Choose wireless profiles from the list.'),
  /** Volts of its barrel socket. */
  barrelVolts: sizeField(60, 'V'),
  display: choiceField(DISPLAYS, 'Choose how it shows its level.'),
  inputLimit: sizeField(1_000, 'W'),
  wirelessLimit: sizeField(100, 'W'),
  /** Below this it is connected and does not charge. */
  leastWatts: sizeField(500, 'W'),
  /** What it uses itself while awake: a supply that gives less lets it drain. */
  awakeWatts: sizeField(500, 'W'),
  /** Hours of use that its maker claims of a full battery. */
  enduranceHours: sizeField(10_000, 'h'),
  /** For how many hours it was found to last in one’s own use: it stands in place of what is claimed. */
  measuredHours: sizeField(10_000, 'h'),
  /** How many identical units of it there are: one where it is not said. They count as one device, and each can charge at the same time. */
  units: sizeField(99, 'units').integer('Count whole units.'),
  /** The charger and the cable that came in its box, by their ids: what others are usually set against. */
  boxCharger: linkField(),
  boxCable: linkField(),
  /** How it differs from what is usual of its kind, as its own runs have shown: factors of what the shelf says and of what is assumed. */
  fitted: object({
    /** Energy of the battery. */
    capacity: fittedField(),
    /** What it takes at most. */
    limit: fittedField(),
    /** How early it takes less: the share that it takes at a level, to this power. */
    taper: fittedField(),
    /** Resistance of the battery. */
    ohms: fittedField(),
    /** How many runs have shown it. */
    runs: number().integer().min(1).max(1000).required(),
  })
    .noUnknown()
    .default(undefined)
    .optional(),
  /** What its two surfaces are called, where front and back do not say: deck and underside. */
  frontName: string().trim().max(30, 'Keep it within 30 characters.'),
  backName: string().trim().max(30, 'Keep it within 30 characters.'),
  weight: sizeField(50_000, 'g'),
  price: priceField(),
  retired: retiredField(),
})
  .test({
    name: 'least-within-limit',
    skipAbsent: true,
    test: function (device) {
      if (device.leastWatts === undefined || device.inputLimit === undefined || device.leastWatts <= device.inputLimit) return true;
      return errorAt(this, 'leastWatts', `It cannot need more than the ${device.inputLimit} W it takes at most.`);
    },
  })
  .noUnknown();

export type Device = InferType<typeof deviceSchema>;
