import { randomUUID } from 'node:crypto'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { build } from 'esbuild'
import vuetify from 'vite-plugin-vuetify'
import { buildRespondentWorker, listRespondentFiles } from './offline/build'

/** What a respondent’s page may ask for, found when the pages are built. */
let respondentFiles: readonly string[] = []

export default defineNuxtConfig({
  compatibilityDate: '2026-05-01',
  modules: [
    '@pinia/nuxt',
    'nuxt-auth-utils',
    '@nuxt/eslint',
    (_options, nuxt) => {
      nuxt.hooks.hook('vite:extendConfig', config => {
        config.plugins?.push(vuetify({ autoImport: true }))
      })
    },
  ],
  hooks: {
    // What worker threads of the server do is a file of its own beside the server (server/plugins/threads.ts).
    'nitro:init': nitro => {
      // Before the server is built, which lists what is served as it is.
      nitro.hooks.hook('rollup:before', async ({ options }) => {
        if (options.dev) return
        await buildRespondentWorker(options.output.publicDir, respondentFiles)
      })
      nitro.hooks.hook('compiled', async ({ options }) => {
        if (options.dev) return
        await build({
          entryPoints: [fileURLToPath(new URL('./server/threads/worker.ts', import.meta.url))],
          outfile: join(options.output.serverDir, 'worker.mjs'),
          // It is no script: it stands beside the server, which uses it too.
          external: ['@resvg/resvg-js'],
          bundle: true,
          platform: 'node',
          target: 'node20',
          format: 'esm',
          minify: true,
        })
      })
    },
    // A page brings what it shows; what only other forms or later steps need is not fetched ahead.
    'build:manifest': manifest => {
      for (const file of Object.values(manifest)) file.prefetch = false
      respondentFiles = listRespondentFiles(manifest)
    },
  },
  // Whoever answers a form has no session: only pages that ask for one fetch it.
  auth: { loadStrategy: 'none' },
  devtools: { enabled: false },
  telemetry: false,
  features: { inlineStyles: false },
  alias: { '#core': fileURLToPath(new URL('./core', import.meta.url)) },
  imports: { dirs: ['browser', 'wording'] },
  components: [{ path: '~/components', pathPrefix: false, extensions: ['vue'] }],
  build: { transpile: ['vuetify', '@atlaskit/pragmatic-drag-and-drop'] },
  css: [
    '@fontsource-variable/atkinson-hyperlegible-next/wght.css',
    '@fontsource-variable/atkinson-hyperlegible-mono/wght.css',
    '~/theme/marks.css',
    '~/theme/controls.css',
    '~/theme/look.css',
  ],
  app: {
    head: {
      htmlAttrs: { lang: 'en' },
      title: 'Tobbin',
      link: [{ rel: 'icon', type: 'image/svg+xml', href: '/bobbin.svg' }],
      meta: [{ name: 'viewport', content: 'width=device-width, initial-scale=1' }],
    },
  },
  runtimeConfig: {
    demo: '',
    dataFolder: 'data',
    // Daily backups in the data folder; 0: none are made.
    backupsKept: '7',
    // Not empty: a proxy in front says where requests come from (X-Forwarded-For).
    trustProxy: '',
    // The session cookie, sealed with NUXT_SESSION_PASSWORD; the store ends sessions earlier (services/people/sessions).
    session: { password: '', name: 'tobbin-session', maxAge: 14 * 24 * 60 * 60 },
  },
  routeRules: { '/forms/**': { ssr: false } },
  vite: {
    worker: { format: 'es' },
    esbuild: { logOverride: { 'css-syntax-error': 'silent' } },
    // For `npm run dev`: what is no ES module, and what is found only when its page is opened, which would load it anew.
    optimizeDeps: {
      include: [
        'zod',
        'decimal.js',
        'bind-event-listener',
        'raf-schd',
        '@mdi/js',
        '@date-fns/tz',
        '@vueuse/core',
        'fflate',
        'n2words/en-GB',
        're2js',
      ],
    },
  },
  nitro: {
    // The prover counts with big integers.
    esbuild: { options: { target: 'es2022' } },
    compressPublicAssets: true,
    // What another build has worked out and stored is worked out anew.
    replace: { 'process.env.TOBBIN_BUILD': JSON.stringify(randomUUID()) },
    // What these give to Node.js (their “module-sync” exports) is not found by tracing; workbooks are written with what rests on them.
    externals: {
      traceInclude: ['async-function', 'async-generator-function', 'generator-function'].map(name =>
        fileURLToPath(new URL(`./node_modules/${name}/require.mjs`, import.meta.url)),
      ),
    },
    rollupConfig: {
      // Nitro puts one address in the place of every chunk's own.
      plugins: [
        {
          name: 'folder-of-chunk',
          renderChunk: {
            order: 'post',
            handler: (code: string) => ({
              code: code.replaceAll('FOLDER_OF_CHUNK', 'import.meta.dirname'),
              map: null,
            }),
          },
        },
      ],
    },
    serverAssets: [{ baseName: 'migrations', dir: './store/migrations' }],
    typescript: { tsConfig: { compilerOptions: { noUncheckedIndexedAccess: true } } },
  },
  typescript: { strict: true, tsConfig: { compilerOptions: { noUncheckedIndexedAccess: true } } },
})
