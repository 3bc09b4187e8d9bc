import { availableParallelism } from 'node:os'
import vue from '@vitejs/plugin-vue'
import { defineConfig } from 'vitest/config'

// A zone whose day is already tomorrow while UTC still writes today; workers inherit it.
process.env['TZ'] ??= 'Pacific/Auckland'

export default defineConfig({
  test: {
    // One a core: by itself one core is left to whoever watches, and on a machine of two that is half of it.
    // Each has a database where it runs the server's tests: a machine of many cores is not filled with them.
    maxWorkers: Math.min(8, availableParallelism()),
    projects: [
      {
        test: {
          name: 'core',
          setupFiles: ['scripts/testing/far-date.ts'],
          include: ['core/**/*.test.ts', 'contracts/**/*.test.ts', 'bench/**/*.test.ts'],
          // Functions of their arguments: a file leaves nothing behind that the next one could see, and modules are read once.
          isolate: false,
          testTimeout: 60_000,
          hookTimeout: 60_000,
        },
      },
      {
        plugins: [vue()],
        test: {
          name: 'page',
          setupFiles: ['scripts/testing/far-date.ts', 'scripts/testing/clear-page.ts'],
          include: ['web/**/*.test.ts'],
          // One surrounding for all of them: where files differ in it a worker is ended for each that differs from the one before,
          // and with it every module it had read, which was half of what these tests cost.
          environment: 'happy-dom',
          isolate: false,
          testTimeout: 60_000,
          hookTimeout: 60_000,
        },
      },
      {
        test: {
          name: 'scripts',
          setupFiles: ['scripts/testing/far-date.ts'],
          include: ['scripts/**/*.test.ts'],
          isolate: false,
          // A limit is for what hangs. Nothing here takes two seconds on a machine of its own; a loaded one gets its time.
          testTimeout: 60_000,
          // A database, or three, made and started; beside the other tests, and on a machine that others load.
          hookTimeout: 240_000,
        },
      },
      {
        test: {
          name: 'api',
          setupFiles: ['scripts/testing/far-date.ts', 'scripts/testing/own-database.ts'],
          include: ['server/**/*.test.ts'],
          globalSetup: 'scripts/testing/api-database.ts',
          // As one server that lives through all of them: what a file needs it makes itself, under names of its own.
          isolate: false,
          testTimeout: 40_000,
          hookTimeout: 120_000,
        },
      },
    ],
  },
})
