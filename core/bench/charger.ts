import { array, boolean, mixed, object, type InferType } from 'yup';
import {
  choiceField,
  choicesField,
  errorAt,
  idField,
  linkField,
  MOST_LISTED,
  nameField,
  ownedField,
  priceField,
  retiredField,
  sizeField,
  textField,
} from './fields';
import { portName } from './portName';
import { readSharing } from './sharing';

export const CHARGER_KINDS = [
  'adapter',
  'dock',
  'wall socket',
  'power bank',
  'pad',
  'computer',
  'DC brick',
  'bay charger',
  'other',
] as const;
export const PORT_CONNECTORS = ['USB-C', 'USB-A', 'micro-USB', 'DC barrel', 'pad', 'bay'] as const;
/** A data port gives what its USB generation says, and no more unless its label does. */
export const DATA_PORTS = ['USB 2.0', 'USB 3.2', 'USB 3.2 two-lane'] as const;
export const TRAITS = ['folding pins', 'changeable plugs', 'light'] as const;
/** The longest label text that is kept. */
const LONGEST_LABEL = 300;

/** One outlet of a charger. Its label is the text as printed, and as a tester found it: `bench/label` makes the offers of both. */
export const portSchema = object({
  name: textField(20),
  connector: mixed<(typeof PORT_CONNECTORS)[number]>()
    .oneOf(PORT_CONNECTORS, 'Choose what the port is.')
    .required('Choose what the port is.'),
  label: textField(LONGEST_LABEL),
  probed: textField(LONGEST_LABEL),
  data: choiceField(DATA_PORTS, 'Choose the kind of data port, or none.'),
}).noUnknown();

/** A charger: any source. Rated watts, ports, and what decides a purchase. Units: W, Wh, g; price in the reviewer’s currency. */
export const chargerSchema = object({
  id: idField(),
  name: nameField(),
  kind: mixed<(typeof CHARGER_KINDS)[number]>()
    .oneOf(CHARGER_KINDS, 'Choose what kind of source it is.')
    .required('Choose what kind of source it is.'),
  /** As rated. A source that was written down by its name alone has none yet: nothing is expected of it. */
  watts: sizeField(1_000, 'W'),
  ports: array().of(portSchema).max(MOST_LISTED).default(undefined).optional(),
  /** What each port gives when several are in use, as `C1+C2: 45+20`, a rule a line. */
  sharing: textField(400),
  /** What it needs where it is fed by a source of its own, as printed: `9V⎓2A`. */
  input: textField(LONGEST_LABEL),
  /** What usually feeds it: the id of another charger, and of the cable between them. */
  fedBy: linkField(),
  fedThrough: linkField(),
  /** Energy of a power bank. */
  wattHours: sizeField(5_000, 'Wh'),
  price: priceField(),
  /** With its cable. */
  weight: sizeField(50_000, 'g'),
  /** As `58 × 28 × 51 mm`. */
  size: textField(40),
  cableIncluded: boolean(),
  owned: ownedField(),
  traits: choicesField(TRAITS, 'Choose traits from the list.'),
  retired: retiredField(),
})
  .test({
    name: 'ports-named',
    skipAbsent: true,
    test: function ({ ports = [] }) {
      const names = ports.map((port, index) => portName(port, index));
      const twice = names.findIndex((name, index) => names.indexOf(name) !== index);
      if (twice < 0) return true;
      return errorAt(this, `ports[${twice}].name`, `Two ports are called ${names[twice] ?? ''}: give each a name of its own.`);
    },
  })
  .test({
    name: 'sharing-read',
    skipAbsent: true,
    test: function ({ sharing, ports = [] }) {
      if (!sharing) return true;
      const { errors } = readSharing(
        sharing,
        ports.map((port, index) => portName(port, index)),
      );
      return errors[0] === undefined ? true : errorAt(this, 'sharing', errors[0]);
    },
  })
  .test({
    name: 'fed-by-another',
    skipAbsent: true,
    test: function ({ id, fedBy }) {
      return fedBy === undefined || fedBy !== id ? true : errorAt(this, 'fedBy', 'Nothing feeds itself: choose another source.');
    },
  })
  .noUnknown();

export type Port = InferType<typeof portSchema>;
export type Charger = InferType<typeof chargerSchema>;
