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
    setupFiles: ['tests/support/patterns.ts', 'tests/support/properties.ts'],
    sequence: { shuffle: true },
    // Not a goal for time: properties of many random forms take half a minute, on a busy machine several times that.
    testTimeout: 300_000,
    // One worker fewer than processors would leave half of a small machine idle.
    maxWorkers: '100%',
    hookTimeout: 120_000,
    env: { TZ: 'Pacific/Kiritimati' },
  },
})
