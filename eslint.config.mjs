import { fileURLToPath } from 'node:url'
import { createNodeResolver, importX } from 'eslint-plugin-import-x'
import withNuxt from './.nuxt/eslint.config.mjs'

const below = folder => fileURLToPath(new URL(folder, import.meta.url))
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

/** What keeps code readable: no file is excepted. */
const readable = {
  complexity: ['error', 15],
  'max-lines': ['error', { max: 350 }],
  'max-lines-per-function': ['error', { max: 60 }],
  'no-nested-ternary': 'error',
  'vue/no-restricted-syntax': [
    'error',
    {
      selector: 'ConditionalExpression ConditionalExpression',
      message: 'No nested ternaries: name what is chosen in the script.',
    },
    {
      selector: 'VOnExpression[body.length>1]',
      message:
        'A handler with several statements is a function in the script: without semicolons Vue can’t read it.',
    },
  ],
}

/** Controls of which the component itself is the point; every other control is Vuetify’s. At most ten. */
const ownControls = [
  'app/components/lists/ListGrid.vue',
  'app/components/write/ScriptRow.vue',
  'app/components/answer/widgets/WidgetGrid.vue',
  'app/components/answer/widgets/WidgetRanking.vue',
]
const RAW_CONTROLS = ['button', 'input', 'select', 'textarea', 'table', 'dialog', 'details', 'progress']

export default withNuxt(
  { ignores: ['.output/**', 'server/store/migrations/**'] },
  {
    plugins: { 'import-x': importX },
    settings: {
      'import-x/extensions': ['.ts', '.mjs', '.vue'],
      'import-x/parsers': { '@typescript-eslint/parser': ['.ts'], 'vue-eslint-parser': ['.vue'] },
      'import-x/resolver-next': [
        createNodeResolver({
          extensions: ['.ts', '.mjs', '.vue', '.json'],
          alias: {
            '#core/*': [below('./core/*')],
            '#shared/*': [below('./shared/*')],
            '~/*': [below('./app/*')],
          },
        }),
      ],
    },
    rules: {
      'import-x/no-cycle': 'error',
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/no-unused-vars': [
        'error',
        { argsIgnorePattern: '^_', varsIgnorePattern: '^_', destructuredArrayIgnorePattern: '^_' },
      ],
      'vue/multi-word-component-names': 'off',
      'vue/html-self-closing': 'off',
      // v-memo stands beside v-for, on a template as well.
      'vue/no-useless-template-attributes': 'off',
      ...readable,
    },
  },
  {
    files: ['app/**/*.vue'],
    ignores: ownControls,
    rules: {
      'vue/no-restricted-html-elements': [
        'error',
        ...RAW_CONTROLS.map(element => ({ element, message: 'Controls are Vuetify’s, in our theme.' })),
      ],
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
