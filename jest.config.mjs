const transform = { '^.+\\.(ts|tsx)$': '<rootDir>/scripts/jestTransform.mjs' };
// Its main file is none that this Node can bring together with modules.
const tree = { '^three-mesh-bvh$': '<rootDir>/node_modules/three-mesh-bvh/src/index.js' };
const common = { testEnvironment: 'node', transform, extensionsToTreatAsEsm: ['.ts', '.tsx'] };
export default {
  testTimeout: 240_000,
  projects: [
    {
      ...common,
      displayName: 'unit',
      moduleNameMapper: tree,
      setupFiles: ['<rootDir>/scripts/jestPage.mjs'],
      testMatch: ['<rootDir>/packages/{core,verification,cli,node,web}/**/*.test.ts?(x)'],
      testPathIgnorePatterns: ['/node_modules/', '<rootDir>/packages/web/test/'],
    },
    {
      // Whole pages, without layout and graphics: what draws in space stands empty there. With the libraries as they ship, which are twice as quick.
      ...common,
      displayName: 'pages',
      testEnvironment: 'jsdom',
      setupFiles: ['<rootDir>/scripts/jestPage.mjs', '<rootDir>/scripts/jestShipped.mjs'],
      moduleNameMapper: {
        '\\.css$': '<rootDir>/packages/web/test/noStyle.ts',
        '^@react-three/': '<rootDir>/packages/web/test/noSpace.tsx',
        ...tree,
      },
      testMatch: ['<rootDir>/packages/web/test/**/*.test.tsx'],
    },
    { ...common, displayName: 'server', testMatch: ['<rootDir>/packages/server/**/*.test.ts'] },
    { ...common, displayName: 'e2e', testMatch: ['<rootDir>/e2e/**/*.test.ts'] },
  ],
};
