import { defineConfig } from 'vitest/config';

/** The tests of core alone: what a mutation run (npm run mutants) holds against each change of the code. */
export default defineConfig({
  test: { include: ['core/**/*.test.ts'], testTimeout: 30_000 },
});
