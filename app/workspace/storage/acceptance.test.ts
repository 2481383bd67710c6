import 'fake-indexeddb/auto';
import { expect, it } from 'vitest';
import { acceptance } from './acceptance.ts';

it('the storage in memory, which the unit tests have, does what the browser’s does', async () => {
  const { passed, failed } = await acceptance();
  expect(failed).toEqual([]);
  expect(passed.length).toBeGreaterThan(8);
});
