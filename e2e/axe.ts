import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import type { Page } from 'puppeteer-core';

const AXE = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');

interface Violation {
  readonly id: string;
  readonly nodes: readonly { readonly target: readonly string[]; readonly failureSummary: string }[];
}

/** What axe finds wrong with the page as it stands. */
async function violations(page: Page, only = ''): Promise<string[]> {
  // A notice that fades away is neither there nor gone.
  await page.waitForFunction(() => document.querySelector('[data-removed="true"]') === null);
  // The policy of the page allows no script of ours; the browser's own way in is not bound by it.
  if (!(await page.evaluate(() => 'axe' in window))) await page.evaluate(AXE);
  const found = (await page.evaluate(
    `axe.run(document, { resultTypes: ["violations"] ${only} }).then((r) => r.violations)`,
  )) as Violation[];
  return found.flatMap(({ id, nodes }) =>
    nodes.map((node) => `${id}: ${node.target.join(' ')}: ${node.failureSummary}`),
  );
}

/** The same in light and in dark; the two differ in nothing but their colours. */
export async function violationsInBoth(page: Page): Promise<string[]> {
  await page.emulateMediaFeatures([{ name: 'prefers-color-scheme', value: 'dark' }]);
  const dark = await violations(page, ', runOnly: ["color-contrast"]');
  await page.emulateMediaFeatures([{ name: 'prefers-color-scheme', value: 'light' }]);
  const light = await violations(page);
  return [...dark.map((one) => `dark ${one}`), ...light.map((one) => `light ${one}`)];
}
