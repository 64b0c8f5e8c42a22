import { defineConfig } from 'vitest/config'

const HUNG = 'server/app/health.test.ts'

export default defineConfig({
  test: {
    // Only ends what hangs: how long something takes is measured in bench/, never judged in a test.
    testTimeout: 300_000,
    hookTimeout: 300_000,
    // Every core computes; by itself the runner would leave one idle, of two.
    maxWorkers: '100%',
    projects: [
      {
        extends: true,
        // Nothing here leaves anything behind, so files of one worker share what they import: a kernel is started once.
        test: { name: 'core', include: ['{core,contract,demo,soak,standins,handbook,scripts}/**/*.test.ts'], isolate: false },
      },
      {
        extends: true,
        test: { name: 'page', include: ['{web,cli}/**/*.test.ts'] },
      },
      {
        extends: true,
        test: {
          name: 'screens',
          include: ['web/**/*.test.tsx'],
          environment: 'happy-dom',
          setupFiles: ['web/testing/setup.ts'],
        },
      },
      {
        extends: true,
        test: {
          name: 'server',
          include: ['server/**/*.test.ts'],
          exclude: [HUNG],
          globalSetup: ['server/testing/startDatabase.ts'],
        },
      },
      {
        extends: true,
        // It stops its database, so it has one of its own.
        test: { name: 'hung', include: [HUNG], globalSetup: ['server/testing/startDatabase.ts'] },
      },
    ],
  },
})
