import type { Page } from 'puppeteer-core';
import { expect } from 'vitest';
import { violationsInBoth } from './axe.ts';
import { arrive, seeText, until, type Desk } from './harness.ts';
import { actOn } from './line.ts';
import { pageTest, PHONE } from './page-test.ts';

/** The time there is, and what it buys. */

const REPORT = 'skarn-moss-report';

async function toPlan(page: Page, desk: Desk): Promise<void> {
  await arrive(page, desk);
  await page.goto(`${desk.address}/a/${REPORT}/decide`);
  await actOn(page, 6);
  await page.goto(`${desk.address}/a/${REPORT}/plan`);
  await seeText(page, 'Time you have');
  await seeText(page, 'It buys about +');
}

/** The tasks under a heading, by what they are called. */
const tasksIn = (page: Page, isLeft: boolean) =>
  page.$$eval(
    '[data-task]',
    (rows, left) =>
      rows
        .filter((row) => row.textContent.includes('more than is left') === left)
        .map((row) => row.querySelector('textarea')?.value ?? ''),
    isLeft,
  );

pageTest(
  'the best tasks for the minutes there are stand in the plan as the minutes are moved, and after a reload',
  async ({ page, desk }) => {
    await toPlan(page, desk);
    const all = await tasksIn(page, false);
    expect(all).toHaveLength(6);
    await seeText(page, 'More time would add nothing.');
    // By keys alone: from no time at all upwards.
    await page.focus('[role="slider"]');
    await page.keyboard.press('Home');
    await seeText(page, 'Left out at this much time');
    await until(page, () => document.body.textContent.includes('It buys about +0.00 points.'));
    expect(await tasksIn(page, true)).toHaveLength(6);
    for (let n = 0; n < 4; n++) await page.keyboard.press('ArrowRight');
    await page.waitForSelector('[role="slider"][aria-valuetext="20 min"]');
    await until(page, () => !document.body.textContent.includes('It buys about +0.00 points.'));
    const inPlan = await tasksIn(page, false);
    const left = await tasksIn(page, true);
    expect(inPlan.length).toBeGreaterThan(0);
    expect([...inPlan, ...left].toSorted()).toEqual(all.toSorted());
    await page.waitForSelector('[role="img"][aria-label^="What each amount of time gains"] svg');
    expect(await violationsInBoth(page)).toEqual([]);
    await page.reload();
    await page.waitForSelector('[role="slider"][aria-valuetext="20 min"]');
    await seeText(page, 'Left out at this much time');
    expect(await tasksIn(page, false)).toEqual(inPlan);
    await page.focus('[role="slider"]');
    await page.keyboard.press('End');
    await until(page, () => !document.body.textContent.includes('Left out at this much time'));
    // On a phone the same.
    await page.setViewport(PHONE);
    await seeText(page, 'Time you have');
    expect(await page.evaluate(() => document.querySelector('main')?.scrollWidth)).toBeLessThanOrEqual(390);
  },
  undefined,
  [REPORT],
);
