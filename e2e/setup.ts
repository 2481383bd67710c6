import { execFileSync } from 'node:child_process';
import type { TestProject } from 'vitest/node';
import { launchBrowser } from './harness.ts';

declare module 'vitest' {
  export interface ProvidedContext {
    browser: string;
  }
}

/** One build and one browser for all browser tests. */
export default async function setup(project: TestProject): Promise<() => Promise<void>> {
  execFileSync(process.execPath, ['scripts/build.mjs'], { stdio: 'inherit' });
  const browser = await launchBrowser();
  project.provide('browser', browser.wsEndpoint());
  return () => browser.close();
}
