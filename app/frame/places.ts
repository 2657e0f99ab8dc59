/** The places of the work, in its order, and the capital letter that goes to each. */
export const PLACES = [
  { name: 'Bench', path: '/bench', key: 'B', about: 'what you charge, and what you charge it from' },
  { name: 'Plan', path: '/plan', key: 'P', about: 'studies: their question, matrix, and what they can tell' },
  { name: 'Live', path: '/live', key: 'L', about: 'log a charge from plug-in to full' },
  { name: 'Runs', path: '/runs', key: 'R', about: 'every run, and what its readings say' },
  { name: 'Compare', path: '/compare', key: 'M', about: 'runs beside each other, and what to make of them' },
  { name: 'Pieces', path: '/pieces', key: 'I', about: 'what you publish: text, tables and pictures that follow the ink' },
  { name: 'Sums', path: '/sums', key: 'U', about: 'small calculators, each with its working and margin' },
] as const;

export const SETTINGS = { name: 'Settings', path: '/settings', key: 'S', about: 'units, dates, calls, keys, what is assumed' } as const;

export const HELP = { name: 'Help', path: '/help', key: 'H', about: 'keys, the entry line, cautions, this logbook' } as const;
