import { fileURLToPath } from 'node:url'
import vuetify from 'vite-plugin-vuetify'

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
  devtools: { enabled: false },
  telemetry: false,
  features: { inlineStyles: false },
  alias: { '#core': fileURLToPath(new URL('./core', import.meta.url)) },
  imports: { autoImport: true },
  components: [{ path: '~/components', pathPrefix: false }],
  build: { transpile: ['vuetify', '@atlaskit/pragmatic-drag-and-drop'] },
  css: [
    '@fontsource-variable/atkinson-hyperlegible-next/wght.css',
    '@fontsource-variable/atkinson-hyperlegible-mono/wght.css',
    '~/theme/marks.css',
  ],
  app: {
    head: {
      htmlAttrs: { lang: 'en' },
      title: 'Tobbin',
      link: [{ rel: 'icon', type: 'image/svg+xml', href: '/bobbin.svg' }],
      meta: [{ name: 'viewport', content: 'width=device-width, initial-scale=1' }],
    },
  },
  runtimeConfig: { demo: '', dataFolder: 'data' },
  routeRules: { '/forms/**': { ssr: false } },
  vite: {
    worker: { format: 'es' },
    esbuild: { logOverride: { 'css-syntax-error': 'silent' } },
    optimizeDeps: { include: ['zod', 'decimal.js'] },
  },
  nitro: {
    // The prover counts with big integers.
    esbuild: { options: { target: 'es2022' } },
    compressPublicAssets: true,
    serverAssets: [{ baseName: 'migrations', dir: './store/migrations' }],
    typescript: { tsConfig: { compilerOptions: { noUncheckedIndexedAccess: true } } },
  },
  typescript: { strict: true, tsConfig: { compilerOptions: { noUncheckedIndexedAccess: true } } },
})
