/** Which way imports point: each room imports only from those before it in these lists, and files form no circle. */
const CORE = [
  'standard',
  'messages',
  'design',
  'network',
  'trees',
  'protocols',
  'trace',
  'simulation',
  'analysis',
  'goals',
  'review',
  'plan',
  'report',
  'editing',
  'formats',
  'observe',
];
const SRC = ['core', 'api', 'demo', 'workers', 'server', 'ui', 'app', 'cli'];
const STAGES = ['cabling', 'trees', 'bundles', 'rehearsal', 'review', 'handover', 'observed'];
const UI = ['theme', 'session', 'chart', 'table', 'controls', 'designs', `(${STAGES.join('|')})`, 'workspace'];

const downwards = (folder, rooms) =>
  rooms.slice(0, -1).map((room, i) => ({
    name: `${folder}: ${room} imports from nothing above it`,
    severity: 'error',
    from: { path: `^${folder}/${room}/` },
    to: { path: `^${folder}/(${rooms.slice(i + 1).join('|')})/` },
  }));

export default {
  forbidden: [
    { name: 'no circles', severity: 'error', from: {}, to: { circular: true } },
    {
      name: 'a room of the core is entered by its index',
      severity: 'error',
      from: { path: '^(src|bench|endure)/', pathNot: '^src/core/' },
      to: {
        path: '^src/core/[^/]+/',
        pathNot: [
          '^src/core/[^/]+/(tables/)?index\\.ts$',
          '^src/core/protocols/',
          '^src/core/design/json-schema\\.ts$',
        ],
      },
    },
    {
      name: 'a room of the core enters another by its index',
      severity: 'error',
      from: { path: '^src/core/([^/]+)/' },
      to: {
        path: '^src/core/[^/]+/',
        pathNot: ['^src/core/$1/', '^src/core/[^/]+/(tables/)?index\\.ts$', '^src/core/protocols/'],
      },
    },
    ...downwards('src', SRC),
    ...downwards('src/core', CORE),
    ...downwards('src/ui', UI),
    {
      name: 'a stage knows no other stage',
      severity: 'error',
      from: { path: `^src/ui/(${STAGES.join('|')})/` },
      to: { path: `^src/ui/(${STAGES.join('|')})/`, pathNot: '^src/ui/$1/' },
    },
    {
      name: 'the core runs anywhere: of packages it has few',
      severity: 'error',
      from: { path: '^src/core/' },
      to: {
        dependencyTypes: ['npm', 'npm-dev', 'core'],
        pathNot: 'node_modules/(zod|papaparse|fast-xml-parser|fflate|@noble/hashes|elkjs|@types/papaparse)/',
      },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '\\.test\\.tsx?$' },
    tsConfig: { fileName: 'tsconfig.json' },
    tsPreCompilationDeps: true,
    skipAnalysisNotInRules: true,
  },
};
