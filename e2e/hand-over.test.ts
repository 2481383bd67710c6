import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Page } from 'puppeteer-core';
import { afterAll, beforeAll, expect } from 'vitest';
import { saveBy } from './downloads.ts';
import { chooseFile } from './files.ts';
import { clickRole, openWatched, seeText, signIn, until, type Desk } from './harness.ts';
import { pageTest, PHONE } from './page-test.ts';

let folder = '';
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'juncture-bags-'));
});
afterAll(() => rm(folder, { recursive: true, force: true }));

const DECIDE = '/a/skarn-moss-report/decide';

/** Everything of a page's workspace as a file. */
async function everything(page: Page, desk: Desk, name: string): Promise<string> {
  await page.goto(`${desk.address}/shelf`);
  const { bytes } = await saveBy(page, () => clickRole(page, 'button', 'Save everything as a ZIP'));
  const path = join(folder, name);
  await writeFile(path, bytes);
  return path;
}

async function joinWith(page: Page, desk: Desk, path: string): Promise<void> {
  await page.goto(`${desk.address}/shelf`);
  await seeText(page, 'Keep it safe');
  await chooseFile(page, 'Read a ZIP in', path);
  await clickRole(page, 'button', 'Join with what is here');
  await seeText(page, 'Both are one now.');
}

/** Decides about the first remark that nothing is decided about. */
async function decide(page: Page, desk: Desk, key: 'a' | 'k', left: string): Promise<void> {
  await page.goto(desk.address + DECIDE);
  await seeText(page, 'of 52');
  await page.keyboard.press(key);
  await seeText(page, left);
}

pageTest('what was decided on the laptop goes to the phone and back', async ({ page, desk, context }) => {
  await signIn(page, desk);
  await decide(page, desk, 'a', '51 remarks left to decide');
  const laptop = await everything(page, desk, 'laptop.zip');
  const other = await context.browser().createBrowserContext();
  try {
    const phone = await openWatched(other, desk, PHONE);
    await signIn(phone.page, desk);
    await joinWith(phone.page, desk, laptop);
    await phone.page.goto(desk.address + DECIDE);
    await seeText(phone.page, '51 remarks left to decide');
    await decide(phone.page, desk, 'k', '50 remarks left to decide');
    const back = await everything(phone.page, desk, 'phone.zip');
    await joinWith(page, desk, back);
    await page.goto(desk.address + DECIDE);
    await seeText(page, '50 remarks left to decide');
    // Joined a second time, nothing is missing.
    await page.goto(`${desk.address}/shelf`);
    await chooseFile(page, 'Read a ZIP in', back);
    await seeText(page, 'Nothing in it is missing here.');
    expect(phone.faults).toEqual([]);
  } finally {
    await other.close();
  }
});

pageTest('one assignment is given away, and looked at beside the own', async ({ page, desk, context }) => {
  await signIn(page, desk);
  await decide(page, desk, 'a', '51 remarks left to decide');
  await page.goto(`${desk.address}/a/skarn-moss-report/take`);
  await seeText(page, 'For somebody with Juncture');
  const { bytes, name } = await saveBy(page, () =>
    clickRole(page, 'button', 'Save this assignment as a ZIP'),
  );
  expect(name).toContain('Rewetting Skarn Moss');
  const path = join(folder, 'given.zip');
  await writeFile(path, bytes);
  const other = await context.browser().createBrowserContext();
  try {
    const friend = await openWatched(other, desk);
    await friend.page.goto(`${desk.address}/shelf`);
    await clickRole(friend.page, 'button', 'Work from files alone');
    await seeText(friend.page, 'Keep it safe');
    await chooseFile(friend.page, 'Read a ZIP in', path);
    await clickRole(friend.page, 'button', 'Only look at it');
    await seeText(friend.page, 'You are looking at what Ines Tarrow gave you.');
    await friend.page.waitForFunction(() => location.pathname === '/a/skarn-moss-report');
    await (
      await friend.page.waitForSelector('nav[aria-label="The line of this assignment"] ::-p-text(Decide)')
    )?.click();
    await seeText(friend.page, '51 remarks left to decide');
    await friend.page.keyboard.press('n');
    await friend.page.keyboard.press('a');
    await clickRole(friend.page, 'button', 'Back to your own');
    await seeText(friend.page, 'Keep it safe');
    await until(friend.page, () => document.body.textContent.includes('No files yet.'));
    expect(friend.faults.filter((fault) => !fault.includes('401'))).toEqual([]);
  } finally {
    await other.close();
  }
});
