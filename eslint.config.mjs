import withNuxt from './.nuxt/eslint.config.mjs'

export default withNuxt(
  { ignores: ['.output/**', '.nuxt/**', 'coverage/**', 'docs/**', 'packages/core/dist/**'] },
  {
    rules: {
      'vue/multi-word-component-names': 'off', 'vue/max-attributes-per-line': 'off', 'vue/singleline-html-element-content-newline': 'off', 'vue/multiline-html-element-content-newline': 'off',
      'vue/html-self-closing': ['error', { html: { void: 'never', normal: 'always', component: 'always' }, svg: 'always' }],
      'vue/require-default-prop': 'off', 'vue/first-attribute-linebreak': 'off',
      '@typescript-eslint/no-explicit-any': 'error', '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      'import/first': 'off', '@typescript-eslint/no-require-imports': 'off',
      '@stylistic/quote-props': 'off', '@stylistic/arrow-parens': 'off', '@stylistic/max-statements-per-line': ['error', { max: 3 }], '@stylistic/brace-style': ['error', '1tbs', { allowSingleLine: true }],
      '@typescript-eslint/no-dynamic-delete': 'off', 'nuxt/nuxt-config-keys-order': 'off', '@stylistic/operator-linebreak': 'off', '@stylistic/multiline-ternary': 'off', '@stylistic/indent-binary-ops': 'off',
    },
  },
)
