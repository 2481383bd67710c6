import { setTimeout as delay } from 'node:timers/promises';
import { TimeoutError, type ElementHandle, type Page, type WaitForSelectorOptions } from 'puppeteer-core';

/** How often a page is asked; puppeteer asks at every frame, which takes a third of what the page itself takes. */
const EVERY_MS = 80;

/** The page was loaded anew, or drew the part anew, while it was asked. */
const PASSING =
  /context was destroyed|Cannot find context|detached|JSHandle is disposed|not attached|does not belong to the document/i;

/** Lets a page wait for its elements by the clock instead of by its frames. */
export function waitByTheClock(page: Page): void {
  const wait = async (
    selector: string,
    { visible = false, hidden = false, timeout = 30_000 }: WaitForSelectorOptions = {},
  ): Promise<ElementHandle | null> => {
    const end = Date.now() + timeout;
    for (;;) {
      try {
        const found = await page.$(selector);
        const shown = found !== null && (!(visible || hidden) || (await found.isVisible()));
        if (hidden ? !shown : shown) return hidden ? null : found;
        await found?.dispose();
      } catch (error) {
        if (!(error instanceof Error) || !PASSING.test(error.message)) throw error;
      }
      if (Date.now() > end)
        throw new TimeoutError(`Waited ${timeout} ms for ${selector} to be ${hidden ? 'gone' : 'there'}`);
      await delay(EVERY_MS);
    }
  };
  page.waitForSelector = wait as Page['waitForSelector'];
}
