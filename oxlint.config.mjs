/** The path of data through the core: a folder may import only those before it (and its own). */
const order = [
  'numerics',
  'syntax',
  'curves',
  'formulas',
  'network',
  'radiation',
  'searching',
  'entries',
  'shapes',
  'expressions',
  'materials',
  'geometry',
  'methods',
  'yee',
  'recorders',
  'ports',
  'results',
  'cards',
  'studies',
  'document',
  'starters',
  'scene',
  'grid',
  'discretisation',
  'reading',
  'solvers',
  'exploring',
  'formats',
];

/** The same of the interface: from what holds the project to the frame that holds all. */
const webOrder = [
  'types',
  'workers',
  'ui',
  'kit',
  'api',
  'project',
  'space',
  'charts',
  'lens',
  'ports',
  'recorders',
  'ledger',
  'materials',
  'methods',
  'section',
  'shape',
  'feed',
  'stageview',
  'solve',
  'calculator',
  'exchange',
  'explore',
  'read',
  'help',
  'designs',
  'shelf',
  'frame',
];

/** Modules that the core may not know. */
const outside = ['node:*', 'fs', 'path', 'react*', 'express', 'sequelize*', '@mui/*', 'three*', '@jadebell/*'];

/** What each folder of an order may not import: what comes after it, and modules from outside. */
const layers = (source, order, forbidden) =>
  order.map((folder, i) => ({
    files: [`${source}/${folder}/**/*.{ts,tsx}`],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            forbidden,
            ...(i + 1 < order.length
              ? [{ group: order.slice(i + 1).map((f) => `**/../${f}/**`), message: `Nothing in ${folder} reaches forward in the path of data.` }]
              : []),
          ],
        },
      ],
    },
  }));
const coreLayers = layers('packages/core/src', order, { group: outside, message: 'The core is pure computation.' });
const webLayers = layers('packages/web/src', webOrder, {
  group: ['node:*', 'express', 'sequelize*', '@jadebell/server*', '@jadebell/cli*', '@jadebell/node*', '@jadebell/verification*'],
  message: 'The interface runs in a browser.',
});

/** Rules of oxlint, which reads all of the sources in two seconds. */
export default {
  plugins: ['eslint', 'typescript', 'unicorn', 'oxc', 'import', 'react', 'jest'],
  jsPlugins: [{ name: 'jsdoc-js', specifier: 'eslint-plugin-jsdoc' }],
  categories: { correctness: 'error' },
  rules: {
    'no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_', caughtErrorsIgnorePattern: '^_' }],
    eqeqeq: 'error',
    'no-fallthrough': 'error',
    'typescript/no-explicit-any': 'error',
    'typescript/no-empty-object-type': 'error',
    'typescript/no-require-imports': 'error',
    'typescript/no-namespace': 'error',
    'typescript/ban-ts-comment': 'error',
    // An array of zeros is made so all over.
    'unicorn/no-new-array': 'off',
    // Helpers of tests hold what they expect, also within conditions.
    'jest/expect-expect': 'off',
    'jest/no-conditional-expect': 'off',
    'jest/no-standalone-expect': ['error', { additionalTestBlockFunctions: ['thorough', 'thorough.each'] }],
    // Advice for a compiler of components that is not used here.
    ...Object.fromEntries(
      ['refs', 'use-memo', 'set-state-in-effect', 'preserve-manual-memoization', 'incompatible-library', 'immutability', 'globals'].map((name) => [
        `react/${name}`,
        'off',
      ]),
    ),
  },
  overrides: [
    {
      // AssemblyScript: === asks whether two references are the same, and numbers have sizes.
      files: ['packages/core/kernels/assembly/**/*.ts'],
      rules: { eqeqeq: 'off', 'no-loss-of-precision': 'off' },
    },
    {
      // No file may lead back to itself.
      files: ['packages/*/src/**/*.{ts,tsx}'],
      rules: { 'import/no-cycle': 'error' },
    },
    {
      // What the core hands out says what it is, and what it throws.
      files: ['packages/core/src/**/*.ts'],
      excludeFiles: ['**/*.test.ts', '**/*.testing.ts'],
      rules: {
        'jsdoc-js/require-jsdoc': [
          'error',
          {
            publicOnly: true,
            enableFixer: false,
            require: { ArrowFunctionExpression: true, ClassDeclaration: true, FunctionDeclaration: true, FunctionExpression: true },
          },
        ],
        'jsdoc-js/require-description': ['error', { contexts: ['FunctionDeclaration', 'ArrowFunctionExpression', 'ClassDeclaration'] }],
        'jsdoc-js/require-throws': 'error',
      },
    },
    ...coreLayers,
    ...webLayers,
    { files: ['packages/core/src/**/*.test.ts'], rules: { 'no-restricted-imports': 'off' } },
    {
      files: ['packages/{verification,cli,node,server}/src/**/*.ts'],
      rules: { 'no-restricted-imports': ['error', { patterns: ['react*', '@mui/*', '@jadebell/web*', '**/../*/src/**'] }] },
    },
    {
      files: ['packages/web/src/**/*.{ts,tsx}'],
      rules: {
        'react/rules-of-hooks': 'error',
        'react/exhaustive-deps': 'error',
        // Every control is MUI's, by the kit; elements of a page's own stand only in what nobody handles.
        'react/forbid-elements': [
          'error',
          {
            forbid: 'button input select option optgroup textarea label table thead tbody tfoot tr td th dialog details meter progress'
              .split(' ')
              .map((element) => ({ element, message: 'Controls and tables come from MUI, through web/src/kit.' })),
          },
        ],
      },
    },
  ],
  ignorePatterns: [
    '**/node_modules/**',
    'packages/core/kernels/build/**',
    'packages/core/kernels/assembly/{inline,update}.ts',
    'packages/web/dist/**',
    'packages/node/dist/**',
    '.data/**',
  ],
};
