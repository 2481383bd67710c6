import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    projects: [
      {
        test: {
          name: 'unit',
          include: ['{core,formats,server,demo}/**/*.test.ts'],
          testTimeout: 90_000,
          isolate: false,
        },
      },
      {
        test: {
          // Some of these put a module in another's place, which one that was loaded before would not notice.
          name: 'unit-app',
          include: ['app/**/*.test.ts'],
          testTimeout: 90_000,
        },
      },
      {
        test: {
          name: 'e2e',
          include: ['e2e/**/*.test.ts'],
          globalSetup: ['e2e/setup.ts'],
          testTimeout: 240_000,
          hookTimeout: 240_000,
          // A page spends most of a test waiting; two at a time keep two cores busy.
          maxWorkers: 2,
          isolate: false,
        },
      },
    ],
  },
});
