import { fileURLToPath } from 'node:url'
import vue from '@vitejs/plugin-vue'
import { defineConfig } from 'vitest/config'

export default defineConfig({
  plugins: [vue()],
  resolve: {
    alias: {
      '#core': fileURLToPath(new URL('./core', import.meta.url)),
      '#shared': fileURLToPath(new URL('./shared', import.meta.url)),
      '~': fileURLToPath(new URL('./app', import.meta.url)),
    },
  },
  esbuild: { tsconfigRaw: '{}' },
  test: {
    include: ['{core,cli,server,shared,app,tests}/**/*.test.ts'],
    setupFiles: ['tests/support/patterns.ts'],
    sequence: { shuffle: true },
    testTimeout: 60_000,
    env: { TZ: 'Pacific/Kiritimati' },
  },
})
