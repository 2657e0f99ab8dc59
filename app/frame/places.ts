/** The places of the work, in its order, and the capital letter that goes to each. Report joins when it has content. */
export const PLACES = [
  { name: 'Bench', path: '/bench', key: 'B', about: 'what you charge, and what you charge it from' },
  { name: 'Plan', path: '/plan', key: 'P', about: 'studies: their question, matrix, and what they can tell' },
  { name: 'Run', path: '/run', key: 'R', about: 'log a charge from plug-in to full' },
  { name: 'Curve', path: '/curve', key: 'C', about: 'every run, and what its readings say' },
  { name: 'Compare', path: '/compare', key: 'M', about: 'runs laid over each other' },
] as const;

export const HELP = { name: 'Help', path: '/help', key: 'H', about: 'keys, the entry line, cautions, this logbook' } as const;
