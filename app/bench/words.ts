import type { Shelf } from '@core/bench';

/** How each shelf is called, and what to say while nothing stands on it. */
export const SHELF_WORDS: Readonly<Record<Shelf, { plural: string; add: string; none: string }>> = {
  device: {
    plural: 'Devices',
    add: 'Add a device',
    none: 'Nothing to charge yet. Write down a phone, tablet, laptop or camera with its battery.',
  },
  charger: {
    plural: 'Chargers',
    add: 'Add a charger',
    none: 'Nothing to charge from yet. Any source counts: adapter, dock, socket, bank, pad, another computer.',
  },
  cable: { plural: 'Cables', add: 'Add a cable', none: 'No cables yet. A run without one takes a cable that fits and carries 3 A.' },
  meter: { plural: 'Meters', add: 'Add a meter', none: 'No meters yet. With its accuracy written down, its figures carry a margin.' },
};
