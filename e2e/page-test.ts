import puppeteer, { type BrowserContext, type Page } from 'puppeteer-core';
import { expect, inject, test } from 'vitest';
import { FEW, keepFailure, openWatched, startDesk, type DemoPart, type Desk } from './harness.ts';

export interface Scene {
  readonly page: Page;
  readonly desk: Desk;
  readonly context: BrowserContext;
  /** Faults that a test brings about on purpose, as patterns; any other fails it. */
  readonly expectFault: (pattern: RegExp) => void;
}

export const PHONE = { width: 390, height: 844 };

/** A browser test: a desk and a profile of its own; any console error, page error or foreign request fails it. */
export function pageTest(
  name: string,
  run: (scene: Scene) => Promise<void>,
  size = { width: 1280, height: 800 },
  part: DemoPart = FEW,
): void {
  test(name, async () => {
    const desk = await startDesk(part);
    const browser = await puppeteer.connect({ browserWSEndpoint: inject('browser') });
    const context = await browser.createBrowserContext();
    const { page, faults, log } = await openWatched(context, desk, size);
    const expected: RegExp[] = [];
    try {
      await run({ page, desk, context, expectFault: (pattern) => expected.push(pattern) });
      expect(faults.filter((fault) => !expected.some((pattern) => pattern.test(fault)))).toEqual([]);
    } catch (error) {
      keepFailure(name, await page.screenshot(), [...log, ...faults]);
      throw error;
    } finally {
      await context.close();
      await browser.disconnect();
      await desk.remove();
    }
  });
}
