import { readdirSync } from 'node:fs'
import { join } from 'node:path'
import js from '@eslint/js'
import { createTypeScriptImportResolver } from 'eslint-import-resolver-typescript'
import importX from 'eslint-plugin-import-x'
import vue from 'eslint-plugin-vue'
import globals from 'globals'
import tseslint from 'typescript-eslint'
import { componentParser } from './scripts/lib/vue-program'

/** `web → contracts, core`; `server → contracts, core`; `contracts → core`; core imports nothing of ours. */
const BOUNDARIES = [
  { target: './core', from: ['./contracts', './server', './web', './scripts'] },
  { target: './contracts', from: ['./server', './web', './scripts'] },
  { target: './server', from: ['./web', './scripts'] },
  { target: './web', from: ['./server', './scripts'] },
].map((zone) => ({ ...zone, message: 'See docs/decisions/0002-layout.md: which folder may import which.' }))

/** Of the page, each row may import the rows below it, and of its own row only itself. */
const ROOMS: readonly (readonly string[])[] = [
  ['pages'],
  readdirSync(join(import.meta.dirname, 'web/features')).map((name) => `features/${name}`),
  ['stores', 'board', 'figure', 'charts', 'audio', 'listen', 'notation', 'paper'],
  ['ui', 'files'],
  ['api', 'words'],
]
const WALLS = ROOMS.flatMap((row, at) =>
  row.map((room) => ({
    target: `./web/${room}/**/!(*.test).{ts,vue}`,
    from: [...ROOMS.slice(0, at).flat(), ...row]
      .filter((other) => other !== room)
      .map((other) => `./web/${other}`),
    message: 'See docs/decisions/0002-layout.md: no room of the page leans on one above it or beside it.',
  })),
).filter(({ from }) => from.length > 0)

export default tseslint.config(
  { ignores: ['dist', 'node_modules', 'test-results', 'playwright-report', '.jadefell'] },
  js.configs.recommended,
  ...tseslint.configs.recommended,
  // The rules that know types are asked of components alone: of files of TypeScript oxlint asks the same (.oxlintrc.json).
  ...tseslint.configs.recommendedTypeCheckedOnly.map((config) => ({ ...config, files: ['**/*.vue'] })),
  ...vue.configs['flat/recommended'],
  {
    files: ['**/*.vue'],
    languageOptions: {
      parserOptions: {
        parser: componentParser(import.meta.dirname, 'web'),
        project: ['./web/tsconfig.json'],
        extraFileExtensions: ['.vue'],
        tsconfigRootDir: import.meta.dirname,
      },
    },
  },
  {
    files: ['**/*.{ts,vue}'],
    plugins: { 'import-x': importX },
    settings: {
      // Without these, circles are looked for in JavaScript alone.
      'import-x/extensions': ['.ts', '.vue'],
      'import-x/parsers': { '@typescript-eslint/parser': ['.ts'], 'vue-eslint-parser': ['.vue'] },
      'import-x/resolver-next': [
        createTypeScriptImportResolver({ project: ['./tsconfig.json', './web/tsconfig.json'] }),
      ],
    },
    rules: {
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      'import-x/no-restricted-paths': ['error', { zones: [...BOUNDARIES, ...WALLS] }],
    },
  },
  {
    files: ['**/*.vue', 'web/**/*.ts'],
    languageOptions: { globals: globals.browser },
    rules: {
      // Prettier lays templates out; these rules would argue with it.
      'vue/html-indent': 'off',
      'vue/max-attributes-per-line': 'off',
      'vue/singleline-html-element-content-newline': 'off',
      'vue/html-self-closing': 'off',
      'vue/html-closing-bracket-newline': 'off',
      'vue/require-default-prop': 'off',
      'vue/multi-word-component-names': 'off',
      'vue/multiline-html-element-content-newline': 'off',
      // Here the linter does not see through .vue files; vue-tsc does, and checks the same.
      '@typescript-eslint/no-unsafe-argument': 'off',
      '@typescript-eslint/no-unsafe-assignment': 'off',
      '@typescript-eslint/no-unsafe-call': 'off',
      '@typescript-eslint/no-unsafe-member-access': 'off',
      '@typescript-eslint/no-unsafe-return': 'off',
      // A composable's functions are closures without `this`.
      '@typescript-eslint/unbound-method': 'off',
    },
  },
  {
    files: ['core/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-globals': [
        'error',
        'window',
        'document',
        'fetch',
        'process',
        'setTimeout',
        'setInterval',
      ],
      'no-restricted-properties': [
        'error',
        { object: 'Math', property: 'random', message: 'Randomness is handed in.' },
        { object: 'Date', property: 'now', message: 'Time is handed in.' },
      ],
      'no-restricted-syntax': [
        'error',
        { selector: "NewExpression[callee.name='Date'][arguments.length=0]", message: 'Time is handed in.' },
      ],
    },
  },
  { files: ['**/*.mjs', '**/*.d.mts'], languageOptions: { globals: globals.node } },
  { files: ['e2e/**/*.ts'], rules: { 'no-empty-pattern': 'off' } },
)
