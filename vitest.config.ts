import { defineConfig } from 'vitest/config'

export default defineConfig({
  test: {
    // Without a limit: how long something takes is measured in bench/, never judged in a test.
    testTimeout: 0,
    hookTimeout: 0,
    projects: [
      {
        extends: true,
        test: { name: 'unit', include: ['{core,contract,demo,web,cli}/**/*.test.ts'] },
      },
      {
        extends: true,
        test: {
          name: 'server',
          include: ['server/**/*.test.ts'],
          globalSetup: ['server/testing/startDatabase.ts'],
          fileParallelism: false,
        },
      },
    ],
  },
})
