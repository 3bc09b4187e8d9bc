import vue from '@vitejs/plugin-vue'
import { defineConfig } from 'vitest/config'

// A zone whose day is already tomorrow while UTC still writes today; workers inherit it.
process.env['TZ'] ??= 'Pacific/Auckland'

export default defineConfig({
  test: {
    // One a core: by itself one core is left to whoever watches, and on a machine of two that is half of it.
    maxWorkers: '100%',
    projects: [
      {
        plugins: [vue()],
        test: {
          name: 'unit',
          setupFiles: ['scripts/testing/far-date.ts'],
          include: [
            'core/**/*.test.ts',
            'contracts/**/*.test.ts',
            'web/**/*.test.ts',
            'scripts/**/*.test.ts',
            'bench/**/*.test.ts',
          ],
          exclude: ['scripts/database/**'],
          // A limit is for what hangs. Nothing here takes two seconds on a machine of its own; a loaded one gets its time.
          testTimeout: 60_000,
          hookTimeout: 60_000,
        },
      },
      {
        test: {
          name: 'api',
          setupFiles: ['scripts/testing/far-date.ts'],
          include: ['server/**/*.test.ts', 'scripts/database/**/*.test.ts'],
          globalSetup: 'scripts/testing/api-database.ts',
          fileParallelism: false,
          testTimeout: 40_000,
          hookTimeout: 120_000,
        },
      },
    ],
  },
})
