import type { ElementHandle, Page } from 'puppeteer-core';
import { describe, expect } from 'vitest';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { drop, markedBytes } from './files.ts';
import { arrive, clickRole, seeText, signIn, until, pick } from './harness.ts';
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
      await page.focus('[data-aim="crit-question"] [role="checkbox"]');
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
      await clickRole(page, 'radio', 'Levels one below another');
      await page.waitForSelector('[data-layout="list"]');
      await page.reload();
      await page.waitForSelector('[data-layout="list"]');
      await (await page.waitForSelector('[data-criterion="crit-method"] button[aria-expanded]'))?.click();
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
      // What remarks say is still being worked out: what stands below moves.
      await page.locator('[data-criterion="core-names"] [data-unexplained] button').click();
      await until(
        page,
        () =>
          document
            .querySelector('[data-criterion="core-names"] [data-unexplained]')
            ?.textContent.includes('On the ask list') === true,
      );
      // The words of some remarks fit a criterion: with one key on its slip one counts towards it.
      const suggestion = await page.waitForSelector('::-p-text(remarks hang on no criterion)');
      await suggestion?.click();
      const said = 'Good eye. You saw the moss before the peat.';
      await page.waitForSelector(`[data-state="open"] li ::-p-text(${said})`);
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
      // It is praise: it counts towards the criterion, and carries none of what was lost there.
      expect(await textOf(page, '[data-slip][aria-current="true"]')).toContain('Naming of peat and moss');
      expect(await textOf(page, '[data-slip][aria-current="true"]')).not.toContain('lost on');
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
      await pick(page, 'Level of Question', 'Sound');
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
      await page.goto(`${desk.address}/a/policy-brief/plan`);
      await seeText(page, 'What is at stake in the final');
    },
    DESK,
    ['policy-brief', 'policy-brief-draft'],
  );

  pageTest(
    'is one of several in a file, and stands with group points and a step given by hand',
    async ({ page, desk }) => {
      await arrive(page, desk);
      // The report as a paper of one's own: the school's rubric of it stays as it is.
      await page.goto(`${desk.address}/standing/new`);
      await (await page.waitForSelector('input[name="title"]'))?.type('Own course');
      await clickRole(page, 'button', 'Add a scale');
      await page.type('input[name="scales.0.title"]', 'Pass or fail');
      await page.type('textarea[name="scales.0.steps"]', 'Pass, 50, 100\nFail, 0, 0');
      await clickRole(page, 'button', 'Keep');
      await clickRole(page, 'link', 'Add an assignment');
      await (await page.waitForSelector('input[name="title"]'))?.type('Own report');
      await page.type('input[name="possible"]', '20');
      await page.type('input[name="groupName"]', 'Bench two');
      await page.type('textarea[name="members"]', 'Ines Tarrow\nMaren Holt');
      await pick(page, 'Given as', 'Pass or fail');
      await clickRole(page, 'button', 'Keep');
      await clickRole(page, 'link', 'Own report');
      await seeText(page, 'Group work: Bench two (Ines Tarrow, Maren Holt)');
      await clickRole(page, 'link', 'Put a score in');
      await page.waitForSelector('::-p-aria([name="Result"][role="combobox"])');
      await page.type('input[name="score"]', '-3');
      await clickRole(page, 'button', 'Keep');
      await seeText(page, 'That can’t be below 0.');
      await page.click('input[name="score"]', { count: 3 });
      await page.keyboard.press('Backspace');
      await pick(page, 'Result', 'Pass');
      await clickRole(page, 'button', 'Keep');
      await seeText(page, '20 of 20');
      await clickRole(page, 'link', 'Change the score');
      await (await page.waitForSelector('input[name="groupScore"]'))?.type('17');
      await clickRole(page, 'button', 'Keep');
      await seeText(page, '17 of 20');
      await page.goto(page.url().replace(/\/?$/, '/rubric'));
      await (await seeText(page, 'Paste a table or choose a file')).click();
      const level = (quality: string, description: string, score: number) => ({
        quality,
        description,
        score,
        position: score,
      });
      const rubric = (identifier: string, title: string) => ({
        identifier,
        title,
        CFRubricCriteria: [
          {
            identifier: `${identifier}-1`,
            category: 'Sources',
            CFRubricCriterionLevels: [
              level('Low', 'Some.', 2),
              level('High', 'At least 3 sources; between 10 and 90 words', 20),
            ],
          },
        ],
      });
      const folder = mkdtempSync(join(tmpdir(), 'juncture-e2e-'));
      const file = join(folder, 'two.json');
      writeFileSync(
        file,
        JSON.stringify({ CFRubrics: [rubric('a', 'First one'), rubric('b', 'Second one')] }),
      );
      const input = (await page.waitForSelector(
        'main input[type="file"]',
      )) as ElementHandle<HTMLInputElement>;
      await input.uploadFile(file);
      await seeText(page, 'There are 2 rubrics in it.');
      await clickRole(page, 'button', 'Second one');
      await until(
        page,
        () => document.querySelector<HTMLInputElement>('input[name="title"]')?.value === 'Second one',
      );
      await clickRole(page, 'button', 'Keep');
      await clickRole(page, 'button', 'Aim at this: High, Sources');
      await page.waitForSelector('[data-aim]');
      rmSync(folder, { recursive: true });
    },
    DESK,
    ['dip-well-lab'],
  );

  pageTest(
    'is pasted from a page, and what can be counted of a level is ticked by the draft',
    async ({ page, desk, expectFault }) => {
      expectFault(/401/);
      await page.goto(desk.address);
      await clickRole(page, 'button', 'Work from files alone');
      await seeText(page, 'Nothing here yet.');
      await drop(page, ['My marked paper.pdf', await markedBytes(desk)]);
      await seeText(page, '38 remarks found');
      await seeText(page, 'Start reading');
      const address = new URL(page.url()).pathname;
      await page.goto(`${desk.address}${address}/rubric`);
      await (await seeText(page, 'Paste a table or choose a file')).click();
      const table =
        '<table><tr><th>Criterion</th><th>Low (2)</th><th>High (6)</th></tr>' +
        '<tr><td>Sources</td><td>Some sources.</td><td>At least 2 sources; no more than 500 words; sources are compared.</td></tr></table>';
      await page.$eval(
        'main [data-state="open"] textarea',
        (field, html) => {
          const clipboardData = new DataTransfer();
          clipboardData.setData('text/html', html);
          clipboardData.setData('text/plain', 'as a page gives it');
          field.dispatchEvent(
            new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true }),
          );
        },
        table,
      );
      await seeText(page, '1 criterion and 2 levels were read.');
      await clickRole(page, 'button', 'Keep');
      await clickRole(page, 'button', 'Aim at this: High, Sources');
      await until(page, () => document.querySelector('[data-aim]')?.textContent.includes('0 of 3') === true);
      await page.goto(`${desk.address}${address}/revise`);
      await clickRole(page, 'button', 'Begin the new draft');
      await page.waitForSelector('[aria-label="Text of the draft"] p');
      await page.goto(`${desk.address}${address}/read?material=criteria`);
      await page.waitForSelector('[data-aim]');
      const aim = await textOf(page, '[data-aim]');
      // The report has more references than that and far more words.
      expect(aim).toMatch(/At least 2 sources \(counted: \d+ in the draft\)/);
      expect(aim).toMatch(/no more than 500 words \(not yet: 2\d{3} in the draft\)/);
      expect(aim).toContain('1 of 3');
    },
  );
});
