import vue from '@vitejs/plugin-vue'
import { defineConfig } from 'vitest/config'

process.env['TZ'] ??= 'Pacific/Auckland'

/** The tests nearest to what `npm run mutants` changes. */
export default defineConfig({
  plugins: [vue()],
  test: {
    setupFiles: ['scripts/testing/far-date.ts'],
    include: [
      'core/{verdict,listen,take,fingering}/**/*.test.ts',
      'core/exercise/**/*.test.ts',
      'web/stores/outbox.test.ts',
    ],
    exclude: ['core/fingering/{sweeps,holdable}.test.ts'],
    testTimeout: 60_000,
  },
})
