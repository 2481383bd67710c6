import type { Page } from 'puppeteer-core';
import { describe, expect } from 'vitest';
import { violationsInBoth } from './axe.ts';
import { clickRole, seeText, settled, signIn, until, type Desk } from './harness.ts';
import { pageTest, PHONE } from './page-test.ts';

const PLACES: readonly [string, string][] = [
  ['/', 'Came back'],
  ['/ask', 'Juncture sends nothing'],
  ['/week', 'Free hours'],
  ['/shelf', 'Save everything as a ZIP'],
  ['/settings', 'Single-letter keys'],
  ['/a/skarn-moss-report', 'What came back'],
  ['/a/skarn-moss-report/read', 'Put your student number'],
  ['/a/skarn-moss-report/read?material=criteria', 'Claims go beyond the results'],
  ['/a/skarn-moss-report/decide', 'Remark'],
  ['/a/skarn-moss-report/decide?remark=none', 'What was decided'],
  ['/a/skarn-moss-report/plan', 'To do, in this order'],
  ['/a/skarn-moss-report/revise', 'Tasks and remarks'],
  ['/a/skarn-moss-report/check', 'Not answered yet'],
  ['/a/skarn-moss-report/response', '52 remarks came back'],
  ['/a/skarn-moss-report/send', 'What goes'],
  ['/a/skarn-moss-report/take', 'A pack for a meeting'],
  ['/a/dip-well-lab/send', 'No other attempt is taken'],
  ['/a/dip-well-lab/revise', 'The items, beside your old answers'],
];

async function prepare(page: Page, desk: Desk): Promise<void> {
  await signIn(page, desk);
  await page.goto(`${desk.address}/a/skarn-moss-report/decide`);
  await seeText(page, 'Remark 1 of 52');
  for (const key of ['a', 'n', 'q', 'n', 'c', 'n', 'a'] as const) await page.keyboard.press(key);
  await seeText(page, '0 of 2 done');
  await page.goto(`${desk.address}/a/skarn-moss-report/revise`);
  await clickRole(page, 'button', 'Begin the new draft');
  await page.waitForSelector('[data-outcome="untouched"]');
}

async function visitAll(
  page: Page,
  desk: Desk,
  narrow: boolean,
  look: (path: string) => Promise<void>,
): Promise<void> {
  for (const [path, text] of PLACES) {
    // As a link in the page does; loading each place anew would take as long as looking at it.
    if (path.includes('?')) await page.goto(desk.address + path);
    else
      await page.evaluate((to) => {
        history.pushState(null, '', to);
        dispatchEvent(new PopStateEvent('popstate'));
      }, path);
    await seeText(page, path.endsWith('/read') && narrow ? 'Tap a mark' : text);
    await look(path);
  }
}

describe('every place', () => {
  pageTest('has nothing that axe objects to, in light and in dark', async ({ page, desk }) => {
    await prepare(page, desk);
    const found: string[] = [];
    await visitAll(page, desk, false, async (path) => {
      found.push(...(await violationsInBoth(page)).map((violation) => `${path} ${violation}`));
    });
    expect(found).toEqual([]);
  });

  pageTest(
    'fits a phone and a small one, without scrolling sideways, in light and in dark',
    async ({ page, desk }) => {
      await prepare(page, desk);
      const found: string[] = [];
      await visitAll(page, desk, true, async (path) => {
        found.push(...(await violationsInBoth(page)).map((violation) => `${path} ${violation}`));
        for (const width of [390, 360]) {
          await page.setViewport({ width, height: 800 });
          const wide = await page.evaluate(() => document.querySelector('main')?.scrollWidth ?? 0);
          if (wide > width) found.push(`${path} is ${wide} wide at ${width}`);
        }
        await page.setViewport(PHONE);
      });
      expect(found).toEqual([]);
    },
    PHONE,
  );

  pageTest('can be read at 200 % text size', async ({ page, desk }) => {
    await prepare(page, desk);
    await page.goto(`${desk.address}/settings`);
    await (await seeText(page, 'very large')).click();
    await until(page, () => getComputedStyle(document.documentElement).fontSize === '32px');
    const found: string[] = [];
    await visitAll(page, desk, true, async (path) => {
      const wide = await page.evaluate(() => document.querySelector('main')?.scrollWidth ?? 0);
      if (wide > 1280) found.push(`${path} is ${wide} wide`);
    });
    expect(found).toEqual([]);
    // What is read and what is said about it are in sight together, also when the page begins in this size.
    await page.goto(`${desk.address}/a/skarn-moss-report/read?material=paper`);
    await page.waitForSelector('[data-page="1"] canvas[data-drawn]');
    await page.keyboard.press('n');
    await page.waitForSelector('[data-slip][aria-current="true"]');
    await settled(page);
    const seen = await page.evaluate(() => {
      const main = document.querySelector('main')?.getBoundingClientRect();
      const slip = document.querySelector('[data-slip][aria-current="true"]');
      const mark = document.querySelector(`[data-mark="${slip?.getAttribute('data-slip') ?? ''}"]`);
      const shows = (part: Element | null, most: number) => {
        const box = part?.getBoundingClientRect();
        if (box === undefined || main === undefined) return 0;
        return (
          Math.min(box.bottom, main.bottom) - Math.max(box.top, main.top) > Math.min(box.height, most) - 1
        );
      };
      return {
        mark: shows(mark, 40),
        slip: shows(slip, 150),
        places: document.querySelector('header nav')?.checkVisibility(),
      };
    });
    expect(seen).toEqual({ mark: true, slip: true, places: false });
  });

  pageTest('the way in', async ({ page, desk, expectFault }) => {
    expectFault(/401/);
    await page.goto(desk.address);
    await seeText(page, 'Sign in at your course desk');
    expect(await violationsInBoth(page)).toEqual([]);
  });
});
