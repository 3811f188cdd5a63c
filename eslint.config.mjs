import stylistic from '@stylistic/eslint-plugin'
import withNuxt from './.nuxt/eslint.config.mjs'

/** Layout is Prettier's; these rules hold what Prettier does not, and what keeps the code honest. */
export default withNuxt(
  { ignores: ['.output/**', '.nuxt/**', 'coverage/**', 'docs/**', 'packages/core/dist/**'] },
  {
    plugins: { layout: stylistic },
    rules: {
      'layout/max-len': ['error', { code: 120 }],
      'layout/max-statements-per-line': ['error', { max: 1 }],
      'vue/multi-word-component-names': 'off',
      'vue/require-default-prop': 'off',
      'vue/html-self-closing': [
        'error',
        { html: { void: 'any', normal: 'always', component: 'always' }, svg: 'always' },
      ],
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/no-unused-vars': [
        'error',
        { argsIgnorePattern: '^_', varsIgnorePattern: '^_' },
      ],
      '@typescript-eslint/no-require-imports': 'off',
      '@typescript-eslint/no-dynamic-delete': 'off',
      'import/first': 'off',
      'nuxt/nuxt-config-keys-order': 'off',
    },
  },
  // A promise that something is there is a promise nobody checks. package.json says how many may be left
  // (--max-warnings of the lint command); the number only falls.
  { files: ['core/**/*.ts'], rules: { '@typescript-eslint/no-non-null-assertion': 'warn' } },
)
