import vue from 'eslint-plugin-vue'
import ts from 'typescript-eslint'

/** Modules that the core may import: its own, and pure packages. */
const corePackages = [
  'joi',
  'jsonc-parser',
  'dequal/lite',
  'dinero.js',
  'uqr',
  'd3-dsv',
  'fastest-levenshtein',
  'pure-rand/.*',
  'suncalc',
  'elkjs/lib/elk-api',
]

export default ts.config(
  { ignores: ['.nuxt/', '.output/', '.data/', 'node_modules/', 'test-results/'] },
  ...ts.configs.strict,
  ...ts.configs.stylistic,
  ...vue.configs['flat/recommended'],
  {
    files: ['**/*.{ts,vue,mjs}'],
    languageOptions: { parserOptions: { parser: ts.parser } },
    rules: {
      eqeqeq: ['error', 'always', { null: 'ignore' }],
      'no-var': 'error',
      'prefer-const': 'error',
      // A budget of warnings that only falls: see the lint command in `scripts/lib/checks.mjs`.
      '@typescript-eslint/no-non-null-assertion': 'warn',
      '@typescript-eslint/no-empty-function': 'off',
      '@typescript-eslint/consistent-type-definitions': 'off',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      'no-undef': 'off',
      'vue/max-attributes-per-line': 'off',
      'vue/singleline-html-element-content-newline': 'off',
      'vue/multiline-html-element-content-newline': 'off',
      'vue/html-self-closing': 'off',
      'vue/html-indent': 'off',
      'vue/html-closing-bracket-newline': 'off',
      'vue/first-attribute-linebreak': 'off',
      'vue/multi-word-component-names': 'off',
      'vue/no-v-html': 'error',
    },
  },
  {
    // Rules that need types.
    files: ['core/**/*.ts', 'app/**/*.{ts,vue}', 'server/**/*.ts', 'scripts/**/*.ts', 'tests/**/*.ts'],
    languageOptions: {
      parserOptions: {
        parser: ts.parser,
        extraFileExtensions: ['.vue'],
        project: 'tsconfig.lint.json',
        tsconfigRootDir: import.meta.dirname,
      },
    },
  },
  {
    // The core has no promises.
    files: ['app/**/*.{ts,vue}', 'server/**/*.ts', 'scripts/**/*.ts', 'tests/**/*.ts'],
    rules: {
      '@typescript-eslint/await-thenable': 'error',
      '@typescript-eslint/no-floating-promises': 'error',
      // A handler that returns a promise is fine; a timer that drops one is not.
      '@typescript-eslint/no-misused-promises': ['error', { checksVoidReturn: { properties: false } }],
    },
  },
  {
    files: ['core/**/*.ts', 'app/**/*.{ts,vue}', 'server/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: { '@typescript-eslint/no-unnecessary-condition': 'error' },
  },
  {
    // A lookup that finds nothing fails the test, as intended.
    files: ['**/*.test.ts', 'tests/**/*.ts', '**/*.cases.ts', 'scripts/**/*.ts', 'core/testing.ts'],
    rules: { '@typescript-eslint/no-non-null-assertion': 'off' },
  },
  {
    files: ['core/**/*.ts'],
    ignores: ['core/**/*.test.ts', 'core/testing.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            {
              regex: `^(?!\\.{1,2}/|#core/)(?!(${corePackages.join('|')})$)`,
              message: 'The core is pure: it uses only itself and packages without input or output.',
            },
          ],
        },
      ],
      'no-restricted-globals': [
        'error',
        'window',
        'document',
        'process',
        'fetch',
        'setTimeout',
        'setInterval',
        'performance',
        'localStorage',
        'navigator',
        'console',
        'require',
      ],
      'no-restricted-properties': [
        'error',
        { object: 'Date', property: 'now' },
        { object: 'Math', property: 'random' },
      ],
      'no-restricted-syntax': [
        'error',
        {
          selector: "NewExpression[callee.name='Date'][arguments.length=0]",
          message: 'The core has no clock.',
        },
      ],
    },
  },
)
