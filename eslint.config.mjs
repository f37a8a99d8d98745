import js from '@eslint/js';
import imports from 'eslint-plugin-import-x';
import jsdoc from 'eslint-plugin-jsdoc';
import hooks from 'eslint-plugin-react-hooks';
import ts from 'typescript-eslint';

/** The path of data through the core: a folder may import only those before it (and its own). */
const order = [
  'numerics',
  'syntax',
  'curves',
  'formulas',
  'network',
  'radiation',
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
  'document',
  'starters',
  'scene',
  'grid',
  'discretisation',
  'reading',
  'solvers',
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

export default ts.config(
  {
    ignores: [
      '**/node_modules/**',
      'packages/core/kernels/build/**',
      'packages/core/kernels/assembly/{inline,update}.ts',
      'packages/web/dist/**',
      'packages/node/dist/**',
      '.data/**',
    ],
  },
  js.configs.recommended,
  ...ts.configs.recommended,
  {
    rules: {
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_', caughtErrorsIgnorePattern: '^_' }],
      eqeqeq: 'error',
      'no-console': 'off',
    },
  },
  {
    files: ['scripts/**/*.mjs', '**/*.mjs'],
    languageOptions: { globals: { console: 'readonly', process: 'readonly', URL: 'readonly', WebAssembly: 'readonly', setTimeout: 'readonly' } },
  },
  {
    // AssemblyScript: === asks whether two references are the same, and numbers have sizes.
    files: ['packages/core/kernels/assembly/**/*.ts'],
    rules: { eqeqeq: 'off', 'no-loss-of-precision': 'off' },
  },
  {
    // No file may lead back to itself.
    files: ['packages/*/src/**/*.{ts,tsx}'],
    plugins: { 'import-x': imports },
    settings: {
      'import-x/extensions': ['.ts', '.tsx'],
      'import-x/parsers': { '@typescript-eslint/parser': ['.ts', '.tsx'] },
      'import-x/resolver-next': [imports.createNodeResolver({ extensions: ['.ts', '.tsx'] })],
    },
    rules: { 'import-x/no-cycle': ['error', { ignoreExternal: true }] },
  },
  {
    // What the core hands out says what it is, and what it throws.
    files: ['packages/core/src/**/*.ts'],
    ignores: ['**/*.test.ts', '**/*.testing.ts'],
    plugins: { jsdoc },
    rules: {
      'jsdoc/require-jsdoc': [
        'error',
        {
          publicOnly: true,
          enableFixer: false,
          require: { ArrowFunctionExpression: true, ClassDeclaration: true, FunctionDeclaration: true, FunctionExpression: true },
        },
      ],
      'jsdoc/require-description': ['error', { contexts: ['FunctionDeclaration', 'ArrowFunctionExpression', 'ClassDeclaration'] }],
      'jsdoc/require-throws': 'error',
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
    plugins: { 'react-hooks': hooks },
    rules: {
      'react-hooks/rules-of-hooks': 'error',
      'react-hooks/exhaustive-deps': 'error',
      // Every control is MUI's, by the kit; elements of a page's own stand only in what nobody handles.
      'no-restricted-syntax': [
        'error',
        {
          selector:
            'JSXOpeningElement[name.name=/^(button|input|select|option|optgroup|textarea|label|table|thead|tbody|tfoot|tr|td|th|dialog|details|meter|progress)$/]',
          message: 'Controls and tables come from MUI, through web/src/kit.',
        },
      ],
    },
  },
);
