import type { Page } from 'puppeteer-core';
import { expect } from 'vitest';
import { violationsInBoth } from './axe.ts';
import { arrive, clickRole, pick, seeText, until, type Desk } from './harness.ts';
import { actOn, saved } from './line.ts';
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

pageTest(
  'tasks are added, split, left out and made musts, and what that means is said',
  async ({ page, desk }) => {
    await toPlan(page, desk);
    const rowOf = async (title: string) => {
      for (const row of await page.$$('[data-task]'))
        if ((await row.$eval('textarea', (one) => one.value)) === title) return row;
      throw new Error(`no task ${title}`);
    };
    const count = (wanted: number) =>
      until(page, (n) => document.querySelectorAll('[data-task]').length === Number(n), String(wanted));
    // One of the student's own, split in two, and taken away.
    await page.type('input[aria-label="Add a task of your own"]', 'Ask at the library');
    await page.keyboard.press('Enter');
    await count(7);
    await (await (await rowOf('Ask at the library')).waitForSelector('::-p-text(More)'))?.click();
    await clickRole(page, 'button', 'Split in two');
    await count(8);
    await saved(page);
    await page.reload();
    await count(8);
    await (
      await (await rowOf('Ask at the library (second half)')).waitForSelector('::-p-text(More)')
    )?.click();
    await clickRole(page, 'button', 'Take this task away');
    await count(7);
    // Left out by hand: told so, and not chosen however much time there is.
    const [first] = await tasksIn(page, false);
    await (await (await rowOf(first)).waitForSelector('::-p-text(More)'))?.click();
    await seeText(page, '× 0.7 =');
    await seeText(page, '% of the course grade');
    await pick(page, `In the plan: ${first}`, 'left out');
    await saved(page);
    await page.reload();
    await seeText(page, 'left out by you');
    await seeText(page, 'Left out at this much time');
    // A must takes more than there is: said, with how much would do.
    await (await (await rowOf('Ask at the library')).waitForSelector('::-p-text(More)'))?.click();
    await pick(page, 'In the plan: Ask at the library', 'in any case');
    await saved(page);
    await page.focus('[role="slider"]');
    await page.keyboard.press('Home');
    await seeText(page, 'What is in any case takes 13 min, and you have 0 min.');
    // The free time until it is due, taken as the time there is.
    await seeText(page, 'Free until then: ');
    await clickRole(page, 'button', 'Take that');
    await until(page, () => !document.body.textContent.includes('What is in any case takes'));
    await seeText(page, 'The course grade would go from');
    expect(await violationsInBoth(page)).toEqual([]);
  },
);

pageTest('what does not fit before it is due is said, with when it would', async ({ page, desk }) => {
  await toPlan(page, desk);
  await clickRole(page, 'link', 'Week');
  await page.waitForSelector('[data-block]');
  const margin = await page.waitForSelector(
    '::-p-aria([name="Done so many hours before it is due"][role="textbox"])',
  );
  await margin?.click({ count: 3 });
  await page.keyboard.type('300');
  await page.keyboard.press('Enter');
  // Twelve days before it closes is past: nothing fits.
  await seeText(page, 'doesn’t fit before');
  await seeText(page, 'It would be done on Mon 2 Nov.');
  expect(await violationsInBoth(page)).toEqual([]);
  await page.goto(`${desk.address}/a/${REPORT}/plan`);
  await seeText(page, 'doesn’t fit. It would be done on');
  // Work that no other attempt is taken of claims nothing.
  await page.goto(`${desk.address}/a/dip-well-lab/plan`);
  await seeText(page, 'no other attempt');
  expect(await page.$('::-p-text(Until it is due)')).toBeNull();
});
