import type { ElementHandle, Page } from 'puppeteer-core';
import { describe, expect } from 'vitest';
import { join } from 'node:path';
import { arrive, clickRole, seeText, signIn, until } from './harness.ts';
import { pageTest, PHONE } from './page-test.ts';

const DESK = { width: 1280, height: 800 };
async function textOf(page: Page, selector: string): Promise<string> {
  const found = await page.waitForSelector(selector);
  return (await found?.evaluate((element) => (element as HTMLElement).innerText.trim())) ?? '';
}

describe('The rubric', () => {
  pageTest(
    'makes a list of the level that is aimed at: ticked by hand, kept, and undone',
    async ({ page, desk }) => {
      await signIn(page, desk);
      await page.goto(`${desk.address}/a/skarn-moss-report/read?material=criteria`);
      await seeText(page, 'One question is stated that the study can answer');
      // What the next level has beyond the one reached is marked word by word.
      const more = await page.$$eval('[data-criterion="crit-question"] ins', (all) =>
        all.map((one) => one.textContent).join(' '),
      );
      expect(more).toContain('place, period and comparison');
      expect(more).not.toContain('One question');
      await clickRole(page, 'button', 'Aim at this: Excellent, Question and aim');
      await page.waitForSelector('[data-aim="crit-question"]');
      expect(await textOf(page, '[data-aim="crit-question"]')).toContain('0 of 1');
      await page.focus('[data-aim="crit-question"] input');
      await page.keyboard.press('Space');
      await until(
        page,
        () => document.querySelector('[data-aim="crit-question"]')?.textContent.includes('1 of 1') === true,
      );
      await page.reload();
      await until(
        page,
        () => document.querySelector('[data-aim="crit-question"]')?.textContent.includes('1 of 1') === true,
      );
      await page.keyboard.down('Control');
      await page.keyboard.press('z');
      await page.keyboard.up('Control');
      await until(
        page,
        () => document.querySelector('[data-aim="crit-question"]')?.textContent.includes('0 of 1') === true,
      );
      await clickRole(page, 'button', 'Aim no more: Excellent, Question and aim');
      await until(page, () => document.querySelector('[data-aim]') === null);
    },
  );

  pageTest(
    'stands as a grid or as a list, a list where it is narrow, and stays as chosen',
    async ({ page, desk }) => {
      await arrive(page, desk);
      await page.goto(`${desk.address}/a/skarn-moss-report/read?material=criteria`);
      await page.waitForSelector('[data-layout="grid"]');
      await page.setViewport(PHONE);
      await page.waitForSelector('[data-layout="list"]');
      await page.setViewport(DESK);
      await page.waitForSelector('[data-layout="grid"]');
      await clickRole(page, 'button', 'As a list');
      await page.waitForSelector('[data-layout="list"]');
      await page.reload();
      await page.waitForSelector('[data-layout="list"]');
      await (await page.waitForSelector('[data-criterion="crit-method"] summary'))?.click();
      await seeText(page, 'so that another could do it again and get the same');
    },
  );

  pageTest(
    'says where criteria don’t make the score, where points are unexplained, and suggests links',
    async ({ page, desk }) => {
      await arrive(page, desk);
      await page.goto(`${desk.address}/a/core-log/read?material=criteria`);
      await page.waitForSelector('[data-adds-up]');
      expect(await textOf(page, '[data-adds-up]')).toContain(
        'The criteria make 13, the score is 13.5: 0.5 more.',
      );
      expect(await textOf(page, '[data-criterion="core-names"] [data-unexplained]')).toContain(
        '1.00 lost, and no remark says why.',
      );
      await (await page.waitForSelector('[data-criterion="core-names"] [data-unexplained] button'))?.click();
      await until(
        page,
        () =>
          document
            .querySelector('[data-criterion="core-names"] [data-unexplained]')
            ?.textContent.includes('On the ask list') === true,
      );
      // One remark's words fit a criterion: with one key on its slip it counts towards it.
      const suggestion = await page.waitForSelector('::-p-text(One remark hangs on no criterion)');
      await suggestion?.click();
      const said = await textOf(page, 'details[open] li .line-clamp-2');
      await page.goto(`${desk.address}/a/core-log/read`);
      const slip = await page.waitForSelector(
        `::-p-xpath(//*[@data-slip][contains(., "${said.slice(0, 30)}")])`,
      );
      await slip?.click();
      await page.waitForSelector('[data-slip][aria-current="true"] button ::-p-text(Yes \\(l\\))');
      await page.keyboard.press('l');
      await until(page, () => {
        const current = document.querySelector('[data-slip][aria-current="true"]');
        return current !== null && current.querySelector('header a') !== null;
      });
      await page.reload();
      await page.waitForSelector('[data-slip][aria-current="true"] header a');
      expect(await textOf(page, '[data-slip][aria-current="true"]')).toContain('lost on');
    },
    DESK,
    ['core-log'],
  );

  pageTest(
    'is put in from a document of another program, with what is odd in it said, then scored by hand',
    async ({ page, desk }) => {
      await arrive(page, desk);
      await page.goto(`${desk.address}/a/stand-survey/read?material=criteria`);
      await clickRole(page, 'link', 'Put a rubric in');
      await (await seeText(page, 'Paste a table or choose a file')).click();
      const input = (await page.waitForSelector(
        'main input[type="file"]',
      )) as ElementHandle<HTMLInputElement>;
      await input.uploadFile(join(process.cwd(), 'formats/samples/spoken.vtt'));
      await seeText(page, 'There is no table of criteria in “spoken.vtt”.');
      await input.uploadFile(join(process.cwd(), 'formats/samples/rubric.docx'));
      await seeText(page, '4 criteria and 3 levels were read.');
      await seeText(page, '“Figures”, Starting spans several cells');
      await seeText(page, '“Method”, Starting has no points.');
      await page.click('input[name="criteria.1.levels.0.points"]');
      await page.keyboard.type('2,5');
      // What was put right so far is there again after a reload.
      await page.reload();
      await seeText(page, 'What you had typed here is back.');
      const kept = await page.$eval('input[name="criteria.1.levels.0.points"]', (field) => field.value);
      expect(kept).toBe('2,5');
      await clickRole(page, 'button', 'Remove “Style”');
      await clickRole(page, 'button', 'Keep');
      await seeText(page, 'You put this rubric in.');
      await seeText(page, 'The rubric has 19 points, the assignment 25');
      await clickRole(page, 'link', 'Put a score in');
      await (await page.waitForSelector('input[name="score"]'))?.click();
      await page.keyboard.type('20');
      await page.select('select[name="criteria.0.level"]', 'Sound');
      await page.click('input[name="criteria.0.points"]');
      await page.keyboard.type('3.5');
      await page.click('textarea[name="criteria.0.comment"]');
      await page.keyboard.type('Ask one thing.');
      await clickRole(page, 'button', 'Keep');
      await seeText(page, '20 of 25');
      await page.goto(`${desk.address}/a/stand-survey/read?material=criteria`);
      await until(page, () => document.body.textContent.includes('Ask one thing.'));
      // 3.5 of 6, scaled from 19 to 25 points.
      expect(await textOf(page, '[data-criterion] [data-points]')).toContain('4.61 of 7.89 · 3.29 lost');
      await clickRole(page, 'link', 'Edit the rubric');
      await page.waitForSelector('input[name="criteria.2.title"]');
      await clickRole(page, 'button', 'Remove this rubric');
      await seeText(page, 'This assignment has no rubric.');
    },
    DESK,
    ['stand-survey'],
  );

  pageTest(
    'shows on a draft what is at stake in the final, and what each level asks before anything is handed in',
    async ({ page, desk }) => {
      await arrive(page, desk);
      await page.goto(`${desk.address}/a/policy-brief/read?material=criteria`);
      await seeText(page, 'Not marked yet. This is what each level asks.');
      await page.goto(`${desk.address}/a/policy-brief-draft/read?material=criteria`);
      await seeText(page, 'at stake in the final');
      await page.goto(`${desk.address}/a/policy-brief-draft/plan`);
      await seeText(page, 'What is at stake in the final');
    },
    DESK,
    ['policy-brief', 'policy-brief-draft'],
  );
});
