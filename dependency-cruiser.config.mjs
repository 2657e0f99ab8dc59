/** Arrows run one way: app, demo and server use core; in core a room uses only rooms above it. */
const ROOMS = [
  'quantity',
  'bench',
  'power',
  'simulate',
  'margin',
  'method',
  'ink',
  'curve',
  'run',
  'compare',
  'plan',
  'advise',
  'report',
  'sums',
  'exchange',
];

const upward = ROOMS.map((room, index) => ({
  name: `core-${room}-uses-rooms-above`,
  severity: 'error',
  from: { path: `^core/${room}/` },
  to: { path: `^core/(${ROOMS.slice(index + 1).join('|') || 'nothing'})/` },
}));

export default {
  forbidden: [
    ...upward,
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true } },
    {
      name: 'core-stands-alone',
      severity: 'error',
      from: { path: '^core/', pathNot: '\\.test\\.ts$' },
      to: { path: '^(app|server|demo|e2e|node:|node_modules/(vue|vuetify|pinia|localforage|chart)/)' },
    },
    { name: 'core-has-no-node', severity: 'error', from: { path: '^core/', pathNot: '\\.test\\.ts$' }, to: { dependencyTypes: ['core'] } },
    {
      name: 'core-by-its-face',
      severity: 'error',
      from: { path: '^(app|server|demo)/', pathNot: '\\.test\\.ts$' },
      to: { path: '^core/', pathNot: '^core/index\\.ts$' },
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
