/** Core, server and command line run under plain Node; the interface is driven in a browser by Playwright. */
module.exports = {
  testEnvironment: 'node',
  roots: ['<rootDir>/src', '<rootDir>/tests'],
  transform: {
    '^.+\\.(t|mj|j)sx?$': [
      '@swc/jest',
      {
        jsc: {
          target: 'es2023',
          parser: { syntax: 'typescript', tsx: true },
          transform: { react: { runtime: 'automatic' } },
        },
      },
    ],
  },
  transformIgnorePatterns: ['/node_modules/(?!(nanoid|jose|d3-[a-z]+)/)'],
  moduleNameMapper: { '\\.module\\.css$': '<rootDir>/tests/support/class-names.cjs', '^@/(.*)$': '<rootDir>/src/$1' },
};
