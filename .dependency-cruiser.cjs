/** The layers of docs/architecture.md, from the ground up. An arrow may only point down. */
const only = (name, from, to) => ({
  name,
  severity: 'error',
  from: { path: from, pathNot: '\\.test\\.ts$' },
  to: { path: '^src/', pathNot: to },
});

/** Rooms of the core, kernel lowest; a room may use itself and those before it. */
const ROOMS = [
  'kernel',
  'tax',
  'parties',
  'catalogue',
  'currency',
  'documents',
  'ledger',
  'settlement',
  'returns',
  'einvoice',
  'delivery',
  'bank',
  'reports',
  'book',
  'decisions',
  'wording',
  'files',
];

/** Parties name a price mode and tax codes; tax names nobody. */
const roomRules = ROOMS.map((room, i) =>
  only(`core-${room}`, `^src/core/${room}/`, `^src/core/(${ROOMS.slice(0, i + 1).join('|')})/`),
);

module.exports = {
  forbidden: [
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true } },
    {
      name: 'no-orphans',
      severity: 'error',
      from: { orphan: true, pathNot: '(\\.d\\.ts|\\.config\\.[a-z]+|proxy\\.ts|not-found\\.tsx|^e2e/.*|^bench/.*)$' },
      to: {},
    },
    {
      name: 'core-is-pure',
      comment: 'core computes: no interface, storage, network, file system or clock',
      severity: 'error',
      from: { path: '^src/core/', pathNot: '\\.test\\.ts$' },
      to: {
        path: '(^|/)(react|react-dom|next|dexie|dexie-react-hooks|comlink|zustand|pdfkit)(/|$)|^(node:)?(fs|path|crypto|http|os|process)$',
      },
    },
    ...roomRules,
    {
      name: 'upgrades-are-frozen',
      comment: 'what brings an old book up must not change with the types and constants of today',
      severity: 'error',
      from: { path: '^src/core/files/upgrades/v\\d+\\.ts$' },
      to: { path: '^src/', pathNot: '^src/core/kernel/' },
    },
    only('store', '^src/store/', '^src/(core|store)/'),
    only('print', '^src/print/', '^src/(core|print)/'),
    only('jobs', '^src/jobs/', '^src/(core|store|jobs)/'),
    only('demo', '^src/demo/', '^src/(core|store|jobs|standins|demo)/'),
    only('workers', '^src/workers/', '^src/(core|store|print|demo|workers)/'),
    only('offline', '^src/offline/', '^src/offline/'),
    only('ui', '^src/ui/', '^src/(ui|core/kernel)/'),
    only('cli', '^src/cli/', '^src/(core|store|print|cli)/'),
    only('areas', '^src/areas/', '^src/(core|store|jobs|print|workers|ui|areas)/|^src/offline/kept'),
    only('areas-shell', '^src/areas/shell/', '^src/(core|store|jobs|print|workers|ui|areas/shell)/|^src/offline/kept'),
    only('areas-shared', '^src/areas/shared/', '^src/(core|store|jobs|print|workers|ui|areas/(shell|shared))/'),
    {
      name: 'areas-apart',
      comment: 'an area knows the shell and what is shared, no other area',
      severity: 'error',
      from: { path: '^src/areas/([^/]+)/' },
      to: { path: '^src/areas/', pathNot: '^src/areas/($1|shell|shared)/' },
    },
    only('standins', '^src/standins/', '^src/(core|standins)/'),
    only('app', '^src/(app/(?!standins)|proxy)', '^src/(areas|ui|app)/'),
    only('app-standins', '^src/app/standins/', '^src/(standins|core/kernel)/'),
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsConfig: { fileName: 'tsconfig.json' },
    tsPreCompilationDeps: true,
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'require', 'node', 'default', 'types'],
    },
  },
};
