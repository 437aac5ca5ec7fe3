import tseslint from 'typescript-eslint';
import reactHooks from 'eslint-plugin-react-hooks';

/** Folders of src that a folder's files may not import from: arrows point downwards only. */
const FORBIDDEN = {
  'src/core': ['api', 'server', 'workers', 'ui', 'app', 'cli', 'demo'],
  'src/api': ['server', 'workers', 'ui', 'app', 'cli', 'demo'],
  'src/server': ['workers', 'ui', 'app', 'cli'],
  'src/workers': ['server', 'ui', 'app', 'cli'],
  'src/ui': ['server', 'app', 'cli', 'demo'],
  'src/cli': ['workers', 'ui', 'app'],
  'src/demo': ['server', 'workers', 'ui', 'app', 'cli'],
};
const FORBIDDEN_IN_CORE = {
  standard: [
    'design',
    'network',
    'regions',
    'cabling',
    'tables',
    'trees',
    'bundles',
    'steering',
    'goals',
    'formats',
    'rehearsal',
  ],
  design: ['network', 'regions', 'cabling', 'tables', 'trees', 'bundles', 'steering', 'goals', 'formats', 'rehearsal'],
  network: [
    'regions',
    'cabling',
    'tables',
    'trees',
    'bundles',
    'steering',
    'goals',
    'formats',
    'rehearsal',
    'machines',
  ],
  regions: ['cabling', 'tables', 'trees', 'bundles', 'steering', 'goals', 'formats', 'rehearsal'],
  cabling: ['tables', 'trees', 'bundles', 'steering', 'goals', 'formats', 'rehearsal'],
  frames: [
    'design',
    'regions',
    'cabling',
    'tables',
    'bundles',
    'machines',
    'trees',
    'steering',
    'goals',
    'formats',
    'rehearsal',
  ],
  machines: [
    'design',
    'network',
    'regions',
    'cabling',
    'tables',
    'bundles',
    'trees',
    'steering',
    'goals',
    'formats',
    'rehearsal',
  ],
  bundles: ['machines', 'trees', 'steering', 'goals', 'formats', 'rehearsal'],
  tables: ['trees', 'bundles', 'steering', 'goals', 'formats', 'rehearsal'],
  trees: ['steering', 'goals', 'formats', 'rehearsal'],
  steering: ['goals', 'formats', 'rehearsal'],
  goals: ['formats', 'rehearsal'],
  rehearsal: ['cabling', 'tables', 'steering', 'goals', 'formats'],
};
/** What the core may use from outside: it runs in a page, a worker, the server and a shell alike. */
const OUTSIDE_CORE = [
  'react',
  'react-dom',
  'next',
  '@mui/*',
  'node:*',
  'better-sqlite3',
  'drizzle-orm',
  'zustand',
  'd3-*',
  'nanoid',
  'commander',
];

const restrict = (files, patterns) => ({
  files: [`${files}/**/*.{ts,tsx}`],
  ignores: ['**/*.test.ts', '**/*.test.tsx'],
  rules: { 'no-restricted-imports': ['error', { patterns }] },
});
const towards = (folders, from) =>
  folders.map((folder) => ({
    regex: `^(@/|(\\.\\./)+)(.*/)?${folder}(/|$)`,
    message: `${from} must not import from ${folder}: see docs/code.md for which way imports point.`,
  }));

export default tseslint.config(
  {
    ignores: [
      '.next/**',
      '.knot-path/**',
      'node_modules/**',
      'next-env.d.ts',
      'playwright-report/**',
      'test-results/**',
      'data/**',
    ],
  },
  ...tseslint.configs.recommended,
  {
    files: ['**/*.{ts,tsx}'],
    plugins: { 'react-hooks': reactHooks },
    rules: {
      'react-hooks/rules-of-hooks': 'error',
      'react-hooks/exhaustive-deps': 'error',
      '@typescript-eslint/no-non-null-assertion': 'off',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_' }],
      '@typescript-eslint/no-unused-expressions': 'off',
      '@typescript-eslint/consistent-type-imports': 'error',
      'max-lines': ['error', { max: 300, skipBlankLines: true, skipComments: true }],
      eqeqeq: 'error',
    },
  },
  ...Object.entries(FORBIDDEN).map(([from, folders]) => restrict(from, towards(folders, from))),
  ...Object.entries(FORBIDDEN_IN_CORE).map(([folder, upper]) =>
    restrict(`src/core/${folder}`, [
      ...towards(FORBIDDEN['src/core'], 'src/core'),
      ...towards(upper, `core/${folder}`),
      { group: OUTSIDE_CORE, message: 'The core imports nothing from outside but Zod.' },
    ]),
  ),
  { files: ['**/*.test.ts', 'e2e/**', 'tests/**', 'scripts/**', 'bench/**'], rules: { 'max-lines': 'off' } },
);
