import boundaries from 'eslint-plugin-boundaries'
import vue from 'eslint-plugin-vue'
import tseslint from 'typescript-eslint'

/** Which folder may import which; everything points downwards to core. */
const allowed = {
  core: ['core'],
  engine: ['engine', 'core'],
  webcam: ['webcam', 'core'],
  extension: ['extension', 'webcam', 'core'],
  standins: ['standins', 'core'],
  demo: ['demo', 'standins', 'core'],
  server: ['server', 'core', 'engine', 'webcam', 'standins', 'demo'],
  app: ['app', 'engine', 'webcam', 'extension', 'standins', 'core'],
  tests: ['tests', 'app', 'engine', 'webcam', 'extension', 'standins', 'server', 'demo', 'core', 'scripts'],
  scripts: ['scripts', 'tests', 'app', 'standins', 'server', 'core', 'demo'],
}
const folders = Object.keys(allowed)

/** The folders of core from the ground up: each may import those before it, so that no circle can come about. */
const coreOrder = [
  ...['random', 'patch', 'schema', 'colour', 'style', 'palette', 'composite', 'marks', 'clip', 'card'],
  ...['picture', 'blend', 'box', 'filter', 'lut', 'motion', 'paint', 'scopes', 'matte', 'outline', 'drawing', 'text'],
  ...[
    'steps',
    'inputs',
    'solve',
    'layers',
    'plan',
    'render',
    'compose',
    'transitions',
    'show',
    'sound',
    'sync',
    'layout',
    'graphics',
    'backgrounds',
    'decks',
    'annotations',
    'prepared',
    'stage',
    'programme',
  ],
]
const coreType = (name) => `core/${name}`
const coreTypes = coreOrder.map(coreType)
const typesOf = (folder) => (folder === 'core' ? ['core', ...coreTypes] : [folder])

/** Kinds of layers and inputs. What differs between them is asked of their definitions (core/layers, core/inputs, app/kinds). */
const kinds = 'input|text|shape|group|scene|camera|screen|deck|picture|clip|colour'
const kindMessage = 'Ask the definition of the kind (core/layers/index.ts, core/inputs/index.ts, app/kinds), or use its guard, as isCamera.'
const kindComparisons = [
  `BinaryExpression[operator=/^[!=]==$/][right.value=/^(${kinds})$/] MemberExpression[property.name='kind']`,
  `BinaryExpression[operator=/^[!=]==$/][right.value=/^(${kinds})$/][left.name='kind']`,
  `SwitchStatement[discriminant.property.name='kind'] > SwitchCase[test.value=/^(${kinds})$/]`,
].map((selector) => ({ selector, message: kindMessage }))

export default tseslint.config(
  { ignores: ['dist/**', 'data/**', 'node_modules/**', '**/kernels/*.ts', 'test-results/**', 'playwright-report/**'] },
  ...tseslint.configs.recommended,
  ...vue.configs['flat/recommended'],
  {
    files: ['**/*.vue'],
    languageOptions: { parserOptions: { parser: tseslint.parser } },
    rules: {
      // Prettier lays the templates out.
      'vue/max-attributes-per-line': 'off',
      'vue/singleline-html-element-content-newline': 'off',
      'vue/html-self-closing': 'off',
      'vue/html-indent': 'off',
      'vue/html-closing-bracket-newline': 'off',
      'vue/require-default-prop': 'off',
      'no-undef': 'off',
    },
  },
  {
    files: ['**/*.{ts,vue}'],
    plugins: { boundaries },
    settings: {
      'boundaries/elements': [
        ...coreOrder.map((name) => ({ type: coreType(name), pattern: `core/${name}/**`, partialMatch: false })),
        ...folders.map((folder) => ({ type: folder, pattern: `${folder}/**`, partialMatch: false })),
      ],
      'import/resolver': { node: { extensions: ['.ts', '.vue', '.mjs'] } },
    },
    rules: {
      'no-console': 'error',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      'boundaries/dependencies': [
        'error',
        {
          default: 'disallow',
          policies: [
            ...coreTypes.map((type, rank) => ({ from: { element: { type } }, allow: { to: { element: { type: coreTypes.slice(0, rank + 1) } } } })),
            ...folders
              .filter((folder) => folder !== 'core')
              .map((folder) => ({ from: { element: { type: folder } }, allow: { to: { element: { type: allowed[folder].flatMap(typesOf) } } } })),
          ],
        },
      ],
    },
  },
  {
    files: ['{core,engine,app,server}/**/*.{ts,vue}'],
    // Kinds themselves; steps, of which one is named colour; the kinds of views.
    ignores: ['core/{layers,inputs,steps}/**', 'engine/worker/view.ts', 'engine/worker/views.ts', '**/*.test.ts'],
    rules: { 'no-restricted-syntax': ['error', ...kindComparisons], 'vue/no-restricted-syntax': ['error', ...kindComparisons] },
  },
  {
    // What nobody waits for, and nobody catches, fails in silence.
    files: ['{core,engine,webcam,extension,standins,server,app}/**/*.ts'],
    ignores: ['**/*.test.ts'],
    languageOptions: {
      parserOptions: {
        project: ['core', 'engine', 'webcam', 'extension', 'standins', 'server', 'app'].map((folder) => `${folder}/tsconfig.json`),
        tsconfigRootDir: import.meta.dirname,
      },
    },
    rules: { '@typescript-eslint/no-floating-promises': 'error' },
  },
  {
    files: ['app/**/*.vue'],
    languageOptions: {
      parserOptions: { parser: tseslint.parser, project: ['app/tsconfig.json'], tsconfigRootDir: import.meta.dirname, extraFileExtensions: ['.vue'] },
    },
    rules: { '@typescript-eslint/no-floating-promises': 'error' },
  },
  {
    // A test beside its subject may reach for stand-ins, the server and shared test support.
    files: ['**/*.test.ts'],
    rules: { 'boundaries/dependencies': 'off' },
  },
  {
    files: ['core/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-imports': ['error', { patterns: [{ group: ['node:*', 'vue', 'express', 'sequelize'], message: 'Core is pure computation.' }] }],
    },
  },
  {
    // A file is read in one go, a function in one look. Composables and stores are one function each: for them the file is the bound.
    files: ['**/*.{ts,vue,mjs}'],
    ignores: ['**/*.{test,spec}.ts', 'tests/**'],
    rules: { 'max-lines': ['error', 300], 'max-lines-per-function': ['error', { max: 80, skipBlankLines: true, skipComments: true }] },
  },
  { files: ['app/**/use-*.ts', 'app/**/*.store.ts'], rules: { 'max-lines-per-function': 'off' } },
)
