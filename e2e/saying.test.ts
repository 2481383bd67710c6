import type { Page } from 'puppeteer-core';
import { expect } from 'vitest';
import { arrive, pick, seeText, until } from './harness.ts';
import { saved } from './line.ts';
import { pageTest } from './page-test.ts';

/** What remarks are taken to say, and the points behind them. */

/** The points on the slips of a page, in their order; the one that is worked on tells its own further down. */
function sharesShown(page: Page): Promise<string[]> {
  return page.$$eval('[data-slip]:not([aria-current="true"]) header', (slips) =>
    slips.map((slip) => /(?:about|under) [\d.]+ points/.exec(slip.textContent)?.[0] ?? ''),
  );
}

pageTest(
  'points stay where they are whatever is decided, and move when it is put right what a remark says',
  async ({ page, desk }) => {
    await arrive(page, desk);
    await page.goto(`${desk.address}/a/skarn-moss-report/read?material=criteria`);
    await seeText(page, 'How the 4.00 are shared over its remarks');
    await (await seeText(page, 'How the 4.00 are shared over its remarks')).click();
    const table = () =>
      page.$$eval('table', (tables) =>
        tables.map((one) => one.textContent).filter((text) => text.includes('4.00')),
      );
    await until(page, () => document.querySelectorAll('table').length > 0);
    const before = await table();
    expect(before).toHaveLength(1);
    await page.goto(`${desk.address}/a/skarn-moss-report/read`);
    const slip = await page.waitForSelector(
      '::-p-xpath(//*[@data-slip][contains(., "A summary should end")])',
    );
    await slip?.click();
    await page.waitForSelector('[data-slip][aria-current="true"]');
    const shares = await sharesShown(page);
    expect(shares.filter((share) => share !== '').length).toBeGreaterThan(1);
    for (const key of ['k', 'd', 'a'] as const) {
      await page.keyboard.press(key);
      await saved(page);
      expect(await sharesShown(page)).toEqual(shares);
    }
    // Praise carries nothing: what it carried goes to the others, and comes back when that is undone.
    const criterion = async () => {
      await page.goto(`${desk.address}/a/skarn-moss-report/read?material=criteria`);
      await (await seeText(page, 'How the 4.00 are shared over its remarks')).click();
      await until(page, () => document.querySelectorAll('table').length > 0);
      return table();
    };
    expect(await criterion()).toEqual(before);
    await page.goBack();
    await (
      await page.waitForSelector('::-p-xpath(//*[@data-slip][contains(., "A summary should end")])')
    )?.click();
    await pick(page, 'What it says', 'praise');
    await saved(page);
    expect(await criterion()).not.toEqual(before);
    await page.keyboard.down('Control');
    await page.keyboard.press('z');
    await page.keyboard.up('Control');
    await seeText(page, 'Undone: ');
    expect(await criterion()).toEqual(before);
  },
);

pageTest(
  'a remark that says several things shows them apart, and is one thing once that is put right',
  async ({ page, desk }) => {
    await arrive(page, desk);
    await page.goto(`${desk.address}/a/skarn-moss-report/read?material=overall`);
    await page.waitForSelector('[data-slip] [data-says]');
    const said = () =>
      page.$$eval('[data-slip] [data-says]', (parts) =>
        parts.map((part) => [part.getAttribute('data-says'), part.textContent.trim()]),
      );
    const parts = await said();
    expect(new Set(parts.map(([stance]) => stance)).size).toBeGreaterThan(1);
    const slip = await page.waitForSelector('[data-slip]');
    expect(await slip?.evaluate((one) => one.textContent)).toContain(`${parts.length} things in it`);
    await slip?.click();
    await pick(page, 'What it says', 'must-fix');
    await until(page, () => document.querySelector('[data-slip] [data-says]') === null);
    await page.reload();
    await page.waitForSelector('[data-slip]');
    await seeText(page, 'must-fix');
    expect(await said()).toEqual([]);
  },
);
