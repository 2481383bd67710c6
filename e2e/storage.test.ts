import { build } from 'vite';
import { expect } from 'vitest';
import { pageTest } from './page-test.ts';
import { openBare } from './storage.ts';

/** The acceptance suite of the storage as one script for a page. */
async function suite(): Promise<string> {
  const built = await build({
    configFile: false,
    logLevel: 'error',
    build: {
      write: false,
      minify: false,
      lib: {
        entry: 'app/workspace/storage/acceptance.ts',
        name: 'storage',
        formats: ['iife'],
      },
      rolldownOptions: { output: { codeSplitting: false } },
    },
  });
  const [first] = Array.isArray(built) ? built : [built];
  if (!('output' in first)) throw new Error('nothing was built');
  return first.output[0].code;
}

pageTest('the browser’s own storage does what the one in memory does', async ({ page, desk }) => {
  await openBare(page, desk);
  const code = await suite();
  const result = await page.evaluate(`${code}\nstorage.acceptance()`);
  expect(result).toMatchObject({ failed: [] });
  expect((result as { passed: string[] }).passed.length).toBeGreaterThan(8);
});
