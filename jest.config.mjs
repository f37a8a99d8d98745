const transform = { '^.+\\.(ts|tsx)$': '<rootDir>/scripts/jestTransform.mjs' };
const common = { testEnvironment: 'node', transform, extensionsToTreatAsEsm: ['.ts', '.tsx'] };
export default {
  testTimeout: 240_000,
  projects: [
    {
      ...common,
      displayName: 'unit',
      setupFiles: ['<rootDir>/scripts/jestPage.mjs'],
      testMatch: ['<rootDir>/packages/{core,verification,cli,node,web}/**/*.test.ts?(x)'],
    },
    { ...common, displayName: 'server', testMatch: ['<rootDir>/packages/server/**/*.test.ts'] },
    { ...common, displayName: 'e2e', testMatch: ['<rootDir>/e2e/**/*.test.ts'] },
  ],
};
