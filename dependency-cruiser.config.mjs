/** Arrows run one way: app, demo and server use core; in core and in app a room uses only rooms above it in its list. */
const CORE = [
  'quantity',
  'bench',
  'power',
  'simulate',
  'margin',
  'method',
  'samples',
  'ink',
  'curve',
  'run',
  'compare',
  'plan',
  'advise',
  'report',
  'sums',
  'exchange',
  'tables',
];

/** Screens stand side by side and never use each other. */
const SCREENS = ['bench', 'plan', 'run', 'curve', 'compare', 'pieces', 'sums'];
const APP = ['kit', 'ledger', 'strip', 'print', 'workers', 'logbook', 'method', 'entry', 'exports', SCREENS, 'frame'];

/** One rule a room: it uses nothing that stands below it. */
const upward = (house, rooms) =>
  rooms.flatMap((level, index) =>
    [level].flat().map((room) => ({
      name: `${house}-${room}-uses-rooms-above`,
      severity: 'error',
      from: { path: `^${house}/${room}/` },
      to: {
        path: `^${house}/(${[...[level].flat().filter((beside) => beside !== room), ...rooms.slice(index + 1).flat()].join('|') || 'nothing'})/`,
      },
    })),
  );

/** Every room has its place in a list. */
const known = (house, rooms) => ({
  name: `${house}-knows-its-rooms`,
  severity: 'error',
  from: {},
  to: { path: `^${house}/[^/]+/`, pathNot: `^${house}/(${rooms.flat().join('|')})/` },
});

export default {
  forbidden: [
    ...upward('core', CORE),
    ...upward('app', APP),
    known('core', CORE),
    known('app', APP),
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true } },
    {
      name: 'core-stands-alone',
      severity: 'error',
      from: { path: '^core/', pathNot: '\\.test\\.ts$' },
      to: { path: '^(app|server|demo|e2e|node:|node_modules/(vue|vuetify|pinia|localforage|chart)/)' },
    },
    { name: 'core-has-no-node', severity: 'error', from: { path: '^core/', pathNot: '\\.test\\.ts$' }, to: { dependencyTypes: ['core'] } },
    {
      name: 'core-by-its-faces',
      severity: 'error',
      from: { path: '^(app|server|demo)/', pathNot: '\\.test\\.ts$' },
      to: { path: '^core/', pathNot: '^core/\\w+/index\\.ts$' },
    },
    { name: 'demo-uses-core-only', severity: 'error', from: { path: '^demo/' }, to: { path: '^(app|server)/' } },
    { name: 'server-uses-core-only', severity: 'error', from: { path: '^server/' }, to: { path: '^(app|demo)/' } },
    { name: 'nothing-lost', severity: 'error', from: {}, to: { couldNotResolve: true } },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsConfig: { fileName: 'tsconfig.json' },
    tsPreCompilationDeps: true,
    enhancedResolveOptions: { exportsFields: ['exports'], conditionNames: ['import', 'require', 'node', 'default', 'types'] },
  },
};
