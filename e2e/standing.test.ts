import { strToU8, zipSync } from 'fflate';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { ElementHandle, Page } from 'puppeteer-core';
import { describe, expect } from 'vitest';
import { arrive, clickRole, REPORT, seeText, signIn, until, type Desk, pick } from './harness.ts';
import { pageTest, PHONE } from './page-test.ts';

const DESK = { width: 1280, height: 800 };
/** Bog Hydrology alone: the others’ files need not come in. */
const MIRE_210 = ['skarn-moss-report', 'dip-well-lab', 'falling-head-lab', 'quiz-flow', 'monitoring-plan'];

async function textOf(page: Page, selector: string): Promise<string> {
  const found = await page.waitForSelector(selector);
  return (await found?.evaluate((element) => (element as HTMLElement).innerText.trim())) ?? '';
}

async function fill(page: Page, label: string, text: string): Promise<void> {
  const field = await page.waitForSelector(`::-p-aria([name="${label}"])`, { visible: true });
  await field?.evaluate((element) => element.scrollIntoView({ block: 'center' }));
  await field?.click({ count: 3 });
  await page.keyboard.type(text);
}

/** Pastes into the field in focus, as from a page or a spreadsheet. */
async function paste(page: Page, label: string, html: string, text: string): Promise<void> {
  const field = await page.waitForSelector(`::-p-aria([name="${label}"][role="textbox"])`, { visible: true });
  await field?.evaluate(
    (element, [asHtml, asText]) => {
      const data = new DataTransfer();
      if (asHtml !== '') data.setData('text/html', asHtml);
      data.setData('text/plain', asText);
      element.dispatchEvent(
        new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }),
      );
    },
    [html, text] as const,
  );
}

async function withFile<T>(
  name: string,
  bytes: Uint8Array | string,
  use: (path: string) => Promise<T>,
): Promise<T> {
  const folder = mkdtempSync(join(tmpdir(), 'juncture-e2e-'));
  const path = join(folder, name);
  writeFileSync(path, bytes);
  try {
    return await use(path);
  } finally {
    rmSync(folder, { recursive: true });
  }
}

async function upload(page: Page, paths: string[]): Promise<void> {
  const input = (await page.waitForSelector('main input[type="file"]')) as ElementHandle<HTMLInputElement>;
  await input.uploadFile(...paths);
}

const open = (page: Page, desk: Desk, path: string) => page.goto(desk.address + path);

describe('Standing', () => {
  pageTest(
    'tells the grade, what makes it up, and how each figure came about',
    async ({ page, desk }) => {
      await arrive(page, desk);
      await clickRole(page, 'link', 'Standing');
      await seeText(page, 'Bog Hydrology');
      expect(await textOf(page, '[data-grade]')).toBe('73.3 % · C');
      // The parts that are shown make the figure that is shown.
      const brings = await page.$$eval('[data-made] tbody tr td:last-child', (cells) =>
        cells.map((cell) => Math.round(Number(cell.textContent) * 10)),
      );
      expect(brings.slice(0, -1).reduce((x, y) => x + y, 0)).toBe(brings.at(-1));
      await clickRole(page, 'button', 'How Lab: falling-head tests is made');
      await seeText(page, 'given 17, 1 started day late: 2 off, leaves 15.');
      await seeText(page, 'Group work: Bench three (Ines Tarrow, Corvin Aske, Maren Holt).');
      await seeText(page, 'Own points 17; the group has 18.');
      await seeText(page, 'It is 10 of the course grade’s hundred and brings 7.5.');
      // By keyboard alone it closes again.
      await page.keyboard.press('Enter');
      await until(page, () => document.querySelector('[data-arithmetic]') === null);
      await clickRole(page, 'link', 'MIRE 225');
      await seeText(page, 'Mosses and Sedges');
      await clickRole(page, 'button', 'How Quiz: telling sphagna apart is made');
      await seeText(page, 'The attempts are averaged.');
      await clickRole(page, 'button', 'How Drawn log of core SM-2 is made');
      await seeText(page, 'A later attempt brings back 50 % of what the first one lost.');
      await clickRole(page, 'link', 'MIRE 240');
      await seeText(page, 'drops the lowest');
      await seeText(page, 'dropped');
      await clickRole(page, 'button', 'How Field day: walking the bounds is made');
      await seeText(page, '“Complete” counts 100 %.');
      await clickRole(page, 'link', 'MIRE 225');
      await seeText(page, 'if it counts 0, the course stands at');
      await clickRole(page, 'link', 'MIRE 110');
      await seeText(page, 'Reading Landscapes');
      await clickRole(page, 'button', 'How What a hedge remembers: an essay is made');
      await seeText(page, '“B+” counts 84 %.');
    },
    DESK,
    'whole',
  );

  pageTest(
    'reckons with an “if” score, explains it, keeps it over a reload, and clears it with one key',
    async ({ page, desk }) => {
      await arrive(page, desk);
      await open(page, desk, '/standing/mire-210');
      await seeText(page, 'Bog Hydrology');
      await fill(page, `If “${REPORT}” had`, '39');
      // Capped at 85 % of 40: that is what one more attempt would count.
      await seeText(page, 'would count 34');
      expect(await textOf(page, '[data-if-grade]')).toBe('85.4 % · B+');
      expect(await textOf(page, '[data-grade]')).toBe('78.5 % · B');
      await until(page, (text) => document.body.textContent.includes(text), 'Saved');
      await page.reload();
      await page.waitForSelector('[data-if-grade]');
      await fill(page, 'If “A plan for ten years of readings” had', 'x');
      await seeText(page, 'Type points, such as 31.5');
      await fill(page, 'If “A plan for ten years of readings” had', '44');
      await seeText(page, 'That is more than the 40 points there are. It is reckoned all the same.');
      await seeText(page, 'With 2 “if” scores');
      await page.focus('h1, [data-made]').catch(() => undefined);
      await page.evaluate(() => (document.activeElement as HTMLElement).blur());
      await page.keyboard.press('x');
      await until(page, () => document.querySelector('[data-if-grade]') === null);
      // What was cleared can be had back.
      await page.keyboard.down('Control');
      await page.keyboard.press('z');
      await page.keyboard.up('Control');
      await page.waitForSelector('[data-if-grade]');
    },
    DESK,
    MIRE_210,
  );

  pageTest(
    'says what the rest would have to be, and it is the inverse of “if”',
    async ({ page, desk }) => {
      await arrive(page, desk);
      await open(page, desk, '/standing/mire-210');
      await seeText(page, 'the rest would have to average 77.1 %');
      await fill(page, 'To reach % in the course', '84');
      await seeText(page, 'the rest would have to average 93.1 %');
      // 93.1 % of 40 reaches it, 0.1 points less does not.
      await fill(page, 'If “A plan for ten years of readings” had', '37.24');
      await until(
        page,
        () => document.querySelector('[data-if-grade]')?.textContent.startsWith('84 %') === true,
      );
      await fill(page, 'If “A plan for ten years of readings” had', '37.1');
      await until(
        page,
        () => document.querySelector('[data-if-grade]')?.textContent.startsWith('83.9 %') === true,
      );
      await page.keyboard.press('Tab');
      await clickRole(page, 'button', 'Clear the “if” of “A plan for ten years of readings”');
      await fill(page, 'To reach % in the course', '99');
      await seeText(page, 'more than full points. With full points the course comes to 85.7 %.');
      await fill(page, 'To reach % in the course', 'high');
      await seeText(page, 'Type a percentage, such as 80.');
    },
    DESK,
    MIRE_210,
  );

  pageTest(
    'leads from a lost point to its remarks and back, and a list beside the chart says the same',
    async ({ page, desk }) => {
      await signIn(page, desk);
      await open(page, desk, '/standing/mire-210');
      await page.waitForSelector('[role="img"] svg');
      const label = await page.$eval(
        '[role="img"][aria-label^="Missing points"]',
        (chart) => chart.ariaLabel ?? '',
      );
      const rows = await page.$$eval('aside section:last-of-type tbody tr', (all) =>
        all.slice(0, -1).map((row) => {
          const title = row.querySelector('th')?.childNodes[0]?.textContent ?? '';
          return `${title} ${row.querySelector('td')?.textContent ?? ''}`;
        }),
      );
      expect(label.endsWith(rows.join(', '))).toBe(true);
      const method = await page.waitForSelector('::-p-xpath(//tr[th[starts-with(., "Method")]]//a)');
      await method?.click();
      await page.waitForSelector('[data-criterion="crit-method"] [data-state="open"]');
      expect(await textOf(page, '[data-criterion="crit-method"] [data-points]')).toContain(
        '5.5 of 8 · 2.5 lost · 1 to “Sound”',
      );
      await (await seeText(page, 'So there is no control.')).click();
      await page.waitForSelector('[data-slip][aria-current="true"]');
      expect(await textOf(page, '[data-slip][aria-current="true"]')).toContain('of the 2.50 lost on Method');
      const share = await page.waitForSelector(
        '[data-slip][aria-current="true"] button[aria-expanded] ::-p-text(lost on Method)',
      );
      await share?.click();
      await seeText(page, 'Shared by what each asks');
      const shares = await page.$$eval('[data-slip][aria-current="true"] table tr td:last-child', (cells) =>
        cells.map((cell) => Math.round(Number(cell.textContent) * 100)),
      );
      expect(shares.slice(0, -1).reduce((x, y) => x + y, 0)).toBe(shares.at(-1));
      await page.$eval('[data-slip][aria-current="true"] header a', (link) => (link as HTMLElement).click());
      await page.waitForSelector('[data-criterion="crit-method"] [data-state="open"]');
      await page.goBack();
      await page.waitForSelector('[data-slip][aria-current="true"]');
    },
  );

  pageTest(
    'takes a course typed in from nothing, with errors at the field and nothing lost',
    async ({ page, desk }) => {
      await arrive(page, desk);
      await open(page, desk, '/standing');
      await clickRole(page, 'link', 'New course');
      await seeText(page, 'A course of your own');
      await clickRole(page, 'button', 'Keep');
      await seeText(page, 'Give the course a title.');
      await fill(page, 'Title', 'Peat and People');
      await pick(page, 'The grade is made of', 'categories by weight');
      for (const [i, [name, weight]] of [
        ['Essays', '60'],
        ['Talks', '30'],
      ].entries()) {
        await clickRole(page, 'button', 'Add a category');
        const names = await page.$$('input[name$=".title"]');
        await names[i].type(name);
        const weights = await page.$$('input[name$=".weight"]');
        await weights[i].type(i === 1 ? 'x' : weight);
      }
      await clickRole(page, 'button', 'Keep');
      await seeText(page, 'That is not a number.');
      // The page goes away in the middle: what was typed is there again.
      await page.reload();
      await seeText(page, 'What you had typed here is back.');
      expect(await page.$eval('input[name="title"]', (field) => field.value)).toBe('Peat and People');
      await page.click('input[name="categories.1.weight"]', { count: 3 });
      await page.keyboard.type('30');
      await seeText(page, 'The weights make 90, not 100.');
      await pick(page, 'Of several attempts', 'a later one lifts up to a cap');
      await fill(page, 'Cap, in %', '90');
      await clickRole(page, 'button', 'Add a scale');
      await fill(page, 'Name of the scale', 'Pass or fail');
      await fill(page, 'Steps', 'Pass, 50');
      await page.keyboard.type(', high');
      await clickRole(page, 'button', 'Keep');
      await seeText(page, 'Line 1 can’t be read.');
      await page.click('textarea[name="scales.0.steps"]', { count: 3 });
      await page.keyboard.type('Pass, 50, 100');
      await clickRole(page, 'button', 'Keep');
      await seeText(page, 'Nothing stands in this course yet.');

      await clickRole(page, 'link', 'Add an assignment');
      await fill(page, 'Title', 'Essay on dams');
      await pick(page, 'Category', 'Essays');
      await fill(page, 'Points possible', '20');
      await clickRole(page, 'button', 'Keep');
      await seeText(page, 'Nothing that counts is marked yet.');
      await clickRole(page, 'button', 'How Essay on dams is made');
      await clickRole(page, 'link', 'Put a score in');
      await fill(page, 'Your points', '21,5');
      await seeText(page, 'More than the 20 possible. It is used as it is.');
      await page.click('input[name="score"]', { count: 3 });
      await page.keyboard.type('15,5');
      await fill(page, 'Overall words', 'Say who dug the drains.');
      await clickRole(page, 'button', 'Keep');
      await seeText(page, '15.5 of 20');
      // The last thing put in can be taken back, and had again.
      await page.keyboard.down('Control');
      await page.keyboard.press('z');
      await page.keyboard.up('Control');
      await until(page, () => !document.body.textContent.includes('15.5 of 20'));
      await clickRole(page, 'link', 'Put a score in');
      await fill(page, 'Your points', '15,5');
      await fill(page, 'Overall words', 'Say who dug the drains.');
      await clickRole(page, 'button', 'Keep');
      await seeText(page, '15.5 of 20');
      await clickRole(page, 'link', 'Standing');
      await clickRole(page, 'link', 'Peat and People');
      await until(page, () => document.querySelector('[data-grade]')?.textContent === '77.5 %');
      await seeText(page, '60 of 90 weight has something marked');
      await page.reload();
      await until(page, () => document.querySelector('[data-grade]')?.textContent === '77.5 %');
      // Its overall words are a remark like others, and known already.
      await clickRole(page, 'link', 'Essay on dams');
      await seeText(page, '1 read');
    },
    DESK,
    ['dip-well-lab'],
  );

  pageTest(
    'takes scores from a CSV with columns to match, and from OneRoster files',
    async ({ page, desk }) => {
      await arrive(page, desk);
      await open(page, desk, '/standing/take-in');
      await paste(
        page,
        'Or paste a table here',
        '',
        'Was;Gruppe;Erreicht;Von\nEssay;Texte;15,5;20\nTalk;Reden;abc4;10\nTest;Reden;7;10\n',
      );
      await seeText(page, 'What each column is');
      await pick(page, 'Column “Gruppe”', 'category');
      await pick(page, 'Column “Erreicht”', 'score');
      await pick(page, 'Column “Von”', 'points possible');
      await seeText(page, '3 assignments, 2 with a score.');
      await seeText(page, 'row 3, Erreicht: “abc4” is no number and is left out.');
      await fill(page, 'Title of the course', 'Words on Peat');
      await clickRole(page, 'button', 'Take 3 assignments in');
      await seeText(page, 'Words on Peat');
      await until(page, () => document.querySelector('[data-grade]')?.textContent === '75 %');
      // The same again changes what is there, and doubles nothing.
      await open(page, desk, '/standing/take-in');
      await paste(
        page,
        'Or paste a table here',
        '',
        'Assignment\tScore\tPossible\nEssay\t20\t20\nTalk\t8\t10\n',
      );
      await pick(page, 'Into', 'Words on Peat');
      await clickRole(page, 'button', 'Take 2 assignments in');
      await until(page, () => document.querySelector('[data-grade]')?.textContent === '87.5 %');
      expect((await page.$$('[data-row]')).length).toBe(3);

      await open(page, desk, '/standing/take-in');
      await withFile('letter.csv', 'Dear Ines,\n', async (path) => {
        await upload(page, [path]);
        await seeText(page, 'There are no assignments or scores in “letter.csv”.');
      });
      const files = {
        'classes.csv':
          'sourcedId,status,title,classCode,classType,termSourcedIds\nc1,active,Mire Chemistry,CHEM 1,scheduled,t\n',
        'lineItems.csv':
          'sourcedId,status,title,dueDate,classSourcedId,categorySourcedId,resultValueMin,resultValueMax\nl1,active,Titration,2026-10-07T17:00:00Z,c1,,0,20\n',
        'results.csv':
          'sourcedId,status,lineItemSourcedId,studentSourcedId,scoreStatus,score,scoreDate,comment\nr1,active,l1,one,fully graded,17,2026-10-12,Mind units.\nr2,active,l1,two,fully graded,9,2026-10-12,\n',
      };
      const zip = zipSync(
        Object.fromEntries(Object.entries(files).map(([name, text]) => [name, strToU8(text)])),
      );
      await withFile('roster.zip', zip, async (path) => {
        await upload(page, [path]);
        await pick(page, 'Whose results', 'two');
        await seeText(page, '9 / 20');
        await pick(page, 'Whose results', 'one');
        await seeText(page, '17 / 20');
        await clickRole(page, 'button', 'Take 1 assignment in');
      });
      await until(page, () => document.querySelector('[data-grade]')?.textContent === '85 %');
      await clickRole(page, 'link', 'Titration');
      await seeText(page, '1 not read');
    },
    DESK,
    ['dip-well-lab'],
  );

  pageTest(
    'is as usable on a phone',
    async ({ page, desk }) => {
      await arrive(page, desk);
      await open(page, desk, '/standing/mire-210');
      await seeText(page, 'What would the rest have to be?');
      await fill(page, `If “${REPORT}” had`, '39');
      await seeText(page, 'would count 34');
      await (await page.waitForSelector(`::-p-aria([name="How ${REPORT} is made"])`))?.tap();
      await seeText(page, 'given 28.5');
      expect(await page.evaluate(() => document.querySelector('main')?.scrollWidth)).toBe(390);
      // Only what is in the frame scrolls, never the frame.
      expect(await page.evaluate(() => document.documentElement.scrollHeight - window.innerHeight)).toBe(0);
    },
    PHONE,
  );
});
