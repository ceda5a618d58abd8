import withNuxt from './.nuxt/eslint.config.mjs'

const coreOnly = [
  'vue',
  'nuxt',
  '#*',
  '~*',
  '@vue/*',
  'pinia',
  'drizzle-orm*',
  'h3',
  'node:*',
  '**/server/*',
  '**/app/*',
]

export default withNuxt(
  { ignores: ['.output/**', 'server/store/migrations/**'] },
  {
    rules: {
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/no-unused-vars': [
        'error',
        { argsIgnorePattern: '^_', varsIgnorePattern: '^_', destructuredArrayIgnorePattern: '^_' },
      ],
      'vue/multi-word-component-names': 'off',
      'vue/html-self-closing': 'off',
    },
  },
  // The one place that shows HTML, which the formatter makes and escapes.
  { files: ['app/components/answer/FormattedText.vue'], rules: { 'vue/no-v-html': 'off' } },
  {
    files: ['core/**/*.ts'],
    ignores: ['core/**/*.test.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            { group: coreOnly, message: 'The core stands alone: no interface, no server, no Node.' },
          ],
        },
      ],
    },
  },
  {
    files: ['app/**/*'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            {
              group: ['**/server/*', '~~/server/*', 'drizzle-orm*'],
              message: 'The app and the server meet over HTTP.',
            },
          ],
        },
      ],
    },
  },
  {
    files: ['server/**/*.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            {
              group: ['**/app/*', '~/*', 'vue', 'pinia'],
              message: 'The server does not know the interface.',
            },
          ],
        },
      ],
    },
  },
)
