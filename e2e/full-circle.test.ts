import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Page } from 'puppeteer-core';
import { expect } from 'vitest';
import { violationsInBoth } from './axe.ts';
import { chooseFile, rewrittenFile } from './files.ts';
import { arrive, arriveFirst, clickRole, openStation, pick, seeText, until, type Desk } from './harness.ts';
import { saved } from './line.ts';
import { pageTest, PHONE } from './page-test.ts';

/** One remark is answered, another one's passage is written anew and says nothing of what was asked. */
const CHANGES = [
  [
    'The data were analysed statistically in a spreadsheet.',
    'The rises of the six northern and the six southern wells were compared by a rank-sum test, with 5 % as the limit.',
  ],
  [
    'It was not possible to leave a part of the bog without dams.',
    'The dams were put into every ditch of the bog, which took nine days in all.',
  ],
];

const shows = (page: Page, words: string) =>
  page.$eval('main', (main, wanted) => main.textContent.includes(wanted), words);

/** Decides to act on the remark of these words, and ticks its task. */
async function actOn(page: Page, desk: Desk, words: string): Promise<void> {
  await page.goto(`${desk.address}/a/skarn-moss-report/decide`);
  await seeText(page, 'Remark 1 of 52');
  for (let at = 2; !(await shows(page, words)); at++) {
    await page.keyboard.press('n');
    await seeText(page, `Remark ${at} of 52`);
  }
  await page.keyboard.press('a');
  await until(page, () => document.querySelector('main [aria-pressed="true"]') !== null);
  await saved(page);
}

async function sendRewritten(page: Page, desk: Desk): Promise<void> {
  const folder = await mkdtemp(join(tmpdir(), 'juncture-circle-'));
  await openStation(page, 'Revise');
  await clickRole(page, 'button', 'Begin the new draft');
  await page.waitForSelector('[data-outcome="untouched"]');
  await chooseFile(page, 'Bring in your file', await rewrittenFile(desk, folder, CHANGES));
  await seeText(page, 'is the draft now');
  await openStation(page, 'Send');
  await seeText(page, 'This will be attempt 2 of 2');
  // The notice lies over the button until it goes.
  await page.waitForSelector('[data-sonner-toast]', { hidden: true });
  await clickRole(page, 'button', 'Send to the course desk');
  await (await page.waitForSelector('[role="dialog"] button::-p-text(Send to the course desk)'))?.click();
  await seeText(page, 'Waiting to be marked');
  await rm(folder, { recursive: true });
}

pageTest(
  'a paper that is sent again comes back with what it won and what is said again',
  async ({ page, desk }) => {
    await arriveFirst(page, desk);
    await actOn(page, desk, 'Which test, on which values');
    await openStation(page, 'Plan');
    await (await page.waitForSelector('[data-task] [role="checkbox"]'))?.click();
    await seeText(page, '1 of 1 done');
    await sendRewritten(page, desk);

    // What the receipt says, as a message to whom the course names.
    await clickRole(page, 'button', 'Write about this handing-in');
    await clickRole(page, 'link', 'On the ask list');
    await until(page, () => document.body.textContent.includes('About my attempt 2 at'));
    await seeText(page, 'Hollowmere field office');
    await page.goto(`${desk.address}/a/skarn-moss-report/send`);

    desk.clock.advance(60_000);
    await seeText(page, 'Before and after');
    await page.reload();
    await seeText(page, 'Your changes were expected to win');
    await seeText(page, 'The course grade went from');
    await seeText(page, 'said again.');
    const method = await page.waitForSelector('li ::-p-text(Method)');
    expect(await method?.evaluate((element) => element.closest('li')?.textContent)).toContain('5.5 → 6.5');
    expect(await violationsInBoth(page)).toEqual([]);
    await page.$$eval('main li:has(> h3) button[aria-expanded="false"]', (folds) => {
      for (const fold of folds) (fold as HTMLElement).click();
    });
    await seeText(page, 'Said again:');
    // A row for each criterion, not a column of one word.
    await page.setViewport(PHONE);
    const widths = await page.$$eval('main li:has(> h3)', (rows) => rows.map((row) => row.clientWidth));
    expect(Math.min(...widths)).toBeGreaterThan(300);
    await page.setViewport({ width: 1280, height: 800 });
    await (await page.waitForSelector('a::-p-text(That there is no control, and why)'))?.click();

    // In Read the later remark stands with what it comes back to.
    await until(page, () => location.pathname.endsWith('/read'));
    await seeText(page, 'Said of attempt 2.');
    await seeText(page, 'Comes back to:');
    await seeText(page, 'So there is no control.');

    // Over all assignments, and what later plans take from it.
    await page.goto(`${desk.address}/did-it-work`);
    await page.waitForSelector('[role="img"] svg');
    await seeText(page, 'Came back');
    await seeText(page, 'Plans go by your own record:');
    expect(await violationsInBoth(page)).toEqual([]);
    await clickRole(page, 'button', 'Use the standard ones');
    await seeText(page, 'Plans go by the standard estimates.');
    await saved(page);
    await page.reload();
    await seeText(page, 'Plans go by the standard estimates.');
    await clickRole(page, 'button', 'Use my record');
    await seeText(page, 'Plans go by your own record:');
  },
);

pageTest(
  'in a group’s work each task has a name, and the response sheet says whose it is',
  async ({ page, desk }) => {
    await arrive(page, desk);
    await page.goto(`${desk.address}/a/falling-head-lab/decide`);
    await seeText(page, 'Remark 1 of 4');
    await page.keyboard.press('a');
    await until(page, () => document.querySelector('main [aria-pressed="true"]') !== null);
    await saved(page);
    await page.goto(`${desk.address}/a/falling-head-lab/plan`);
    await (await page.waitForSelector('[data-task] button::-p-text(More)'))?.click();
    const title = 'Leave that test out and say so; a mean of a good and a bad value is a bad value';
    await pick(page, `Who does it: ${title}`, 'Corvin Aske');
    await saved(page);
    await page.reload();
    await until(
      page,
      () => document.querySelector('[data-task]')?.textContent.includes('Corvin Aske') === true,
    );
    expect(await violationsInBoth(page)).toEqual([]);
    await page.goto(`${desk.address}/a/falling-head-lab/response`);
    await seeText(page, 'From Ines Tarrow, of Bench three (Ines Tarrow, Corvin Aske, Maren Holt).');
    await seeText(page, 'Done by Corvin Aske.');
  },
  undefined,
  ['falling-head-lab'],
);
