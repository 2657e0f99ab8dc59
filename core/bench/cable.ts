import { mixed, object, type InferType } from 'yup';
import {
  choiceField,
  errorAt,
  figureField,
  idField,
  nameField,
  ownedField,
  priceField,
  retiredField,
  sizeField,
  textField,
} from './fields';

export const CABLE_ENDS = ['USB-C', 'USB-A', 'micro-USB', 'mini-USB', 'own plug', 'DC barrel', 'not known'] as const;
/** What the cable says of itself, by its e-marker. */
export const MARKERS = ['none', '3 A', '5 A', '240 W'] as const;

/** Highest voltage that its e-marker names, in V (USB Type-C R2.x, from memory). */
export const MARKER_VOLTS = [20, 30, 40, 50] as const;
/** How fast it carries data. */
export const DATA_SPEEDS = ['charge only', 'USB 2.0', '5 Gbit/s', '10 Gbit/s', '20 Gbit/s', '40 Gbit/s', '80 Gbit/s'] as const;

const end = (message: string) => mixed<(typeof CABLE_ENDS)[number]>().oneOf(CABLE_ENDS, message).required(message);

/** A cable. Length in m. */
export const cableSchema = object({
  id: idField(),
  name: nameField(),
  chargerEnd: end('Choose the end that goes into the charger.'),
  deviceEnd: end('Choose the end that goes into the device.'),
  length: sizeField(50, 'm'),
  marker: mixed<(typeof MARKERS)[number]>()
    .oneOf(MARKERS, 'Choose what the cable is marked for, or none.')
    .required('Choose what the cable is marked for, or none.'),
  /** Highest voltage its marker names, in V. */
  markerVolts: figureField().oneOf([...MARKER_VOLTS, undefined], 'Markers name 20, 30, 40 or 50 V.'),
  data: choiceField(DATA_SPEEDS, 'Choose how fast it carries data.'),
  /** Proprietary family that it belongs to. */
  family: textField(40),
  price: priceField(),
  owned: ownedField(),
  retired: retiredField(),
})
  .test({
    name: 'marked-ends',
    skipAbsent: true,
    test: function ({ chargerEnd, deviceEnd, marker }) {
      const mayBe = (end: string) => end === 'USB-C' || end === 'not known';
      const isTypeC = mayBe(chargerEnd) && (mayBe(deviceEnd) || deviceEnd === 'own plug');
      if (isTypeC || marker === 'none' || marker === '3 A') return true;
      return errorAt(this, 'marker', 'Only a cable with USB-C towards the charger carries a 5 A or 240 W marker.');
    },
  })
  .noUnknown();

export type Cable = InferType<typeof cableSchema>;
